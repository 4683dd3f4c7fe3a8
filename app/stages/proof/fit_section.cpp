#include "stages/proof/fit_section.hpp"

#include <QGridLayout>

#include "parts/theme.hpp"
#include "parts/why.hpp"
#include "treatments/inlay/joint.hpp"

namespace doyen {
namespace {

constexpr double kSeats = 0.03;  // mm that a plug may lie higher and still counts as seated

QToolButton* link(const QString& words) {
  auto* button = new QToolButton;
  button->setText(words);
  button->setToolButtonStyle(Qt::ToolButtonTextOnly);
  button->setAutoRaise(true);
  button->setCursor(Qt::PointingHandCursor);
  return button;
}

}  // namespace

FitSection::FitSection(Workshop& shop, FitKeeper& keeper) : shop_(shop), keeper_(keeper) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  title_ = make_label({}, "heading");
  column->addWidget(title_);
  about_ = make_label({}, "faded");
  about_->setObjectName(QStringLiteral("fitAbout"));
  column->addWidget(about_);

  auto* bar = new QWidget;
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(4);
  views_ = new QButtonGroup(this);
  const std::pair<QString, const char*> views[] = {{tr("Carved"), "viewCarved"},
                                                   {tr("Plug"), "viewPlug"},
                                                   {tr("Gaps"), "viewGaps"},
                                                   {tr("Levelled"), "viewLevelled"}};
  for (int i = 0; i < 4; ++i) {
    auto* button = new QPushButton(views[i].first);
    button->setStyleSheet(QStringLiteral("padding: 5px 2px;"));
    button->setObjectName(QLatin1String(views[i].second));
    button->setCheckable(true);
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    views_->addButton(button, i);
    row->addWidget(button);
  }
  views_->button(3)->setToolTip(tr("The face when the plug is sawn off and level"));
  views_->button(2)->setToolTip(tr("How far the halves stand apart, and where wood is in the way"));
  views_->button(1)->setToolTip(tr("The plug's own relief, as it comes to lie: mirrored"));
  views_->button(0)->setToolTip(tr("The carrying board as it is carved"));
  column->addWidget(bar);
  sanded_ = new QComboBox;
  sanded_->setObjectName(QStringLiteral("sanded"));
  for (const double mm : {0.0, 0.2, 0.5, 1.0}) sanded_->addItem({}, mm);  // their words follow the job's unit
  column->addWidget(make_row(tr("Sanded"), sanded_));
  legend_ = make_label({}, "faded");
  legend_->setObjectName(QStringLiteral("gapLegend"));
  legend_->setTextFormat(Qt::RichText);
  column->addWidget(legend_);
  build_figures(column);
  build_what_if(column);

  column->addWidget(make_line());
  column->addWidget(make_label(tr("Ways to make it"), "heading"));
  ways_ = new QVBoxLayout;
  ways_->setSpacing(8);
  column->addLayout(ways_);
  auto* boards = new QPushButton(tr("Look at the plugs' boards…"));
  boards->setObjectName(QStringLiteral("seeBoards"));
  boards->setToolTip(tr("Every further board of this job, carved, with its size, files and times"));
  column->addWidget(boards, 0, Qt::AlignLeft);
  connect(boards, &QPushButton::clicked, this, &FitSection::boards_wanted);
  auto* ladder = new QPushButton(tr("Make a test ladder…"));
  ladder->setObjectName(QStringLiteral("makeLadder"));
  ladder->setToolTip(tr("Five small pairs in off-cuts, each a little tighter, to find how your machine really fits"));
  column->addWidget(ladder, 0, Qt::AlignLeft);
  connect(ladder, &QPushButton::clicked, this, [this] {
    if (const Item* item = inlay()) Q_EMIT ladder_wanted(item->cut);
  });
  connect(views_, &QButtonGroup::idClicked, this, [this](int i) {
    keeper_.show(static_cast<FitKeeper::Show>(i));
    show_found();
  });
  connect(sanded_, &QComboBox::activated, this, [this] { keeper_.sand(sanded_->currentData().toDouble()); });
  connect(&keeper_, &FitKeeper::changed, this, [this] { show_found(); });
}

