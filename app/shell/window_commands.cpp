// What the window can be told to do: each command is one entry here.
#include <QMenu>
#include <QShortcut>

#include "bench/hands/all.hpp"
#include "job/layout.hpp"
#include "shell/display_dialog.hpp"
#include "shell/guide.hpp"
#include "shell/keys_page.hpp"
#include "shell/main_window.hpp"
#include "version.hpp"

namespace doyen {
namespace {

using Group = Command::Group;

QKeySequence keys(QKeyCombination combined) { return QKeySequence(combined); }

}  // namespace

QList<Command> MainWindow::job_commands() {
  const auto undo = [this]() -> QUndoStack& { return document_.undo_stack(); };
  return {
      {Group::Job, QStringLiteral("new"), tr("New sign: lettering on a board…"), QKeySequence::New,
       [this] { new_job(Greeting::Start::Sign); }},
      {Group::Job,
       QStringLiteral("newArt"),
       tr("New board from a drawing or a photograph…"),
       {},
       [this] { new_job(Greeting::Start::Art); }},
      {Group::Job, QStringLiteral("plates"), tr("Plates from a list…"), {}, [this] { plates_from_list(); }},
      {Group::Job,
       QStringLiteral("newEmpty"),
       tr("New empty board…"),
       {},
       [this] { new_job(Greeting::Start::Nothing); }},
      {Group::Job, QStringLiteral("open"), tr("Open a job…"), QKeySequence::Open, [this] { choose_job(); }},
      {Group::Job, QStringLiteral("save"), tr("Save the job"), QKeySequence::Save, [this] { save(false); }},
      {Group::Job, QStringLiteral("saveAs"), tr("Save the job as…"), keys(Qt::CTRL | Qt::SHIFT | Qt::Key_S),
       [this] { save(true); }},
      {Group::Job, QStringLiteral("undo"), tr("Undo"), QKeySequence::Undo, [undo] { undo().undo(); },
       [undo] { return undo().canUndo(); },
       [undo] { return undo().canUndo() ? tr("Undo: %1").arg(undo().undoText()) : tr("Undo"); }},
      {Group::Job, QStringLiteral("redo"), tr("Redo"), keys(Qt::CTRL | Qt::SHIFT | Qt::Key_Z),
       [undo] { undo().redo(); }, [undo] { return undo().canRedo(); },
       [undo] { return undo().canRedo() ? tr("Redo: %1").arg(undo().redoText()) : tr("Redo"); }},
      {Group::Job, QStringLiteral("write"), tr("Write the files…"), keys(Qt::CTRL | Qt::Key_E),
       [this] { choose_and_write(); }},
      {Group::Job, QStringLiteral("outlines"), tr("Save the outlines as DXF or SVG…"), {}, [this] { save_outlines(); }},
      {Group::Job, QStringLiteral("customer"), tr("Save the customer's sheet…"), {}, [this] { save_customer_sheet(); }},
      {Group::Job,
       QStringLiteral("quote"),
       tr("Save the customer's sheet with its price…"),
       {},
       [this] { save_customer_sheet(true); }},
      {Group::Job,
       QStringLiteral("customerOfTwo"),
       tr("Save a customer's sheet of two jobs…"),
       {},
       [this] { save_sheet_of_two(); }},
      {Group::Job, QStringLiteral("rack"), tr("The rack: bits, measured figures, feeds…"), keys(Qt::CTRL | Qt::Key_R),
       [this] { edit_rack(); }},
      {Group::Job,
       QStringLiteral("log"),
       tr("The log: what was run, and how it came out…"),
       {},
       [this] { open_log(); }},
      {Group::Job, QStringLiteral("bed"), tr("The board on the machine's bed"), {}, [this] { open_bed(); }},
      {Group::Job, QStringLiteral("rehearse"), tr("Rehearse the run…"), {}, [this] { open_rehearsal(); }},
      {Group::Job,
       QStringLiteral("machines"),
       tr("Machines: what they understand and how they move…"),
       {},
       [this] { edit_machines(); }},
      {Group::Job, QStringLiteral("remedy"), tr("Take the first remedy"), keys(Qt::Key_F4),
       [this] { take_first_remedy(); }},
      {Group::Job, QStringLiteral("quit"), tr("Close Doyen"), keys(Qt::CTRL | Qt::Key_Q), [this] { close(); }},
  };
}

QList<Command> MainWindow::piece_commands() {
  const auto piece = [this] { return shop_.item() != nullptr; };
  const auto some = [this] { return !bench_->chosen().isEmpty(); };
  QList<Command> list{
      {Group::Pieces, QStringLiteral("addLettering"), tr("Add lettering"), keys(Qt::CTRL | Qt::Key_L),
       [this] {
         go_to_stage(Stage::Artwork);
         add_lettering();
       }},
      {Group::Pieces, QStringLiteral("addDrawing"), tr("Add a drawing from a file…"), {}, [this] { add_drawing(); }},
      {Group::Pieces,
       QStringLiteral("addRectangle"),
       tr("Add a rectangle"),
       {},
       [this] { add_shape(PlainShape::Kind::Rectangle); }},
      {Group::Pieces,
       QStringLiteral("addOval"),
       tr("Add an oval"),
       {},
       [this] { add_shape(PlainShape::Kind::Ellipse); }},
      {Group::Pieces,
       QStringLiteral("drawByHand"),
       tr("Draw a line or a curve by hand on the board"),
       {},
       [this] {
         go_to_stage(Stage::Artwork);
         bench_->draw().set_active(true);
         bench_->setFocus();
       }},
      {Group::Pieces, QStringLiteral("letterBench"), tr("Letter bench: the chosen words in many faces…"),
       keys(Qt::CTRL | Qt::Key_B), [this] { open_letter_bench(); },
       [this] {
         const Item* item = shop_.item();
         return item != nullptr && std::holds_alternative<Lettering>(item->piece.what);
       }},
      {Group::Pieces, QStringLiteral("layItOut"), tr("Lay it out for me: arrangements to choose from…"),
       keys(Qt::CTRL | Qt::SHIFT | Qt::Key_L), [this] { lay_out(); },
       [this] { return !document_.job().items.empty(); }},
      {Group::Pieces, QStringLiteral("copy"), tr("Copy what is chosen"), QKeySequence::Copy, [this] { copy_chosen(); },
       piece},
      {Group::Pieces, QStringLiteral("cut"), tr("Cut out what is chosen, to paste it elsewhere"), QKeySequence::Cut,
       [this] { cut_chosen(); }, piece},
      {Group::Pieces, QStringLiteral("paste"), tr("Paste pieces, an SVG drawing, a picture or words"),
       QKeySequence::Paste, [this] { paste(); }},
      {Group::Pieces, QStringLiteral("duplicate"), tr("Duplicate what is chosen"), keys(Qt::CTRL | Qt::Key_D),
       [this] { duplicate_chosen(); }, piece},
      {Group::Pieces, QStringLiteral("remove"), tr("Remove what is chosen"), {}, [this] { remove_piece(); }, piece},
      {Group::Pieces, QStringLiteral("chooseAll"), tr("Choose all pieces"), QKeySequence::SelectAll,
       [this] { bench_->choose_all(); }},
      {Group::Pieces, QStringLiteral("group"), tr("Group what is chosen, or take its group apart"),
       keys(Qt::CTRL | Qt::Key_G), [this] { group_chosen(); }, [this] { return bench_->chosen().size() > 1; }},
      {Group::Pieces, QStringLiteral("centre"), tr("Centre the chosen piece across the board"),
       keys(Qt::CTRL | Qt::SHIFT | Qt::Key_C),
       [this] {
         const Box box = bench_->box_of(shop_.selected);
         if (box.empty()) return;
         const double by = document_.job().blank.width / 2 - box.centre().x;
         document_.edit(tr("centre across"), [&](Job& job) { job.shift(shop_.selected.toStdString(), {by, 0}); });
       },
       piece},
      {Group::Pieces, QStringLiteral("fill"), tr("Equal margins: as large as your margin allows, in the middle"),
       keys(Qt::CTRL | Qt::SHIFT | Qt::Key_M),
       [this] {
         document_.edit(tr("equal margins"),
                        [&](Job& job) { fill_board(job, shop_.selected.toStdString(), job.blank.margin); });
       },
       piece},
      {Group::Pieces, QStringLiteral("gapsAcross"), tr("Equal gaps between the chosen pieces, left to right"),
       keys(Qt::CTRL | Qt::SHIFT | Qt::Key_G),
       [this] {
         document_.edit(tr("equal gaps"), [&](Job& job) { space_out(job, chosen_ids(), true, std::nullopt); });
       },
       some},
      {Group::Pieces, QStringLiteral("gapsUp"), tr("Equal gaps between the chosen pieces, front to back"),
       keys(Qt::CTRL | Qt::SHIFT | Qt::Key_V),
       [this] {
         document_.edit(tr("equal gaps"), [&](Job& job) { space_out(job, chosen_ids(), false, std::nullopt); });
       },
       some},
  };
  const struct {
    const char* id;
    QString words;
    Qt::Key key;
    LineUp how;
  } lines[] = {{"lineLeft", tr("Line up left edges"), Qt::Key_Left, LineUp::Left},
               {"lineRight", tr("Line up right edges"), Qt::Key_Right, LineUp::Right},
               {"lineFront", tr("Line up front edges"), Qt::Key_Down, LineUp::Front},
               {"lineBack", tr("Line up back edges"), Qt::Key_Up, LineUp::Back},
               {"lineMiddle", tr("Line up middles, left to right"), Qt::Key_Home, LineUp::Middle},
               {"lineAcross", tr("Line up middles, front to back"), Qt::Key_End, LineUp::MiddleAcross}};
  for (const auto& line : lines) {
    list.append({Group::Pieces, QLatin1String(line.id), line.words, keys(Qt::CTRL | Qt::SHIFT | line.key),
                 [this, words = line.words, how = line.how] {
                   document_.edit(words, [&](Job& job) { line_up(job, chosen_ids(), how); });
                 },
                 some});
  }
  return list;
}

QList<Command> MainWindow::view_commands() {
  QList<Command> list{
      {Group::View, QStringLiteral("fit"), tr("Show the whole board"), keys(Qt::CTRL | Qt::Key_0),
       [this] { bench_->fit(); }},
      {Group::View, QStringLiteral("turnOver"), tr("Turn the board over, to see what is cut from its back"),
       keys(Qt::CTRL | Qt::Key_T),
       [this] {
         if (!document_.job().has_back())
           return say(tr("Nothing is cut from the back"), tr("Under Cuts a piece can be cut from the back."));
         if (bench_->stage() == Stage::Blank || bench_->stage() == Stage::Artwork) go_to_stage(Stage::Cuts);
         bench_->show_side(bench_->side() == Side::Front ? Side::Back : Side::Front);
       }},
      {Group::View,
       QStringLiteral("tilt"),
       tr("Take the carved board in your hands…"),
       {},
       [this] { open_tilted(); },
       [this] { return shop_.plan != nullptr && !document_.job().items.empty(); }},
      {Group::View,
       QStringLiteral("boards"),
       tr("Look at the further boards…"),
       {},
       [this] { open_boards(); },
       [this] { return !document_.job().items.empty(); }},
      {Group::View,
       QStringLiteral("display"),
       tr("Language, and size of words and pictures…"),
       {},
       [this] { DisplayDialog(minimumSize(), this).exec(); }},
      {Group::View, QStringLiteral("menu"), tr("Open the job menu"), keys(Qt::Key_F10),
       [this] { show_job_menu(rail_->mapToGlobal(QPoint(20, rail_->height() - 6))); }},
      {Group::View, QStringLiteral("board"), tr("Work at the board with the keys"), keys(Qt::Key_F6),
       [this] { bench_->setFocus(Qt::ShortcutFocusReason); }},
  };
  for (int i = 0; i < kStages; ++i) {
    list.append(
        {Group::View, QStringLiteral("stage%1").arg(i + 1), tr("Go to %1").arg(stage_name(static_cast<Stage>(i))),
         keys(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + i)), [this, i] { go_to_stage(static_cast<Stage>(i)); }});
  }
  list.append({Group::View, QStringLiteral("call"), tr("Find a command, a piece, a bit or a job by words…"),
               keys(Qt::CTRL | Qt::Key_K), [this] { show_call_box(); }});
  return list;
}

