#include <QApplication>
#include <QMenu>

#include "artwork/clean_up.hpp"
#include "artwork/single_line_faces.hpp"
#include "flow_layout.hpp"
#include "problem.hpp"
#include "tickets.hpp"

namespace doyen {
namespace {

QPushButton* add_button(QLayout* layout, const QString& text, const QString& name) {
  auto* button = new QPushButton(text);
  button->setObjectName(name);
  layout->addWidget(button);
  return button;
}

// Every kind of plain shape with the words that its menu shows.
QList<std::pair<PlainShape::Kind, QString>> shape_names() {
  using K = PlainShape::Kind;
  const auto tr = [](const char* s) { return QCoreApplication::translate("ArtworkTicket", s); };
  return {{K::Rectangle, tr("Rectangle")},
          {K::Ellipse, tr("Oval")},
          {K::ArchTop, tr("Arch top")},
          {K::Polygon, tr("Even polygon")},
          {K::Star, tr("Star")},
          {K::Ribbon, tr("Ribbon")},
          {K::Line, tr("Line")}};
}

QList<std::pair<Derived::How, QString>> made_names() {
  using H = Derived::How;
  const auto tr = [](const char* s) { return QCoreApplication::translate("ArtworkTicket", s); };
  return {{H::Grow, tr("Grown or shrunk")},        {H::Join, tr("Joined with another")},
          {H::TakeAway, tr("Less another")},       {H::Overlap, tr("Where two overlap")},
          {H::Split, tr("Split by a line")},       {H::Mirror, tr("Mirrored")},
          {H::Grid, tr("Repeated in rows")},       {H::Round, tr("Repeated round a centre")},
          {H::Along, tr("Repeated along another")}};
}

QSpinBox* spin(int least, int most, const QString& suffix = {}) {
  auto* box = new QSpinBox;
  box->setRange(least, most);
  box->setSuffix(suffix);
  return box;
}

// Hides a field together with its row.
void show_row(QWidget* field, bool shown) { field->parentWidget()->setVisible(shown); }

QVBoxLayout* make_section(QWidget*& holder) {
  holder = new QWidget;
  auto* column = new QVBoxLayout(holder);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  return column;
}

}  // namespace

template <typename Kind>
void ArtworkTicket::edit_kind(const QString& name, const std::function<void(Kind&)>& change, const QString& merge) {
  if (filling_) return;
  shop_.edit_item(
      name,
      [&](Item& item) {
        if (auto* kind = std::get_if<Kind>(&item.piece.what)) change(*kind);
      },
      merge.isEmpty() ? QString() : merge + QLatin1Char(' ') + shop_.selected);
}

ArtworkTicket::ArtworkTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Artwork"));
  auto* adders = new QWidget;
  auto* flow = new FlowLayout(adders, 6);
  connect(add_button(flow, tr("+ Lettering"), QStringLiteral("addLettering")), &QPushButton::clicked, this,
          &ArtworkTicket::add_lettering);
  auto* art = add_button(flow, tr("+ Art…"), QStringLiteral("addDrawing"));
  art->setToolTip(tr("An SVG or DXF drawing, or a picture to trace: PNG, JPEG, BMP, WebP"));
  connect(art, &QPushButton::clicked, this, &ArtworkTicket::add_drawing);
  auto* shapes = add_button(flow, tr("+ Shape"), QStringLiteral("addShape"));
  auto* menu = new QMenu(shapes);
  for (const auto& [kind, name] : shape_names())
    connect(menu->addAction(name), &QAction::triggered, this, [this, kind = kind] { Q_EMIT add_shape(kind); });
  shapes->setMenu(menu);
  made_ = add_button(flow, tr("+ Made from it"), QStringLiteral("madeFrom"));
  made_->setToolTip(tr("Something new from the chosen piece, which follows it"));
  auto* made_menu = new QMenu(made_);
  for (const auto& [how, name] : made_names())
    connect(made_menu->addAction(name), &QAction::triggered, this, [this, how = how] { Q_EMIT make_from(how); });
  made_->setMenu(made_menu);
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
  build_drawing();
  build_derived();
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
  family_->insertSeparator(family_->count());
  for (const FaceName& face : single_line_faces()) family_->addItem(QString::fromStdString(face.family));
  family_->setToolTip(tr("The faces above the line carve well; below are all others on this machine"));
  column->addWidget(make_row(tr("Face"), family_));
  auto* bench = new QPushButton(tr("Letter bench: these words in many faces…"));
  bench->setObjectName(QStringLiteral("letterBench"));
  connect(bench, &QPushButton::clicked, this, &ArtworkTicket::letter_bench_wanted);
  column->addWidget(bench);
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
  build_setting(column);
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
    if (is_single_line({family, style}) || !face_installed({family, style})) style = "Regular";
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

void ArtworkTicket::build_setting(QVBoxLayout* column) {
  pair_ = new QComboBox;
  pair_by_ = spin(-100, 300, tr(" %"));
  column->addWidget(make_row(tr("Between"), pair_));
  column->addWidget(make_row(tr("these, add"), pair_by_));
  setting_ = new QComboBox;
  setting_->setObjectName(QStringLiteral("setting"));
  setting_->addItems(
      {tr("straight"), tr("on an arch"), tr("in a bowl"), tr("along a piece"), tr("fitted inside a piece")});
  column->addWidget(make_row(tr("Set"), setting_));
  radius_ = new LengthField(5, 50'000);
  radius_->setObjectName(QStringLiteral("radius"));
  column->addWidget(make_row(tr("Radius"), radius_));
  way_ = new QComboBox;
  column->addWidget(make_row(tr("Piece"), way_));
  start_ = spin(0, 100, tr(" % of its way"));
  column->addWidget(make_row(tr("Middle at"), start_));
  margin_ = new LengthField(0, 5000);
  column->addWidget(make_row(tr("Margin"), margin_));
  stroke_ = new LengthField(0, 500, true);
  stroke_->setPlaceholderText(tr("none: bit follows"));
  column->addWidget(make_row(tr("Line width"), stroke_));
  connect(pair_, &QComboBox::activated, this, [this] { refresh(); });
  connect(pair_by_, &QSpinBox::valueChanged, this, [this](int by) {
    const std::string pair = pair_->currentData().toString().toStdString();
    edit_kind<Lettering>(
        tr("space a pair of letters"),
        [&](Lettering& l) {
          if (by == 0)
            l.pairs.erase(pair);
          else
            l.pairs[pair] = by;
        },
        QStringLiteral("pair ") + pair_->currentText());
  });
  connect(setting_, &QComboBox::activated, this, [this](int how) {
    const doyen::Box b = box();
    const Item* own = shop_.item();
    std::string other;
    for (const Item& item : shop_.document.job().items) {
      if (own != nullptr && item.piece.id != own->piece.id && sources_of(item.piece).empty() && other.empty())
        other = item.piece.id;
    }
    if (how >= 3 && other.empty()) return refresh();
    shop_.edit_item(tr("set the words %1").arg(setting_->currentText()), [&](Item& item) {
      auto* l = std::get_if<Lettering>(&item.piece.what);
      if (l == nullptr) return;
      const bool was_elsewhere = !l->along.empty() || !l->inside.empty();
      l->along = how == 3 ? other : std::string();
      l->inside = how == 4 ? other : std::string();
      l->arc_below = how == 2;
      l->arc_radius = how == 1 || how == 2 ? std::max(20.0, b.width() * 0.8) : 0;
      // Along and inside another piece, its own place is only a shift.
      if (how >= 3) item.piece.at = {0, 0};
      if (how < 3 && was_elsewhere && !b.empty()) item.piece.at = b.centre();
    });
  });
  connect(radius_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the arc's radius"), [&](Lettering& l) { l.arc_radius = *mm; });
  });
  connect(way_, &QComboBox::activated, this, [this] {
    const std::string id = way_->currentData().toString().toStdString();
    edit_kind<Lettering>(tr("choose another piece"),
                         [&](Lettering& l) { (l.inside.empty() ? l.along : l.inside) = id; });
  });
  connect(start_, &QSpinBox::valueChanged, this, [this](int v) {
    edit_kind<Lettering>(
        tr("move along the piece"), [&](Lettering& l) { l.along_start = v / 100.0; }, QStringLiteral("start"));
  });
  connect(margin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the margin"), [&](Lettering& l) {
      l.inside_margin = *mm;
      l.inside_margin_share = false;
    });
  });
  connect(stroke_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the line width"), [&](Lettering& l) { l.stroke = mm.value_or(0); });
  });
}

