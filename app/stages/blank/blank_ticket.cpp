#include <QFileDialog>
#include <QGridLayout>
#include <QLocale>
#include <QMenu>

#include "files/imported.hpp"
#include "problem.hpp"
#include "stages/blank/blank_ticket.hpp"
#include "stock/species.hpp"
#include "work/long_work.hpp"

namespace doyen {

namespace {
QString keep_out_name(KeepOut::Kind kind) {
  const auto tr = [](const char* words) { return QCoreApplication::translate("BlankTicket", words); };
  switch (kind) {
    case KeepOut::Kind::Clamp:
      return tr("clamp");
    case KeepOut::Kind::Screw:
      return tr("screw");
    case KeepOut::Kind::Knot:
      return tr("knot");
    case KeepOut::Kind::Sapwood:
      return tr("sapwood");
    case KeepOut::Kind::Crack:
      return tr("crack");
    case KeepOut::Kind::GlueLine:
      return tr("glue line");
  }
  return {};
}
}  // namespace

void BlankTicket::build_keep_outs() {
  clear_ = new Fold(tr("Stay clear of"), QStringLiteral("keepOutsOpen"), true);
  column_->addWidget(clear_);
  auto* add = new QPushButton(tr("+ Clamp, screw, knot…"));
  add->setObjectName(QStringLiteral("addKeepOut"));
  auto* menu = new QMenu(add);
  for (int i = 0; i < 6; ++i) {
    const auto kind = static_cast<KeepOut::Kind>(i);
    connect(menu->addAction(keep_out_name(kind)), &QAction::triggered, this, [this, kind] {
      shop_.document.edit(tr("add a %1").arg(keep_out_name(kind)), [&](Job& job) {
        KeepOut place;
        place.kind = kind;
        const Blank& b = job.blank;
        place.x = 30;
        place.y = b.height / 2;
        if (place.round()) place.width = place.height = kind == KeepOut::Kind::Screw ? 12 : 25;
        if (kind == KeepOut::Kind::GlueLine) place = {kind, b.width / 2, b.height / 2, b.width, 2};
        if (kind == KeepOut::Kind::Sapwood) place = {kind, b.width / 2, 12, b.width, 24};
        if (kind == KeepOut::Kind::Crack) place = {kind, 40, b.height / 2, 80, 3};
        job.blank.keep_outs.push_back(place);
      });
      keep_outs_->setCurrentRow(keep_outs_->count() - 1);
    });
  }
  add->setMenu(menu);
  clear_->body()->addWidget(add, 0, Qt::AlignLeft);
  keep_outs_ = new QListWidget;
  keep_outs_->setFixedHeight(78);
  keep_outs_->setAccessibleName(tr("Places to stay clear of"));
  clear_->body()->addWidget(keep_outs_);
  keep_out_fields_ = new QWidget;
  auto* column = new QVBoxLayout(keep_out_fields_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  keep_x_ = new LengthField(range_of("blank.keepOuts[].x"));
  keep_y_ = new LengthField(range_of("blank.keepOuts[].y"));
  keep_w_ = new LengthField(range_of("blank.keepOuts[].width"));
  keep_h_ = new LengthField(range_of("blank.keepOuts[].height"));
  keep_x_->setObjectName(QStringLiteral("keepX"));
  column->addWidget(make_row(tr("Middle from left"), keep_x_));
  column->addWidget(make_row(tr("from front"), keep_y_));
  column->addWidget(make_row(tr("Width"), keep_w_));
  column->addWidget(make_row(tr("Depth"), keep_h_));
  keep_stands_ = new LengthField(from_least(0.1, "blank.keepOuts[].stands"), true);
  keep_stands_->setObjectName(QStringLiteral("keepStands"));
  keep_stands_->setToolTip(tr("How high it stands above the board's face: travel keeps above it"));
  column->addWidget(make_row(tr("Stands above the face"), keep_stands_));
  connect(keep_stands_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_keep_out(tr("say how high it stands"), [&](KeepOut& k) { k.stands = mm.value_or(0); });
  });
  keep_up_ = new QComboBox;
  keep_up_->setObjectName(QStringLiteral("keepUp"));
  keep_up_->addItems({tr("whichever side is up"), tr("while the front is up"), tr("while the back is up")});
  keep_up_->setToolTip(
      tr("Its place is counted on the front. Where it is not said, its place on the bed and its place on "
         "the wood are both kept clear when the board is turned over"));
  column->addWidget(make_row(tr("It stands there"), keep_up_));
  connect(keep_up_, &QComboBox::activated, this, [this](int i) {
    edit_keep_out(tr("say while which side is up"), [i](KeepOut& k) { k.up = static_cast<KeepOut::Up>(i); });
  });
  auto* remove = new QPushButton(tr("Take it away"));
  column->addWidget(remove, 0, Qt::AlignLeft);
  clear_->body()->addWidget(keep_out_fields_);
  const auto field = [this](LengthField* f, double KeepOut::*member) {
    connect(f, &LengthField::entered, this, [this, member](std::optional<double> mm) {
      edit_keep_out(tr("move what to stay clear of"), [&](KeepOut& k) { k.*member = *mm; });
    });
  };
  field(keep_x_, &KeepOut::x);
  field(keep_y_, &KeepOut::y);
  field(keep_w_, &KeepOut::width);
  field(keep_h_, &KeepOut::height);
  connect(keep_outs_, &QListWidget::currentRowChanged, this, [this] {
    if (!filling_) refresh_keep_outs();
  });
  connect(remove, &QPushButton::clicked, this, [this] {
    const int row = keep_outs_->currentRow();
    shop_.document.edit(tr("take it away"), [&](Job& job) {
      if (row >= 0 && row < static_cast<int>(job.blank.keep_outs.size()))
        job.blank.keep_outs.erase(job.blank.keep_outs.begin() + row);
    });
  });
}

void BlankTicket::edit_keep_out(const QString& name, const std::function<void(KeepOut&)>& change) {
  const int row = keep_outs_->currentRow();
  shop_.document.edit(name, [&](Job& job) {
    if (row >= 0 && row < static_cast<int>(job.blank.keep_outs.size()))
      change(job.blank.keep_outs[static_cast<std::size_t>(row)]);
  });
}

void BlankTicket::refresh_keep_outs() {
  filling_ = true;
  const Job& job = shop_.document.job();
  const int row = std::min(keep_outs_->currentRow(), static_cast<int>(job.blank.keep_outs.size()) - 1);
  keep_outs_->clear();
  for (const KeepOut& k : job.blank.keep_outs)
    keep_outs_->addItem(
        tr("%1, %2 from left, %3 from front").arg(keep_out_name(k.kind), shop_.show(k.x), shop_.show(k.y)));
  keep_outs_->setVisible(!job.blank.keep_outs.empty());
  keep_outs_->setCurrentRow(row);
  keep_out_fields_->setVisible(row >= 0);
  if (row >= 0) {
    const KeepOut& k = job.blank.keep_outs[static_cast<std::size_t>(row)];
    keep_x_->show_length(k.x, job.lengths);
    keep_y_->show_length(k.y, job.lengths);
    keep_w_->show_length(k.width, job.lengths);
    keep_h_->show_length(k.height, job.lengths);
    keep_stands_->show_length(k.stands > 0 ? std::optional(k.stands) : std::nullopt, job.lengths);
    KeepOut usual = k;
    usual.stands = 0;
    keep_stands_->setPlaceholderText(tr("%1 is usual").arg(shop_.show(usual.above_face())));
    show_row(keep_stands_, k.metal());
    keep_up_->setCurrentIndex(static_cast<int>(k.up));
    show_row(keep_up_, k.metal() && (job.has_back() || k.up != KeepOut::Up::Whichever));
  }
  filling_ = false;
}

void BlankTicket::choose_keep_out(int which) { keep_outs_->setCurrentRow(which); }

// The board's own outline from a drawing: its largest part, at the drawing's size.
void BlankTicket::take_edge() {
  const QString path = QFileDialog::getOpenFileName(this, tr("The board's outline"), {}, tr("Drawings (*.svg *.dxf)"));
  if (path.isEmpty()) return refresh();
  try {
    Region region;
    work_off_thread(this, tr("Reading %1…").arg(QFileInfo(path).fileName()),
                    [&](const Cancel& cancel, const Told& told) {
                      region = drawing_region(read_artwork(path.toStdString(), Reading(cancel, told)).drawing);
                    });
    const Island* largest = nullptr;
    for (const Island& island : region.islands) {
      if (largest == nullptr || signed_area(island.rings.front()) > signed_area(largest->rings.front()))
        largest = &island;
    }
    if (largest == nullptr) throw bad_input(tr("“%1” has no closed outline.").arg(path).toStdString());
    Path edge;
    const Ring& ring = largest->rings.front();
    for (std::size_t i = 0; i < ring.size(); ++i) i == 0 ? edge.move(ring[i]) : edge.line(ring[i]);
    edge.close();
    const doyen::Box box = bounds(ring);
    shop_.document.edit(tr("take the board's outline from a drawing"), [&](Job& job) {
      job.blank.form = BlankForm::Outline;
      job.blank.edge = path_data(edge, 3);
      job.blank.width = box.width();
      job.blank.height = box.height();
    });
  } catch (const Cancelled&) {
    refresh();
  } catch (const Problem& problem) {
    readings_say_->setText(QString::fromUtf8(problem.what()));
    refresh();
  }
}

BlankTicket::BlankTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("The blank"));
  name_ = new TextField(check_name);
  add_row(tr("Name of the job"), name_);
  unit_ = new QComboBox;
  unit_->addItems({tr("millimetres"), tr("inches, decimal"), tr("inches, fractions")});
  add_row(tr("Lengths in"), unit_);
  add_rule();
  width_ = new LengthField(range_of("blank.width"));
  height_ = new LengthField(range_of("blank.height"));
  width_->setObjectName(QStringLiteral("blankWidth"));
  form_ = new QComboBox;
  form_->setObjectName(QStringLiteral("blankForm"));
  form_->addItems({tr("rectangle"), tr("round or oval"), tr("outline of a drawing…")});
  add_row(tr("Form"), form_);
  connect(form_, &QComboBox::activated, this, [this](int i) {
    if (i == 2) return take_edge();
    shop_.document.edit(tr("change the board's form"), [&](Job& job) {
      job.blank.form = static_cast<BlankForm>(i);
      job.blank.edge.clear();
    });
  });
  add_row(tr("Left to right"), width_);
  add_row(tr("Front to back"), height_);
  readings_ = new ReadingsField;
  connect(readings_, &ReadingsField::refused, this, [this](const QString& why) { readings_say_->setText(why); });
  readings_->setObjectName(QStringLiteral("readings"));
  add_row(tr("Thickness readings"), readings_);
  readings_say_ = make_label({}, "faded");
  column_->addWidget(readings_say_);
  add_rule();
  species_ = new QComboBox;
  for (const Species& s : species_table().species)
    species_->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
  add_row(tr("Wood"), species_);
  grain_ = new QComboBox;
  grain_->addItems({tr("left to right"), tr("front to back")});
  add_row(tr("Grain runs"), grain_);
  add_rule();
  margins_ = new Fold(tr("Margin, film and bed"), QStringLiteral("marginsOpen"));
  margin_ = new LengthField(range_of("blank.margin"));
  film_ = new LengthField(range_of("blank.film"));
  bed_ = new LengthField(range_of("blank.bedUnevenness"));
  margins_->body()->addWidget(make_row(tr("Margin kept"), margin_));
  margins_->body()->addWidget(make_row(tr("Masking film"), film_));
  margins_->body()->addWidget(make_row(tr("Bed uneven by"), bed_));
  bed_->setToolTip(tr("Cut at least this far below the board, for an uneven bed or a cupped board"));
  auto* sides = new QWidget;
  auto* grid = new QGridLayout(sides);
  grid->setContentsMargins(0, 0, 0, 0);
  struct Side {
    QString word, name;
    bool RunsOff::*member;
  };
  const std::array<Side, 4> all{{{tr("left"), QStringLiteral("runsOffLeft"), &RunsOff::left},
                                 {tr("right"), QStringLiteral("runsOffRight"), &RunsOff::right},
                                 {tr("front"), QStringLiteral("runsOffFront"), &RunsOff::front},
                                 {tr("back"), QStringLiteral("runsOffBack"), &RunsOff::back}}};
  for (std::size_t i = 0; i < all.size(); ++i) {
    const auto& [side, name, member] = all[i];
    auto* box = runs_off_[i] = new QCheckBox(side);
    box->setObjectName(name);
    box->setToolTip(
        tr("What is drawn goes on beyond this side, and bits run just past it: keep clamps and stops away"));
    grid->addWidget(box, static_cast<int>(i / 2), static_cast<int>(i % 2));
    connect(box, &QCheckBox::clicked, this, [this, to = member](bool on) {
      shop_.document.edit(on ? tr("let cuts run off a side") : tr("keep cuts on the board"),
                          [&](Job& job) { job.blank.runs_off.*to = on; });
    });
  }
  margins_->body()->addWidget(make_row(tr("Cuts run off at"), sides));
  column_->addWidget(margins_);
  build_keep_outs();
  plates_ = new PlatesSection(shop_);
  column_->addWidget(plates_);
  panels_ = new PanelsSection(shop_);
  column_->addWidget(panels_);
  nest_ = new NestSection(shop_);
  column_->addWidget(nest_);
  off_cuts_ = new OffCutsSection(shop_);
  column_->addWidget(off_cuts_);
  wood_ = new Fold(tr("What this wood is"), QStringLiteral("woodOpen"));
  about_ = make_label({}, "faded");
  wood_->body()->addWidget(about_);
  weight_ = new NumberCard(tr("Weight"));
  movement_ = new NumberCard(tr("Moves across the grain by"));
  wood_->body()->addWidget(weight_);
  wood_->body()->addWidget(movement_);
  column_->addWidget(wood_);
  column_->addStretch();

  const auto length = [this](LengthField* field, const QString& name, double Blank::*member) {
    connect(field, &LengthField::entered, this, [this, name, member](std::optional<double> mm) {
      shop_.document.edit(name, [&](Job& job) { job.blank.*member = *mm; });
    });
  };
  length(width_, tr("change the board's width"), &Blank::width);
  length(height_, tr("change the board's depth"), &Blank::height);
  length(margin_, tr("change the margin"), &Blank::margin);
  length(film_, tr("change the masking film"), &Blank::film);
  length(bed_, tr("change the bed's unevenness"), &Blank::bed_unevenness);
  connect(name_, &TextField::entered, this, [this](const QString& words) {
    shop_.document.edit(tr("name the job"), [&](Job& job) { job.name = words.toStdString(); });
  });
  connect(unit_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("change the unit"), [&](Job& job) {
      job.lengths.unit = i == 0 ? Unit::Millimetre : Unit::Inch;
      job.lengths.fractions = i == 2;
    });
  });
  connect(species_, &QComboBox::activated, this, [this] {
    shop_.document.edit(tr("change the wood"),
                        [&](Job& job) { job.blank.species = species_->currentData().toString().toStdString(); });
  });
  connect(grain_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("turn the grain"),
                        [&](Job& job) { job.blank.grain = i == 0 ? Grain::AlongWidth : Grain::AlongHeight; });
  });
  connect(readings_, &ReadingsField::entered, this, [this](const std::vector<double>& values) {
    shop_.document.edit(tr("enter thickness readings"), [&](Job& job) { take_readings(job, values); });
    refresh();
  });
}