void FitSection::build_figures(QVBoxLayout* column) {
  problem_ = make_label({}, "error");
  problem_->setObjectName(QStringLiteral("fitProblem"));
  column->addWidget(problem_);
  for (auto& [card, label] :
       std::initializer_list<std::pair<NumberCard**, QString>>{{&glue_, tr("Glue gap")},
                                                               {&line_, tr("Open line at the face")},
                                                               {&binds_, tr("Touches too early")},
                                                               {&saw_, tr("Space for the saw")}}) {
    *card = new NumberCard(label);
    column->addWidget(*card);
  }
  column->addWidget(make_why_link(QStringLiteral("why-inlay.md"), QStringLiteral("whyFit")));
  places_ = new QVBoxLayout;
  places_->setSpacing(0);
  column->addLayout(places_);
  easing_ = make_label({}, "plain");
  easing_->setObjectName(QStringLiteral("easing"));
  column->addWidget(easing_);
  find_ease_ = new QPushButton(tr("Find the least easing that lets it seat"));
  find_ease_->setObjectName(QStringLiteral("findEase"));
  column->addWidget(find_ease_, 0, Qt::AlignLeft);
  show_ease_ = new QPushButton(tr("Show what it takes away"));
  show_ease_->setObjectName(QStringLiteral("showEase"));
  column->addWidget(show_ease_, 0, Qt::AlignLeft);
  take_ease_ = new QPushButton;
  take_ease_->setObjectName(QStringLiteral("takeEase"));
  column->addWidget(take_ease_, 0, Qt::AlignLeft);
  connect(find_ease_, &QPushButton::clicked, this, [this] {
    find_ease_->setEnabled(false);
    easing_->setText(tr("Easing, carving and mating…"));
    easing_->show();
    keeper_.find_ease();
  });
  connect(show_ease_, &QPushButton::clicked, this, [this] {
    if (!keeper_.halves() || !keeper_.ease()) return;
    const Region& art = keeper_.halves()->art;
    const Region round = eased(art, *keeper_.ease());
    shop_.bench->show_highlight({subtract(art, round), subtract(round, art)});
  });
  connect(take_ease_, &QPushButton::clicked, this, [this] {
    const Item* item = inlay();
    if (item == nullptr || !keeper_.ease()) return;
    const double by = *keeper_.ease();
    const std::string id = item->piece.id;
    shop_.document.edit(tr("ease both halves' corners by %1").arg(shop_.show(by)), [&](Job& job) {
      if (Item* it = job.find(id)) it->cut.inlay.ease = by;
    });
  });
}

void FitSection::build_what_if(QVBoxLayout* column) {
  column->addWidget(make_line());
  column->addWidget(make_label(tr("What if something is off"), "heading"));
  trying_ = make_label({}, "plain");
  trying_->setObjectName(QStringLiteral("trying"));
  column->addWidget(trying_);
  rows_ = new QVBoxLayout;
  rows_->setSpacing(4);
  column->addLayout(rows_);
  auto* own = new QWidget;
  auto* grid = new QGridLayout(own);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(4);
  const auto spin = [&](QDoubleSpinBox*& box, const QString& label, const char* name, double most, int row,
                        int column_of) {
    box = new QDoubleSpinBox;
    box->setObjectName(QLatin1String(name));
    box->setRange(-most, most);
    box->setDecimals(2);
    box->setSingleStep(0.5);
    box->setSuffix(QStringLiteral(" °"));  // lengths take the job's unit when they are shown
    box->setAccessibleName(label);
    grid->addWidget(make_label(label, "faded"), 2 * row, column_of);
    grid->addWidget(box, 2 * row + 1, column_of);
    box->setKeyboardTracking(false);
    connect(box, &QDoubleSpinBox::valueChanged, this, [this] {
      if (filling_) return;
      const double k = shop_.document.job().lengths.unit == Unit::Inch ? kMmPerInch : 1;
      WhatIf w;
      w.pocket_zero = pocket_zero_->value() * k;
      w.plug_zero = plug_zero_->value() * k;
      w.angle = angle_->value();
      w.tip = tip_->value() < 0 ? -1 : tip_->value() * k;  // below nothing: its own
      w.tilt = tilt_->value();
      keeper_.try_it(w);
    });
  };
  spin(pocket_zero_, tr("Pocket too shallow"), "tryPocket", 1, 0, 0);
  spin(plug_zero_, tr("Plug too shallow"), "tryPlug", 1, 0, 1);
  spin(angle_, tr("Bit blunter"), "tryAngle", 5, 1, 0);
  spin(tilt_, tr("Spindle leans right"), "tryTilt", 3, 1, 1);
  spin(tip_, tr("Tip flat"), "tryTip", 2, 2, 0);
  tip_->setSpecialValueText(tr("its own"));
  auto* straight = new QPushButton(tr("Nothing amiss"));
  straight->setObjectName(QStringLiteral("tryNothing"));
  grid->addWidget(straight, 5, 1);
  connect(straight, &QPushButton::clicked, this, [this] { keeper_.try_it({}); });
  column->addWidget(own);
}

