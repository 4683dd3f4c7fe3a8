// Lists of plates against python's csv (a reader and writer of its own), in the encodings that programs save them in;
// and what is no list.
#include <catch2/catch.hpp>
#include <fstream>
#include <random>

#include "command_line.hpp"
#include "files/list/list_read.hpp"
#include "job/job.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

// Writes a list by python's csv.writer, and what its csv.reader makes of it as JSON, from one line of Python that sets
// `rows`; returns the list's bytes and fills `expected`, entries without blanks at their ends.
std::string by_python(const Folder& folder, const std::string& make_rows, const std::string& dialect,
                      const std::string& encoding, Json& expected) {
  const std::string script =
      "import csv, io, json, random\n" + make_rows + "\nout = io.StringIO()\ncsv.writer(out, " + dialect +
      ").writerows(rows)\nopen('" + (folder / "list.csv") + "', 'wb').write(out.getvalue().encode('" + encoding +
      "'))\nback = [[e.strip(' \\t\\n').replace('\\r', '') for e in r] for r in "
      "csv.reader(io.StringIO(out.getvalue(), newline=''), " +
      dialect + ")]\nopen('" + (folder / "list.json") + "', 'w').write(json.dumps([r for r in back if any(r)]))\n";
  write_file_atomically(folder / "make.py", script);
  const Ended ended = run("python3 " + (folder / "make.py"));
  INFO(ended.said);
  REQUIRE(ended.code == 0);
  expected = parse_json(read_file(folder / "list.json"), "python");
  return read_file(folder / "list.csv");
}

void check_same(const ListRead& read, const Json& expected) {
  REQUIRE(read.rows.size() == expected.size());
  for (std::size_t i = 0; i < read.rows.size(); ++i) {
    for (std::size_t c = 0; c < read.rows[i].size(); ++c) {
      const std::string entry = c < expected[i].size() ? expected[i][c].get<std::string>() : std::string();
      INFO("row " << i << ", column " << c);
      CHECK(read.rows[i][c] == entry);
    }
  }
}

std::string refused(const std::string& bytes) {
  try {
    (void)read_list(bytes, "beds.csv");
  } catch (const Problem& problem) {
    return problem.what();
  }
  return {};
}

}  // namespace

TEST_CASE("random lists are read as python's csv reads them, whatever stands between the columns") {
  const Folder folder;
  for (const char* between : {",", ";", "\\t", "|"}) {
    for (const char* quoting : {"csv.QUOTE_MINIMAL", "csv.QUOTE_ALL"}) {
      for (int seed = 0; seed < 4; ++seed) {
        INFO(between << " " << quoting << " " << seed);
        Json expected;
        const std::string bytes = by_python(
            folder,
            "random.seed(" + std::to_string(seed) +
                ")\nentry = lambda: ''.join(random.choice('abcXYZ äß×…€ \"\"\\n,;|') for _ in range(random.randint(0, "
                "12)))\nrows = [['first', 'second', 'third']] + [[entry() for _ in range(3)] for _ in range(60)]",
            std::string("delimiter='") + between + "', quoting=" + quoting, "utf-8", expected);
        check_same(read_list(bytes, "list.csv", Headings::None), expected);
      }
    }
  }
}

TEST_CASE("accents come out right in every encoding that lists are saved in") {
  const Folder folder;
  for (const char* encoding : {"utf-8", "utf-8-sig", "utf-16", "cp1252", "latin-1"}) {
    INFO(encoding);
    Json expected;
    const std::string bytes =
        by_python(folder, "rows = [['Name', 'Latin'], ['Bärwurz', 'Meum × athamanticum'], ['Öhrchen', 'Hieracium']]",
                  "delimiter=';'", encoding, expected);
    const ListRead read = read_list(bytes, "list.csv", Headings::None);
    check_same(read, expected);
    CHECK(read.notes.empty() == (std::string(encoding).starts_with("utf")));
  }
  // Big-endian, with its mark; by the letter (The Unicode Standard, 3.10).
  CHECK(read_list(std::string("\xFE\xFF\0A\0\n\xD8\x3C\xDF\x3F\0\n", 12), "x", Headings::None).rows ==
        std::vector<ListRow>{{"A"}, {"\xF0\x9F\x8C\xBF"}});
}

