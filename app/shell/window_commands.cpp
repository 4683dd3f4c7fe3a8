// What the window can be told to do: keys, the call box, the job menu.
#include <QMenu>
#include <QShortcut>
#include <QStandardPaths>

#include "bench/hands/all.hpp"
#include "job/layout.hpp"
#include "shell/main_window.hpp"

namespace doyen {

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

}  // namespace doyen