// The inlay that is looked at: the chosen piece, or the job's first.
const Item* FitSection::inlay() const {
  if (const Item* item = shop_.item()) return item->cut.kind == Treatment::Kind::Inlay ? item : nullptr;
  for (const Item& item : shop_.document.job().items) {
    if (item.cut.kind == Treatment::Kind::Inlay) return &item;
  }
  return nullptr;
}

void FitSection::refresh() {
  const Item* item = inlay();
  // The plan may be older than the job: then the next one comes soon.
  const bool ready = item != nullptr && shop_.plan && shop_.plan->job == shop_.document.job();
  setVisible(item != nullptr);
  if (item == nullptr || shop_.bench->stage() != Stage::Proof) return keeper_.leave();
  if (ready) keeper_.look_at(shop_.plan, item->piece.id, shop_.rack);
  title_->setText(tr("Fit of “%1”").arg(QString::fromStdString(item->piece.name)));
  const Bit* v = shop_.rack.find(item->cut.bit);
  about_->setText(item->cut.inlay.sloped
                      ? (v != nullptr && v->measured_angle
                             ? tr("%1 for both halves, measured %2°. Carved from both boards' files and put together.")
                             : tr("%1 for both halves, %2° as named. Carved from both boards' files and put together."))
                            .arg(v == nullptr ? QString::fromStdString(item->cut.bit) : QString::fromStdString(v->name))
                            .arg(v == nullptr ? 0 : v->true_angle())
                      : tr("Upright flanks. Carved from both boards' files and put together."));
  show_found();
}

void FitSection::show_found() {
  const Item* item = inlay();
  if (item == nullptr || !keeper_.active()) return;
  filling_ = true;
  problem_->setText(keeper_.problem());
  problem_->setVisible(!keeper_.problem().isEmpty());
  for (NumberCard* card : {glue_, line_, binds_, saw_}) card->setVisible(keeper_.problem().isEmpty());
  show_choices();
  show_figures(*item);
  show_places();
  show_easing();
  show_forgiven();
  show_ways();
  filling_ = false;
}

