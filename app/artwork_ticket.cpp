#include <QApplication>
#include <QGridLayout>
#include <QToolButton>

#include "flow_layout.hpp"
#include "tickets.hpp"

namespace doyen {
namespace {

QPushButton* add_button(QLayout* layout, const QString& text, const QString& name) {
  auto* button = new QPushButton(text);
  button->setObjectName(name);
  layout->addWidget(button);
  return button;
}

}  // namespace

ArtworkTicket::ArtworkTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Artwork"));
  auto* adders = new QWidget;
  auto* flow = new FlowLayout(adders, 6);
  connect(add_button(flow, tr("+ Lettering"), QStringLiteral("addLettering")), &QPushButton::clicked, this,
          &ArtworkTicket::add_lettering);
  connect(add_button(flow, tr("+ Drawing…"), QStringLiteral("addDrawing")), &QPushButton::clicked, this,
          &ArtworkTicket::add_drawing);
  connect(add_button(flow, tr("+ Rectangle"), QStringLiteral("addRectangle")), &QPushButton::clicked, this,
          &ArtworkTicket::add_rectangle);
  connect(add_button(flow, tr("+ Oval"), QStringLiteral("addOval")), &QPushButton::clicked, this,
          &ArtworkTicket::add_ellipse);
  column_->addWidget(adders);
  list_ = new QListWidget;
  list_->setFixedHeight(112);
  list_->setAccessibleName(tr("Pieces on the board"));
  column_->addWidget(list_);
  connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* now) {
    if (!filling_ && now != nullptr) shop_.select(now->data(Qt::UserRole).toString());
  });
  notice_ = make_label({}, "faded");
  column_->addWidget(notice_);
  build_lettering();
  build_shape();
  build_place();
  column_->addStretch();
}

void ArtworkTicket::build_lettering() {
  lettering_ = new QWidget;
  auto* column = new QVBoxLayout(lettering_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  words_ = new QPlainTextEdit;
  words_->setObjectName(QStringLiteral("words"));
  words_->setFixedHeight(56);
  words_->setTabChangesFocus(true);
  words_->setAccessibleName(tr("Words"));
  column->addWidget(words_);
  family_ = new QComboBox;
  family_->setObjectName(QStringLiteral("family"));
  style_ = new QComboBox;
  QStringList good, others;
  for (const InstalledFace& face : installed_faces()) {
    QStringList& list = face.carves_well ? good : others;
    const QString name = QString::fromStdString(face.name.family);
    if (!list.contains(name)) list << name;
  }
  family_->addItems(good);
  if (!good.isEmpty() && !others.isEmpty()) family_->insertSeparator(static_cast<int>(good.size()));
  family_->addItems(others);
  family_->setToolTip(tr("The faces above the line carve well; below are all others on this machine"));
  column->addWidget(make_row(tr("Face"), family_));
  column->addWidget(make_row(tr("Style"), style_));
  cap_ = new LengthField(0.5, 5000);
  cap_->setObjectName(QStringLiteral("cap"));
  fit_ = new LengthField(1, 20'000, true);
  column->addWidget(make_row(tr("Cap height"), cap_));
  column->addWidget(make_row(tr("Fit to width"), fit_));
  align_ = new QComboBox;
  align_->addItems({tr("left"), tr("centre"), tr("right")});
  spacing_ = new QSpinBox;
  spacing_->setRange(-50, 300);
  spacing_->setSuffix(tr(" % of cap height"));
  line_spacing_ = new QSpinBox;
  line_spacing_->setRange(30, 400);
  line_spacing_->setSuffix(tr(" %"));
  column->addWidget(make_row(tr("Lines set"), align_));
  column->addWidget(make_row(tr("Letter spacing"), spacing_));
  column->addWidget(make_row(tr("Line spacing"), line_spacing_));
  column_->addWidget(lettering_);

  const auto edit = [this](const QString& name, const std::function<void(Lettering&)>& change,
                           const QString& merge = {}) {
    if (filling_) return;
    shop_.edit_item(
        name,
        [&](Item& item) {
          if (auto* l = std::get_if<Lettering>(&item.piece.what)) change(*l);
        },
        merge);
  };
  connect(words_, &QPlainTextEdit::textChanged, this, [this, edit] {
    edit(
        tr("change the words"), [&](Lettering& l) { l.words = words_->toPlainText().toStdString(); },
        QStringLiteral("words ") + shop_.selected);
  });
  connect(family_, &QComboBox::activated, this, [this, edit] {
    const std::string family = family_->currentText().toStdString();
    std::string style = style_->currentText().toStdString();
    if (!face_installed({family, style})) style = "Regular";
    edit(tr("change the face"), [&](Lettering& l) { l.face = {family, style}; });
  });
  connect(style_, &QComboBox::activated, this, [this, edit] {
    edit(tr("change the style"), [&](Lettering& l) { l.face.style = style_->currentText().toStdString(); });
  });
  connect(cap_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("change the cap height"), [&](Lettering& l) {
      l.cap_height = *mm;
      l.fit_width = false;
    });
  });
  connect(fit_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("fit the lettering to a width"), [&](Lettering& l) {
      l.fit_width = mm.has_value();
      if (mm) l.width = *mm;
    });
  });
  connect(align_, &QComboBox::activated, this,
          [edit](int i) { edit(tr("set the lines"), [&](Lettering& l) { l.align = static_cast<Align>(i); }); });
  connect(spacing_, &QSpinBox::valueChanged, this, [this, edit](int v) {
    edit(
        tr("change the letter spacing"), [&](Lettering& l) { l.letter_spacing = v; },
        QStringLiteral("spacing ") + shop_.selected);
  });
  connect(line_spacing_, &QSpinBox::valueChanged, this, [this, edit](int v) {
    edit(
        tr("change the line spacing"), [&](Lettering& l) { l.line_spacing = v; },
        QStringLiteral("lines ") + shop_.selected);
  });
}