QList<Command> MainWindow::help_commands() {
  return {
      {Group::Help, QStringLiteral("demos"), tr("Look at a demo…"), {}, [this] { choose_demo(); }},
      {Group::Help, QStringLiteral("lesson"), tr("A first sign, step by step…"), {}, [this] { begin_lesson(); }},
      {Group::Help, QStringLiteral("guide"), tr("The guide"), QKeySequence::HelpContents,
       [this] { open_guide(QStringLiteral("index.md")); }},
      {Group::Help, QStringLiteral("keys"), tr("All keys"), keys(Qt::SHIFT | Qt::Key_F1),
       [this] { KeysPage(*commands_, this).exec(); }},
      {Group::Help,
       QStringLiteral("about"),
       tr("About Doyen"),
       {},
       [this] {
         say(tr("About Doyen"),
             tr("Doyen %1 plans carved signs: grooves, pockets, raised letters and inlays, shown as they will be in "
                "the "
                "wood.\n\nWhat it says of a board is worked out from the figures it is given. Measure your bits and "
                "your wood, and keep to your machine's instructions and your shop's rules.")
                 .arg(QString::fromUtf8(version())));
       }},
  };
}

void MainWindow::make_commands() {
  commands_.emplace(job_commands() + piece_commands() + view_commands() + help_commands(), this);
  auto* remove = new QShortcut(QKeySequence::Delete, bench_);
  remove->setContext(Qt::WidgetShortcut);
  connect(remove, &QShortcut::activated, this, [this] {
    // What is being drawn goes before a chosen point, that before the piece.
    if (!bench_->draw().key(Qt::Key_Delete, {}) && !bench_->points().key(Qt::Key_Delete)) remove_piece();
  });
}