void BlankTicket::refresh() {
  refresh_keep_outs();
  plates_->refresh();
  panels_->refresh();
  nest_->refresh();
  off_cuts_->refresh();
  const Job& job = shop_.document.job();
  const Blank& b = job.blank;
  name_->show_text(QString::fromStdString(job.name));
  unit_->setCurrentIndex(job.lengths.unit == Unit::Millimetre ? 0 : job.lengths.fractions ? 2 : 1);
  form_->setCurrentIndex(static_cast<int>(b.form));
  width_->show_length(b.width, job.lengths);
  height_->show_length(b.height, job.lengths);
  margin_->show_length(b.margin, job.lengths);
  film_->show_length(b.film, job.lengths);
  bed_->show_length(b.bed_unevenness, job.lengths);
  const std::array<bool, 4> off{b.runs_off.left, b.runs_off.right, b.runs_off.front, b.runs_off.back};
  for (std::size_t i = 0; i < off.size(); ++i) runs_off_[i]->setChecked(off[i]);
  readings_->show_readings(b.readings, job.lengths);
  readings_say_->setText(tr("thickest %1, thinnest %2; through cuts are set from the thickest")
                             .arg(shop_.show(b.thickest()), shop_.show(b.thinnest())));
  species_->setCurrentIndex(species_->findData(QString::fromStdString(b.species)));
  grain_->setCurrentIndex(b.grain == Grain::AlongWidth ? 0 : 1);
  const Species* s = species_table().find(b.species);
  const bool inch = job.lengths.unit == Unit::Inch;
  about_->setText(
      s == nullptr
          ? tr("Not in the table of woods.")
          : (inch
                 ? tr("%1 lb/ft³ at 12 % moisture, side hardness %2 lbf. Shrinks %3 % tangentially, %4 % radially. %5.")
                       .arg(s->density * kPoundsPerFoot, 0, 'f', 1)
                       .arg(s->side_hardness / kNewtonsPerPound, 0, 'f', 0)
                 : tr("%1 kg/m³ at 12 % moisture, side hardness %2 N. Shrinks %3 % tangentially, %4 % radially. %5.")
                       .arg(s->density)
                       .arg(s->side_hardness))
                .arg(s->shrink_tangential)
                .arg(s->shrink_radial)
                .arg(QString::fromStdString(s->source)));
  QStringList set{tr("margin %1").arg(shop_.show(b.margin))};
  if (b.film > 0) set << tr("film %1").arg(shop_.show(b.film));
  if (b.bed_unevenness > 0) set << tr("bed %1").arg(shop_.show(b.bed_unevenness));
  margins_->set_summary(set.join(QStringLiteral(", ")));
  const auto places = b.keep_outs.size();
  clear_->set_summary(places == 0 ? tr("nothing marked") : places == 1 ? tr("1 place") : tr("%1 places").arg(places));
  const Sum weight = weight_sum(b, job.lengths), movement = movement_sum(b, job.lengths);
  weight_->show_number(QString::fromStdString(weight.result).remove(QStringLiteral("= ")), tr("the whole blank"),
                       weight);
  movement_->show_number(QString::fromStdString(movement.result).remove(QStringLiteral("= ")),
                         tr("for 4 % of moisture"), movement);
  wood_->set_summary(QString::fromStdString(weight.result).remove(QStringLiteral("= ")));
}

}  // namespace doyen
