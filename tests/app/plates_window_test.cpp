// Plates from a list in the window: pasted, from a file, pointed at columns, looked at row by row, written as sheets,
// and put away; nothing of it is lost or changed unasked.
#include <QClipboard>
#include <QGuiApplication>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <QTemporaryDir>

#include "plates/plates.hpp"
#include "stages/blank/plates_section.hpp"
#include "stages/proof/boards_view.hpp"
#include "storage/atomic_file.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Types a value into a field and confirms it.
void type(QLineEdit* field, const QString& words) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, words);
  QTest::keyClick(field, Qt::Key_Return);
}

void choose(QComboBox* box, const QString& data) {
  const int row = box->findData(data);
  REQUIRE(row >= 0);
  box->setCurrentIndex(row);
  Q_EMIT box->activated(row);
}

const Lettering& lettering(Window& w, const char* id) { return std::get<Lettering>(w.piece(id).what); }

struct Labels : Window {
  Labels() {
    window.open_demo(QStringLiteral("bed-labels"));
    window.go_to_stage(Stage::Blank);
    settle();
  }
};

}  // namespace

TEST_CASE("rows are pasted, shown one by one, and every step can be undone") {
  Labels w;
  const Job before = w.job();
  QGuiApplication::clipboard()->setText(QStringLiteral("Name\tLatin\nSage\tSalvia\nBärlauch\tAllium ursinum\n"));
  QTest::mouseClick(w.reach<QPushButton>("pasteList"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().plates.columns == std::vector<std::string>{"Name", "Latin"});
  REQUIRE(w.job().plates.rows.size() == 2);
  CHECK(lettering(w, "name").words == "Sage");
  CHECK(lettering(w, "name").list.column == "Name");  // as it was pointed
  auto* shown = w.reach<QSpinBox>("shownRow");
  shown->setFocus();
  QTest::keyClick(shown, Qt::Key_Up);
  w.settle();
  CHECK(lettering(w, "name").words == "Bärlauch");
  CHECK(lettering(w, "latin").words == "Allium ursinum");
  CHECK(w.find<QLabel>("shownSays")->text().startsWith(QStringLiteral("Bärlauch · Allium ursinum")));
  // What is no list says so, and changes nothing.
  const Job held = w.job();
  QGuiApplication::clipboard()->setText(QStringLiteral("Name,Latin\n\"Sage,Salvia\nMint,Mentha\n"));
  QTest::mouseClick(w.reach<QPushButton>("pasteList"), Qt::LeftButton);
  CHECK(w.job() == held);
  CHECK(w.find<QLabel>("listSays")->isVisible());
  CHECK(w.find<QLabel>("listSays")->text().contains(QStringLiteral("quotation mark")));
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("sheets follow what is typed; wrong figures are refused and nothing is lost") {
  Labels w;
  CHECK(w.find<QLabel>("plateCount")->text() == QStringLiteral("6 × 7 to a sheet: 4 sheets."));
  type(w.reach<LengthField>("sheetWidth"), QStringLiteral("300"));
  w.settle();
  CHECK(w.job().plates.sheet_width == Approx(300));
  CHECK(w.find<QLabel>("plateCount")->text() == QStringLiteral("3 × 7 to a sheet: 7 sheets."));
  auto* only = w.reach<QLineEdit>("onlyRows");
  type(only, QStringLiteral("57, 60-62"));
  w.settle();
  CHECK(w.job().plates.only == std::vector<int>{57, 60, 61, 62});
  CHECK(w.find<QLabel>("plateCount")->text() == QStringLiteral("3 × 7 to a sheet: one sheet."));
  type(only, QStringLiteral("131"));
  CHECK(w.job().plates.only == std::vector<int>{57, 60, 61, 62});
  CHECK(only->text() == QStringLiteral("131"));  // it waits there, and says what is wrong
  CHECK(only->toolTip().contains(QStringLiteral("no row 131")));
  QTest::keyClick(only, Qt::Key_Escape);
  CHECK(only->text() == QStringLiteral("57, 60-62"));
  only->selectAll();
  QTest::keyClick(only, Qt::Key_Delete);
  QTest::keyClick(only, Qt::Key_Return);
  w.settle();
  CHECK(w.job().plates.only.empty());
  choose(w.reach<QComboBox>("plateBit"), QString());
  CHECK(w.job().plates.bit.empty());
  CHECK_FALSE(w.find<LengthField>("plateSkin")->isVisible());
  choose(w.reach<QComboBox>("sortedBy"), QStringLiteral("Latin"));
  w.settle();
  CHECK(plate_sheet(w.job(), 0).rows.front() != 0);
}

TEST_CASE("plates are numbered: a list of numbers alone, or a column beside the names") {
  Labels w;
  const Job before = w.job();
  auto* numbers = w.reach<QLineEdit>("serialNumbers");
  type(numbers, QStringLiteral("B001"));
  w.settle();
  REQUIRE(w.job().plates.columns.size() == before.plates.columns.size() + 1);
  CHECK(w.job().plates.columns.back() == "Number");
  CHECK(w.job().plates.rows[129].back() == "B130");
  CHECK(numbers->text().isEmpty());
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
  type(numbers, QStringLiteral("1-40"));  // not as many as there are rows
  CHECK(w.job() == before);
  CHECK(numbers->toolTip().contains(QStringLiteral("130 rows")));
  QTest::keyClick(numbers, Qt::Key_Escape);
  QTest::mouseClick(w.reach<QPushButton>("listAway"), Qt::LeftButton);
  w.settle();
  type(w.reach<QLineEdit>("serialNumbers"), QStringLiteral("1-40"));
  w.settle();
  CHECK(w.job().plates.rows.size() == 40);
  CHECK(lettering(w, "name").list.column == "Number");
  CHECK(lettering(w, "name").words == "1");
}

TEST_CASE("two columns that were taken for each other are swapped in one step, and all plates with them") {
  Labels w;
  const Job before = w.job();
  const PlateSheet was = plate_sheet(before, 0);
  w.window.go_to_stage(Stage::Artwork);
  w.window.select(QStringLiteral("name"));
  w.settle();
  auto* swap = w.reach<QPushButton>("swapColumns");
  REQUIRE(swap->menu()->actions().size() == 1);
  CHECK(swap->menu()->actions().front()->text() == QStringLiteral("“Salvia officinalis”, from “Latin”"));
  swap->menu()->actions().front()->trigger();
  w.settle();
  CHECK(lettering(w, "name").list.column == "Latin");
  CHECK(lettering(w, "latin").list.column == "Name");
  CHECK(lettering(w, "name").words == std::get<Lettering>(before.find("latin")->piece.what).words);
  CHECK(lettering(w, "name").cap_height == std::get<Lettering>(before.find("name")->piece.what).cap_height);
  // Every plate says what it said, in the other lettering.
  const PlateSheet now = plate_sheet(w.job(), 0);
  const auto said = [](const PlateSheet& sheet, std::size_t row, const char* id) {
    const Item* item = sheet.job.find("plate-" + std::to_string(row + 1) + "-" + id);
    return item == nullptr ? std::string() : std::get<Lettering>(item->piece.what).words;
  };
  for (const std::size_t row : was.rows) {
    INFO(row);
    CHECK(said(now, row, "name").find(said(was, row, "latin").substr(0, 4)) == 0);
  }
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("a lettering is pointed to a column; long entries are mended by the remedies") {
  Labels w;
  w.window.go_to_stage(Stage::Artwork);
  w.window.select(QStringLiteral("latin"));
  w.settle();
  choose(w.reach<QComboBox>("fromColumn"), QStringLiteral("Name"));
  w.settle();
  CHECK(lettering(w, "latin").list.column == "Name");
  const auto has = [&](const char* code) {
    const auto& all = w.plan().verdicts;
    return std::any_of(all.begin(), all.end(), [&](const Verdict& v) { return v.code == code; });
  };
  CHECK(has("plate-columns-alike"));
  choose(w.reach<QComboBox>("fromColumn"), QStringLiteral("Latin"));
  w.settle();
  CHECK_FALSE(has("plate-columns-alike"));
  auto* least = w.reach<LengthField>("listLeast");
  least->setFocus();
  least->selectAll();
  QTest::keyClick(least, Qt::Key_Delete);
  QTest::keyClick(least, Qt::Key_Return);
  w.settle();
  CHECK(lettering(w, "latin").list.least == 0);
  CHECK(has("plate-too-long"));
  QTest::keyClick(w.reach<QCheckBox>("listTwoLines"), Qt::Key_Space);
  w.settle();
  CHECK(lettering(w, "latin").list.two_lines);
  CHECK_FALSE(has("plate-too-long"));
  // Typing into the words changes the example only.
  auto* words = w.find<QPlainTextEdit>("words");
  words->setFocus();
  QTest::keyClicks(words, QStringLiteral("x"));
  w.settle();
  CHECK(lettering(w, "latin").list.column == "Latin");
  CHECK(w.job().plates.rows[0][1] == "Salvia officinalis");
}

TEST_CASE("the first row is taken for headings or for a plate, and letterings follow") {
  Labels w;
  const Job before = w.job();
  auto* headings = w.reach<QCheckBox>("listHeadings");
  QTest::mouseClick(headings, Qt::LeftButton);
  w.settle();
  CHECK(w.job().plates.rows.size() == 131);
  CHECK(w.job().plates.rows[0] == ListRow{"Name", "Latin"});
  CHECK(lettering(w, "name").list.column == w.job().plates.columns[0]);
  QTest::mouseClick(headings, Qt::LeftButton);
  w.settle();
  CHECK(w.job().plates == before.plates);
  CHECK(lettering(w, "name").list == std::get<Lettering>(before.find("name")->piece.what).list);
}

TEST_CASE("the sheets are looked at, written beside a list of where each plate is, and the list is put away") {
  Labels w;
  type(w.reach<QLineEdit>("onlyRows"), QStringLiteral("1-3"));
  type(w.reach<LengthField>("sheetWidth"), QStringLiteral("200"));
  w.judge();
  QTest::mouseClick(w.reach<QPushButton>("seeSheets"), Qt::LeftButton);
  auto* view = w.window.findChild<BoardsView*>();
  REQUIRE(view != nullptr);
  WAIT_UNTIL(view->finished(), 60'000);
  CHECK(view->findChild<QListWidget*>(QStringLiteral("boardList"))->count() == 1);
  CHECK(view->findChild<QLabel*>(QStringLiteral("boardAbout"))->text().contains(QStringLiteral("sheet-1")));
  QTest::mouseClick(view->findChild<QPushButton*>(QStringLiteral("boardsBack")), Qt::LeftButton);
  QTemporaryDir out;
  const QString said = w.window.write_files(out.path());
  INFO(said.toStdString());
  CHECK(QFile::exists(out.filePath(QStringLiteral("sheet-1/runsheet.pdf"))));
  CHECK(QFile::exists(out.filePath(QStringLiteral("plates.csv"))));
  CHECK_FALSE(QFile::exists(out.filePath(QStringLiteral("runsheet.pdf"))));
  w.window.go_to_stage(Stage::Blank);
  QTest::mouseClick(w.reach<QPushButton>("listAway"), Qt::LeftButton);
  w.settle();
  CHECK_FALSE(w.job().plates.there());
  CHECK(lettering(w, "name").words == "Common sage");
  CHECK(lettering(w, "name").list == FromList{});
}

TEST_CASE("a list from a file letters an empty board by itself") {
  Window w;
  Job empty;
  empty.blank.width = 90;
  empty.blank.height = 40;
  empty.blank.readings = {9};
  empty.blank.margin = 4;
  w.window.document().replace(empty, {});
  QTemporaryDir folder;
  const QString path = folder.filePath(QStringLiteral("staff.csv"));
  write_file_atomically(path.toStdString(), "Name;Room\nAda Penrose;Seeds\nTom Ashby;Nursery\n");
  auto* plates = w.window.findChild<PlatesSection*>();
  plates->take_file(path);
  CHECK(w.job().plates.source == "staff.csv");
  CHECK(w.job().plates.bit == "flat-3mm");
  w.window.document().edit(QStringLiteral("letter"), [](Job& job) { letter_plate(job, load_rack()); });
  w.settle();
  REQUIRE(w.job().items.size() == 2);
  CHECK(std::get<Lettering>(w.job().items[0].piece.what).words == "Ada Penrose");
  CHECK(std::get<Lettering>(w.job().items[1].piece.what).list.column == "Room");
  CHECK(w.plan().count(Grade::Stop) == 0);
  // A file that is not there, or is none: said in the ticket, nothing changed.
  const Job held = w.job();
  plates->take_file(folder.filePath(QStringLiteral("gone.csv")));
  CHECK(w.job() == held);
  CHECK(w.find<QLabel>("listSays")->text().contains(QStringLiteral("gone.csv")));
}

TEST_CASE("names on strips: as long as their words, from the boards there are, and a plate again as it was") {
  Labels w;
  QGuiApplication::clipboard()->setText(
      QStringLiteral("Name\tLatin\nRue\tRuta\nSweet woodruff\tGalium odoratum\nLemon balm\tMelissa officinalis\n"));
  QTest::mouseClick(w.reach<QPushButton>("pasteList"), Qt::LeftButton);
  w.settle();
  const Job plate = w.job();
  CHECK_FALSE(w.find<QWidget>("stripEnds")->isVisible());
  w.pick("madeAs", 1);
  CHECK(w.job().plates.strips.wanted);
  CHECK(w.job().blank.width != plate.blank.width);
  CHECK_FALSE(w.find<QWidget>("sheetWidth")->isVisible());
  w.type("stripLeast", "70");
  w.type("stripBoards", "2 × 150");
  w.settle();
  CHECK(w.job().plates.strips.boards == std::vector<double>{150, 150});
  // Words are measured behind the window.
  WAIT_UNTIL(w.find<QLabel>("stripsSawn")->text().contains(QStringLiteral("no board is left")), 10'000);
  CHECK(w.find<QLabel>("stripsSawn")->text().startsWith(QStringLiteral("3 strips.")));
  // What is no list of boards is refused, stays to be mended, and nothing is lost.
  w.type("stripBoards", "many");
  CHECK(w.job().plates.strips.boards.size() == 2);
  CHECK(w.find<QLineEdit>("stripBoards")->text() == "many");
  w.type("stripBoards", "2 × 150; 400");
  w.settle();
  WAIT_UNTIL(!w.find<QLabel>("stripsSawn")->text().contains(QStringLiteral("no board")), 10'000);
  // Another row is shown as long as its own strip.
  const double first = w.job().blank.width;
  auto* shown = w.reach<QSpinBox>("shownRow");
  shown->setFocus();
  QTest::keyClick(shown, Qt::Key_Up);
  w.settle();
  CHECK(w.job().blank.width > first);
  CHECK(lettering(w, "name").words == "Sweet woodruff");
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  CHECK(QDir(folder.path()).entryList({"strip-*"}).size() == 3);
  CHECK(QFile::exists(folder.filePath("cut-list.pdf")));
  CHECK(read_file(folder.filePath("plates.csv").toStdString()).find("Lemon balm") != std::string::npos);
  // Plates again: as long as the plate was, everything where it was.
  shown->setFocus();
  QTest::keyClick(shown, Qt::Key_Down);
  w.pick("madeAs", 0);
  CHECK(w.job().blank.width == Approx(plate.blank.width));
  for (const Item& item : plate.items) {
    INFO(item.piece.id);
    CHECK(distance(w.piece(item.piece.id.c_str()).at, item.piece.at) < 1e-3);
  }
}
