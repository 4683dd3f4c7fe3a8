#include "shell/main_window.hpp"

#include <QCloseEvent>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QSettings>
#include <QShortcut>
#include <QStandardPaths>
#include <utility>

#include "bench/hands/all.hpp"
#include "files/imported.hpp"
#include "files/outlines_out.hpp"
#include "files/output_set.hpp"
#include "geometry/polyline.hpp"
#include "inlay/ladder.hpp"
#include "job/layout.hpp"
#include "parts/theme.hpp"
#include "shell/application.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "stages/cuts/rack_dialog.hpp"
#include "stages/proof/boards_view.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "work/long_work.hpp"

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

bool only_lines(const Drawing& drawing) {
  return std::all_of(drawing.parts.begin(), drawing.parts.end(), [](const Drawing::Part& p) { return p.line; });
}

}  // namespace

MainWindow::MainWindow() : shop_{document_, rack_, nullptr, nullptr, {}, {}, {}} {
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
  shop_.bench = bench_;
  strip_ = new SectionStrip;
  beam_ = new TimeBeam;
  tickets_ = new QStackedWidget;
  tickets_->setFixedWidth(theme::kTicketWidth);
  tickets_->addWidget(blank_ = new BlankTicket(shop_));
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
  tickets_->addWidget(proof_ = new ProofTicket(shop_, fit_));
  connect(&proof_->fit(), &FitSection::ladder_wanted, this, &MainWindow::make_ladder);
  connect(&proof_->fit(), &FitSection::boards_wanted, this, &MainWindow::open_boards);
  connect(&fit_, &FitKeeper::changed, this, &MainWindow::show_fit);
  tickets_->addWidget(run_ = new RunTicket(shop_));

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
  left->addWidget(bench_, 1);
  left->addWidget(strip_);
  middle->addLayout(left, 1);
  auto* sheet = new QFrame;
  sheet->setProperty("role", QStringLiteral("ticket"));
  auto* inside = new QVBoxLayout(sheet);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->addWidget(tickets_);
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
  connect(&planner_, &Planner::judged, this, &MainWindow::take_judgement);
  connect(&planner_, &Planner::failed, this, [this](const QString& what) {
    trouble_ = what;
    beam_->show_trouble(what);
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
    document_.edit(name, [&](Job& job) {
      for (const QString& one : all) {
        // What is made from another chosen piece, or lies in shares of it, comes along with that.
        const Item* other = job.find(one.toStdString());
        const std::vector<std::string> from = other == nullptr ? std::vector<std::string>{} : sources_of(other->piece);
        const bool comes_along = std::any_of(from.begin(), from.end(), [&](const std::string& source) {
          return all.contains(QString::fromStdString(source));
        });
        if (!comes_along) job.shift(one.toStdString(), by);
      }
    });
  });
  connect(bench_, &Bench::edit_wanted, this,
          [this](const QString& name, const std::function<void(Job&)>& change, const QString& merge) {
            document_.edit(name, change, merge);
          });
  connect(bench_, &Bench::chosen_changed, this, [this] { refresh_tickets(); });
  connect(bench_, &Bench::keep_out_chosen, blank_, &BlankTicket::choose_keep_out);
  connect(bench_, &Bench::turned, this, [this](const QString& id, double degrees) {
    document_.edit(tr("turn a piece by %1°").arg(degrees, 0, 'f', 1), [&](Job& job) {
      Item* item = job.find(id.toStdString());
      if (item == nullptr) return;
      // About the middle of its box, wherever the piece's own origin lies.
      const Point c = bounds(outlines_of(item->piece, document_.job().source())).centre();
      item->piece.at = Transform::turn(degrees).apply(item->piece.at - c) + c;
      item->piece.turn = std::remainder(item->piece.turn + degrees, 360);
    });
  });
  connect(bench_, &Bench::resized, this, [this](const QString& id, double fx, double fy, Point fixed) {
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
      if (Item* item = job.find(id.toStdString())) item->cut.tabs.placed = places;
    });
  });
  const auto section = [this](const SectionLine& line) {
    section_ = line;
    bench_->set_section(line);
    strip_->set_line(line);
  };
  connect(bench_, &Bench::section_moved, this, section);
  connect(strip_, &SectionStrip::line_changed, this, section);
  connect(bench_, &Bench::words_wanted, this, [this](const QString&) {
    go_to_stage(Stage::Artwork);
    artwork_->focus_words();
  });
  connect(artwork_, &ArtworkTicket::add_lettering, this, &MainWindow::add_lettering);
  connect(artwork_, &ArtworkTicket::add_drawing, this, [this] { add_drawing(); });
  connect(artwork_, &ArtworkTicket::add_shape, this, &MainWindow::add_shape);
  connect(artwork_, &ArtworkTicket::make_from, this, &MainWindow::make_from);
  connect(artwork_, &ArtworkTicket::freeze_piece, this, &MainWindow::freeze_piece);
  connect(artwork_, &ArtworkTicket::letter_bench_wanted, this, &MainWindow::open_letter_bench);
  connect(artwork_, &ArtworkTicket::trace_again, this, &MainWindow::trace_again);
  connect(artwork_, &ArtworkTicket::remove_piece, this, &MainWindow::remove_piece);
  connect(artwork_, &ArtworkTicket::copy_piece, this, &MainWindow::copy_piece);
  make_actions();
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
  hide();
  delete takeCentralWidget();
}

