// The log: what was run and how it came out, as a database (SQLite) of the user's own under the XDG data folder. What
// is kept is kept whole, whenever the program or the machine stops; several windows write one after the other; older
// logs are brought up to date when they are opened, newer ones are left alone.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "log/entry.hpp"

namespace SQLite {
class Database;
}

namespace doyen {

class LogBook {
 public:
  // Makes the file, and its folder, where there is none; ":memory:" is kept nowhere. Throws Problem{BadInput} for what
  // is no log, a damaged one or one of a newer Doyen: it is left as it is; and Problem{CannotWrite}.
  explicit LogBook(const std::string& path);
  ~LogBook();
  LogBook(const LogBook&) = delete;
  LogBook& operator=(const LogBook&) = delete;

  // Each is done wholly or not at all, and is on the disk when it returns. Throws Problem{CannotWrite}.
  std::int64_t add(const LogEntry& entry, const std::vector<std::string>& pictures = {});  // PNG
  // Those that are not there yet, all of them or none; returns how many. The same run is made at the same time, of the
  // same job.
  std::size_t take(const std::vector<LogEntry>& entries);
  void note(std::int64_t id, const std::string& words, const std::string& why);
  // How it came out, said anew: whether well, what went wrong, and how long the machine ran (s; 0: not said).
  void say_outcome(std::int64_t id, bool well, const std::vector<MishapSeen>& mishaps, double took);
  void remove(std::int64_t id);
  void add_picture(std::int64_t id, const std::string& png);
  void remove_picture(std::int64_t id,
                      std::size_t number);  // as pictures() lists them, from 0; nothing else is touched

  [[nodiscard]] std::vector<LogEntry> entries() const;  // the newest first, without their job texts
  [[nodiscard]] std::string job_text(std::int64_t id) const;
  [[nodiscard]] std::vector<std::string> pictures(std::int64_t id) const;  // PNG

 private:
  std::unique_ptr<SQLite::Database> db_;
  std::string path_;
};

std::string log_path();

// The user's entries as they stand, the newest first, read anew only when the file is another. Empty where there is no
// log, or none that can be read: then log_problem() says why.
std::shared_ptr<const std::vector<LogEntry>> known_log();
std::string log_problem();

// Puts a log aside that cannot be read, so that a new one is begun. Returns where it lies. Throws Problem{CannotWrite}.
std::string put_log_aside();

}  // namespace doyen
