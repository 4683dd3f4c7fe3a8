#include "shell/main_window.hpp"

#include <QCloseEvent>
#include <QDesktopServices>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QScreen>
#include <QScrollBar>
#include <QSettings>
#include <QTimer>
#include <QUrl>
#include <utility>

#include "bench/hands/all.hpp"
#include "inlay/ladder.hpp"
#include "job/layout.hpp"
#include "parts/theme.hpp"
#include "parts/undo_in_fields.hpp"
#include "parts/why.hpp"
#include "planning/test_cut.hpp"
#include "problem.hpp"
#include "shell/application.hpp"
#include "shell/lesson.hpp"
#include "shell/written_slip.hpp"
#include "stages/proof/boards_view.hpp"
#include "stages/proof/tilt_view.hpp"
#include "stages/run/rehearsal.hpp"

namespace doyen {
namespace {

Rack rack_or_shipped(QString* problem) {
  try {
    return load_rack();
  } catch (const Problem& p) {
    *problem = QString::fromUtf8(p.what());
    return load_shipped_rack();
  }
}

}  // namespace

MainWindow::MainWindow() : shop_{document_, rack_, nullptr, nullptr, {}, {}, {}} {
  const theme::Unstyled meanwhile;
  QString rack_problem;
  rack_ = rack_or_shipped(&rack_problem);
  setAcceptDrops(true);
  resize(1280, 800);
  setMinimumSize(1080, 680);
  shop_.select = [this](const QString& id) { select(id); };
  shop_.go_to = [this](Point at) {
    section_ = {true, at.y};
    bench_->set_section(section_);
    strip_->set_line(section_);
    bench_->go_to(at);
  };

  rail_ = new StageRail;
  bench_ = new Bench;
  bench_->setObjectName(QStringLiteral("bench"));
  shop_.bench = bench_;
  strip_ = new SectionStrip;
  beam_ = new TimeBeam;
  tickets_ = new QStackedWidget;
  tickets_->setFixedWidth(theme::kTicketWidth);
  tickets_->addWidget(blank_ = new BlankTicket(shop_));
  connect(&blank_->plates(), &PlatesSection::sheets_wanted, this, &MainWindow::open_boards);
  connect(&blank_->panels(), &PanelsSection::panels_wanted, this, &MainWindow::open_boards);
  connect(&blank_->nest(), &NestSection::boards_wanted, this, &MainWindow::open_boards);
  tickets_->addWidget(artwork_ = new ArtworkTicket(shop_));
  tickets_->addWidget(cuts_ = new CutsTicket(shop_));
  connect(cuts_, &CutsTicket::rack_wanted, this, [this](const QString& bit, const Feeds& feeds) {
    Rack rack = rack_;
    for (Bit& b : rack.bits) {
      if (b.id == bit.toStdString()) b.feeds[wood_class_of(document_.job().blank)] = feeds;
    }
    keep_rack(rack);
  });
  connect(cuts_, &CutsTicket::proof_wanted, this, [this] { go_to_stage(Stage::Proof); });
  connect(cuts_, &CutsTicket::answer_wanted, this, &MainWindow::keep_rung);
  make_last_tickets();

  auto* centre = new QWidget;
  auto* whole = new QVBoxLayout(centre);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  whole->addWidget(rail_);
  auto* page = new QWidget;
  auto* middle = new QHBoxLayout(page);
  middle->setContentsMargins(0, 0, 0, 0);
  middle->setSpacing(0);
  auto* left = new QVBoxLayout;
  left->setSpacing(0);
  left->addWidget(lesson_ = new LessonBar);
  connect(lesson_, &LessonBar::stage_wanted, this, &MainWindow::go_to_stage);
  left->addWidget(bench_, 1);
  left->addWidget(strip_);
  left->addWidget(ways_ = new WayLadder(shop_));
  middle->addLayout(left, 1);
  auto* sheet = new QFrame;
  sheet->setProperty("role", QStringLiteral("ticket"));
  auto* inside = new QVBoxLayout(sheet);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(0);
  inside->addWidget(tickets_, 1);
  next_ = new NextStepBar;
  inside->addWidget(next_);
  connect(next_, &NextStepBar::taken, this, &MainWindow::take_next_step);
  new UndoInFields(this);
  middle->addWidget(sheet);
  pages_ = new QStackedWidget;
  pages_->addWidget(page);
  whole->addWidget(pages_, 1);
  whole->addWidget(beam_);
  setCentralWidget(centre);
  notice_ = new QLabel(this);
  notice_->setObjectName(QStringLiteral("notice"));
  notice_->setProperty("role", QStringLiteral("notice"));
  notice_->setWordWrap(true);
  notice_->hide();
  slip_ = new WrittenSlip(bench_);
  connect(slip_, &WrittenSlip::open_wanted, this, &MainWindow::open_on_desktop);
  connect(slip_, &WrittenSlip::print_wanted, this, &MainWindow::print_sheets);

  connect(&document_, &JobDocument::changed, this, &MainWindow::job_changed);
  if (const auto* app = qobject_cast<Application*>(QCoreApplication::instance())) {
    connect(app, &Application::troubled, this, [this](const QString& what) {
      document_.write_recovery();
      note(tr("Something went wrong that nobody foresaw: %1. What was done last may be missing; save the job under "
              "another name.")
               .arg(what));
    });
  }
  connect(&document_, &JobDocument::refused, this,
          [this](const QString& name, const QString& why) { note(tr("Not done: %1. %2").arg(name, why)); });
  connect(&planner_, &Planner::planned, this, &MainWindow::take_plan);
  connect(&planner_, &Planner::set_out, bench_, &Bench::show_expected);
  connect(&planner_, &Planner::judged, this, &MainWindow::take_judgement);
  connect(&planner_, &Planner::failed, this, [this](const QString& what) {
    trouble_ = what;
    beam_->show_trouble(what);
    refresh_tickets();
  });
  connect(&planner_, &Planner::busy_changed, this, [this](bool busy) { beam_->show_busy(busy); });
  connect(&planner_, &Planner::progressed, this, [this](int done, int of) { beam_->show_busy(true, done, of); });
  connect(&planner_, &Planner::easings_tried, beam_, &TimeBeam::show_easings);
  connect(beam_, &TimeBeam::cancel_wanted, &planner_, &Planner::cancel);
  connect(beam_, &TimeBeam::write_wanted, this, &MainWindow::choose_and_write);
  connect(rail_, &StageRail::chosen, this, &MainWindow::go_to_stage);
  connect(rail_, &StageRail::call_box_wanted, this, &MainWindow::show_call_box);
  connect(rail_, &StageRail::menu_wanted, this, &MainWindow::show_job_menu);
  connect(bench_, &Bench::selection_changed, this, [this](const QString& id) {
    finish_typing();  // it was meant for what was chosen till now
    shop_.selected = id;
    refresh_tickets();
  });
  connect(bench_, &Bench::moved, this, [this](const QString& id, Point by) {
    const Item* item = document_.job().find(id.toStdString());
    if (item == nullptr) return;
    const QStringList all = bench_->chosen().contains(id) ? bench_->chosen() : QStringList(id);
    const QString name = all.size() > 1 ? tr("move %1 pieces").arg(all.size())
                                        : tr("move “%1”").arg(QString::fromStdString(item->piece.name));
    document_.edit(
        name, [&](Job& job) { shift_chosen(job, all.size() > 1 ? chosen_ids() : std::vector{id.toStdString()}, by); });
  });
  connect(bench_, &Bench::edit_wanted, this,
          [this](const QString& name, const std::function<void(Job&)>& change, const QString& merge) {
            document_.edit(name, change, merge);
          });
  connect(bench_, &Bench::chosen_changed, this, [this] { refresh_tickets(); });
  connect(bench_, &Bench::drawn, this, &MainWindow::add_drawn);
  connect(bench_, &Bench::keep_out_chosen, blank_, &BlankTicket::choose_keep_out);
  connect(bench_, &Bench::turned, this, [this](const QString& id, double degrees) {
    if (const QStringList all = bench_->chosen(); all.size() > 1) {
      const Point middle = bench_->chosen_box().centre();
      return document_.edit(tr("turn %1 pieces by %2°").arg(all.size()).arg(degrees, 0, 'f', 1),
                            [&](Job& job) { turn_chosen(job, chosen_ids(), degrees, middle); });
    }
    document_.edit(tr("turn a piece by %1°").arg(degrees, 0, 'f', 1), [&](Job& job) {
      Item* item = job.find(id.toStdString());
      if (item == nullptr) return;
      // About the middle of its box, wherever the piece's own origin lies.
      const Point c = bench_->box_of(id).centre();
      item->piece.at = Transform::turn(degrees).apply(item->piece.at - c) + c;
      item->piece.turn = std::remainder(item->piece.turn + degrees, 360);
    });
  });
  connect(bench_, &Bench::resized, this, [this](const QString& id, double fx, double fy, Point fixed) {
    if (const QStringList all = bench_->chosen(); all.size() > 1) {
      return document_.edit(tr("size %1 pieces by hand").arg(all.size()),
                            [&](Job& job) { scale_layout(job, chosen_ids(), fx, fixed); });
    }
    document_.edit(tr("size a piece by hand"), [&](Job& job) {
      Item* item = job.find(id.toStdString());
      if (item == nullptr) return;
      Piece& piece = item->piece;
      piece.at = {fixed.x + (piece.at.x - fixed.x) * fx, fixed.y + (piece.at.y - fixed.y) * fy};
      const bool sideways = std::abs(std::remainder(piece.turn, 180)) > 45;
      size_piece(piece, sideways ? fy : fx, sideways ? fx : fy);
    });
  });
  connect(bench_, &Bench::tab_moved, this, [this](const QString& id, int which, Point to) {
    const PiecePlan* piece = shop_.plan ? shop_.plan->piece(id.toStdString()) : nullptr;
    const Item* own = document_.job().find(id.toStdString());
    if (piece == nullptr || own == nullptr || !goes_through(own->cut.kind) || !piece->cuts.cut_out || which < 0 ||
        which >= static_cast<int>(piece->cuts.cut_out->tabs.size()))
      return;
    std::vector<TabPlace> places;
    for (const PlacedTab& tab : piece->cuts.cut_out->tabs) places.push_back(tab.place);
    TabPlace& moved = places[static_cast<std::size_t>(which)];
    const Ring& ring = piece->outlines.region.islands[static_cast<std::size_t>(moved.island)].rings.front();
    moved.along = share_nearest(ring, to);
    document_.edit(tr("move a tab"), [&](Job& job) {
      if (Item* item = job.find(id.toStdString())) item->cut.through.tabs.placed = places;
    });
  });
  const auto section = [this](const SectionLine& line) {
    section_ = line;
    bench_->set_section(line);
    strip_->set_line(line);
    lesson_looks();
  };
  connect(bench_, &Bench::section_moved, this, section);
  connect(strip_, &SectionStrip::line_changed, this, section);
  connect(bench_, &Bench::view_changed, this, [this] {
    // Turned over, left and right change places: the section stays as it is seen from the front.
    if (bench_->side() == Side::Back) return strip_->set_view({});
    const double low = bench_->to_board({0.0, double(bench_->height())}).y, high = bench_->to_board({0.0, 0.0}).y;
    strip_->set_view({bench_->to_screen({0, 0}).x(), bench_->pixels_per_mm(), low, high});
  });
  connect(bench_, &Bench::words_wanted, this, [this](const QString&) {
    go_to_stage(Stage::Artwork);
    artwork_->focus_words();
  });
  connect(artwork_, &ArtworkTicket::add_lettering, this, [this] { add_lettering(); });
  connect(artwork_, &ArtworkTicket::add_drawing, this, [this] { add_drawing(); });
  connect(artwork_, &ArtworkTicket::add_shape, this, &MainWindow::add_shape);
  connect(artwork_, &ArtworkTicket::add_border, this, &MainWindow::add_border);
  connect(artwork_, &ArtworkTicket::make_from, this, &MainWindow::make_from);
  connect(artwork_, &ArtworkTicket::freeze_piece, this, &MainWindow::freeze_piece);
  connect(artwork_, &ArtworkTicket::letter_bench_wanted, this, &MainWindow::open_letter_bench);
  connect(artwork_, &ArtworkTicket::lay_out_wanted, this, &MainWindow::lay_out);
  connect(artwork_, &ArtworkTicket::trace_again, this, &MainWindow::trace_again);
  connect(artwork_, &ArtworkTicket::remove_piece, this, &MainWindow::remove_piece);
  connect(artwork_, &ArtworkTicket::copy_piece, this, &MainWindow::duplicate_chosen);
  QDesktopServices::setUrlHandler(QLatin1String(kGuideLinks), this, "open_guide_link");
  make_commands();
  go_to_stage(Stage::Cuts);
  bench_->setFocus();
  if (!rack_problem.isEmpty()) {
    QMetaObject::invokeMethod(
        this,
        [this, rack_problem] {
          say(tr("The rack"),
              rack_problem + QLatin1Char(' ') + tr("The rack that comes with Doyen is used; your file is untouched."));
        },
        Qt::QueuedConnection);
  }
}

// A field that loses the focus when the window goes tells its value: that must happen while the job is still there.
MainWindow::~MainWindow() {
  QDesktopServices::unsetUrlHandler(QLatin1String(kGuideLinks));
  hide();
  delete takeCentralWidget();
}

void MainWindow::say(const QString& title, const QString& words) {
  QMessageBox box(QMessageBox::NoIcon, title, words, QMessageBox::Ok, this);
  box.exec();
}

void MainWindow::finish_typing() {
  QWidget* field = QApplication::focusWidget();
  if (qobject_cast<QLineEdit*>(field) == nullptr || !isAncestorOf(field)) return;
  field->clearFocus();
  field->setFocus();
}

void MainWindow::note(const QString& words) {
  notice_->setText(words);
  notice_->setFixedWidth(std::min(560, bench_->width() - 40));
  notice_->adjustSize();
  notice_->move(bench_->mapTo(this, QPoint((bench_->width() - notice_->width()) / 2, 34)));
  notice_->raise();
  notice_->show();
}

void MainWindow::open_on_desktop(const QString& path) {
  if (!QDesktopServices::openUrl(QUrl::fromLocalFile(path))) note(tr("Nothing on this desktop opens “%1”.").arg(path));
}

void MainWindow::job_changed() {
  remedy_wanted_ = false;  // it was asked for of the job as it stood
  notice_->hide();
  slip_->hide();
  bench_->show_job(document_.job());
  planner_.request(document_.job(), rack_);
  const Item* item = shop_.item();
  if (item == nullptr && !shop_.selected.isEmpty()) shop_.selected.clear();
  refresh_tickets();
  refresh_rail();
  setWindowTitle(QString::fromStdString(document_.job().name) + (document_.unsaved() ? tr(" · unsaved") : QString()) +
                 tr(" · Doyen"));
}

void MainWindow::take_plan(const PlanPtr& plan) {
  shop_.plan = plan;
  shop_.judged.reset();
  shop_.judgement.reset();
  trouble_.clear();
  const Blank& blank = plan->job.blank;
  const double most = section_.along ? blank.height : blank.width;
  if (section_.at <= 0 || section_.at >= most) {
    section_.at = most * 0.6;
    bench_->set_section(section_);
    strip_->set_line(section_);
  }
  bench_->show_plan(plan);
  strip_->show_plan(plan);
  beam_->show_plan(plan);
  if (auto* tilted = qobject_cast<TiltView*>(pages_->currentWidget())) tilted->show_plan(plan);
  if (auto* rehearsal = qobject_cast<Rehearsal*>(pages_->currentWidget())) rehearsal->show_plan(plan);
  refresh_tickets();
  refresh_rail();
  Q_EMIT settled();
}

void MainWindow::take_judgement(const PlanPtr& plan, const JudgementPtr& judgement) {
  shop_.judged = plan;
  shop_.judgement = judgement;
  bench_->show_judgement(judgement);
  refresh_tickets();
  refresh_rail();
  Q_EMIT looked_at();
  if (std::exchange(remedy_wanted_, false)) take_first_remedy();
}

void MainWindow::take_first_remedy() {
  // Only what was tried and found to mend: asked for earlier, it comes as soon as that is known.
  if (!shop_.judged || !(shop_.judged->job == document_.job())) {
    remedy_wanted_ = true;
    return;
  }
  for (const Verdict& v : shop_.judged->verdicts) {
    if (!shop_.selected.isEmpty() && v.piece != shop_.selected.toStdString()) continue;
    for (const Remedy& remedy : v.remedies) {
      // What is the user's to say is never taken by a key.
      if (remedy.apply && !remedy.says_of_shop)
        return document_.edit(QString::fromStdString(remedy.label), remedy.apply);
    }
  }
  note(tr("No remedy can be taken by itself here: read what is said, and choose."));
}

// On a large screen the ticket and the section have their share of the room.
void MainWindow::resizeEvent(QResizeEvent* event) {
  QMainWindow::resizeEvent(event);
  const bool large = width() >= 1600 && height() >= 940;
  tickets_->setFixedWidth(large ? theme::kTicketWidth * 5 / 4 : theme::kTicketWidth);
  strip_->setFixedHeight(large ? theme::kStripHeight * 4 / 3 : theme::kStripHeight);
}

// Proof and Run.
void MainWindow::make_last_tickets() {
  tickets_->addWidget(proof_ = new ProofTicket(shop_, fit_));
  connect(&proof_->fit(), &FitSection::ladder_wanted, this, &MainWindow::make_ladder);
  connect(&proof_->fit(), &FitSection::boards_wanted, this, &MainWindow::open_boards);
  connect(proof_, &ProofTicket::test_wanted, this, &MainWindow::make_test_cut);
  connect(proof_, &ProofTicket::tilt_wanted, this, &MainWindow::open_tilted);
  connect(&fit_, &FitKeeper::changed, this, &MainWindow::show_fit);
  tickets_->addWidget(finish_ = new FinishTicket(shop_));
  connect(finish_, &FinishTicket::quote_wanted, this, [this] { save_customer_sheet(true); });
  connect(finish_, &FinishTicket::save_wanted, this, &MainWindow::save_finish_file);
  tickets_->insertWidget(static_cast<int>(Stage::Run), run_ = new RunTicket(shop_));
  connect(run_, &RunTicket::open_wanted, this, &MainWindow::open_on_desktop);
  connect(run_, &RunTicket::write_wanted, this, &MainWindow::save_further_file);
  connect(run_, &RunTicket::rehearsal_wanted, this, &MainWindow::open_rehearsal);
  connect(run_, &RunTicket::bed_wanted, this, &MainWindow::open_bed);
  connect(run_, &RunTicket::machines_wanted, this, &MainWindow::edit_machines);
  connect(run_, &RunTicket::log_wanted, this, &MainWindow::open_log);
  connect(run_, &RunTicket::job_wanted, this, &MainWindow::open_mended);
  connect(run_, &RunTicket::log_kept, this, [this] { planner_.request(document_.job(), rack_); });
  connect(run_, &RunTicket::came_out_well, this, [this] {
    if (Rack rack = rack_; keep_tested(rack, document_.job())) keep_rack(rack);
  });
}

void MainWindow::come_back() {
  const QByteArray place = QSettings().value(QStringLiteral("window")).toByteArray();
  if (!place.isEmpty()) restoreGeometry(place);
  const QRect room = screen()->availableGeometry();
  if (!room.isEmpty() && (width() > room.width() || height() > room.height()))
    resize(size().boundedTo(room.size()).expandedTo(minimumSize()));
}

void MainWindow::go_to_stage(Stage stage) {
  leave_guest();
  rail_->set_current(stage);
  tickets_->setCurrentIndex(static_cast<int>(stage));
  bench_->show_stage(stage);
  slip_->hide();
  if (stage != Stage::Proof) fit_.leave();
  refresh_tickets();
}

void MainWindow::select(const QString& piece) { bench_->select(piece); }

void MainWindow::open_sums() { cuts_->open_sums(true); }

bool MainWindow::sums_shown() const {
  const QList<NumberCard*> cards = findChildren<NumberCard*>();
  return std::none_of(cards.begin(), cards.end(), [](const NumberCard* card) { return card->waiting(); });
}

// Larger work takes the place of bench and ticket; rail and time beam stay. Going elsewhere along the rail leaves it.
void MainWindow::show_in_place(QDialog* guest, const std::function<void()>& accepted) {
  leave_guest();
  guest->setParent(pages_, Qt::Widget);
  pages_->addWidget(guest);
  pages_->setCurrentWidget(guest);
  connect(guest, &QDialog::finished, this, [this, guest, accepted](int result) {
    pages_->setCurrentIndex(0);
    pages_->removeWidget(guest);
    bench_->setFocus();
    if (result == QDialog::Accepted) accepted();
    guest->deleteLater();  // what was accepted still asks it
  });
  guest->setFocus();
}

void MainWindow::leave_guest() {
  if (auto* guest = qobject_cast<QDialog*>(pages_->currentWidget())) guest->reject();
}

// What the fit's keeper found, on the bench and in the section.
void MainWindow::show_fit() {
  bench_->show_overlay(fit_.picture(), fit_.picture_box());
  strip_->show_fit(fit_.fit(), fit_.halves());
  if (!fit_.active()) fit_seen_.clear();
  // Once for each inlay: a section beside it says nothing of it. Where it is put afterwards is the user's own choice.
  if (fit_.fit() != nullptr && fit_seen_ != fit_.piece()) {
    fit_seen_ = fit_.piece();
    if (!strip_->shows_fit()) {
      const Point middle = bounds(fit_.halves()->art).centre();
      section_.at = section_.along ? middle.y : middle.x;
      bench_->set_section(section_);
      strip_->set_line(section_);
    }
  }
  if (!fit_.active()) bench_->show_marks({});
}

void MainWindow::open_boards() {
  if (document_.job().items.empty()) return;
  auto* boards = new BoardsView(document_.job(), rack_, this);
  connect(boards, &BoardsView::board_wanted, this, &MainWindow::open_mended);
  show_in_place(boards, [] {});
}

void MainWindow::open_tilted() {
  if (!shop_.plan || document_.job().items.empty()) return;
  show_in_place(new TiltView(shop_.plan, this), [] {});
}

void MainWindow::make_ladder(const Treatment& cut) {
  if (!may_leave()) return;
  const Treatment asked = cut;
  const Job job = ladder_job(document_.job(), asked, rack_);
  document_.replace(job, {});
  select({});
  bench_->fit();
  go_to_stage(Stage::Cuts);
}

void MainWindow::make_test_cut() {
  if (!shop_.plan || !may_leave()) return;
  try {
    document_.replace(test_cut_job(*shop_.plan), {});
  } catch (const Problem& problem) {
    return say(tr("No test cut"), QString::fromUtf8(problem.what()));
  }
  select({});
  bench_->fit();
  go_to_stage(Stage::Proof);
}

void MainWindow::keep_rung(const Treatment& rung) {
  Rack rack = rack_;
  const std::string bit = keep_answer(rack, rung);
  if (bit.empty()) return say(tr("The test ladder"), tr("This pair's bit is not in the rack any longer."));
  keep_rack(rack);
}

}  // namespace doyen