void ArtworkTicket::build_shape() {
  shape_ = new QWidget;
  auto* column = new QVBoxLayout(shape_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  shape_w_ = new LengthField(0.5, 20'000);
  shape_h_ = new LengthField(0.5, 20'000);
  corner_ = new LengthField(0, 10'000);
  band_ = new LengthField(0, 5000, true);
  band_->setToolTip(tr("Empty fills the shape; a length makes it a frame of that width"));
  column->addWidget(make_row(tr("Width"), shape_w_));
  column->addWidget(make_row(tr("Height"), shape_h_));
  column->addWidget(make_row(tr("Corner radius"), corner_));
  column->addWidget(make_row(tr("Line width"), band_));
  column_->addWidget(shape_);
  const auto field = [this](LengthField* f, const QString& name, double PlainShape::*member) {
    connect(f, &LengthField::entered, this, [this, name, member](std::optional<double> mm) {
      shop_.edit_item(name, [&](Item& item) {
        if (auto* s = std::get_if<PlainShape>(&item.piece.what)) s->*member = mm.value_or(0);
      });
    });
  };
  field(shape_w_, tr("change the width"), &PlainShape::width);
  field(shape_h_, tr("change the height"), &PlainShape::height);
  field(corner_, tr("round the corners"), &PlainShape::corner_radius);
  field(band_, tr("change the line width"), &PlainShape::band);
}

doyen::Box ArtworkTicket::box() const {
  const Item* item = shop_.item();
  if (item == nullptr) return {};
  try {
    return bounds(outlines_of(item->piece, shop_.document.job().source()).region);
  } catch (const Problem&) {
    return {};
  }
}

void ArtworkTicket::build_place() {
  place_ = new QWidget;
  auto* column = new QVBoxLayout(place_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  column->addWidget(make_line());
  name_ = new QLineEdit;
  column->addWidget(make_row(tr("Called"), name_));
  left_ = new LengthField(-20'000, 20'000);
  front_ = new LengthField(-20'000, 20'000);
  wide_ = new LengthField(0.5, 20'000);
  high_ = new LengthField(0.5, 20'000);
  turn_ = new QLineEdit;
  left_->setObjectName(QStringLiteral("fromLeft"));
  column->addWidget(make_row(tr("From left"), left_));
  column->addWidget(make_row(tr("From front"), front_));
  auto* wide_row = make_row(tr("Over all width"), wide_);
  auto* high_row = make_row(tr("Over all height"), high_);
  column->addWidget(wide_row);
  column->addWidget(high_row);
  column->addWidget(make_row(tr("Turned by"), turn_));
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  struct Action {
    QString text, tip;
    int which;
  };
  const Action actions[] = {{tr("Centre across"), tr("Into the middle between left and right (Ctrl+Shift+C)"), 0},
                            {tr("Centre front–back"), tr("Into the middle between front and back"), 1},
                            {tr("To left margin"), {}, 2},
                            {tr("To right margin"), {}, 3},
                            {tr("To front margin"), {}, 4},
                            {tr("To back margin"), {}, 5}};
  for (const Action& action : actions) {
    auto* button = add_button(flow, action.text, QStringLiteral("align%1").arg(action.which));
    button->setToolTip(action.tip);
    connect(button, &QPushButton::clicked, this, [this, action] {
      const doyen::Box b = box();
      if (b.empty()) return;
      const Blank& blank = shop_.document.job().blank;
      Point by;
      switch (action.which) {
        case 0:
          by.x = blank.width / 2 - b.centre().x;
          break;
        case 1:
          by.y = blank.height / 2 - b.centre().y;
          break;
        case 2:
          by.x = blank.margin - b.left;
          break;
        case 3:
          by.x = blank.width - blank.margin - b.right;
          break;
        case 4:
          by.y = blank.margin - b.bottom;
          break;
        default:
          by.y = blank.height - blank.margin - b.top;
          break;
      }
      shop_.edit_item(action.text.toLower(), [&](Item& item) { item.piece.at = item.piece.at + by; });
    });
  }
  column->addWidget(holder);
  auto* second = new QWidget;
  auto* row = new FlowLayout(second, 6);
  connect(add_button(row, tr("Copy it"), QStringLiteral("copyPiece")), &QPushButton::clicked, this,
          &ArtworkTicket::copy_piece);
  connect(add_button(row, tr("Remove it"), QStringLiteral("removePiece")), &QPushButton::clicked, this,
          &ArtworkTicket::remove_piece);
  column->addWidget(second);
  column_->addWidget(place_);

  connect(name_, &QLineEdit::editingFinished, this, [this] {
    if (!filling_)
      shop_.edit_item(tr("name a piece"), [&](Item& item) { item.piece.name = name_->text().toStdString(); });
  });
  connect(left_, &LengthField::entered, this, [this](std::optional<double> mm) {
    const double by = *mm - box().left;
    shop_.edit_item(tr("move by number"), [&](Item& item) { item.piece.at.x += by; });
  });
  connect(front_, &LengthField::entered, this, [this](std::optional<double> mm) {
    const double by = *mm - box().bottom;
    shop_.edit_item(tr("move by number"), [&](Item& item) { item.piece.at.y += by; });
  });
  const auto resize = [this](double wanted, double now) {
    const double k = wanted / now;
    if (!(k > 0) || !std::isfinite(k)) return;
    shop_.edit_item(tr("size by number"), [&](Item& item) { size_piece(item.piece, k, k); });
  };
  connect(wide_, &LengthField::entered, this, [this, resize](std::optional<double> mm) { resize(*mm, box().width()); });
  connect(high_, &LengthField::entered, this,
          [this, resize](std::optional<double> mm) { resize(*mm, box().height()); });
  connect(turn_, &QLineEdit::editingFinished, this, [this] {
    bool fine = false;
    const double degrees =
        turn_->text().remove(QStringLiteral("°")).trimmed().replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&fine);
    if (!fine || std::abs(degrees) > 3600) return refresh();
    shop_.edit_item(tr("turn by number"), [&](Item& item) { item.piece.turn = degrees; });
  });
}

void ArtworkTicket::focus_words() {
  words_->setFocus();
  words_->selectAll();
}

void ArtworkTicket::refresh() {
  filling_ = true;
  const Job& job = shop_.document.job();
  list_->clear();
  for (const Item& item : job.items) {
    auto* row = new QListWidgetItem(QString::fromStdString(item.piece.name) + QStringLiteral("  ·  ") +
                                    tr(kind_word(item.piece)));
    row->setData(Qt::UserRole, QString::fromStdString(item.piece.id));
    list_->addItem(row);
    if (QString::fromStdString(item.piece.id) == shop_.selected) list_->setCurrentItem(row);
  }
  const Item* item = shop_.item();
  const auto* lettering = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
  const auto* shape = item == nullptr ? nullptr : std::get_if<PlainShape>(&item->piece.what);
  lettering_->setVisible(lettering != nullptr);
  shape_->setVisible(shape != nullptr);
  place_->setVisible(item != nullptr);
  notice_->setVisible(item == nullptr);
  notice_->setText(
      job.items.empty()
          ? tr("Nothing lies on the board yet. Begin with lettering, or drop an SVG drawing on the board.")
          : tr("Choose a piece here or on the board. N and P walk through them; arrows move the chosen one."));
  if (lettering != nullptr) {
    const QString text = QString::fromStdString(lettering->words);
    if (words_->toPlainText() != text) words_->setPlainText(text);
    const QString family = QString::fromStdString(lettering->face.family);
    if (family_->findText(family) < 0) family_->addItem(family);
    family_->setCurrentText(family);
    style_->clear();
    for (const InstalledFace& face : installed_faces()) {
      if (face.name.family == lettering->face.family) style_->addItem(QString::fromStdString(face.name.style));
    }
    style_->setCurrentText(QString::fromStdString(lettering->face.style));
    cap_->show_length(lettering->cap_height, job.lengths);
    cap_->setEnabled(true);
    fit_->show_length(lettering->fit_width ? std::optional(lettering->width) : std::nullopt, job.lengths);
    align_->setCurrentIndex(static_cast<int>(lettering->align));
    spacing_->setValue(static_cast<int>(std::lround(lettering->letter_spacing)));
    line_spacing_->setValue(static_cast<int>(std::lround(lettering->line_spacing)));
  }
  if (shape != nullptr) {
    shape_w_->show_length(shape->width, job.lengths);
    shape_h_->show_length(shape->height, job.lengths);
    corner_->show_length(shape->corner_radius, job.lengths);
    corner_->setEnabled(shape->kind == PlainShape::Kind::Rectangle);
    band_->show_length(shape->band > 0 ? std::optional(shape->band) : std::nullopt, job.lengths);
  }
  if (item != nullptr) {
    if (!name_->hasFocus()) name_->setText(QString::fromStdString(item->piece.name));
    const doyen::Box b = box();
    left_->show_length(b.empty() ? 0 : b.left, job.lengths);
    front_->show_length(b.empty() ? 0 : b.bottom, job.lengths);
    wide_->show_length(b.width(), job.lengths);
    high_->show_length(b.height(), job.lengths);
    wide_->parentWidget()->setVisible(shape == nullptr);
    high_->parentWidget()->setVisible(shape == nullptr);
    if (!turn_->hasFocus())
      turn_->setText(QString::fromStdString(format_number(item->piece.turn, 2)) + QStringLiteral("°"));
  }
  filling_ = false;
}

}  // namespace doyen
