#include "log/log_book.hpp"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>
#include <sys/stat.h>

#include <filesystem>
#include <fstream>
#include <mutex>

#include "json_reading.hpp"
#include "log/entry_fields.hpp"
#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "storage/system_calls.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr int kPatience = 10'000;  // ms that another window is waited for

// Each brings the log one version on. What stands here is never changed, only added to.
const std::vector<const char*>& versions() {
  static const std::vector<const char*> kVersions{
      "CREATE TABLE entries (id INTEGER PRIMARY KEY AUTOINCREMENT, made TEXT NOT NULL, kind TEXT NOT NULL,"
      " job TEXT NOT NULL, file TEXT NOT NULL, mark TEXT NOT NULL, machine TEXT NOT NULL, wood TEXT NOT NULL,"
      " thickness REAL NOT NULL, over_cut REAL, told REAL NOT NULL, took REAL NOT NULL, well INTEGER NOT NULL,"
      " mishaps TEXT NOT NULL, words TEXT NOT NULL, changed TEXT NOT NULL, why TEXT NOT NULL, bits TEXT NOT NULL,"
      " inlays TEXT NOT NULL, job_text TEXT NOT NULL);",
      "CREATE TABLE pictures (id INTEGER PRIMARY KEY AUTOINCREMENT,"
      " entry INTEGER NOT NULL REFERENCES entries(id) ON DELETE CASCADE, png BLOB NOT NULL);"
      "CREATE INDEX pictures_of ON pictures(entry);"};
  return kVersions;
}

Problem unreadable(const std::string& path, const SQLite::Exception& e) {
  return bad_input(say("The log “{0}” cannot be read: {1}. It is left as it is.", path, e.what()));
}

template <typename Part>
std::string list_text(const std::vector<Part>& parts, const Record<Part>& fields) {
  Json list = Json::array();
  for (const Part& part : parts) list.push_back(fields.write(part));
  return json_text(list);
}

template <typename Part>
std::vector<Part> parts_of(const std::string& text, const Record<Part>& fields, const std::string& where) {
  std::vector<Part> parts;
  const Json list = parse_json(text, where);
  for (const Json& each : list) parts.push_back(fields.read(JsonView(each, where)));
  return parts;
}

LogEntry entry_at(const SQLite::Statement& row, const std::string& path) {
  const auto text = [&](int column) { return row.getColumn(column).getString(); };
  const auto number = [&](int column) { return row.getColumn(column).getDouble(); };
  LogEntry e;
  e.id = row.getColumn(0).getInt64();
  e.made = text(1);
  e.kind = text(2) == "test-cut" ? MadeKind::TestCut : MadeKind::Run;
  e.job = text(3);
  e.file = text(4);
  e.mark = text(5);
  e.machine = text(6);
  e.wood = WoodId(text(7));
  e.thickness = number(8);
  if (!row.getColumn(9).isNull()) e.over_cut = number(9);
  e.told = number(10);
  e.took = number(11);
  e.well = row.getColumn(12).getInt() != 0;
  e.mishaps = parts_of(text(13), mishap_fields(), path);
  e.words = text(14);
  for (const Json& each : parse_json(text(15), path)) {
    if (each.is_string()) e.changed.push_back(each.get<std::string>());
  }
  e.why = text(16);
  e.bits = parts_of(text(17), logged_bit_fields(), path);
  e.inlays = parts_of(text(18), logged_inlay_fields(), path);
  return e;
}

// A file of a few bytes is taken for an empty database and written over (SQLite's file format, 1.3: the first 16
// bytes).
void refuse_other_files(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  char head[16] = {};
  in.read(head, sizeof head);
  const std::string_view wanted("SQLite format 3\0", sizeof head);
  if (in.gcount() > 0 && std::string_view(head, static_cast<std::size_t>(in.gcount())) != wanted)
    throw bad_input(say("“{0}” is no log of Doyen’s. It is left as it is.", path));
}

// Tables are made, and made anew, by one window at a time.
void bring_up_to_date(SQLite::Database& db, const std::string& path) {
  const auto known = static_cast<int>(versions().size());
  const auto version = [&] { return db.execAndGet("PRAGMA user_version").getInt(); };
  const auto refuse_newer = [&] {
    if (version() > known) throw bad_input(say("The log “{0}” is of a newer Doyen. It is left as it is.", path));
  };
  refuse_newer();
  if (version() == known) return;
  SQLite::Transaction one(db, SQLite::TransactionBehavior::IMMEDIATE);
  refuse_newer();
  if (version() == 0 && db.execAndGet("SELECT count(*) FROM sqlite_master").getInt() != 0)
    throw bad_input(say("“{0}” is no log of Doyen’s. It is left as it is.", path));
  for (int i = version(); i < known; ++i) db.exec(versions()[static_cast<std::size_t>(i)]);
  db.exec("PRAGMA user_version = " + std::to_string(known));
  one.commit();
}