void MainWindow::make_actions() {
  const auto add = [this](const QString& words, const QKeySequence& keys, const std::function<void()>& act) {
    if (!keys.isEmpty()) {
      auto* shortcut = new QShortcut(keys, this);
      connect(shortcut, &QShortcut::activated, this, act);
    }
    calls_.append({words, keys.toString(QKeySequence::NativeText), act});
  };
  add(tr("Open a job…"), QKeySequence::Open, [this] {
    if (!may_leave()) return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a job"), {}, tr("Doyen jobs (*.doyen)"));
    if (!path.isEmpty()) open(path);
  });
  add(tr("Save the job"), QKeySequence::Save, [this] { save(false); });
  add(tr("Save the job as…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S), [this] { save(true); });
  add(tr("New sign: lettering on a board"), QKeySequence::New, [this] {
    if (!may_leave()) return;
    document_.replace(Job{}, {});
    go_to_stage(Stage::Artwork);
    add_lettering();
  });
  add(tr("Open the demo, the Marrowby gate sign"), {}, [this] {
    if (may_leave()) open_demo();
  });
  add(tr("Open the other demo, a plaque with a traced heron"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("heron-plaque"));
  });
  add(tr("Open the demo of a raised sign with a bevelled edge"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("gate-sign-raised"));
  });
  add(tr("Open the demo of a seed drawer's front"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("seed-drawer"));
  });
  add(tr("Open the demo of a lid with an inlaid sprig"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("inlaid-lid"));
  });
  add(tr("Open the demo of a test ladder for inlays"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("test-ladder"));
  });
  add(tr("Open the demo of a fingerpost's arm"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("fingerpost"));
  });
  add(tr("Open the demo of an engraved brass plate"), {}, [this] {
    if (may_leave()) open_demo(QStringLiteral("sundial-plate"));
  });
  add(tr("Undo"), QKeySequence::Undo, [this] { document_.undo_stack().undo(); });
  add(tr("Redo"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), [this] { document_.undo_stack().redo(); });
  add(tr("Write the files…"), QKeySequence(Qt::CTRL | Qt::Key_E), [this] { choose_and_write(); });
  add(tr("The rack: bits, measured figures, feeds…"), QKeySequence(Qt::CTRL | Qt::Key_R), [this] { edit_rack(); });
  add(tr("Add lettering"), QKeySequence(Qt::CTRL | Qt::Key_L), [this] {
    go_to_stage(Stage::Artwork);
    add_lettering();
  });
  add(tr("Add a drawing from a file…"), {}, [this] { add_drawing(); });
  add(tr("Letter bench: the chosen words in many faces…"), QKeySequence(Qt::CTRL | Qt::Key_B),
      [this] { open_letter_bench(); });
  add(tr("Look at the boards of plugs and inserts…"), {}, [this] { open_boards(); });
  add(tr("Add a rectangle"), {}, [this] { add_shape(PlainShape::Kind::Rectangle); });
  add(tr("Add an oval"), {}, [this] { add_shape(PlainShape::Kind::Ellipse); });
  add(tr("Copy the chosen piece"), QKeySequence(Qt::CTRL | Qt::Key_D), [this] { copy_piece(); });
  add(tr("Remove the chosen piece"), {}, [this] { remove_piece(); });
  auto* remove = new QShortcut(QKeySequence::Delete, bench_);
  remove->setContext(Qt::WidgetShortcut);
  connect(remove, &QShortcut::activated, this, [this] {
    if (!bench_->points().key(Qt::Key_Delete)) remove_piece();  // a chosen point goes before the piece
  });
  add(tr("Centre the chosen piece across the board"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_C), [this] {
    const PiecePlan* piece = shop_.piece_plan();
    if (piece == nullptr) return;
    const double by = document_.job().blank.width / 2 - bounds(piece->outlines).centre().x;
    document_.edit(tr("centre across"), [&](Job& job) { job.shift(shop_.selected.toStdString(), {by, 0}); });
  });
  const auto chosen = [this] {
    std::vector<std::string> ids;
    for (const QString& id : bench_->chosen()) ids.push_back(id.toStdString());
    return ids;
  };
  add(tr("Equal margins: as large as your margin allows, in the middle"),
      QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_M), [this] {
        document_.edit(tr("equal margins"),
                       [&](Job& job) { fill_board(job, shop_.selected.toStdString(), job.blank.margin); });
      });
  add(tr("Equal gaps between the chosen pieces, left to right"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_G),
      [this, chosen] {
        document_.edit(tr("equal gaps"), [&](Job& job) { space_out(job, chosen(), true, std::nullopt); });
      });
  add(tr("Equal gaps between the chosen pieces, front to back"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_V),
      [this, chosen] {
        document_.edit(tr("equal gaps"), [&](Job& job) { space_out(job, chosen(), false, std::nullopt); });
      });
  const struct {
    QString words;
    Qt::Key key;
    LineUp how;
  } lines[] = {{tr("Line up left edges"), Qt::Key_Left, LineUp::Left},
               {tr("Line up right edges"), Qt::Key_Right, LineUp::Right},
               {tr("Line up front edges"), Qt::Key_Down, LineUp::Front},
               {tr("Line up back edges"), Qt::Key_Up, LineUp::Back},
               {tr("Line up middles, left to right"), Qt::Key_Home, LineUp::Middle},
               {tr("Line up middles, front to back"), Qt::Key_End, LineUp::MiddleAcross}};
  for (const auto& line : lines) {
    add(line.words, QKeySequence(Qt::CTRL | Qt::SHIFT | line.key), [this, chosen, line] {
      document_.edit(line.words.toLower(), [&](Job& job) { line_up(job, chosen(), line.how); });
    });
  }
  add(tr("Choose all pieces"), QKeySequence::SelectAll, [this] { bench_->choose_all(); });
  add(tr("Save the outlines as DXF or SVG…"), {}, [this] { save_outlines(); });
  // One key mends the gravest verdict of the chosen piece, or of the job.
  add(tr("Take the first remedy"), QKeySequence(Qt::Key_F4), [this] { take_first_remedy(); });
  add(tr("Turn the board over, to see what is cut from its back"), QKeySequence(Qt::CTRL | Qt::Key_T), [this] {
    if (!document_.job().has_back())
      return say(tr("Nothing is cut from the back"), tr("Under Cuts a piece can be cut from the back."));
    if (bench_->stage() == Stage::Blank || bench_->stage() == Stage::Artwork) go_to_stage(Stage::Cuts);
    bench_->show_side(bench_->side() == Side::Front ? Side::Back : Side::Front);
  });
  add(tr("Show the whole board"), QKeySequence(Qt::CTRL | Qt::Key_0), [this] { bench_->fit(); });
  for (int i = 0; i < kStages; ++i) {
    add(tr("Go to %1").arg(stage_name(static_cast<Stage>(i))),
        QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + i)), [this, i] { go_to_stage(static_cast<Stage>(i)); });
  }
  add(tr("Work at the board with the keys"), QKeySequence(Qt::Key_F6), [this] { bench_->setFocus(); });
  add(tr("Keys and first steps"), QKeySequence::HelpContents, [this] {
    say(tr("Keys and first steps"), tr("Work from left to right along the stages; Alt+1 to Alt+5 go there.\n\n"
                                       "On the board (F6): N and P choose a piece, arrows move it (Shift ten times as "
                                       "far, Alt a tenth), Page Up and Page Down move the section, "
                                       "+ and − come closer and go back, Home shows all.\n\n"
                                       "Ctrl+K finds any command or piece by words. F4 takes the first remedy. Ctrl+Z "
                                       "takes anything back. Ctrl+E writes the files.\n\n"
                                       "Any length field takes 3/8, 1 1/2\", 12.7 mm or 3/16 + 0.01."));
  });
  auto* call = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_K), this);
  connect(call, &QShortcut::activated, this, &MainWindow::show_call_box);
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

