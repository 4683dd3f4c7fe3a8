#include "work/job_document.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUndoCommand>
#include <QUuid>

#include "files/output_set.hpp"
#include "job/job_change.hpp"
#include "job/layout.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen {

// The change alone: the document holds the job.
class JobEdit : public QUndoCommand {
 public:
  JobEdit(JobDocument& document, const QString& name, JobChange change, QString merge)
      : QUndoCommand(name), document_(document), change_(std::move(change)), merge_(std::move(merge)) {}
  void undo() override {
    document_.set([this](Job& job) { change_.undo(job); });
  }
  void redo() override {
    document_.set([this](Job& job) { change_.redo(job); });
  }
  [[nodiscard]] int id() const override { return merge_.isEmpty() ? -1 : 1; }
  // The document is as it is after `other`.
  bool mergeWith(const QUndoCommand* other) override {
    const auto* next = static_cast<const JobEdit*>(other);
    if (next->merge_ != merge_) return false;
    Job before = document_.job();
    next->change_.undo(before);
    change_.undo(before);
    change_ = JobChange(before, document_.job());
    return true;
  }

 private:
  JobDocument& document_;
  JobChange change_;
  QString merge_;
};

JobDocument::JobDocument(QObject* parent) : QObject(parent) {
  recovery_timer_.setSingleShot(true);
  recovery_timer_.setInterval(2000);
  connect(&recovery_timer_, &QTimer::timeout, this, &JobDocument::begin_recovery);
  recovery_pool_.setMaxThreadCount(1);
}

JobDocument::~JobDocument() { drop_recovery(); }

void JobDocument::set(const std::function<void(Job&)>& change) {
  change(job_);
  if (!recovery_timer_.isActive()) recovery_timer_.start();
  Q_EMIT changed();
}

void JobDocument::edit(const QString& name, const std::function<void(Job&)>& change, const QString& merge) {
  Job after = job_;
  try {
    change(after);
    if (after == job_) return;
    follow_board(after, job_);
    check_job(after, job_);
  } catch (const Problem& problem) {
    Q_EMIT changed();  // fields show again what stands
    Q_EMIT refused(name, QString::fromUtf8(problem.what()));
    return;
  }
  undo_.push(new JobEdit(*this, name, JobChange(job_, after), merge));
}

namespace {

QString absolute(const QString& path) { return path.isEmpty() ? path : QFileInfo(path).absoluteFilePath(); }

// Tells one content of a file from another; empty when there is none to be read.
std::string mark_of_file(const QString& path) {
  if (path.isEmpty() || !QFileInfo(path).isFile()) return {};
  try {
    return mark_of(read_file(path.toStdString()));
  } catch (const Problem&) {
    return {};
  }
}

// Beside a recovery copy: whose work it is.
QString about_file(const QString& copy) { return copy + QStringLiteral(".about"); }
QString lock_file(const QString& copy) { return copy + QStringLiteral(".lock"); }

}  // namespace

void JobDocument::replace(const Job& job, const QString& path, const QString& key) {
  drop_recovery();
  undo_.clear();
  undo_.setClean();
  recovered_ = false;
  ++opened_;
  path_ = absolute(path);
  on_disk_ = mark_of_file(path_);
  own_key_ = key.isEmpty() ? QUuid::createUuid().toString(QUuid::WithoutBraces) : key;
  job_ = job;
  Q_EMIT changed();
}

bool JobDocument::changed_on_disk() const {
  if (path_.isEmpty() || on_disk_.empty()) return false;
  const std::string now = mark_of_file(path_);
  return !now.empty() && now != on_disk_;
}

std::vector<std::string> JobDocument::keys() const {
  if (path_.isEmpty()) return {own_key_.toStdString()};
  return {key_of_job_file(path_.toStdString()), own_key_.toStdString()};
}

void JobDocument::save(const QString& path, bool over, const std::function<void(const std::function<void()>&)>& run) {
  const QString whole = absolute(path);
  if (!over && whole == path_ && changed_on_disk())
    throw in_the_way(
        tr("“%1” was saved by someone else since it was opened here.").arg(QFileInfo(whole).fileName()).toStdString());
  std::string mark;
  const auto write = [&] {
    save_job(job_, whole.toStdString());
    mark = mark_of_file(whole);
  };
  run ? run(write) : write();
  path_ = whole;
  on_disk_ = mark;
  recovered_ = false;
  undo_.setClean();
  drop_recovery();
  Q_EMIT changed();
}

QString JobDocument::recovery_folder() {
  return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + QStringLiteral("/doyen/recovery");
}