// Whatever fails is taken back whole.
template <typename Work>
auto written(SQLite::Database& db, const std::string& path, Work work) {
  try {
    SQLite::Transaction one(db, SQLite::TransactionBehavior::IMMEDIATE);
    const auto result = work();
    one.commit();
    return result;
  } catch (const SQLite::Exception& e) {
    if (e.getErrorCode() == SQLITE_CORRUPT || e.getErrorCode() == SQLITE_NOTADB) throw unreadable(path, e);
    throw cannot_write(say("The log “{0}” could not be written: {1}. What stood there is untouched.", path, e.what()));
  }
}

template <typename Work>
auto looked_up(const std::string& path, Work work) {
  try {
    return work();
  } catch (const SQLite::Exception& e) {
    throw unreadable(path, e);
  }
}

}  // namespace

LogBook::LogBook(const std::string& path) : path_(path) {
  const bool kept = path != ":memory:";
  if (kept) {
    make_folder(std::filesystem::path(path).parent_path().string());
    refuse_other_files(path);
  }
  try {
    db_ = std::make_unique<SQLite::Database>(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, kPatience);
    db_->exec("PRAGMA foreign_keys = ON");
    db_->exec("PRAGMA synchronous = FULL");
    bring_up_to_date(*db_, path);
  } catch (const SQLite::Exception& e) {
    const int code = e.getErrorCode();
    if (code == SQLITE_NOTADB || code == SQLITE_CORRUPT || code == SQLITE_ERROR) throw unreadable(path, e);
    throw cannot_write(say("The log “{0}” cannot be opened: {1}.", path, e.what()));
  }
}

LogBook::~LogBook() = default;

namespace {

std::int64_t put_in(SQLite::Database& db, const LogEntry& e) {
  SQLite::Statement put(db,
                        "INSERT INTO entries (made, kind, job, file, mark, machine, wood, thickness, over_cut, told,"
                        " took, well, mishaps, words, changed, why, bits, inlays, job_text)"
                        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)");
  int at = 0;
  for (const std::string& text : {e.made, std::string(e.kind == MadeKind::TestCut ? "test-cut" : "run"), e.job, e.file,
                                  e.mark, e.machine, std::string(e.wood)})
    put.bind(++at, text);
  put.bind(++at, e.thickness);
  if (e.over_cut)
    put.bind(++at, *e.over_cut);
  else
    put.bind(++at);
  put.bind(++at, e.told);
  put.bind(++at, e.took);
  put.bind(++at, e.well ? 1 : 0);
  put.bind(++at, list_text(e.mishaps, mishap_fields()));
  put.bind(++at, e.words);
  put.bind(++at, json_text(fields::json_of(e.changed)));
  put.bind(++at, e.why);
  put.bind(++at, list_text(e.bits, logged_bit_fields()));
  put.bind(++at, list_text(e.inlays, logged_inlay_fields()));
  put.bind(++at, e.job_text);
  put.exec();
  return static_cast<std::int64_t>(db.getLastInsertRowid());
}

int put_picture(SQLite::Database& db, std::int64_t id, const std::string& png) {
  SQLite::Statement put(db, "INSERT INTO pictures (entry, png) VALUES (?, ?)");
  put.bind(1, static_cast<int64_t>(id));
  put.bind(2, png.data(), static_cast<int>(png.size()));
  return put.exec();
}

}  // namespace

std::int64_t LogBook::add(const LogEntry& e, const std::vector<std::string>& pictures) {
  return written(*db_, path_, [&] {
    const std::int64_t id = put_in(*db_, e);
    for (const std::string& png : pictures) (void)put_picture(*db_, id, png);
    return id;
  });
}

std::size_t LogBook::take(const std::vector<LogEntry>& entries) {
  return written(*db_, path_, [&] {
    SQLite::Statement there(*db_,
                            "SELECT count(*) FROM entries WHERE made = ? AND job = ? AND mark = ? AND machine = ?");
    std::size_t taken = 0;
    for (const LogEntry& entry : entries) {
      there.reset();
      int at = 0;
      for (const std::string& text : {entry.made, entry.job, entry.mark, entry.machine}) there.bind(++at, text);
      if (there.executeStep() && there.getColumn(0).getInt() > 0) continue;
      (void)put_in(*db_, entry);
      ++taken;
    }
    return taken;
  });
}

void LogBook::note(std::int64_t id, const std::string& words, const std::string& why) {
  (void)written(*db_, path_, [&] {
    SQLite::Statement put(*db_, "UPDATE entries SET words = ?, why = ? WHERE id = ?");
    put.bind(1, words);
    put.bind(2, why);
    put.bind(3, static_cast<int64_t>(id));
    return put.exec();
  });
}