void ArtworkTicket::fill_pieces(QComboBox* box, const std::string& chosen) {
  box->clear();
  const Item* own = shop_.item();
  for (const Item& item : shop_.document.job().items) {
    if (own == nullptr || item.piece.id == own->piece.id) continue;
    box->addItem(QString::fromStdString(item.piece.name), QString::fromStdString(item.piece.id));
  }
  box->setCurrentIndex(box->findData(QString::fromStdString(chosen)));
}

void ArtworkTicket::build_shape() {
  auto* column = make_section(shape_);
  shape_w_ = new LengthField(0.5, 20'000);
  shape_h_ = new LengthField(0.5, 20'000);
  corner_ = new LengthField(0, 10'000);
  corner_form_ = new QComboBox;
  corner_form_->addItems({tr("round"), tr("scooped"), tr("clipped"), tr("stepped and round")});
  band_ = new LengthField(0, 5000, true);
  band_->setToolTip(tr("Empty fills the shape; a length makes it a frame of that width"));
  points_ = spin(3, 200);
  inner_ = spin(5, 98, tr(" % of the outer"));
  rise_ = new LengthField(0.1, 20'000);
  column->addWidget(make_row(tr("Width"), shape_w_));
  column->addWidget(make_row(tr("Height"), shape_h_));
  column->addWidget(make_row(tr("Corners"), corner_form_));
  column->addWidget(make_row(tr("Corner size"), corner_));
  column->addWidget(make_row(tr("Arch rises"), rise_));
  column->addWidget(make_row(tr("Points"), points_));
  column->addWidget(make_row(tr("Inner points"), inner_));
  column->addWidget(make_row(tr("Line width"), band_));
  column_->addWidget(shape_);
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

void ArtworkTicket::build_drawing() {
  auto* column = make_section(drawing_);
  lines_ = new QComboBox;
  lines_->addItems({tr("carved as wide as drawn"), tr("followed by the bit")});
  column->addWidget(make_row(tr("Its lines are"), lines_));
  hairline_ = new LengthField(0.01, 500);
  column->addWidget(make_row(tr("Hairlines"), hairline_));
  retrace_ = new QPushButton(tr("Trace the picture again…"));
  retrace_->setObjectName(QStringLiteral("traceAgain"));
  column->addWidget(retrace_);
  parts_ = new QListWidget;
  parts_->setFixedHeight(92);
  parts_->setAccessibleName(tr("Parts of the drawing; what is not ticked is left out"));
  column->addWidget(parts_);
  auto* clean = new QPushButton(tr("Clean up: what is wrong with it…"));
  clean->setObjectName(QStringLiteral("cleanUp"));
  clean->setCheckable(true);
  column->addWidget(clean);
  findings_ = new QVBoxLayout;
  column->addLayout(findings_);
  column_->addWidget(drawing_);
  connect(retrace_, &QPushButton::clicked, this, &ArtworkTicket::trace_again);
  connect(clean, &QPushButton::clicked, this, [this](bool on) {
    cleaning_ = on;
    refresh_findings();
  });
  connect(lines_, &QComboBox::activated, this, [this](int i) {
    const bool follow = i == 1;
    shop_.edit_item(follow ? tr("follow the lines") : tr("carve the lines' width"), [&](Item& item) {
      if (auto* d = std::get_if<Drawing>(&item.piece.what)) d->follow_lines = follow;
      if (follow && item.cut.kind == Treatment::Kind::Incise) item.cut.kind = Treatment::Kind::Line;
    });
  });
  connect(hairline_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Drawing>(tr("change the hairlines' width"), [&](Drawing& d) { d.hairline = *mm; });
  });
  connect(parts_, &QListWidget::itemChanged, this, [this](QListWidgetItem* row) {
    if (filling_) return;
    const std::string group = row->data(Qt::UserRole).toString().toStdString();
    const int index = row->data(Qt::UserRole + 1).toInt();
    const bool out = row->checkState() != Qt::Checked;
    edit_kind<Drawing>(out ? tr("leave out a part") : tr("take in a part"), [&](Drawing& d) {
      for (std::size_t i = 0; i < d.parts.size(); ++i) {
        if (index >= 0 ? static_cast<int>(i) == index : d.parts[i].group == group) d.parts[i].left_out = out;
      }
    });
  });
}

void ArtworkTicket::build_derived() {
  auto* column = make_section(derived_);
  derived_say_ = make_label({}, "faded");
  column->addWidget(derived_say_);
  derived_other_ = new QComboBox;
  column->addWidget(make_row(tr("Other piece"), derived_other_));
  distance_ = new LengthField(-5000, 5000);
  distance_->setToolTip(tr("Below zero it shrinks"));
  column->addWidget(make_row(tr("Distance"), distance_));
  derived_corner_ = new QComboBox;
  derived_corner_->addItems({tr("round"), tr("sharp"), tr("flat")});
  column->addWidget(make_row(tr("Corners"), derived_corner_));
  steps_ = spin(1, 50);
  column->addWidget(make_row(tr("Steps"), steps_));
  derived_band_ = new LengthField(0, 5000, true);
  column->addWidget(make_row(tr("Frame width"), derived_band_));
  columns_ = spin(1, 500);
  rows_ = spin(1, 500);
  step_x_ = new LengthField(-20'000, 20'000);
  step_y_ = new LengthField(-20'000, 20'000);
  column->addWidget(make_row(tr("Side by side"), columns_));
  column->addWidget(make_row(tr("each on by"), step_x_));
  column->addWidget(make_row(tr("Behind"), rows_));
  column->addWidget(make_row(tr("each on by"), step_y_));
  count_ = spin(0, 2000);
  count_->setSpecialValueText(tr("by the distance"));
  column->addWidget(make_row(tr("How many"), count_));
  round_radius_ = new LengthField(-20'000, 20'000);
  column->addWidget(make_row(tr("Radius"), round_radius_));
  derived_angle_ = new QLineEdit;
  column->addWidget(make_row(tr("Line at"), derived_angle_));
  split_at_ = spin(1, 99, tr(" % across"));
  column->addWidget(make_row(tr("Split at"), split_at_));
  derived_turned_ = new QCheckBox(tr("Copies turn with the way"));
  derived_side_ = new QCheckBox(tr("Keep the other side"));
  column->addWidget(derived_turned_);
  column->addWidget(derived_side_);
  auto* freeze = new QPushButton(tr("Freeze it as it is"));
  freeze->setToolTip(tr("It becomes a drawing of its own and follows nothing any more"));
  column->addWidget(freeze, 0, Qt::AlignLeft);
  column_->addWidget(derived_);
  connect(freeze, &QPushButton::clicked, this, &ArtworkTicket::freeze_piece);
  const QString change = tr("change what is made");
  const auto length = [this, change](LengthField* f, double Derived::*member) {
    connect(f, &LengthField::entered, this, [this, change, member](std::optional<double> mm) {
      edit_kind<Derived>(change, [&](Derived& d) { d.*member = mm.value_or(0); });
    });
  };
  length(distance_, &Derived::distance);
  length(derived_band_, &Derived::band);
  length(step_x_, &Derived::step_x);
  length(step_y_, &Derived::step_y);
  length(round_radius_, &Derived::radius);
  const auto number = [this, change](QSpinBox* box, int Derived::*member) {
    connect(box, &QSpinBox::valueChanged, this, [this, change, member, box](int n) {
      edit_kind<Derived>(
          change, [&](Derived& d) { d.*member = n; }, box->accessibleName());
    });
  };
  number(steps_, &Derived::steps);
  number(columns_, &Derived::columns);
  number(rows_, &Derived::rows);
  number(count_, &Derived::count);
  connect(split_at_, &QSpinBox::valueChanged, this, [this, change](int n) {
    edit_kind<Derived>(
        change, [&](Derived& d) { d.share = n / 100.0; }, QStringLiteral("split"));
  });
  connect(derived_corner_, &QComboBox::activated, this, [this, change](int i) {
    edit_kind<Derived>(change, [&](Derived& d) { d.corner = static_cast<Corner>(i); });
  });
  connect(derived_other_, &QComboBox::activated, this, [this, change] {
    const std::string id = derived_other_->currentData().toString().toStdString();
    edit_kind<Derived>(change, [&](Derived& d) {
      d.from.resize(1);
      d.from.push_back(id);
    });
  });
  connect(derived_turned_, &QCheckBox::clicked, this,
          [this, change](bool on) { edit_kind<Derived>(change, [&](Derived& d) { d.turned = on; }); });
  connect(derived_side_, &QCheckBox::clicked, this,
          [this, change](bool on) { edit_kind<Derived>(change, [&](Derived& d) { d.first_side = !on; }); });
  connect(derived_angle_, &QLineEdit::editingFinished, this, [this, change] {
    bool fine = false;
    const double degrees = derived_angle_->text().remove(QStringLiteral("°")).trimmed().toDouble(&fine);
    if (!fine || std::abs(degrees) > 3600) return refresh();
    edit_kind<Derived>(change, [&](Derived& d) { d.angle = degrees; });
  });
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
  const Action actions[] = {
      {tr("Centre across"), tr("Into the middle between left and right (Ctrl+Shift+C)"), 0},
      {tr("Centre front–back"), tr("Into the middle between front and back"), 1},
      {tr("Centre by weight"),
       tr("Its wood to remove lies evenly about the board's middle: what the eye takes for centred"), 6},
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
        case 6:
          by = blank.box().centre() - centroid(outlines_of(shop_.item()->piece, shop_.document.job().source()).region);
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

void ArtworkTicket::refresh_lettering(const Lettering& l) {
  const LengthStyle& lengths = shop_.document.job().lengths;
  const QString text = QString::fromStdString(l.words);
  if (words_->toPlainText() != text) words_->setPlainText(text);
  const QString family = QString::fromStdString(l.face.family);
  if (family_->findText(family) < 0) family_->addItem(family);
  family_->setCurrentText(family);
  style_->clear();
  for (const InstalledFace& face : installed_faces()) {
    if (face.name.family == l.face.family) style_->addItem(QString::fromStdString(face.name.style));
  }
  if (style_->count() == 0) style_->addItem(QString::fromStdString(l.face.style));
  style_->setCurrentText(QString::fromStdString(l.face.style));
  cap_->show_length(l.cap_height, lengths);
  fit_->show_length(l.fit_width ? std::optional(l.width) : std::nullopt, lengths);
  align_->setCurrentIndex(static_cast<int>(l.align));
  spacing_->setValue(static_cast<int>(std::lround(l.letter_spacing)));
  line_spacing_->setValue(static_cast<int>(std::lround(l.line_spacing)));
  const QString pair = pair_->currentData().toString();
  pair_->clear();
  for (qsizetype i = 0; i + 1 < text.size(); ++i) {
    const QString both = text.mid(i, 2);
    if (both.contains(QLatin1Char('\n')) || pair_->findData(both) >= 0) continue;
    const auto set = l.pairs.find(both.toStdString());
    pair_->addItem(tr("“%1” and “%2”").arg(both[0]).arg(both[1]) +
                       (set == l.pairs.end() ? QString() : QStringLiteral("  %1 %").arg(set->second)),
                   both);
  }
  pair_->setCurrentIndex(std::max(0, pair_->findData(pair)));
  const auto by = l.pairs.find(pair_->currentData().toString().toStdString());
  pair_by_->setValue(by == l.pairs.end() ? 0 : static_cast<int>(std::lround(by->second)));
  show_row(pair_, pair_->count() > 0);
  show_row(pair_by_, pair_->count() > 0);
  setting_->setCurrentIndex(!l.inside.empty() ? 4 : !l.along.empty() ? 3 : l.arc_radius <= 0 ? 0 : l.arc_below ? 2 : 1);
  radius_->show_length(l.arc_radius, lengths);
  fill_pieces(way_, l.inside.empty() ? l.along : l.inside);
  start_->setValue(static_cast<int>(std::lround(l.along_start * 100)));
  margin_->show_length(l.inside_margin, lengths);
  stroke_->show_length(l.stroke > 0 ? std::optional(l.stroke) : std::nullopt, lengths);
  show_row(radius_, setting_->currentIndex() == 1 || setting_->currentIndex() == 2);
  show_row(way_, setting_->currentIndex() >= 3);
  show_row(start_, setting_->currentIndex() == 3);
  show_row(margin_, setting_->currentIndex() == 4);
  show_row(stroke_, is_single_line(l.face));
  cap_->setEnabled(l.inside.empty());
  fit_->setEnabled(l.inside.empty());
}

void ArtworkTicket::refresh_shape(const PlainShape& s) {
  using K = PlainShape::Kind;
  const LengthStyle& lengths = shop_.document.job().lengths;
  shape_w_->show_length(s.width, lengths);
  shape_h_->show_length(s.height, lengths);
  corner_->show_length(s.corner_radius, lengths);
  corner_form_->setCurrentIndex(static_cast<int>(s.corner_form));
  points_->setValue(s.points);
  inner_->setValue(static_cast<int>(std::lround(s.inner * 100)));
  rise_->show_length(s.rise, lengths);
  band_->show_length(s.band > 0 ? std::optional(s.band) : std::nullopt, lengths);
  band_->setPlaceholderText(s.kind == K::Line ? tr("none: bit follows") : tr("none: filled"));
  show_row(shape_h_, s.kind != K::Line);
  show_row(corner_, s.kind == K::Rectangle);
  show_row(corner_form_, s.kind == K::Rectangle);
  show_row(rise_, s.kind == K::ArchTop);
  show_row(points_, s.kind == K::Polygon || s.kind == K::Star);
  show_row(inner_, s.kind == K::Star);
}

void ArtworkTicket::refresh_drawing(const Drawing& d) {
  const bool has_lines = std::any_of(d.parts.begin(), d.parts.end(), [](const Drawing::Part& p) { return p.line; });
  lines_->setCurrentIndex(d.follow_lines ? 1 : 0);
  hairline_->show_length(d.hairline, shop_.document.job().lengths);
  show_row(lines_, has_lines);
  show_row(hairline_, has_lines && !d.follow_lines);
  retrace_->setVisible(d.traced.has_value());
  parts_->clear();
  QStringList groups;
  for (const Drawing::Part& p : d.parts) {
    if (!groups.contains(QString::fromStdString(p.group))) groups << QString::fromStdString(p.group);
  }
  const auto add = [&](const QString& words, const QString& group, int index, bool in) {
    auto* row = new QListWidgetItem(words);
    row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    row->setCheckState(in ? Qt::Checked : Qt::Unchecked);
    row->setData(Qt::UserRole, group);
    row->setData(Qt::UserRole + 1, index);
    parts_->addItem(row);
  };
  if (groups.size() > 1 || d.parts.size() > 200) {
    for (const QString& group : groups) {
      int n = 0, out = 0;
      for (const Drawing::Part& p : d.parts) {
        if (QString::fromStdString(p.group) != group) continue;
        ++n;
        out += p.left_out;
      }
      add((group.isEmpty() ? tr("without a group") : group) + tr("  ·  %1 parts").arg(n), group, -1, out < n);
    }
  } else {
    for (std::size_t i = 0; i < d.parts.size(); ++i)
      add(d.parts[i].id.empty() ? tr("part %1").arg(i + 1) : QString::fromStdString(d.parts[i].id), {},
          static_cast<int>(i), !d.parts[i].left_out);
  }
  parts_->setVisible(parts_->count() > 1);
  refresh_findings();
}

// The report as verdict cards: a click goes to the place on the board, a button mends it.
void ArtworkTicket::refresh_findings() {
  clear_layout(findings_);
  const Item* item = shop_.item();
  if (!cleaning_ || item == nullptr || !std::holds_alternative<Drawing>(item->piece.what)) return;
  std::vector<Finding> found;
  try {
    found = clean_up_report(item->piece, shop_.document.job().blank.box(), {},
                            [this](double mm) { return format_length(mm, shop_.document.job().lengths); });
  } catch (const Problem& problem) {
    findings_->addWidget(make_label(QString::fromUtf8(problem.what()), "error"));
    return;
  }
  if (found.empty()) findings_->addWidget(make_label(tr("Nothing is wrong with it."), "faded"));
  for (const Finding& f : found) {
    Verdict v;
    v.grade = Grade::Mind;
    v.code = f.code;
    v.piece = item->piece.id;
    v.at = f.at.empty() ? item->piece.at : f.at.front();
    v.text = f.text;
    v.remedies.push_back({f.remedy, {}});
    auto* card = new VerdictCard(v);
    connect(card, &VerdictCard::go_to, this, [this](const QString&, double x, double y) { shop_.go_to({x, y}); });
    connect(card, &VerdictCard::remedy_taken, this,
            [this, mend = f.mend](const QString& label, int) { edit_kind<Drawing>(label.toLower(), mend); });
    findings_->addWidget(card);
  }
}

void ArtworkTicket::refresh_derived(const Derived& d) {
  using H = Derived::How;
  const Job& job = shop_.document.job();
  const Item* from = d.from.empty() ? nullptr : job.find(d.from.front());
  QString how;
  for (const auto& [kind, name] : made_names()) {
    if (kind == d.how) how = name.toLower();
  }
  derived_say_->setText(
      from == nullptr
          ? tr("What it was made from is gone.")
          : tr("“%1”, %2. It follows when that changes.").arg(QString::fromStdString(from->piece.name), how));
  fill_pieces(derived_other_, d.from.size() > 1 ? d.from[1] : std::string());
  distance_->show_length(d.distance, job.lengths);
  derived_corner_->setCurrentIndex(static_cast<int>(d.corner));
  steps_->setValue(d.steps);
  derived_band_->show_length(d.band > 0 ? std::optional(d.band) : std::nullopt, job.lengths);
  columns_->setValue(d.columns);
  rows_->setValue(d.rows);
  step_x_->show_length(d.step_x, job.lengths);
  step_y_->show_length(d.step_y, job.lengths);
  count_->setValue(d.count);
  round_radius_->show_length(d.radius, job.lengths);
  if (!derived_angle_->hasFocus())
    derived_angle_->setText(QString::fromStdString(format_number(d.angle, 2)) + QStringLiteral("°"));
  split_at_->setValue(static_cast<int>(std::lround(d.share * 100)));
  derived_turned_->setChecked(d.turned);
  derived_side_->setChecked(!d.first_side);
  show_row(derived_other_, d.how == H::Join || d.how == H::TakeAway || d.how == H::Overlap || d.how == H::Along);
  show_row(distance_, d.how == H::Grow || (d.how == H::Along && d.count == 0));
  for (QWidget* w :
       {static_cast<QWidget*>(derived_corner_), static_cast<QWidget*>(steps_), static_cast<QWidget*>(derived_band_)})
    show_row(w, d.how == H::Grow);
  for (QWidget* w : {static_cast<QWidget*>(columns_), static_cast<QWidget*>(rows_), static_cast<QWidget*>(step_x_),
                     static_cast<QWidget*>(step_y_)})
    show_row(w, d.how == H::Grid);
  show_row(count_, d.how == H::Round || d.how == H::Along);
  count_->setMinimum(d.how == H::Round ? 1 : 0);
  show_row(round_radius_, d.how == H::Round);
  show_row(derived_angle_, d.how == H::Mirror || d.how == H::Split);
  show_row(split_at_, d.how == H::Split);
  derived_turned_->setVisible(d.how == H::Round || d.how == H::Along);
  derived_side_->setVisible(d.how == H::Split);
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
  const auto* drawing = item == nullptr ? nullptr : std::get_if<Drawing>(&item->piece.what);
  const auto* derived = item == nullptr ? nullptr : std::get_if<Derived>(&item->piece.what);
  lettering_->setVisible(lettering != nullptr);
  shape_->setVisible(shape != nullptr);
  drawing_->setVisible(drawing != nullptr);
  derived_->setVisible(derived != nullptr);
  place_->setVisible(item != nullptr);
  made_->setEnabled(item != nullptr);
  notice_->setVisible(item == nullptr);
  notice_->setText(
      job.items.empty()
          ? tr("Nothing lies on the board yet. Begin with lettering, or drop a drawing or a picture on the board.")
          : tr("Choose a piece here or on the board. N and P walk through them; arrows move the chosen one."));
  if (lettering != nullptr) refresh_lettering(*lettering);
  if (shape != nullptr) refresh_shape(*shape);
  if (drawing != nullptr) refresh_drawing(*drawing);
  if (derived != nullptr) refresh_derived(*derived);
  if (item != nullptr) {
    if (!name_->hasFocus()) name_->setText(QString::fromStdString(item->piece.name));
    const doyen::Box b = box();
    left_->show_length(b.empty() ? 0 : b.left, job.lengths);
    front_->show_length(b.empty() ? 0 : b.bottom, job.lengths);
    wide_->show_length(b.width(), job.lengths);
    high_->show_length(b.height(), job.lengths);
    wide_->parentWidget()->setVisible(shape == nullptr && derived == nullptr);
    high_->parentWidget()->setVisible(shape == nullptr && derived == nullptr);
    if (!turn_->hasFocus())
      turn_->setText(QString::fromStdString(format_number(item->piece.turn, 2)) + QStringLiteral("°"));
  }
  filling_ = false;
}

}  // namespace doyen
