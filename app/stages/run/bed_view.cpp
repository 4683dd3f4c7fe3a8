#include "stages/run/bed_view.hpp"
#include "problem.hpp"

#include <set>

#include "planning/further_boards.hpp"
#include "planning/look_round.hpp"
#include "relief/lighting.hpp"
#include "run/bed.hpp"
#include "stages/proof/boards_view.hpp"

namespace doyen {

BedView::BedView(Workshop& shop, QWidget* parent)
    : QDialog(parent), shop_(shop), cache_(std::make_shared<PlanCache>()) {
  setObjectName(QStringLiteral("bedView"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  picture_ = new BedPicture;
  row->addWidget(picture_, 1);
  auto* column = add_sheet(row);
  column->addWidget(make_label(tr("On the bed"), "title"));
  column->addWidget(make_label(tr("The machine's bed from above. Drag the board to where it lies, or push it with the "
                                  "arrows. The dashed line is as far as the bits' middles go."),
                               "faded"));
  const auto box = [](const char* name, const QStringList& words) {
    auto* made = new QComboBox;
    made->setObjectName(QLatin1String(name));
    made->addItems(words);
    return made;
  };
  board_ = box("bedBoard", {});
  board_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  column->addWidget(make_row(tr("What lies there"), board_));
  connect(board_, &QComboBox::activated, this, [this] {
    carved_.reset();
    carve();
  });
  lies_ = box("bedLies", {tr("as it is drawn"), tr("a quarter turned to the left"), tr("half turned round"),
                          tr("a quarter turned to the right")});
  column->addWidget(make_row(tr("The blank lies"), lies_));
  against_ = box("bedAgainst", {tr("nothing that stands there"), tr("stops and a wedge"), tr("a fence and a stop"),
                                tr("dowels in the bed's holes")});
  column->addWidget(make_row(tr("Against"), against_));
  corner_ = box("bedCorner", {tr("its left front corner"), tr("its right front corner"), tr("its left back corner"),
                              tr("its right back corner")});
  corner_->setToolTip(
      tr("The board's corner that is pushed home, as it lies, seen from where you stand: from it the "
         "place is counted"));
  column->addWidget(make_row(tr("Pushed home"), corner_));
  x_ = new LengthField(range_of("run.fixture.x"), true);
  x_->setObjectName(QStringLiteral("bedX"));
  y_ = new LengthField(range_of("run.fixture.y"), true);
  y_->setObjectName(QStringLiteral("bedY"));
  for (LengthField* field : {x_, y_}) field->setPlaceholderText(tr("not said"));
  column->addWidget(make_row(tr("From the left"), x_));
  column->addWidget(make_row(tr("From the front"), y_));
  stands_ = new LengthField(from_least(0.5, "run.fixture.stands"), true);
  stands_->setObjectName(QStringLiteral("bedStands"));
  stands_->setPlaceholderText(tr("half as high as the board"));
  stands_->setToolTip(tr("How high stops, fence or dowels stand above the bed: no bit may run into them"));
  stops_ = new Fold(tr("What stands there"), QStringLiteral("bedStopsOpen"));
  column->addWidget(stops_);
  stops_->body()->addWidget(make_row(tr("They stand"), stands_));
  const auto part = [&](const char* name, const QString& label, Range range, const QString& empty, auto member) {
    auto* field = new LengthField(range, true);
    field->setObjectName(QLatin1String(name));
    field->setPlaceholderText(empty);
    stops_->body()->addWidget(make_row(label, field));
    connect(field, &LengthField::entered, this, [this, member](std::optional<double> mm) {
      edit(tr("say what the stops are like"), [mm, member](Fixture& f) {
        if constexpr (std::is_same_v<decltype(member), double Fixture::*>)
          f.*member = mm.value_or(0);
        else
          f.*member = mm;
      });
    });
    return field;
  };
  const QString usual = tr("as usual"), third = tr("a sixth in"), half = tr("in the middle");
  long_ = part("bedLong", tr("Long"), from_least(1, "run.fixture.partLong"), usual, &Fixture::part_long);
  wide_ = part("bedWide", tr("Wide"), from_least(1, "run.fixture.partWide"), usual, &Fixture::part_wide);
  first_ = part("bedFirst", tr("First"), range_of("run.fixture.first"), third, &Fixture::first);
  second_ = part("bedSecond", tr("Second"), range_of("run.fixture.second"), third, &Fixture::second);
  end_ = part("bedEnd", tr("Shorter edge"), range_of("run.fixture.end"), half, &Fixture::end);
  for (LengthField* field : {first_, second_, end_})
    field->setToolTip(tr("From the corner that is pushed home to the middle of the stop or dowel"));
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("bedSays"));
  column->addWidget(says_);
  home_ = make_label({}, "plain");
  home_->setObjectName(QStringLiteral("bedHome"));
  column->addWidget(home_);
  trouble_ = make_label({}, "error");
  trouble_->setObjectName(QStringLiteral("bedTrouble"));
  column->addWidget(trouble_);
  mend_ = new QPushButton;
  mend_->setObjectName(QStringLiteral("bedMend"));
  column->addWidget(mend_);
  connect(mend_, &QPushButton::clicked, this, [this] {
    if (const std::optional<Remedy> remedy = mend_with_)
      shop_.document.edit(QString::fromStdString(remedy->label), [&](Job& job) { remedy->apply(job); });
  });
  column->addStretch();
  middle_ = new QPushButton(tr("Into the middle of the bed"));
  middle_->setObjectName(QStringLiteral("bedMiddle"));
  forget_ = new QPushButton(tr("Not said where it lies"));
  forget_->setObjectName(QStringLiteral("bedForget"));
  auto* back = new QPushButton(tr("Back to the board"));
  back->setObjectName(QStringLiteral("bedBack"));
  for (QPushButton* button : {middle_, forget_, back}) column->addWidget(button);
  connect(back, &QPushButton::clicked, this, &QDialog::reject);
  connect(middle_, &QPushButton::clicked, this, [this] {
    const Job job = lying();
    const Point at = pushed_corner(job, middle_of_travel(job, machine_for(job)));
    edit(tr("move the board on the bed"), [at](Fixture& f) { f.x = at.x, f.y = at.y; });
  });
  connect(forget_, &QPushButton::clicked, this,
          [this] { edit(tr("not said where it lies"), [](Fixture& f) { f.x.reset(), f.y.reset(); }); });
  connect(picture_, &BedPicture::pushed, this, [this](Point by) {
    const Job job = lying();
    const Point at = pushed_corner(job, left_front_on_bed(job).value_or(middle_of_travel(job, machine_for(job)))) + by;
    shop_.document.edit(
        tr("move the board on the bed"), [at](Job& j) { j.run.fixture.x = at.x, j.run.fixture.y = at.y; },
        QStringLiteral("bed"));
  });
  connect(lies_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("turn the blank on the bed"), [i](Job& job) { job.run.on_bed = static_cast<OnBed>(i); });
  });
  connect(against_, &QComboBox::activated, this, [this](int i) {
    edit(tr("say what it lies against"), [i](Fixture& f) { f.kind = static_cast<Fixture::Kind>(i); });
  });
  connect(corner_, &QComboBox::activated, this, [this](int i) {
    Job job = lying();
    const std::optional<Point> was = left_front_on_bed(job);
    job.run.fixture.corner = static_cast<Fixture::Corner>(i);
    // The board stays where it lies; another of its corners is counted from.
    if (const std::optional<Point> now = left_front_on_bed(job)) move_on_bed(job, *was - *now);
    edit(tr("push another corner home"), [to = job.run.fixture](Fixture& f) { f = to; });
  });
  connect(x_, &LengthField::entered, this, [this] { place_it(); });
  connect(y_, &LengthField::entered, this, [this] { place_it(); });
  connect(stands_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("say how high they stand"), [mm](Fixture& f) { f.stands = mm.value_or(0); });
  });
  setFocusProxy(picture_);
  refresh();
}