void LogBook::say_outcome(std::int64_t id, bool well, const std::vector<MishapSeen>& mishaps, double took) {
  (void)written(*db_, path_, [&] {
    SQLite::Statement put(*db_, "UPDATE entries SET well = ?, mishaps = ?, took = ? WHERE id = ?");
    put.bind(1, well ? 1 : 0);
    put.bind(2, list_text(mishaps, mishap_fields()));
    put.bind(3, took);
    put.bind(4, static_cast<int64_t>(id));
    return put.exec();
  });
}

void LogBook::remove(std::int64_t id) {
  (void)written(*db_, path_, [&] {
    SQLite::Statement take(*db_, "DELETE FROM entries WHERE id = ?");
    take.bind(1, static_cast<int64_t>(id));
    return take.exec();
  });
}

void LogBook::add_picture(std::int64_t id, const std::string& png) {
  (void)written(*db_, path_, [&] { return put_picture(*db_, id, png); });
}

void LogBook::remove_picture(std::int64_t id, std::size_t number) {
  (void)written(*db_, path_, [&] {
    SQLite::Statement take(
        *db_,
        "DELETE FROM pictures WHERE id = (SELECT id FROM pictures WHERE entry = ? ORDER BY id LIMIT 1"
        " OFFSET ?)");
    take.bind(1, static_cast<int64_t>(id));
    take.bind(2, static_cast<int64_t>(number));
    return take.exec();
  });
}

std::vector<LogEntry> LogBook::entries() const {
  return looked_up(path_, [&] {
    std::vector<LogEntry> all;
    SQLite::Statement get(
        *db_,
        "SELECT id, made, kind, job, file, mark, machine, wood, thickness, over_cut, told, took, well,"
        " mishaps, words, changed, why, bits, inlays FROM entries ORDER BY made DESC, id DESC");
    while (get.executeStep()) all.push_back(entry_at(get, path_));
    return all;
  });
}

std::string LogBook::job_text(std::int64_t id) const {
  return looked_up(path_, [&] {
    SQLite::Statement get(*db_, "SELECT job_text FROM entries WHERE id = ?");
    get.bind(1, static_cast<int64_t>(id));
    return get.executeStep() ? get.getColumn(0).getString() : std::string();
  });
}

std::vector<std::string> LogBook::pictures(std::int64_t id) const {
  return looked_up(path_, [&] {
    std::vector<std::string> all;
    SQLite::Statement get(*db_, "SELECT png FROM pictures WHERE entry = ? ORDER BY id");
    get.bind(1, static_cast<int64_t>(id));
    while (get.executeStep()) all.push_back(get.getColumn(0).getString());
    return all;
  });
}

std::string log_path() { return user_file("log.sqlite"); }

namespace {

// What was read last, and of which state of the file.
struct Known {
  std::mutex lock;
  std::string path;
  struct stat state {};
  std::shared_ptr<const std::vector<LogEntry>> entries = std::make_shared<std::vector<LogEntry>>();
  std::string problem;
};

Known& known() {
  static Known kKnown;
  return kKnown;
}

bool same(const struct stat& a, const struct stat& b) {
  return a.st_ino == b.st_ino && a.st_size == b.st_size && a.st_mtim.tv_sec == b.st_mtim.tv_sec &&
         a.st_mtim.tv_nsec == b.st_mtim.tv_nsec;
}

}  // namespace

std::shared_ptr<const std::vector<LogEntry>> known_log() {
  Known& k = known();
  const std::lock_guard guard(k.lock);
  const std::string path = log_path();
  struct stat now {};
  const bool there = ::stat(path.c_str(), &now) == 0;
  if (!there) now = {};
  if (path == k.path && same(now, k.state)) return k.entries;
  k.path = path;
  k.state = now;
  k.problem.clear();
  std::vector<LogEntry> entries;
  try {
    if (there) entries = LogBook(path).entries();
  } catch (const Problem& problem) {
    k.problem = problem.what();
  }
  k.entries = std::make_shared<const std::vector<LogEntry>>(std::move(entries));
  return k.entries;
}

std::string log_problem() {
  (void)known_log();
  const std::lock_guard guard(known().lock);
  return known().problem;
}

std::string put_log_aside() {
  const std::string path = log_path();
  int n = 1;
  std::string aside;
  do aside = path + ".damaged-" + std::to_string(n++);
  while (file_stands(aside));
  if (SystemCalls::now().rename(path, aside) != 0)
    throw cannot_write(say("The damaged file “{0}” could not be put aside.", path));
  return aside;
}

}  // namespace doyen