TEST_CASE("headings are found, named when they are not there, and kept apart when they are alike") {
  CHECK(read_list("Name,Latin\nSage,Salvia\n", "x").columns == std::vector<std::string>{"Name", "Latin"});
  CHECK(read_list("Name,Latin\nSage,Salvia\n", "x").rows.size() == 1);
  CHECK_FALSE(read_list("Sage\nRosemary\nThyme\n", "x").headings);
  CHECK(read_list("Name\nRosemary\nThyme\n", "x").headings);
  CHECK_FALSE(read_list("1,Sage\n2,Rosemary\n", "x").headings);
  CHECK(read_list("Sage\nRosemary\n", "x").columns == std::vector<std::string>{"Column 1"});
  CHECK(read_list("Name,Name,\nSage,Salvia,x\n", "x", Headings::First).columns ==
        std::vector<std::string>{"Name", "Name 2", "Column 3"});
  const ListRead uneven = read_list("Name,Latin\nSage\n\n,,\nMint,Mentha\n", "x");
  CHECK(uneven.rows.size() == 2);  // rows that say nothing are none
  CHECK(uneven.rows[0].size() == uneven.columns.size());
  CHECK(uneven.notes.size() == 1);
}

TEST_CASE("what is no list gets a sentence that says where and what was expected") {
  CHECK_THAT(refused(""), Catch::Contains("beds.csv") && Catch::Contains("nothing in this list"));
  CHECK_THAT(refused("\n\n,,\n"), Catch::Contains("nothing in this list"));
  CHECK(refused("Name,Latin\n\n").empty());  // one row, that of a plate unless it is said to be of headings
  CHECK_THROWS_WITH(read_list("Name,Latin\n\n", "beds.csv", Headings::First), Catch::Contains("under its headings"));
  CHECK_THAT(refused("Name,Latin\n\"Sage,Salvia\nMint,Mentha\n"), Catch::Contains("quotation mark"));
  CHECK_THAT(refused("Name,Latin\nSage,\"Salvia\" officinalis\n"),
             Catch::Contains("row 2") && Catch::Contains("quotation mark"));
  CHECK_THAT(refused(std::string("PK\x03\x04\0\0\0\0rest", 12)), Catch::Contains("only a program reads"));
  CHECK_THAT(refused(std::string("\xFF\xFE"
                                 "A",
                                 3)),
             Catch::Contains("breaks off"));
  CHECK_THAT(refused("Name\n" + std::string(5000, 'x') + "\n"), Catch::Contains("5000 letters"));
  std::string wide = "a";
  for (int i = 0; i < 200; ++i) wide += ",a";
  CHECK_THAT(refused(wide + "\n"), Catch::Contains("at most 100 columns"));
  std::string million;
  for (int i = 0; i < 1'000'000; ++i) million += "Sage\n";
  CHECK_THAT(refused(million), Catch::Contains("more than 20000 rows"));
}

TEST_CASE("bytes at random are read or refused, never worse") {
  std::mt19937 random(5);
  const std::string letters = "ab,;\"\n\r\t|\xC3\xA4\xFF";
  for (int i = 0; i < 3000; ++i) {
    std::string bytes;
    for (auto k = random() % 60; k > 0; --k) bytes += letters[random() % letters.size()];
    try {
      const ListRead read = read_list(bytes, "x");
      for (const ListRow& row : read.rows) CHECK(row.size() == read.columns.size());
    } catch (const Problem& problem) {
      CHECK_FALSE(std::string(problem.what()).empty());
    }
  }
}

TEST_CASE("from a list to sheets by the command line: put in, checked, written, and one plate made again") {
  const Folder out;
  const std::string demo = data_file("demo/bed-labels.doyen");
  write_file_atomically(out / "three.csv", "Name;Latin\nMint;Mentha\n\"Sage, \"\"dwarf\"\"\";Salvia\nMint;Mentha\n");
  const Ended listed = doyen_cli("list " + demo + " " + (out / "three.csv") + " --out " + (out / "three.doyen"));
  INFO(listed.said);
  CHECK(listed.code == 0);
  CHECK_THAT(listed.said, Catch::Contains("3 rows of 2 columns: “Name” “Latin”") &&
                              Catch::Contains("3 plates, 42 to a sheet, 1 sheets") &&
                              Catch::Contains("says what an earlier one says"));
  const Ended planned = doyen_cli("plan " + (out / "three.doyen") + " --out " + (out / "files"));
  INFO(planned.said);
  REQUIRE(planned.code == 0);
  CHECK(fs::exists(out / "files/sheet-1/runsheet.pdf"));
  CHECK_FALSE(fs::exists(out / "files/01-marrowby-bed-v60-carve.nc"));  // the plate alone is not cut
  // Read by python's csv.
  const Ended rows = run("python3 -c \"import csv; [print('|'.join(r)) for r in csv.reader(open('" +
                         (out / "files/plates.csv") + "', encoding='utf-8', newline=''))]\"");
  CHECK(rows.said ==
        "sheet|row from the back|place from the left|row of the list|Name|Latin\n1|1|1|1|Mint|Mentha\n"
        "1|1|2|2|Sage, \"dwarf\"|Salvia\n1|1|3|3|Mint|Mentha\n");
  const Json plan = parse_json(read_file(out / "files/plan.json"), "plan");
  CHECK(plan["files"].empty());
  CHECK(plan["sheets"].size() == 1);
  // The second alone, on whatever sheet there is.
  CHECK(doyen_cli("list " + demo + " " + (out / "three.csv") + " --only 2 --out " + (out / "one.doyen")).code == 0);
  REQUIRE(doyen_cli("plan " + (out / "one.doyen") + " --out " + (out / "again")).code == 0);
  CHECK_THAT(read_file(out / "again/plates.csv"), Catch::Contains("Sage") && !Catch::Contains("Mint"));
  const Ended wrong = doyen_cli("list " + demo + " " + (out / "three.csv") + " --only 9 --out " + (out / "x.doyen"));
  CHECK(wrong.code == 3);
  CHECK_THAT(wrong.said, Catch::Contains("There is no row 9: the list has 3."));
  CHECK_FALSE(fs::exists(out / "x.doyen"));
}