void BedView::edit(const QString& name, const std::function<void(Fixture&)>& change) {
  shop_.document.edit(name, [&](Job& job) { change(job.run.fixture); });
}

// One figure alone says nothing: the other is taken from where the board is shown.
void BedView::place_it() {
  const Job job = lying();
  if (!x_->length() && !y_->length())
    return edit(tr("not said where it lies"), [](Fixture& f) { f.x.reset(), f.y.reset(); });
  const Point shown = pushed_corner(job, left_front_on_bed(job).value_or(middle_of_travel(job, machine_for(job))));
  const Point at{x_->length().value_or(shown.x), y_->length().value_or(shown.y)};
  edit(tr("move the board on the bed"), [at](Fixture& f) { f.x = at.x, f.y = at.y; });
}

// The job as it lies there: where others are made of it, one of those, lying as this job says.
Job BedView::lying() const {
  Job job = shop_.document.job();
  if (job.made_as_others() && other_) {
    job.blank = other_->job.blank;
    job.panels = {};
    job.nest = {};
    job.plates = {};
  }
  return job;
}

namespace {

// How far the bits' middles go, in lying coordinates.
std::optional<Box> reach_there(const Plan& plan) {
  const std::optional<Reach> of = reach_of(plan, Side::Front);
  if (!of) return {};
  const Placement files = placement_of(plan.job, plan.machine), lies = lying_placement(plan.job);
  Box reach;
  for (const Point corner : {Point{of->middle.left, of->middle.bottom}, Point{of->middle.right, of->middle.top}})
    reach.add(lies.at_machine(files.on_board(corner)));
  return reach;
}

// By how much the board reaches beyond the bed, mm.
double beyond_bed(const Job& job, const MachineProfile& machine) {
  const std::optional<Point> at = left_front_on_bed(job);
  if (!at) return 0;
  const Box bed = bed_box(machine), board = lying_box(job.blank, job.run.on_bed);
  return std::max(
      {bed.left - at->x, bed.bottom - at->y, at->x + board.width() - bed.right, at->y + board.height() - bed.top});
}

}  // namespace

