// The log by the command line, looked at by python's own sqlite3, csv and json.
#include <catch2/catch.hpp>

#include "command_line.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

TEST_CASE("runs are kept, told of, searched and written for other programs by the command line") {
  const Folder out;
  const std::string job = data_file("demo/gate-sign.doyen");
  const std::string log = "XDG_DATA_HOME=" + (out / "data") + " " + cli() + " log ";
  CHECK(run(log).code == 0);
  CHECK(run(log + "--keep " + job + " --fault no-such").code == 2);
  CHECK(run(log + "--keep " + job + " --fault moved=3").code == 2);
  CHECK(run(log + "--keep " + job + " --well --fault moved").code == 2);
  CHECK(run(log + "--keep " + job + " --when yesterday").code == 2);
  CHECK(run(log + "--keep " + (out / "none.doyen")).code == 3);
  Ended kept = run(log + "--keep " + job +
                   " --took 20 --fault not-through=0.3 --fault broke-out@v60 --when 2026-05-02T10:00:00Z --words "
                   "'said \"so\", twice\nover'");
  INFO(kept.said);
  REQUIRE(kept.code == 0);
  // Changed since: another depth, and why.
  std::string text = read_file(job);
  const auto at = text.find("\"readings\"");
  REQUIRE(at != std::string::npos);
  write_file_atomically(out / "gate-sign.doyen",
                        text.replace(text.find('[', at), text.find(']', at) - text.find('[', at) + 1, "[21.5]"));
  kept =
      run(log + "--keep " + (out / "gate-sign.doyen") + " --well --why 'a thicker board' --when 2026-05-03T10:00:00Z");
  INFO(kept.said);
  REQUIRE(kept.code == 0);
  CHECK(kept.said.find("readings") != std::string::npos);
  CHECK(run(log + "--search 'broke cedar'").said.find("2026-05-02") != std::string::npos);
  CHECK(run(log + "--search oak").said.empty());
  REQUIRE(run(log + "--csv " + (out / "log.csv") + " --json " + (out / "log.json")).code == 0);
  write_file_atomically(out / "look.py", R"(
import csv, json, sqlite3, sys
folder = sys.argv[1]
db = sqlite3.connect(folder + '/data/doyen/log.sqlite')
assert db.execute('pragma integrity_check').fetchone() == ('ok',)
rows = db.execute('select made, well, took, over_cut, words, mishaps, why from entries order by made desc').fetchall()
table = list(csv.DictReader(open(folder + '/log.csv', newline='', encoding='utf-8')))
data = json.load(open(folder + '/log.json'))['entries']
assert len(rows) == len(table) == len(data) == 2
for row, line, entry in zip(rows, table, data):
    assert row[0] == line['made'] == entry['made']
    assert (row[1] == 1) == (line['well'] == 'yes') == entry.get('well', False)
    assert row[4] == line['words'] == entry.get('words', '')
    assert row[6] == line['why'] == entry.get('why', '')
    assert abs(row[3] - float(line['over_cut_mm'])) < 1e-3
    assert json.loads(row[5]) == entry.get('mishaps', [])
    job = json.loads(entry['jobText'])
    assert job['format'] == 'doyen-job/1'
assert rows[1][4] == 'said "so", twice\nover'
assert rows[1][2] == 1200 and float(table[1]['took_s']) == 1200
assert table[1]['mishaps'] == 'not-through 0.3 mm; broke-out v60'
assert data[0]['why'] == 'a thicker board' and any('readings' in line for line in data[0]['changed'])
)");
  const Ended looked = run("python3 " + (out / "look.py") + " " + out.path.string());
  INFO(looked.said);
  CHECK(looked.code == 0);
  // Taken in elsewhere, it is the same again; a damaged file takes nothing in.
  const std::string other = "XDG_DATA_HOME=" + (out / "other") + " " + cli() + " log ";
  REQUIRE(run(other + "--from " + (out / "log.json")).code == 0);
  REQUIRE(run(other + "--json " + (out / "again.json")).code == 0);
  CHECK(read_file(out / "again.json") == read_file(out / "log.json"));
  // Twice is once: what is there already is not taken in again.
  CHECK(run(other + "--from " + (out / "log.json")).said.starts_with("0 entries"));
  REQUIRE(run(other + "--json " + (out / "again.json")).code == 0);
  CHECK(read_file(out / "again.json") == read_file(out / "log.json"));
  std::string torn = read_file(out / "log.json");
  torn.replace(torn.rfind("\"2026-05-02"), 11, "3");
  write_file_atomically(out / "torn.json", torn);
  CHECK(run(other + "--from " + (out / "torn.json")).code == 3);
  CHECK(run(other + "--json " + (out / "again.json")).code == 0);
  CHECK(read_file(out / "again.json") == read_file(out / "log.json"));
  // What is known is told at the next plan, and only there.
  const std::string check = cli() + " check " + job;
  CHECK(run("XDG_DATA_HOME=" + (out / "data") + " " + check).said.find("short of going through") == std::string::npos);
  REQUIRE(run(log + "--remove 2").code == 0);
  CHECK(run("XDG_DATA_HOME=" + (out / "data") + " " + check).said.find("short of going through") != std::string::npos);
  CHECK(run("XDG_DATA_HOME=" + (out / "nobody") + " " + check).said.find("short of going through") ==
        std::string::npos);
}

TEST_CASE("a spoiled board is mended by the command line: its parts are told, and each way is a job that plans",
          "[heavy]") {
  const Folder out;
  const std::string job = data_file("demo/gate-sign.doyen"), home = "XDG_DATA_HOME=" + (out / "data") + " ";
  const auto rescue = [&](const std::string& words) { return run(home + cli() + " rescue " + job + " " + words); };
  const Ended told = rescue("--piece name");
  CHECK(told.code == 0);
  CHECK_THAT(told.said, Catch::Contains("8 parts") && Catch::Contains("no. 3, “r”"));
  for (const char* how : {"--how only --piece name --part 3", "--how patch --piece name --part 3",
                          "--how fill --piece name --part 3", "--how planed --off 1/16", "--how planed"}) {
    INFO(how);
    const Ended made = rescue(std::string(how) + " --out " + (out / "mended.doyen"));
    INFO(made.said);
    CHECK(made.code == 0);
    CHECK(run(home + cli() + " plan " + (out / "mended.doyen") + " --out " + (out / "files")).code == 0);
  }
  CHECK(rescue("--how smaller --out " + (out / "none.doyen")).code == 3);  // nothing runs off
  CHECK(rescue("--how moved --out " + (out / "none.doyen")).code == 3);
  CHECK(rescue("--how fill --piece outline --out " + (out / "none.doyen")).code == 3);  // that is no pocket
  CHECK(rescue("--how patch --piece nobody --out " + (out / "none.doyen")).code == 3);
  CHECK(rescue("--part 2 --out " + (out / "none.doyen")).code == 2);
  CHECK(rescue("--how burn --out " + (out / "none.doyen")).code == 2);
  CHECK_FALSE(fs::exists(out / "none.doyen"));
}