void MainWindow::show_call_box() {
  QList<Call> calls = calls_;
  for (const Item& item : document_.job().items) {
    const QString id = QString::fromStdString(item.piece.id);
    calls.append({tr("Piece: %1").arg(QString::fromStdString(item.piece.name)), {}, [this, id] { select(id); }});
  }
  CallBox box(calls, this);
  box.move(mapToGlobal(QPoint(width() - box.width() - 12, 62)));
  box.exec();
}

void MainWindow::show_job_menu(const QPoint& at) {
  QMenu menu(this);
  for (const Call& call : calls_.mid(0, 14)) {
    QString words = call.words;
    if (words == tr("Undo") && document_.undo_stack().canUndo())
      words = tr("Undo: %1").arg(document_.undo_stack().undoText());
    if (words == tr("Redo") && document_.undo_stack().canRedo())
      words = tr("Redo: %1").arg(document_.undo_stack().redoText());
    QAction* action = menu.addAction(words + (call.shortcut.isEmpty() ? QString() : QLatin1Char('\t') + call.shortcut));
    if (call.words == tr("Undo")) action->setEnabled(document_.undo_stack().canUndo());
    if (call.words == tr("Redo")) action->setEnabled(document_.undo_stack().canRedo());
    connect(action, &QAction::triggered, this, call.act);
  }
  menu.addSeparator();
  for (const QString& path : QSettings().value(QStringLiteral("recent")).toStringList()) {
    if (!QFileInfo::exists(path)) continue;
    connect(menu.addAction(QFileInfo(path).fileName()), &QAction::triggered, this, [this, path] {
      if (may_leave()) open(path);
    });
  }
  menu.exec(at);
}