void MainWindow::open_guide(const QString& page) {
  auto* guide = findChild<Guide*>();
  if (guide == nullptr) guide = new Guide(this);
  guide->open_page(page);
  guide->show();
  guide->raise();
  guide->activateWindow();
}

void MainWindow::open_guide_link(const QUrl& link) { open_guide(link.path()); }

void MainWindow::show_call_box() {
  QList<Call> calls;
  for (const Command& command : commands_->all()) {
    if (command.can() && command.id != QLatin1String("call"))
      calls.append({command.says(), command.keys_shown(), command.act});
  }
  for (const Item& item : document_.job().items) {
    const QString id = QString::fromStdString(item.piece.id);
    calls.append({tr("Piece: %1").arg(QString::fromStdString(item.piece.name)), {}, [this, id] { select(id); }});
  }
  for (const Bit& bit : rack_.bits)
    calls.append({tr("Bit: %1").arg(QString::fromStdString(bit.name)), {}, [this] { edit_rack(); }});
  for (const QString& path : recent_jobs()) {
    calls.append({tr("Recent job: %1").arg(QFileInfo(path).completeBaseName()), {}, [this, path] {
                    if (may_leave()) open(path);
                  }});
  }
  for (const Guide::Found& page : Guide::search({}))
    calls.append({tr("Guide: %1").arg(page.title), {}, [this, page] { open_guide(page.page); }});
  CallBox box(calls, this);
  box.move(mapToGlobal(QPoint(width() - box.width() - 12, 62)));
  box.exec();
}

void MainWindow::show_job_menu(const QPoint& at) {
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("jobMenu"));
  commands_->fill_menu(menu, Group::Job);
  menu.addSeparator();
  QMenu* recent = menu.addMenu(tr("Recent jobs"));
  for (const QString& path : recent_jobs()) {
    connect(recent->addAction(QFileInfo(path).completeBaseName()), &QAction::triggered, this, [this, path] {
      if (may_leave()) open(path);
    });
  }
  recent->setEnabled(!recent->isEmpty());
  for (const Group group : {Group::Pieces, Group::View, Group::Help})
    commands_->fill_menu(*menu.addMenu(group_name(group)), group);
  menu.exec(at);
}

}  // namespace doyen
