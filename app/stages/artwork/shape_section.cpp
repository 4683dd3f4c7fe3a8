#include <QPushButton>
#include <QToolTip>

#include "bench/hands/all.hpp"
#include "problem.hpp"
#include "stages/artwork/artwork_sections.hpp"

namespace doyen {

ShapeSection::ShapeSection(Workshop& shop) : ArtworkSection(shop) {
  shape_w_ = new LengthField(range_of("pieces[].shape.width"));
  shape_h_ = new LengthField(range_of("pieces[].shape.height"));
  corner_ = new LengthField(range_of("pieces[].shape.cornerRadius"));
  corner_form_ = new QComboBox;
  corner_form_->addItems({tr("round"), tr("scooped"), tr("clipped"), tr("stepped and round")});
  band_ = new LengthField(range_of("pieces[].shape.band"), true);
  band_->setToolTip(tr("Empty fills the shape; a length makes it a frame of that width"));
  points_ = spin(range_of("pieces[].shape.points"));
  inner_ = spin(5, 98, tr(" % of the outer"));
  rise_ = new LengthField(range_of("pieces[].shape.rise"));
  shape_w_->setObjectName(QStringLiteral("shapeWidth"));
  counted_ = new QComboBox;
  counted_->setObjectName(QStringLiteral("counted"));
  counted_->setToolTip(
      tr("Shares of another piece's height: a layout stated in proportions follows its one dimension"));
  column_->addWidget(make_row(tr("Sizes given as"), counted_));
  // Either as lengths, or, row for row, as shares of the other piece's height.
  lengths_ = new QWidget;
  share_rows_ = new QWidget;
  for (QWidget* holder : {lengths_, share_rows_}) {
    auto* rows = new QVBoxLayout(holder);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(7);
    column_->addWidget(holder);
  }
  const QString names[] = {tr("Width"),      tr("Height"),    tr("Corner size"), tr("Arch rises"),
                           tr("Line width"), tr("From left"), tr("From front")};
  LengthField* const fields[] = {shape_w_, shape_h_, corner_, rise_, band_};
  for (int i = 0; i < 7; ++i) {
    if (i < 5) lengths_->layout()->addWidget(make_row(names[i], fields[i]));
    shares_[i] = new QLineEdit;
    shares_[i]->setObjectName(QStringLiteral("share%1").arg(i));
    share_rows_->layout()->addWidget(make_row(names[i], shares_[i]));
    connect(shares_[i], &QLineEdit::editingFinished, this, [this, i] { take_share(i); });
  }
  from_edge_ = new LengthField(range_of("pieces[].shape.fromEdge"), true);
  from_edge_->setObjectName(QStringLiteral("fromEdge"));
  from_edge_->setPlaceholderText(tr("none: stands alone"));
  from_edge_->setToolTip(tr("It goes round the board so far inside its edge, and follows when the board changes"));
  column_->addWidget(make_row(tr("Round the board"), from_edge_));
  connect(from_edge_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<PlainShape>(tr("go round the board"), [&](PlainShape& s) { s.from_edge = mm; });
  });
  column_->addWidget(make_row(tr("Corners"), corner_form_));
  column_->addWidget(make_row(tr("Points"), points_));
  column_->addWidget(make_row(tr("Inner points"), inner_));
  auto* points = new QPushButton(tr("Edit its points on the board"));
  points->setObjectName(QStringLiteral("editShapePoints"));
  points->setToolTip(tr("It becomes a drawing, the same outline, whose points can be moved"));
  column_->addWidget(points);
  connect(points, &QPushButton::clicked, this, [this] {
    try {
      Piece piece = shop_.item()->piece;
      draw_shape(piece);
      shop_.edit_item(tr("edit the points of a shape"), [&](Item& item) { item.piece = piece; });
    } catch (const Problem& problem) {
      QToolTip::showText(QCursor::pos(), QString::fromUtf8(problem.what()), this);
      return;
    }
    shop_.bench->points().set_active(true);
    shop_.bench->setFocus();
  });
  connect(counted_, &QComboBox::activated, this, [this] {
    const std::string of = counted_->currentData().toString().toStdString();
    const Job& job = shop_.document.job();
    Piece piece = shop_.item()->piece;
    try {
      set_shares(piece, of, job.source());
    } catch (const Problem& problem) {
      counted_->setToolTip(QString::fromUtf8(problem.what()));
      QToolTip::showText(counted_->mapToGlobal(QPoint(0, counted_->height())), counted_->toolTip(), counted_);
      return refresh_again();
    }
    shop_.edit_item(tr("count a shape otherwise"), [&](Item& item) { item.piece = piece; });
  });
  const auto field = [this](LengthField* f, const QString& name, double PlainShape::*member) {
    connect(f, &LengthField::entered, this, [this, name, member](std::optional<double> mm) {
      edit_kind<PlainShape>(name, [&](PlainShape& s) { s.*member = mm.value_or(0); });
    });
  };
  field(shape_w_, tr("change the width"), &PlainShape::width);
  field(shape_h_, tr("change the height"), &PlainShape::height);
  field(corner_, tr("change the corners"), &PlainShape::corner_radius);
  field(band_, tr("change the line width"), &PlainShape::band);
  field(rise_, tr("change the arch"), &PlainShape::rise);
  connect(corner_form_, &QComboBox::activated, this, [this](int i) {
    edit_kind<PlainShape>(tr("change the corners"),
                          [&](PlainShape& s) { s.corner_form = static_cast<PlainShape::CornerForm>(i); });
  });
  connect(points_, &QSpinBox::valueChanged, this, [this](int n) {
    edit_kind<PlainShape>(
        tr("change the points"), [&](PlainShape& s) { s.points = n; }, QStringLiteral("points"));
  });
  connect(inner_, &QSpinBox::valueChanged, this, [this](int n) {
    edit_kind<PlainShape>(
        tr("change the star"), [&](PlainShape& s) { s.inner = n / 100.0; }, QStringLiteral("inner"));
  });
}