void MainWindow::job_changed() {
  remedy_wanted_ = false;  // it was asked for of the job as it stood
  notice_->hide();
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
}

void MainWindow::refresh_tickets() { static_cast<Ticket*>(tickets_->currentWidget())->refresh(); }

void MainWindow::refresh_rail() {
  const Job& job = document_.job();
  const Species* species = species_table().find(job.blank.species);
  const auto bare = [&](double mm) { return QString::fromStdString(format_length(mm, job.lengths, false)); };
  const QString size = bare(job.blank.width) + QStringLiteral(" × ") + bare(job.blank.height);
  const QString unit = QString::fromLatin1(unit_name(job.lengths.unit));
  rail_->show_job(
      QString::fromStdString(job.name),
      (species == nullptr ? QString() : QString::fromStdString(species->name).toLower() + QLatin1Char(' ')) + size +
          QLatin1Char(' ') + unit + QStringLiteral(" · ") +
          (document_.unsaved()          ? tr("unsaved")
           : document_.path().isEmpty() ? tr("not saved yet")
                                        : tr("saved")));
  const int readings = static_cast<int>(job.blank.readings.size());
  rail_->show_state(Stage::Blank, readings >= 3 ? Lamp::Fine : Lamp::Note,
                    readings == 1 ? tr("one reading") : tr("%1 readings").arg(readings));
  const int pieces = static_cast<int>(job.items.size());
  rail_->show_state(Stage::Artwork, pieces > 0 ? Lamp::Fine : Lamp::Off,
                    pieces == 0   ? tr("nothing yet")
                    : pieces == 1 ? tr("one piece")
                                  : tr("%1 pieces").arg(pieces));
  int cut = 0;
  for (const Item& item : job.items) {
    // What only serves others (a source, a panel's outline) owes no treatment.
    const bool serves =
        job.is_source(item.piece.id) || std::any_of(job.items.begin(), job.items.end(), [&](const Item& other) {
          return other.cut.kind == Treatment::Kind::Raise && other.cut.panel == item.piece.id;
        });
    cut += item.cut.kind != Treatment::Kind::None || serves;
  }
  rail_->show_state(Stage::Cuts,
                    pieces == 0     ? Lamp::Off
                    : cut == pieces ? Lamp::Fine
                                    : Lamp::Mind,
                    cut == pieces ? (cut == 1 ? tr("one treatment") : tr("%1 treatments").arg(cut))
                                  : tr("%1 of %2").arg(cut).arg(pieces));
  if (!shop_.plan) return;
  const int stops = shop_.seen()->count(Grade::Stop), minds = shop_.seen()->count(Grade::Mind);
  QString words = stops > 0 ? tr("%1 stop").arg(stops) : QString();
  if (minds > 0) words += (words.isEmpty() ? QString() : QStringLiteral(", ")) + tr("%1 to mind").arg(minds);
  rail_->show_state(Stage::Proof,
                    stops > 0   ? Lamp::Stop
                    : minds > 0 ? Lamp::Mind
                                : Lamp::Fine,
                    words.isEmpty() ? tr("nothing against it") : words);
  const int bits = static_cast<int>(shop_.plan->runs.size());
  rail_->show_state(Stage::Run,
                    bits == 0   ? Lamp::Off
                    : stops > 0 ? Lamp::Stop
                                : Lamp::Fine,
                    bits == 0 ? tr("nothing to run")
                              : (bits == 1 ? tr("one bit, ") : tr("%1 bits, ").arg(bits)) +
                                    QString::fromStdString(format_duration(shop_.plan->seconds)));
}

void MainWindow::go_to_stage(Stage stage) {
  leave_guest();
  rail_->set_current(stage);
  tickets_->setCurrentIndex(static_cast<int>(stage));
  bench_->show_stage(stage);
  if (stage != Stage::Proof) fit_.leave();
  refresh_tickets();
}

void MainWindow::select(const QString& piece) { bench_->select(piece); }
void MainWindow::open_sums() { cuts_->open_sums(true); }

