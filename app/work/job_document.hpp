// The open job: edits with names, undo and redo, saving, and recovery after a crash.
#pragma once

#include <QLockFile>
#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <QUndoStack>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

class JobDocument : public QObject {
  Q_OBJECT
 public:
  explicit JobDocument(QObject* parent = nullptr);
  ~JobDocument() override;

  [[nodiscard]] const Job& job() const { return job_; }
  [[nodiscard]] QString path() const { return path_; }
  [[nodiscard]] int opened() const { return opened_; }  // another number for each job that was opened in the window
  [[nodiscard]] bool unsaved() const { return !undo_.isClean() || recovered_; }
  QUndoStack& undo_stack() { return undo_; }

  // Changes the job under a name that undo shows. Edits with the same non-empty `merge` in a row become one. What could
  // not be saved and opened again, or throws a Problem, is refused: the job stays as it is, and refused() says why.
  void edit(const QString& name, const std::function<void(Job&)>& change, const QString& merge = {});

  // Throws Problem{InTheWay} when the job's own file is no longer what was opened or saved here, unless `over`.
  // `run`: does the writing, on whatever thread, and returns when it is done; the job must not change meanwhile.
  void save(const QString& path, bool over = false, const std::function<void(const std::function<void()>&)>& run = {});
  // A job from a file, or a new or demo one with an empty path. `key`: what it goes by while it has no file; empty: a
  // new one of its own.
  void replace(const Job& job, const QString& path, const QString& key = {});
  // The job's file is there and holds something else than what was opened or saved here last.
  [[nodiscard]] bool changed_on_disk() const;
  // By what sets of written files are known as this job's (files/output_set.hpp).
  [[nodiscard]] std::vector<std::string> keys() const;

  // Unsaved work of a Doyen that was killed.
  struct Recovered {
    QString file, original_path, job_name;
    bool overtaken = false;  // the job's own file was saved anew after this copy's work was begun
    QString problem;         // why the copy cannot be read; it is kept
  };
  static QList<Recovered> recoverable();
  // The old copy goes only when the work is safe in a new one.
  void recover(const Recovered& which);
  static void forget(const Recovered& which);
  // Puts an unreadable copy aside, where it is not asked about again; returns where.
  static QString put_aside(const Recovered& which);
  // Writes the recovery copy at once (it is also written, on a thread of its own, two seconds after an edit). False
  // when it could not.
  bool write_recovery();

 Q_SIGNALS:
  void changed();
  // An edit was not made, and why.
  void refused(const QString& name, const QString& why);

 private:
  friend class JobEdit;
  void set(const std::function<void(Job&)>& change);
  std::function<bool()> recovery_task();
  void begin_recovery();
  void drop_recovery();
  static QString recovery_folder();
  static void sweep_recovery_folder();

  Job job_;
  QString path_;
  std::string on_disk_;  // a mark of what the file held when it was opened or saved; empty: it was not there
  QString own_key_;      // until the job has a file
  QUndoStack undo_;
  QTimer recovery_timer_;
  QThreadPool recovery_pool_;
  QString recovery_file_;
  std::unique_ptr<QLockFile> recovery_lock_;
  bool recovered_ = false;
  int opened_ = 0;
};

}  // namespace doyen