void BedView::refresh() {
  const Job job = lying();
  const MachineProfile& machine = machine_for(job);
  const bool others = shop_.document.job().made_as_others();
  show_row(board_, others);
  // What is seen: of a board that is made of the job, its own.
  const PlanPtr plan = others ? other_ : shop_.current() ? shop_.plan : PlanPtr();
  picture_->show_job(job, machine, plan ? reach_there(*plan) : std::nullopt);
  lies_->setCurrentIndex(static_cast<int>(job.run.on_bed));
  show_fixture(job);
  say_place(job, machine);
  say_troubles(!plan ? std::vector<Verdict>() : others ? plan->verdicts : shop_.seen()->verdicts);
  carve();
}

void BedView::show_fixture(const Job& job) {
  using Kind = Fixture::Kind;
  const Fixture& f = job.run.fixture;
  against_->setCurrentIndex(static_cast<int>(f.kind));
  corner_->setCurrentIndex(static_cast<int>(f.corner));
  x_->show_length(f.x, job.lengths);
  y_->show_length(f.y, job.lengths);
  const auto said = [](double mm) { return mm > 0 ? std::optional(mm) : std::nullopt; };
  stands_->show_length(said(f.stands), job.lengths);
  long_->show_length(said(f.part_long), job.lengths);
  wide_->show_length(said(f.part_wide), job.lengths);
  first_->show_length(f.first, job.lengths);
  second_->show_length(f.second, job.lengths);
  end_->show_length(f.end, job.lengths);
  for (LengthField* field : {long_, wide_}) show_row(field, f.kind == Kind::Stops || f.kind == Kind::Fence);
  for (LengthField* field : {first_, second_}) show_row(field, f.kind == Kind::Stops || f.kind == Kind::Dowels);
  stops_->setVisible(f.kind != Kind::None);
  const bool usual = f.part_long <= 0 && f.part_wide <= 0 && !f.first && !f.second && !f.end;
  stops_->set_summary(usual ? tr("as usual") : tr("as you said"));
}