void MainWindow::open_demo(const QString& name) {
  try {
    const std::string path = data_file("demo/" + name.toStdString() + ".doyen");
    document_.replace(load_job(path), {}, QStringLiteral("demo-") + name);
    section_ = {true, document_.job().blank.height * 0.615};
    bench_->set_section(section_);
    strip_->set_line(section_);
    select({});
    bench_->fit();
  } catch (const Problem& problem) {
    say(tr("The demo"), QString::fromUtf8(problem.what()));
  }
}

bool MainWindow::open(const QString& path) {
  try {
    Job job;
    work_off_thread(this, tr("Opening %1…").arg(QFileInfo(path).fileName()), [&](const Cancel& cancel, const Told&) {
      job = load_job(path.toStdString());
      cancel.check();
    });
    document_.replace(job, path);
    remember(path);
    select({});
    bench_->fit();
    return true;
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) return false;
    say(tr("This job cannot be opened"), QString::fromUtf8(problem.what()));
    return false;
  }
}

void MainWindow::remember(const QString& path) {
  QSettings settings;
  QStringList recent = settings.value(QStringLiteral("recent")).toStringList();
  const QString full = QFileInfo(path).absoluteFilePath();
  recent.removeAll(full);
  recent.prepend(full);
  settings.setValue(QStringLiteral("recent"), QStringList(recent.mid(0, 8)));
}

void MainWindow::greet() {
  QDialog box(this);
  box.setWindowTitle(tr("Doyen"));
  box.setObjectName(QStringLiteral("welcome"));
  auto* column = new QVBoxLayout(&box);
  column->setContentsMargins(28, 24, 28, 22);
  column->setSpacing(9);
  column->addWidget(make_label(tr("Good morning. What shall be carved?"), "title"));
  column->addWidget(make_label(tr("Say what each shape shall look like; Doyen works out the cutting, shows the board "
                                  "as it will be, and says what would go wrong before wood is spoiled."),
                               "faded"));
  int chosen = 0;
  QString job;
  const auto add = [&](const QString& words, const QString& about, int which, const QString& path = {}) {
    auto* button = new QPushButton(words);
    button->setMinimumHeight(36);
    button->setStyleSheet(QStringLiteral("text-align: left; padding-left: 14px;"));
    button->setToolTip(about);
    connect(button, &QPushButton::clicked, &box, [&box, &chosen, &job, which, path] {
      chosen = which;
      job = path;
      box.accept();
    });
    column->addWidget(button);
    return button;
  };
  add(tr("Look round in the demo: a gate sign for Marrowby Physic Garden"), {}, 1)->setDefault(true);
  add(tr("Look at a plaque: words on an arc, a heron traced from a photo"), {}, 6);
  add(tr("Lettering on a board"), {}, 2);
  add(tr("Art from a file…"), {}, 3);
  add(tr("Open a job…"), {}, 4);
  const QStringList recent = QSettings().value(QStringLiteral("recent")).toStringList();
  bool headed = false;
  for (const QString& path : recent) {
    if (!QFileInfo::exists(path)) continue;
    if (!headed) column->addWidget(make_label(tr("Worked on lately"), "faded"));
    headed = true;
    add(QFileInfo(path).fileName(), path, 5, path);
  }
  box.setFixedWidth(520);
  box.exec();
  if (chosen == 2) {
    document_.replace(Job{}, {});
    go_to_stage(Stage::Artwork);
    add_lettering();
  } else if (chosen == 3) {
    document_.replace(Job{}, {});
    go_to_stage(Stage::Artwork);
    add_drawing();
  } else if (chosen == 4) {
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a job"), {}, tr("Doyen jobs (*.doyen)"));
    if (path.isEmpty() || !open(path)) open_demo();
  } else if (chosen == 6) {
    open_demo(QStringLiteral("heron-plaque"));
  } else if (chosen == 5) {
    if (!open(job)) open_demo();
  } else {
    open_demo();
  }
}

void MainWindow::add_piece(const QString& name, Piece piece, Treatment::Kind kind, const std::string& instead_of) {
  const std::string id = document_.job().fresh_id(kind_word(piece));
  piece.id = id;
  document_.edit(name, [&](Job& job) {
    Item item;
    item.piece = std::move(piece);
    item.cut.kind = kind;
    job.items.push_back(std::move(item));
    if (Item* source = job.find(instead_of)) source->cut.kind = Treatment::Kind::None;
  });
  select(QString::fromStdString(id));
}

void MainWindow::add_lettering() {
  const Job& job = document_.job();
  Lettering l;
  l.words = tr("Your words").toStdString();
  l.cap_height = std::clamp(job.blank.height / 5, 5.0, 80.0);
  if (!face_installed(l.face) && !installed_faces().empty()) l.face = installed_faces().front().name;
  add_piece(tr("add lettering"), {{}, tr("Lettering").toStdString(), l, job.blank.box().centre(), 0},
            Treatment::Kind::Incise);
  artwork_->focus_words();
}

