#include "measure/length.hpp"
#include "stages/artwork/artwork_sections.hpp"

namespace doyen {

QList<std::pair<Derived::How, QString>> MadeSection::names() {
  using H = Derived::How;
  return {{H::Grow, tr("Grown or shrunk")},         {H::Join, tr("Joined with another")},
          {H::TakeAway, tr("Cut away by another")}, {H::Overlap, tr("Where two overlap")},
          {H::Split, tr("Split by a line")},        {H::Mirror, tr("Mirrored")},
          {H::Grid, tr("Repeated in rows")},        {H::Round, tr("Repeated round a centre")},
          {H::Along, tr("Repeated along another")}, {H::Link, tr("Linked into one part")}};
}

MadeSection::MadeSection(Workshop& shop) : ArtworkSection(shop) {
  say_ = make_label({}, "faded");
  column_->addWidget(say_);
  other_ = new QComboBox;
  column_->addWidget(make_row(tr("Other piece"), other_));
  distance_ = new LengthField(range_of("pieces[].madeFrom.distance"));
  distance_->setToolTip(tr("Below zero it shrinks"));
  column_->addWidget(make_row(tr("Distance"), distance_));
  corner_ = new QComboBox;
  corner_->addItems({tr("round"), tr("sharp"), tr("flat")});
  column_->addWidget(make_row(tr("Corners"), corner_));
  steps_ = spin(range_of("pieces[].madeFrom.steps"));
  column_->addWidget(make_row(tr("Steps"), steps_));
  band_ = new LengthField(range_of("pieces[].madeFrom.band"), true);
  column_->addWidget(make_row(tr("Frame width"), band_));
  columns_ = spin(range_of("pieces[].madeFrom.columns"));
  rows_ = spin(range_of("pieces[].madeFrom.rows"));
  step_x_ = new LengthField(range_of("pieces[].madeFrom.stepX"));
  step_y_ = new LengthField(range_of("pieces[].madeFrom.stepY"));
  column_->addWidget(make_row(tr("Side by side"), columns_));
  column_->addWidget(make_row(tr("spaced"), step_x_));
  column_->addWidget(make_row(tr("Behind"), rows_));
  column_->addWidget(make_row(tr("spaced"), step_y_));
  count_ = spin(range_of("pieces[].madeFrom.count"));
  count_->setSpecialValueText(tr("by the distance"));
  column_->addWidget(make_row(tr("How many"), count_));
  round_radius_ = new LengthField(range_of("pieces[].madeFrom.radius"));
  column_->addWidget(make_row(tr("Radius"), round_radius_));
  angle_ = new TextField([](const QString& words) { parse_angle(words); });
  column_->addWidget(make_row(tr("Line at"), angle_));
  split_at_ = spin(1, 99, tr(" % across"));
  column_->addWidget(make_row(tr("Split at"), split_at_));
  turned_ = new QCheckBox(tr("Copies turn with the way"));
  side_ = new QCheckBox(tr("Keep the other side"));
  column_->addWidget(turned_);
  column_->addWidget(side_);
  bridge_ = new LengthField(range_of("pieces[].madeFrom.bridge"));
  bridge_->setObjectName(QStringLiteral("bridge"));
  column_->addWidget(make_row(tr("Bridges, wide"), bridge_));
  bridges_anew_ = new QPushButton(tr("Place the bridges anew"));
  bridges_anew_->setObjectName(QStringLiteral("bridgesAnew"));
  column_->addWidget(bridges_anew_, 0, Qt::AlignLeft);
  connect(bridges_anew_, &QPushButton::clicked, this,
          [this] { edit_kind<Derived>(tr("place the bridges anew"), [](Derived& d) { d.bridges.clear(); }); });
  auto* freeze = new QPushButton(tr("Make it independent"));
  freeze->setToolTip(tr("It becomes a drawing of its own and follows nothing any more"));
  column_->addWidget(freeze, 0, Qt::AlignLeft);
  connect(freeze, &QPushButton::clicked, this, &MadeSection::freeze_piece);
  const QString change = tr("change what is made");
  const auto length = [this, change](LengthField* f, double Derived::*member) {
    connect(f, &LengthField::entered, this, [this, change, member](std::optional<double> mm) {
      edit_kind<Derived>(change, [&](Derived& d) { d.*member = mm.value_or(0); });
    });
  };
  length(distance_, &Derived::distance);
  length(band_, &Derived::band);
  length(step_x_, &Derived::step_x);
  length(step_y_, &Derived::step_y);
  length(round_radius_, &Derived::radius);
  length(bridge_, &Derived::bridge);
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
  connect(corner_, &QComboBox::activated, this, [this, change](int i) {
    edit_kind<Derived>(change, [&](Derived& d) { d.corner = static_cast<Corner>(i); });
  });
  connect(other_, &QComboBox::activated, this, [this, change] {
    const std::string id = other_->currentData().toString().toStdString();
    edit_kind<Derived>(change, [&](Derived& d) {
      d.from.resize(1);
      d.from.push_back(id);
    });
  });
  connect(turned_, &QCheckBox::clicked, this,
          [this, change](bool on) { edit_kind<Derived>(change, [&](Derived& d) { d.turned = on; }); });
  connect(side_, &QCheckBox::clicked, this,
          [this, change](bool on) { edit_kind<Derived>(change, [&](Derived& d) { d.first_side = !on; }); });
  connect(angle_, &TextField::entered, this, [this, change](const QString& words) {
    edit_kind<Derived>(change, [&](Derived& d) { d.angle = parse_angle(words); });
  });
}

void MadeSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const auto& d = std::get<Derived>(item.piece.what);
  using H = Derived::How;
  const Job& job = shop_.document.job();
  const Item* from = d.from.empty() ? nullptr : job.find(d.from.front());
  QString how;
  for (const auto& [kind, name] : names()) {
    if (kind == d.how) how = name;
  }
  say_->setText(from == nullptr
                    ? tr("What it was made from is gone.")
                    : tr("%1: “%2”. It follows when that changes.").arg(how, QString::fromStdString(from->piece.name)) +
                          (d.how == H::Link
                               ? QLatin1Char(' ') + tr("Drag a bridge or its ends on the board; where it would "
                                                       "still fall apart, the shortest bridge is added.")
                               : QString()));
  fill_pieces(other_, d.from.size() > 1 ? d.from[1] : std::string());
  distance_->show_length(d.distance, job.lengths);
  corner_->setCurrentIndex(static_cast<int>(d.corner));
  steps_->setValue(d.steps);
  band_->show_length(d.band > 0 ? std::optional(d.band) : std::nullopt, job.lengths);
  columns_->setValue(d.columns);
  rows_->setValue(d.rows);
  step_x_->show_length(d.step_x, job.lengths);
  step_y_->show_length(d.step_y, job.lengths);
  count_->setValue(d.count);
  round_radius_->show_length(d.radius, job.lengths);
  angle_->show_text(QString::fromStdString(format_number(d.angle, 2)) + QStringLiteral("°"));
  split_at_->setValue(static_cast<int>(std::lround(d.share * 100)));
  turned_->setChecked(d.turned);
  side_->setChecked(!d.first_side);
  show_row(other_, d.how == H::Join || d.how == H::TakeAway || d.how == H::Overlap || d.how == H::Along);
  show_row(distance_, d.how == H::Grow || (d.how == H::Along && d.count == 0));
  for (QWidget* w : {static_cast<QWidget*>(corner_), static_cast<QWidget*>(steps_), static_cast<QWidget*>(band_)})
    show_row(w, d.how == H::Grow);
  for (QWidget* w : {static_cast<QWidget*>(columns_), static_cast<QWidget*>(rows_), static_cast<QWidget*>(step_x_),
                     static_cast<QWidget*>(step_y_)})
    show_row(w, d.how == H::Grid);
  show_row(count_, d.how == H::Round || d.how == H::Along);
  count_->setMinimum(d.how == H::Round ? 1 : 0);
  show_row(round_radius_, d.how == H::Round);
  show_row(angle_, d.how == H::Mirror || d.how == H::Split);
  show_row(split_at_, d.how == H::Split);
  show_row(bridge_, d.how == H::Link);
  bridge_->show_length(d.bridge, job.lengths);
  bridges_anew_->setVisible(d.how == H::Link && !d.bridges.empty());
  turned_->setVisible(d.how == H::Round || d.how == H::Along);
  side_->setVisible(d.how == H::Split);
}

}  // namespace doyen