TEST_CASE("strips are written with their cut list, and the table says which board each is sawn from") {
  const Folder out;
  write_file_atomically(out / "names.csv",
                        "Name,Latin\nRue,Ruta\nSweet woodruff,Galium odoratum\nLemon balm,Melissa\n");
  const Ended listed = doyen_cli("list " + data_file("demo/bed-labels.doyen") + " " + (out / "names.csv") +
                                 " --strips --boards '2 x 180' --out " + (out / "strips.doyen"));
  INFO(listed.said);
  REQUIRE(listed.code == 0);
  CHECK_THAT(listed.said, Catch::Contains("3 strips from 2 boards; no board for 0"));
  REQUIRE(doyen_cli("plan " + (out / "strips.doyen") + " --out " + (out / "o")).code == 0);
  // Read by python's csv: lengths and kerfs of each board fit it, and each strip's own board is as long as its row
  // says.
  const Ended rows =
      run("python3 -c \"import csv, json, glob\nsawn = {}\nfor r in csv.DictReader(open('" + (out / "o/plates.csv") +
          "', encoding='utf-8')):\n  l = float(r['length, mm'])\n  sawn.setdefault(r['board'], "
          "[]).append(l)\n  f = glob.glob('" +
          (out / "o/strip-") +
          "' + r['strip'] + '-*/board.doyen')\n  assert len(f) == 1, f\n  assert "
          "abs(json.load(open(f[0]))['blank']['width'] - l) < 1e-6\nassert len(sawn) == 2\nassert "
          "all(sum(b) + 3 * (len(b) - 1) <= 180 for b in sawn.values())\nprint('good')\"");
  CHECK_THAT(rows.said, Catch::Contains("good"));
  const Ended paper = run("pdftotext -raw " + (out / "o/cut-list.pdf") + " -");
  for (const char* words : {"cut list", "Sweet woodruff", "Board 2, 180 mm long", "hands clear of the blade"})
    CHECK_THAT(paper.said, Catch::Contains(words));
  const Ended wrong = doyen_cli("list " + data_file("demo/bed-labels.doyen") + " " + (out / "names.csv") +
                                " --strips --boards 'a few' --out " + (out / "w.doyen"));
  CHECK(wrong.code == 3);
  CHECK_FALSE(fs::exists(out / "w.doyen"));
}

TEST_CASE(
    "a sign's panels are written with a list of them all, each in a folder of its own; the sign itself is not cut") {
  const Folder out;
  const Ended planned = doyen_cli("plan " + data_file("demo/garden-map.doyen") + " --out " + (out / "files"));
  INFO(planned.said);
  REQUIRE(planned.code == 0);
  for (const char* panel : {"panel-1", "panel-2", "panel-3", "panel-4"}) {
    INFO(panel);
    CHECK(fs::exists(out / ("files/" + std::string(panel) + "/runsheet.pdf")));
    CHECK(load_job(out / ("files/" + std::string(panel) + "/board.doyen")).blank.runs_off.any());
  }
  for (const fs::directory_entry& each : fs::directory_iterator(out / "files")) CHECK(each.path().extension() != ".nc");
  const Json plan = parse_json(read_file(out / "files/plan.json"), "plan");
  CHECK(plan["panels"].size() == 4);
  const Ended sheet = run("pdftotext " + (out / "files/panel-2/runsheet.pdf") + " -");
  CHECK_THAT(sheet.said, Catch::Contains("left edge and front edge"));  // it hangs at the upper right
  // Read by poppler: numbers, letters, and by hand the dowels of 540 mm: 40 from the ends, 460 in three.
  const Ended text = run("pdftotext -layout " + (out / "files/panels.pdf") + " -");
  CHECK_THAT(text.said, Catch::Contains("Marrowby garden map: 4 panels") &&
                            Catch::Contains("A: panel 1, right edge, and panel 2, left edge; 540 mm long") &&
                            Catch::Contains("193.3 mm"));
}