void MainWindow::add_shape(PlainShape::Kind kind) {
  using K = PlainShape::Kind;
  const Job& job = document_.job();
  go_to_stage(Stage::Artwork);
  const double inset = 2 * job.blank.margin;
  PlainShape s;
  s.kind = kind;
  s.width = std::max(5.0, job.blank.width - inset);
  s.height = std::max(5.0, job.blank.height - inset);
  const double least = std::min(s.width, s.height);
  if (kind == K::Rectangle) s.corner_radius = least / 8;
  if (kind == K::Polygon || kind == K::Star) s.width = s.height = least / 2;
  if (kind == K::Star) s.points = 5;
  if (kind == K::Ribbon) s.height = least / 4;
  if (kind == K::ArchTop) s.rise = s.height / 4;
  if (kind == K::Line) s.width *= 0.6;
  static const char* const kNames[] = {QT_TR_NOOP("Rectangle"), QT_TR_NOOP("Oval"), QT_TR_NOOP("Arch top"),
                                       QT_TR_NOOP("Polygon"),   QT_TR_NOOP("Star"), QT_TR_NOOP("Ribbon"),
                                       QT_TR_NOOP("Line")};
  add_piece(tr("add a shape"), {{}, tr(kNames[static_cast<int>(kind)]).toStdString(), s, job.blank.box().centre(), 0},
            kind == K::Line ? Treatment::Kind::Line : Treatment::Kind::None);
}

// Something new from the chosen piece; its second source, where one is needed, is the next piece on the list.
void MainWindow::make_from(Derived::How how) {
  using H = Derived::How;
  const Item* item = shop_.item();
  if (item == nullptr) return;
  const Job& job = document_.job();
  Derived d;
  d.how = how;
  d.from = {item->piece.id};
  Box box;
  try {
    box = bounds(outlines_of(item->piece, job.source()));
  } catch (const Problem&) {
  }
  if (how == H::Join || how == H::TakeAway || how == H::Overlap || how == H::Along) {
    for (const Item& other : job.items) {
      if (other.piece.id != item->piece.id && d.from.size() < 2) d.from.push_back(other.piece.id);
    }
    if (d.from.size() < 2) return say(tr("Made from two pieces"), tr("That takes a second piece; add it first."));
  }
  if (!box.empty()) {
    d.step_x = box.width() * 1.2;
    d.step_y = box.height() * 1.2;
    d.radius = std::max(box.width(), box.height()) * 1.2;
  }
  d.distance = job.lengths.unit == Unit::Inch ? kMmPerInch / 8 : 3;
  static const char* const kNames[] = {
      QT_TR_NOOP("%1, grown"), QT_TR_NOOP("%1, joined"),   QT_TR_NOOP("%1, cut away"), QT_TR_NOOP("%1, overlap"),
      QT_TR_NOOP("%1, part"),  QT_TR_NOOP("%1, mirrored"), QT_TR_NOOP("%1, in rows"),  QT_TR_NOOP("%1, in a ring"),
      QT_TR_NOOP("%1, along"), QT_TR_NOOP("%1, linked")};
  const QString name = tr(kNames[static_cast<int>(how)]).arg(QString::fromStdString(item->piece.name));
  const Treatment cut = item->cut;
  // What it was made from makes way, unless both are wanted: an outline grown stands beside its source.
  const bool both = how == H::Grow || how == H::Mirror;
  add_piece(tr("make “%1”").arg(name), {{}, name.toStdString(), d, {0, 0}, 0}, cut.kind,
            both ? std::string() : d.from.front());
}

