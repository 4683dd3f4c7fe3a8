#include "job_document.hpp"

#include <QDir>
#include <QFile>
#include <QStandardPaths>
#include <QUndoCommand>
#include <QUuid>

#include "atomic_file.hpp"

namespace doyen {

class JobEdit : public QUndoCommand {
 public:
  JobEdit(JobDocument& document, const QString& name, Job before, Job after, QString merge)
      : QUndoCommand(name),
        document_(document),
        before_(std::move(before)),
        after_(std::move(after)),
        merge_(std::move(merge)) {}
  void undo() override { document_.set(before_); }
  void redo() override { document_.set(after_); }
  [[nodiscard]] int id() const override { return merge_.isEmpty() ? -1 : 1; }
  bool mergeWith(const QUndoCommand* other) override {
    const auto* next = static_cast<const JobEdit*>(other);
    if (next->merge_ != merge_) return false;
    after_ = next->after_;
    return true;
  }

 private:
  JobDocument& document_;
  Job before_, after_;
  QString merge_;
};

JobDocument::JobDocument(QObject* parent) : QObject(parent) {
  recovery_timer_.setSingleShot(true);
  recovery_timer_.setInterval(2000);
  connect(&recovery_timer_, &QTimer::timeout, this, &JobDocument::write_recovery);
}

JobDocument::~JobDocument() { drop_recovery(); }

void JobDocument::set(const Job& job) {
  job_ = job;
  if (!recovery_timer_.isActive()) recovery_timer_.start();
  Q_EMIT changed();
}

void JobDocument::edit(const QString& name, const std::function<void(Job&)>& change, const QString& merge) {
  Job after = job_;
  change(after);
  if (after == job_) return;
  undo_.push(new JobEdit(*this, name, job_, std::move(after), merge));
}

void JobDocument::replace(const Job& job, const QString& path) {
  drop_recovery();
  undo_.clear();
  undo_.setClean();
  recovered_ = false;
  path_ = path;
  job_ = job;
  Q_EMIT changed();
}

void JobDocument::load(const QString& path) { replace(load_job(path.toStdString()), path); }

void JobDocument::save(const QString& path) {
  save_job(job_, path.toStdString());
  path_ = path;
  recovered_ = false;
  undo_.setClean();
  drop_recovery();
  Q_EMIT changed();
}

QString JobDocument::recovery_folder() {
  return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + QStringLiteral("/doyen/recovery");
}

void JobDocument::write_recovery() {
  if (!unsaved()) return drop_recovery();
  try {
    if (recovery_file_.isEmpty()) {
      make_folder(recovery_folder().toStdString());
      const QString file = recovery_folder() + QLatin1Char('/') + QUuid::createUuid().toString(QUuid::WithoutBraces) +
                           QStringLiteral(".doyen");
      auto lock = std::make_unique<QLockFile>(file + QStringLiteral(".lock"));
      lock->setStaleLockTime(0);
      if (!lock->tryLock(0)) return;
      recovery_lock_ = std::move(lock);
      recovery_file_ = file;
    }
    write_file_atomically((recovery_file_ + QStringLiteral(".path")).toStdString(), path_.toStdString());
    save_job(job_, recovery_file_.toStdString());
  } catch (const Problem&) {
    // The disk may be full; the next edit tries again, and saving says so aloud.
  }
}

void JobDocument::drop_recovery() {
  recovery_timer_.stop();
  if (recovery_file_.isEmpty()) return;
  QFile::remove(recovery_file_);
  QFile::remove(recovery_file_ + QStringLiteral(".path"));
  recovery_lock_.reset();
  recovery_file_.clear();
}

QList<JobDocument::Recovered> JobDocument::recoverable() {
  QList<Recovered> found;
  const QDir folder(recovery_folder());
  for (const QString& name : folder.entryList({QStringLiteral("*.doyen")}, QDir::Files, QDir::Time)) {
    const QString file = folder.filePath(name);
    QLockFile lock(file + QStringLiteral(".lock"));
    lock.setStaleLockTime(0);
    if (!lock.tryLock(0)) continue;  // another Doyen is at work on it
    try {
      const Job job = load_job(file.toStdString());
      QFile path(file + QStringLiteral(".path"));
      const QString original = path.open(QIODevice::ReadOnly) ? QString::fromUtf8(path.readAll()) : QString();
      found.append({file, original, QString::fromStdString(job.name)});
    } catch (const Problem&) {
      continue;
    }
  }
  return found;
}

void JobDocument::recover(const Recovered& which) {
  replace(load_job(which.file.toStdString()), which.original_path);
  recovered_ = true;
  write_recovery();
  forget(which);
  Q_EMIT changed();
}

void JobDocument::forget(const Recovered& which) {
  QFile::remove(which.file);
  QFile::remove(which.file + QStringLiteral(".path"));
}

}  // namespace doyen