void BedView::say_place(const Job& job, const MachineProfile& machine) {
  const Fixture& f = job.run.fixture;
  forget_->setEnabled(f.placed());
  QString words = tr("Where it lies was not said: the travel is looked at by its length alone.");
  if (f.placed())
    words = tr("That corner lies %1 from the left and %2 from the front end of the machine's travel.")
                .arg(shop_.show(*f.x), shop_.show(*f.y));
  if (const double most = beyond_bed(job, machine); most > 0.5)
    words += QLatin1Char(' ') + tr("It reaches %1 beyond the bed.").arg(shop_.show(most));
  says_->setText(words);
  const std::optional<Point> home = zero_from_home(job, machine);
  home_->setVisible(home.has_value());
  if (home)
    home_->setText(tr("Counted from home, zero lies at x %1, y %2: compare it with the machine's own display.")
                       .arg(shop_.show(home->x), shop_.show(home->y)));
}

// What of the verdicts is about the bed, and the first remedy for it.
void BedView::say_troubles(const std::vector<Verdict>& verdicts) {
  static const std::set<std::string> kOfBed{"beyond-travel", "past-travel", "into-fixture", "off-the-holes",
                                            "stop-beyond-board"};
  QStringList trouble;
  mend_with_.reset();
  for (const Verdict& v : verdicts) {
    if (!kOfBed.contains(v.code)) continue;
    trouble << QString::fromStdString(v.text);
    if (!mend_with_ && !v.remedies.empty()) mend_with_ = v.remedies.front();
  }
  trouble_->setVisible(!trouble.isEmpty());
  trouble_->setText(trouble.join(QLatin1Char('\n')));
  mend_->setVisible(mend_with_.has_value());
  if (mend_with_) mend_->setText(QString::fromStdString(mend_with_->label));
}

void BedView::carve() {
  if (!shop_.current() || shop_.plan == carved_) return;
  carved_ = shop_.plan;
  ready_ = false;
  const int wanted = std::max(0, board_->currentIndex());
  behind_.start([this, plan = shop_.plan, cache = cache_, wanted](const Cancel& cancel, const Behind::Tell& tell) {
    PlanPtr shown = plan;
    QStringList names;
    QString problem;
    if (plan->job.made_as_others()) {
      try {
        const std::vector<FurtherBoard> boards = further_boards(plan->job, plan->rack);
        for (const FurtherBoard& board : boards) names << BoardsView::name_of(board);
        shown.reset();
        if (!boards.empty()) {
          const Job& job =
              boards[static_cast<std::size_t>(std::min<int>(wanted, static_cast<int>(boards.size()) - 1))].job;
          shown = std::make_shared<const Plan>(doyen::plan(job, plan->rack, plan->machine, cache.get(), cancel));
        }
      } catch (const Problem& p) {
        shown.reset();
        problem = QString::fromUtf8(p.what());
      }
    }
    QImage board;
    if (shown) {
      const Box box = shown->job.blank.box();
      const double cell = std::max(box.width(), box.height()) / 900;
      board = to_image(
          lit_picture(relief_of(*shown, box, cell, cancel, Side::Front), wood_look(shown->job.blank), 1, cancel));
    }
    tell([this, board, shown, names, wanted, problem] {
      ready_ = true;
      picture_->show_board(board);
      if (names.isEmpty() && problem.isEmpty()) return other_.reset();
      other_ = shown;
      board_->clear();
      board_->addItems(names);
      board_->setCurrentIndex(std::min(wanted, board_->count() - 1));
      refresh();
      if (problem.isEmpty()) return;
      trouble_->setVisible(true);
      trouble_->setText(problem);
    });
  });
}

}  // namespace doyen