// Which view is on, and what is tried.
void FitSection::show_choices() {
  views_->button(static_cast<int>(keeper_.shown()))->setChecked(true);
  sanded_->parentWidget()->setVisible(keeper_.shown() == FitKeeper::Show::Levelled);
  const bool inch = shop_.document.job().lengths.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  const double sanded[] = {0, inch ? 0.008 * k : 0.2, inch ? 0.02 * k : 0.5, inch ? 0.04 * k : 1.0};
  for (int i = 0; i < sanded_->count(); ++i) {
    const double mm = sanded[i];
    sanded_->setItemData(i, mm);
    sanded_->setItemText(i, mm == 0 ? tr("no further") : tr("a further %1").arg(shop_.show(mm)));
  }
  sanded_->setCurrentIndex(std::max(0, sanded_->findData(keeper_.sanded())));
  legend_->setVisible(keeper_.shown() == FitKeeper::Show::Gaps);
  const auto patch = [](const QColor& colour, QString words) {  // a patch and its words stay together
    return QStringLiteral("<span style='background:%1'>&nbsp;&nbsp;&nbsp;&nbsp;</span>&nbsp;%2 ")
        .arg(colour.name(), words.replace(QLatin1Char(' '), QStringLiteral("&nbsp;")));
  };
  const auto gap = [&](double mm) { return patch(gap_colour(mm), shop_.show(mm)); };
  legend_->setText(patch(gap_colour(0), tr("closed")) + gap(inch ? 0.004 * k : 0.1) + gap(inch ? 0.02 * k : 0.5) +
                   patch(gap_colour(2), tr("%1 and more").arg(shop_.show(inch ? 0.08 * k : 2))) +
                   patch(theme::kBrick, tr("wood in the way")));
  const WhatIf& w = keeper_.what_if();
  for (QDoubleSpinBox* box : {pocket_zero_, plug_zero_, tip_}) {
    box->setDecimals(inch ? 3 : 2);
    box->setRange(box == tip_ ? (inch ? -0.001 : -0.01) : (inch ? -0.04 : -1), inch ? 0.08 : 2);
    box->setSingleStep(inch ? 0.002 : 0.05);
    box->setSuffix(inch ? QStringLiteral(" in") : QStringLiteral(" mm"));
  }
  pocket_zero_->setValue(w.pocket_zero / k);
  plug_zero_->setValue(w.plug_zero / k);
  angle_->setValue(w.angle);
  tip_->setValue(w.tip < 0 ? tip_->minimum() : w.tip / k);
  tilt_->setValue(w.tilt);
  trying_->setVisible(!(w == WhatIf{}));
  trying_->setText(tr("Shown now: %1.").arg(QString::fromStdString(fault_in_words(w, shop_.document.job().lengths))));
}

void FitSection::show_figures(const Item& item) {
  const Inlay& inlay = item.cut.inlay;
  const auto& fit = keeper_.fit();
  const QString waiting = keeper_.busy() ? tr("…") : QStringLiteral("–");
  const double cell = fit ? fit->pocket.cell() : 0;
  Sum glue, line, binds, saw;
  if (fit) {
    const double under = fit->glue_gap + fit->rides_up;
    glue.title = tr("Glue gap").toStdString();
    glue.lines = {tr("over flat floors where it is meant to lie: %1").arg(shop_.show(fit->glue_gap)).toStdString(),
                  tr("it lies higher by %1").arg(shop_.show(fit->rides_up)).toStdString()};
    glue.result = tr("= %1 as it comes to lie").arg(shop_.show(under)).toStdString();
    glue_->show_number(fit->glue_gap > 0 ? shop_.show(under) : tr("none"),
                       fit->glue_gap > 0 ? tr("asked %1").arg(shop_.show(item.cut.depth - inlay.contact))
                                         : tr("no flat floors: it closes on its flanks"),
                       glue);
    const double open = keeper_.face()->widest_gap;
    line_->show_number(open <= 1.5 * cell ? tr("none") : shop_.show(open), tr("checked to %1").arg(shop_.show(cell)),
                       line);
    binds_->show_number(fit->rides_up <= kSeats && fit->overlap == 0 ? tr("nowhere") : shop_.show(fit->rides_up),
                        fit->rides_up < -kSeats   ? tr("it goes deeper than meant")
                        : fit->rides_up <= kSeats ? tr("it comes to lie as meant")
                                                  : tr("higher than meant"),
                        binds);
    saw_->show_number(shop_.show(fit->saw_gap + fit->rides_up), tr("asked %1").arg(shop_.show(inlay.saw_gap)), saw);
  } else {
    for (NumberCard* card : {glue_, line_, binds_, saw_}) card->show_number(waiting, {}, Sum{});
  }
}

