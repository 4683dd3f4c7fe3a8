#include "stages/run/zero_section.hpp"

#include "planning/outputs.hpp"

namespace doyen {
namespace {

// A floor that z could be set on: the deepest that the job sinks, as a first figure.
double some_floor(const Job& job) {
  constexpr double kElse = 5;  // mm
  double deepest = 0;
  for (const Item& item : job.items) {
    if (makes_ground(item.cut.kind) && !item.cut.back) deepest = std::max(deepest, floor_depth(item.cut));
  }
  return deepest > 0 ? deepest : kElse;
}

}  // namespace

ZeroSection::ZeroSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  surface_ = new QComboBox;
  surface_->setObjectName(QStringLiteral("zeroSurface"));
  surface_->addItems({tr("on the blank's face"), tr("on the bed"), tr("on a sunk floor")});
  column->addWidget(make_row(tr("Zero is taken"), surface_));
  place_ = new QComboBox;
  place_->setObjectName(QStringLiteral("zeroPlace"));
  place_->addItems({tr("at the left front corner"), tr("in the middle"), tr("at the right front corner"),
                    tr("at the left back corner"), tr("at the right back corner"),
                    tr("in the middle of the front edge"), tr("in the middle of the left edge"),
                    tr("in the middle of the right edge"), tr("in the middle of the back edge"),
                    tr("at the first turning pin")});
  place_->setToolTip(tr("As the board lies on the bed, seen from where you stand"));
  column->addWidget(make_row(QString(), place_));
  floor_ = new LengthField(from_least(0.1, "run.zeroFloor"));
  floor_->setObjectName(QStringLiteral("zeroFloor"));
  floor_->setToolTip(
      tr("How deep below the face the floor lies that z is set on: one that is there before the first "
         "file, such as the ground of a board that was sunk before"));
  column->addWidget(make_row(tr("It lies below the face"), floor_));
  plate_ = new LengthField(from_least(0.01, "run.plate"), true);
  plate_->setObjectName(QStringLiteral("plate"));
  plate_->setPlaceholderText(tr("taken off by you"));
  plate_->setToolTip(
      tr("How thick the touch plate, or the slip of paper, is that z is set with, when the files are to take it off; "
         "empty "
         "when you or your machine does. Paper is about 0.1 mm (0.004 in)"));
  column->addWidget(make_row(tr("Plate or paper"), plate_));
  says_ = make_label({}, "faded");
  column->addWidget(says_);
  connect(surface_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("move zero"), [i](Job& job) {
      job.run.zero_surface = i == 1 ? ZeroSurface::Bed : ZeroSurface::Face;
      job.run.zero_floor = i == 2 ? some_floor(job) : 0;
    });
  });
  connect(place_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("move zero"), [&](Job& job) { job.run.zero_place = static_cast<ZeroPlace>(i); });
  });
  connect(floor_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("say how deep the floor lies"), [&](Job& job) { job.run.zero_floor = mm.value_or(0); });
  });
  connect(plate_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("say how thick the touch plate is"), [&](Job& job) { job.run.plate = mm.value_or(0); });
  });
}

void ZeroSection::refresh() {
  const Job& job = shop_.document.job();
  const bool floor = job.run.zero_surface == ZeroSurface::Face && job.run.zero_floor > 0;
  surface_->setCurrentIndex(job.run.zero_surface == ZeroSurface::Bed ? 1 : floor ? 2 : 0);
  place_->setCurrentIndex(static_cast<int>(job.run.zero_place));
  show_row(floor_, floor);
  floor_->show_length(job.run.zero_floor, job.lengths);
  const bool by_machine = machine_for(job).takes_off_plate;
  plate_->setPlaceholderText(by_machine ? tr("taken off by the machine") : tr("taken off by you"));
  plate_->show_length(job.run.plate > 0 ? std::optional(job.run.plate) : std::nullopt, job.lengths);
  const QString front = QString::fromStdString(zero_in_words(job));
  says_->setText(
      job.has_back()
          ? tr("Zero: %1. For the back: %2.").arg(front, QString::fromStdString(zero_in_words(job, Side::Back)))
          : tr("Zero: %1, the same for every bit.").arg(front));
}

}  // namespace doyen