// What is written, where: nothing when there is nothing to keep, or no place for it.
std::function<bool()> JobDocument::recovery_task() {
  try {
    if (recovery_file_.isEmpty()) {
      make_folder(recovery_folder().toStdString());
      const QString file = recovery_folder() + QLatin1Char('/') + QUuid::createUuid().toString(QUuid::WithoutBraces) +
                           QStringLiteral(".doyen");
      auto lock = std::make_unique<QLockFile>(lock_file(file));
      lock->setStaleLockTime(0);
      if (!lock->tryLock(0)) return {};
      recovery_lock_ = std::move(lock);
      recovery_file_ = file;
    }
  } catch (const Problem&) {
    return {};
  }
  const Json about{{"path", path_.toStdString()}, {"onDisk", on_disk_}};
  return [job = job_, file = recovery_file_.toStdString(), beside = about_file(recovery_file_).toStdString(),
          words = json_text(about, 1)] {
    try {
      write_file_atomically(beside, words);
      save_job(job, file);
      return true;
    } catch (const Problem&) {
      return false;  // the disk may be full; the next edit tries again, and saving says so aloud
    }
  };
}

void JobDocument::begin_recovery() {
  if (!unsaved()) return drop_recovery();
  if (recovery_pool_.activeThreadCount() > 0) return recovery_timer_.start();
  if (const auto task = recovery_task()) recovery_pool_.start([task] { task(); });
}

bool JobDocument::write_recovery() {
  if (!unsaved()) {
    drop_recovery();
    return true;
  }
  recovery_pool_.waitForDone();
  const auto task = recovery_task();
  return task && task();
}

void JobDocument::drop_recovery() {
  recovery_timer_.stop();
  recovery_pool_.waitForDone();
  if (recovery_file_.isEmpty()) return;
  QFile::remove(recovery_file_);
  QFile::remove(about_file(recovery_file_));
  recovery_lock_.reset();
  recovery_file_.clear();
}

// What a kill leaves behind: locks and notes of copies that are gone, files half written.
void JobDocument::sweep_recovery_folder() {
  const QDir folder(recovery_folder());
  for (const QString& name : folder.entryList(QDir::Files)) {
    const qsizetype end = name.indexOf(QStringLiteral(".doyen"));
    if (end < 0 || name.endsWith(QStringLiteral(".doyen"))) continue;
    const QString copy = folder.filePath(name.left(end) + QStringLiteral(".doyen"));
    const bool part = name.contains(QStringLiteral(".part-"));
    if (!part && QFile::exists(copy)) continue;
    QLockFile lock(lock_file(copy));
    lock.setStaleLockTime(0);
    if (!lock.tryLock(0)) continue;  // another Doyen is at work on it
    if (!name.endsWith(QStringLiteral(".lock"))) QFile::remove(folder.filePath(name));
  }
}

QList<JobDocument::Recovered> JobDocument::recoverable() {
  sweep_recovery_folder();
  QList<Recovered> found;
  const QDir folder(recovery_folder());
  for (const QString& name : folder.entryList({QStringLiteral("*.doyen")}, QDir::Files, QDir::Time)) {
    Recovered copy;
    copy.file = folder.filePath(name);
    QLockFile lock(lock_file(copy.file));
    lock.setStaleLockTime(0);
    if (!lock.tryLock(0)) continue;  // another Doyen is at work on it
    std::string begun_on;
    try {
      const std::string path = about_file(copy.file).toStdString();
      const Json json = parse_json(read_file(path), path);
      const JsonView about(json, path);
      copy.original_path = QString::fromStdString(about.text_or("path", ""));
      begun_on = about.text_or("onDisk", "");
    } catch (const Problem&) {
      // The work itself is what counts; saving asks where to.
    }
    try {
      const Job job = load_job(copy.file.toStdString());
      copy.job_name = QString::fromStdString(job.name);
      if (!copy.original_path.isEmpty() && QFile::exists(copy.original_path)) {
        copy.overtaken = mark_of_file(copy.original_path) != begun_on;
        try {
          if (load_job(copy.original_path.toStdString()) == job) {  // it was saved after all
            forget(copy);
            continue;
          }
        } catch (const Problem&) {
          // The saved file cannot be read: all the more the copy is wanted.
        }
      }
    } catch (const Problem& problem) {
      copy.problem = QString::fromUtf8(problem.what());
    }
    found.append(copy);
  }
  return found;
}

void JobDocument::recover(const Recovered& which) {
  replace(load_job(which.file.toStdString()), which.original_path);
  // Saving then asks before it replaces what was saved since.
  if (which.overtaken) on_disk_ = "overtaken";
  recovered_ = true;
  if (write_recovery()) forget(which);
  Q_EMIT changed();
}

void JobDocument::forget(const Recovered& which) {
  QFile::remove(which.file);
  QFile::remove(about_file(which.file));
  QFile::remove(which.file + QStringLiteral(".path"));
}

QString JobDocument::put_aside(const Recovered& which) {
  const QString aside = which.file + QStringLiteral(".unreadable");
  return QFile::rename(which.file, aside) ? aside : which.file;
}

}  // namespace doyen