void FitSection::show_places() {
  clear_layout(places_);
  if (!keeper_.fit()) return;
  std::vector<Point> marks;
  const LengthStyle& lengths = shop_.document.job().lengths;
  const bool inch = lengths.unit == Unit::Inch;
  const auto bare = [&](double mm) {
    return QString::fromStdString(format_number(inch ? mm / kMmPerInch : mm, inch ? 2 : 1)) + QLatin1Char(' ') +
           QString::fromLatin1(unit_name(lengths.unit));
  };
  const auto add = [&](const FitPlace& place, const QString& words) {
    marks.push_back(place.at);
    auto* button = link(words);
    button->setObjectName(QStringLiteral("place%1").arg(marks.size()));
    connect(button, &QToolButton::clicked, this, [this, at = place.at] { shop_.go_to(at); });
    places_->addWidget(button, 0, Qt::AlignLeft);
  };
  for (const FitPlace& place : keeper_.binds()) {
    add(place, tr("in the way by %1 at %2, %3").arg(shop_.show(place.mm), bare(place.at.x), bare(place.at.y)));
  }
  if (keeper_.binds().empty()) {
    for (const FitPlace& place : keeper_.face()->open) {
      if (place.mm > 1.5 * keeper_.fit()->pocket.cell())
        add(place, tr("open by %1 at %2, %3").arg(shop_.show(place.mm), bare(place.at.x), bare(place.at.y)));
    }
  }
  shop_.bench->show_marks(marks);
}

void FitSection::show_easing() {
  const Item* item = inlay();
  const auto& fit = keeper_.fit();
  const bool binds = fit && item->cut.inlay.sloped && fit->rides_up > kSeats && keeper_.what_if() == WhatIf{};
  const auto ease = keeper_.ease();
  find_ease_->setVisible(binds && !ease);
  find_ease_->setEnabled(!keeper_.busy() || find_ease_->isEnabled());
  const bool found = binds && ease && *ease > 0;
  show_ease_->setVisible(found);
  take_ease_->setVisible(found);
  if (!binds) {
    easing_->hide();
    find_ease_->setEnabled(true);
  }
  if (!ease && !keeper_.busy()) easing_->hide();  // looking for it was given up for something newer
  if (binds && ease) {
    easing_->show();
    easing_->setText(
        found ? tr("Corners of both halves rounded by %1 let it seat to %2.").arg(shop_.show(*ease), shop_.show(0.02))
              : tr("Easing the corners alone does not let it seat: look at the places above."));
  }
  if (found) take_ease_->setText(tr("Ease both halves by %1").arg(shop_.show(*ease)));
}

void FitSection::show_forgiven() {
  // Rows that stand there already stay, so that the keyboard's place is not lost.
  if (rows_shown_ == keeper_.forgiven_of() && !keeper_.forgiven().empty()) {
    for (std::size_t i = 0; i < faults_.size(); ++i)
      faults_[i]->setChecked(keeper_.forgiven()[i].fault == keeper_.what_if());
    return;
  }
  rows_shown_ = keeper_.forgiven_of();
  faults_.clear();
  clear_layout(rows_);
  if (keeper_.forgiven().empty()) {
    rows_->addWidget(make_label(tr("Trying the usual faults…"), "faded"));
    return;
  }
  int number = 0;
  for (const Forgiven& row : keeper_.forgiven()) {
    QStringList what;
    if (std::abs(row.rides_up) > 0.005)
      what << (row.rides_up > 0 ? tr("lies %1 higher").arg(shop_.show(row.rides_up))
                                : tr("goes %1 deeper").arg(shop_.show(-row.rides_up)));
    what << (row.open_line > 0 ? tr("open by %1").arg(shop_.show(row.open_line)) : tr("closes"));
    if (row.glue_gap <= 0.005 && keeper_.fit() && keeper_.fit()->glue_gap > 0) what << tr("on the floor");
    auto* button = new QPushButton;
    button->setObjectName(QStringLiteral("fault%1").arg(++number));
    button->setText(QString::fromStdString(fault_in_words(row.fault, shop_.document.job().lengths)) +
                    QStringLiteral("\n    ") + what.join(QStringLiteral(", ")));
    button->setCheckable(true);
    button->setChecked(row.fault == keeper_.what_if());
    button->setStyleSheet(QStringLiteral("text-align: left; padding: 4px 8px;"));
    connect(button, &QPushButton::clicked, this,
            [this, fault = row.fault](bool on) { keeper_.try_it(on ? fault : WhatIf{}); });
    rows_->addWidget(button);
    faults_.push_back(button);
  }
}