void ShapeSection::take_share(int which) {
  if (filling_ || !shares_[which]->isModified()) return;
  shares_[which]->setModified(false);
  double share = 0;
  try {  // 7/13 and 0.54 alike
    share = parse_length(shares_[which]->text().toStdString(), Unit::Millimetre);
  } catch (const Problem& problem) {
    QToolTip::showText(shares_[which]->mapToGlobal(QPoint(0, shares_[which]->height())),
                       QString::fromUtf8(problem.what()), shares_[which]);
    return refresh_again();
  }
  if (which < 2 && !(share > 1e-6)) return refresh_again();
  shop_.edit_item(tr("change a share"), [&](Item& item) {
    auto* s = std::get_if<PlainShape>(&item.piece.what);
    if (s == nullptr) return;
    double* const members[] = {&s->width, &s->height,       &s->corner_radius, &s->rise,
                               &s->band,  &item.piece.at.x, &item.piece.at.y};
    *members[which] = share;
  });
}

void ShapeSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const auto& s = std::get<PlainShape>(item.piece.what);
  using K = PlainShape::Kind;
  const LengthStyle& lengths = shop_.document.job().lengths;
  const bool shares = !s.shares_of.empty();
  lengths_->setVisible(!shares);
  share_rows_->setVisible(shares);
  fill_pieces(counted_, s.shares_of);
  for (int i = counted_->count(); i-- > 0;)
    counted_->setItemText(i, tr("shares of “%1”'s height").arg(counted_->itemText(i)));
  counted_->insertItem(0, tr("lengths"), QString());
  if (!shares) counted_->setCurrentIndex(0);
  if (shares) {
    const double values[] = {s.width, s.height, s.corner_radius, s.rise, s.band, item.piece.at.x, item.piece.at.y};
    const bool shown[] = {true, s.kind != K::Line, s.kind == K::Rectangle, s.kind == K::ArchTop, true, true, true};
    for (int i = 0; i < 7; ++i) {
      if (!shares_[i]->hasFocus()) shares_[i]->setText(QString::fromStdString(format_number(values[i], 5)));
      show_row(shares_[i], shown[i]);
    }
  }
  shape_w_->show_length(s.width, lengths);
  shape_h_->show_length(s.height, lengths);
  corner_->show_length(s.corner_radius, lengths);
  corner_form_->setCurrentIndex(static_cast<int>(s.corner_form));
  points_->setValue(s.points);
  inner_->setValue(static_cast<int>(std::lround(s.inner * 100)));
  rise_->show_length(s.rise, lengths);
  band_->show_length(s.band > 0 ? std::optional(s.band) : std::nullopt, lengths);
  band_->setPlaceholderText(s.kind == K::Line || s.kind == K::Arc ? tr("none: bit follows") : tr("none: filled"));
  from_edge_->show_length(s.from_edge, lengths);
  show_row(from_edge_, !shares && (s.kind == K::Rectangle || s.kind == K::Ellipse || s.kind == K::Shield));
  show_row(shape_h_, s.kind != K::Line);
  show_row(corner_, s.kind == K::Rectangle);
  show_row(corner_form_, s.kind == K::Rectangle);
  show_row(rise_, s.kind == K::ArchTop);
  show_row(points_, s.kind == K::Polygon || s.kind == K::Star);
  show_row(inner_, s.kind == K::Star);
}

}  // namespace doyen