void MainWindow::save_outlines() {
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Save the outlines"), QString::fromStdString(document_.job().name) + QStringLiteral(".dxf"),
      tr("DXF (*.dxf);;SVG (*.svg)"));
  if (path.isEmpty()) return;
  try {
    save_outlines_of(document_.job(), path.toStdString());
  } catch (const Problem& problem) {
    say(tr("The outlines were not saved"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::open_letter_bench() {
  const Item* item = shop_.item();
  if (item == nullptr || !std::holds_alternative<Lettering>(item->piece.what)) return;
  auto* bench = new LetterBench(document_.job(), *item, rack_, this);
  show_in_place(bench, [this, bench, id = item->piece.id] {
    if (!bench->taken()) return;
    const FaceName face = *bench->taken();
    document_.edit(tr("take the face %1").arg(QString::fromStdString(face.family)), [&](Job& job) {
      Item* it = job.find(id);
      auto* l = it == nullptr ? nullptr : std::get_if<Lettering>(&it->piece.what);
      if (l == nullptr) return;
      l->face = face;
      if (bench->spacing()) l->letter_spacing = *bench->spacing();
      if (bench->thickened()) l->thicken = *bench->thickened();
    });
  });
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

void MainWindow::trace_picture(TracePicture picture, const TraceSettings& settings, const QString& name, double width,
                               const std::function<void(Drawing)>& take) {
  const Item* item = shop_.item();
  const Bit* bit = item == nullptr ? nullptr : rack_.find(item->cut.bit);
  if (bit == nullptr) bit = rack_.find("v60");
  if (bit == nullptr && !rack_.bits.empty()) bit = &rack_.bits.front();
  if (bit == nullptr) return say(tr("Nothing to trace for"), tr("The rack has no bit; put one in first."));
  auto* dialog =
      new TraceDialog(std::move(picture), settings, width, *bit, bit->feeds_in(wood_class_of(document_.job().blank)),
                      machine_for(document_.job()), document_.job().lengths, this);
  show_in_place(dialog, [this, dialog, name, take] {
    if (!dialog->traced_fine()) return;
    try {
      Drawing drawing;
      work_off_thread(this, tr("Taking the outlines…"), [&](const Cancel& cancel, const Told&) {
        drawing = traced_drawing(dialog->picture(), dialog->settings(), name.toStdString(), cancel).drawing;
        const double now = bounds(drawing_region(drawing)).width();
        if (now > 0) drawing.scale = dialog->width_wanted() / now;
      });
      take(std::move(drawing));
    } catch (const Problem& problem) {
      if (problem.kind() == Problem::Kind::Cancelled) return;
      say(tr("The picture cannot be traced"), QString::fromUtf8(problem.what()));
    }
  });
}

void MainWindow::trace_again() {
  const Item* item = shop_.item();
  const auto* d = item == nullptr ? nullptr : std::get_if<Drawing>(&item->piece.what);
  if (d == nullptr || !d->traced) return;
  try {
    const double width = bounds(drawing_region(*d)).width();
    std::optional<TracePicture> picture;
    work_off_thread(this, tr("Opening the picture…"), [&](const Cancel& cancel, const Told&) {
      picture = TracePicture::read(from_base64(d->traced->png), d->name);
      cancel.check();
    });
    trace_picture(std::move(*picture), d->traced->settings, QString::fromStdString(d->name), width,
                  [this, id = item->piece.id](const Drawing& again) {
                    document_.edit(tr("trace the picture again"), [&](Job& job) {
                      if (Item* it = job.find(id)) it->piece.what = again;
                    });
                  });
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) return;
    say(tr("The picture cannot be traced again"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::freeze_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  try {
    const Outlines outlines = outlines_of(item->piece, document_.job().source());
    const Drawing drawing = frozen(outlines, item->piece.name);
    const Box box = bounds(outlines);
    shop_.edit_item(tr("freeze “%1”").arg(QString::fromStdString(item->piece.name)), [&](Item& it) {
      it.piece.what = drawing;
      it.piece.at = box.centre();
      it.piece.turn = 0;
    });
  } catch (const Problem& problem) {
    say(tr("It cannot be frozen"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::add_drawing(const QString& given) {
  go_to_stage(Stage::Artwork);
  const QString path = given.isEmpty() ? QFileDialog::getOpenFileName(
                                             this, tr("A drawing"), {},
                                             tr("Drawings and pictures (*.svg *.dxf *.png *.jpg *.jpeg *.bmp *.webp)"))
                                       : given;
  if (path.isEmpty()) return;
  try {
    const Blank& board = document_.job().blank;
    std::optional<TracePicture> picture;
    Imported svg;
    Box box;
    Outlines enclosed;  // by its lines, where it is all lines
    work_off_thread(this, tr("Reading %1…").arg(QFileInfo(path).fileName()),
                    [&](const Cancel& cancel, const Told& told) {
                      const std::string file = path.toStdString();
                      if (is_picture(file)) {
                        picture = TracePicture::read(read_file(file, 256u << 20), file);
                      } else {
                        svg = read_artwork(file, Reading(cancel, told));
                        box = bounds(outlines_of({"art", "art", svg.drawing, {0, 0}, 0}));
                        if (only_lines(svg.drawing)) {
                          Drawing areas = svg.drawing;
                          areas.lines = Drawing::Lines::Enclose;
                          enclosed = outlines_of({"art", "art", areas, {0, 0}, 0});
                        }
                      }
                      cancel.check();
                    });
    if (picture) {
      const double width = 0.5 * std::min(board.width, board.height * picture->width() / picture->height());
      const QString name = QFileInfo(path).completeBaseName();
      trace_picture(std::move(*picture), {}, name, width, [this, name](const Drawing& traced) {
        add_piece(tr("trace a picture"), {{}, name.toStdString(), traced, document_.job().blank.box().centre(), 0},
                  Treatment::Kind::Incise);
      });
      return;
    }
    Drawing drawing = svg.drawing;
    const Blank& blank = document_.job().blank;
    QStringList notes;
    if (box.width() > blank.width || box.height() > blank.height) {
      drawing.scale = 0.8 * std::min(blank.width / box.width(), blank.height / box.height());
      notes << tr("It is larger than the board and was made smaller to fit.");
    }
    if (!svg.sized) notes << QString::fromStdString(svg.assumed);
    for (const std::string& left : svg.left_out) notes << QString::fromStdString(left);
    const Treatment::Kind kind = ask_about_lines(drawing, enclosed);
    add_piece(tr("add a drawing"),
              {{}, QFileInfo(path).completeBaseName().toStdString(), drawing, blank.box().centre(), 0}, kind);
    if (!notes.isEmpty()) say(tr("About this drawing"), notes.join(QLatin1Char('\n')));
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) return;
    say(tr("This drawing cannot be taken"), QString::fromUtf8(problem.what()));
  }
}

// Art that is all lines is asked about once: each way is right for some drawing.
Treatment::Kind MainWindow::ask_about_lines(Drawing& drawing, const Outlines& areas) {
  if (!only_lines(drawing)) return Treatment::Kind::Incise;
  QMessageBox ask(QMessageBox::NoIcon, tr("A drawing of lines"),
                  tr("This drawing is all lines. What shall be carved?") +
                      (!areas.region.empty() && !areas.open.empty()
                           ? QLatin1Char(' ') + tr("Some of its lines are open and enclose nothing.")
                           : QString()),
                  QMessageBox::NoButton, this);
  ask.setObjectName(QStringLiteral("linesAre"));
  QPushButton* enclose =
      areas.region.empty() ? nullptr : ask.addButton(tr("What the lines enclose"), QMessageBox::AcceptRole);
  QPushButton* follow = ask.addButton(tr("The lines, followed by the bit"), QMessageBox::AcceptRole);
  ask.addButton(tr("The lines, as wide as drawn"), QMessageBox::AcceptRole);
  // Outlines that all close are meant as areas.
  if (enclose != nullptr && areas.open.empty()) ask.setDefaultButton(enclose);
  ask.exec();
  if (enclose != nullptr && ask.clickedButton() == enclose) drawing.lines = Drawing::Lines::Enclose;
  if (ask.clickedButton() != follow) return Treatment::Kind::Incise;
  drawing.lines = Drawing::Lines::Followed;
  return Treatment::Kind::Line;
}

void MainWindow::remove_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  const std::string id = item->piece.id;
  document_.edit(tr("remove “%1”").arg(QString::fromStdString(item->piece.name)),
                 [&](Job& job) { std::erase_if(job.items, [&](const Item& i) { return i.piece.id == id; }); });
}

void MainWindow::copy_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  Item copy = *item;
  copy.piece.id = document_.job().fresh_id(kind_word(copy.piece));
  copy.piece.at = copy.piece.at + Point{10, -10};
  document_.edit(tr("copy “%1”").arg(QString::fromStdString(copy.piece.name)),
                 [&](Job& job) { job.items.push_back(copy); });
  select(QString::fromStdString(copy.piece.id));
}

void MainWindow::edit_rack() {
  RackDialog dialog(rack_, document_.job().lengths, this);
  if (dialog.exec() == QDialog::Accepted && !(dialog.rack() == rack_)) keep_rack(dialog.rack());
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
  show_in_place(boards, [] {});
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

void MainWindow::keep_rung(const Treatment& rung) {
  Rack rack = rack_;
  const std::string bit = keep_answer(rack, rung);
  if (bit.empty()) return say(tr("The test ladder"), tr("This pair's bit is not in the rack any longer."));
  keep_rack(rack);
}

void MainWindow::keep_rack(const Rack& rack) {
  std::string aside;
  try {
    KeptRack kept = keep_own_rack(rack_, rack);
    rack_ = std::move(kept.rack);
    aside = std::move(kept.aside);
  } catch (const Problem& problem) {
    return say(tr("The rack was not saved"), QString::fromUtf8(problem.what()));
  }
  planner_.request(document_.job(), rack_);
  refresh_tickets();
  if (!aside.empty())
    note(tr("The rack's file could not be read; it is kept as %1.").arg(QString::fromStdString(aside)));
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  for (const QUrl& url : event->mimeData()->urls()) {
    const QString path = url.toLocalFile();
    if (path.endsWith(QStringLiteral(".doyen"), Qt::CaseInsensitive)) {
      if (may_leave()) open(path);
    } else if (!path.isEmpty()) {
      add_drawing(path);
    }
  }
}

}  // namespace doyen