void FitSection::show_ways() {
  if (ways_shown_ == keeper_.ways_of() && !keeper_.ways().empty()) return;
  ways_shown_ = keeper_.ways_of();
  clear_layout(ways_);
  if (keeper_.ways().empty()) {
    ways_->addWidget(make_label(tr("Planning the other ways…"), "faded"));
    return;
  }
  double longest = 1;
  for (const InlayWay& way : keeper_.ways()) longest = std::max(longest, way.seconds);
  int number = 0;
  for (const InlayWay& way : keeper_.ways()) {
    ++number;
    auto* card = new QFrame;
    card->setObjectName(QStringLiteral("way%1").arg(number));
    card->setProperty("role", QStringLiteral("sum"));
    auto* column = new QVBoxLayout(card);
    column->setContentsMargins(8, 6, 8, 6);
    column->setSpacing(3);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(QString::fromStdString(way.name), "plain"), 1);
    auto* time =
        make_label(way.problem.empty() ? QString::fromStdString(format_duration(way.seconds)) : QString(), "plain");
    time->setStyleSheet(QStringLiteral("font-weight: bold;"));
    head->addWidget(time);
    column->addLayout(head);
    if (!way.problem.empty()) {
      column->addWidget(make_label(QString::fromStdString(way.problem), "faded"));
      ways_->addWidget(card);
      continue;
    }
    auto* bar = new QFrame;
    bar->setFixedSize(std::max(6, static_cast<int>(270 * way.seconds / longest)), 6);
    bar->setStyleSheet(QStringLiteral("background: %1; border: none;").arg(theme::dye(number - 1).name()));
    column->addWidget(bar);
    const QString lost = way.lost < 0.5
                             ? tr("Nothing of the art is lost")
                             : tr("Loses or rounds %1 of the art")
                                   .arg(QString::fromStdString(format_area(way.lost, shop_.document.job().lengths)));
    const QString changes = way.bit_changes == 0   ? tr("No bit change")
                            : way.bit_changes == 1 ? tr("One bit change")
                                                   : tr("%1 bit changes").arg(way.bit_changes);
    column->addWidget(make_label(changes + QStringLiteral(". ") + lost + QStringLiteral("; ") +
                                     QString::fromStdString(way.snaps) + QLatin1Char('.'),
                                 "faded"));
    column->addWidget(make_label(tr("Needs: %1.").arg(QString::fromStdString(way.exact)), "faded"));
    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(6);
    if (way.lost >= 0.5) {
      auto* look = new QPushButton(tr("Show what is lost"));
      look->setObjectName(QStringLiteral("lost%1").arg(number));
      connect(look, &QPushButton::clicked, this,
              [this, where = way.lost_where] { shop_.bench->show_highlight(where); });
      buttons->addWidget(look);
    }
    if (number > 1) {
      auto* take = new QPushButton(tr("Use this way"));
      take->setObjectName(QStringLiteral("takeWay%1").arg(number));
      connect(take, &QPushButton::clicked, this, [this, cut = way.cut, name = QString::fromStdString(way.name)] {
        const Item* item = inlay();
        if (item == nullptr) return;
        shop_.document.edit(tr("make the inlay so: %1").arg(name), [&, id = item->piece.id](Job& job) {
          if (Item* it = job.find(id)) it->cut = cut;
        });
      });
      buttons->addWidget(take);
    }
    buttons->addStretch();
    column->addLayout(buttons);
    ways_->addWidget(card);
  }
}

}  // namespace doyen
