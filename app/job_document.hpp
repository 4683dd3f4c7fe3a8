// The open job: edits with names, undo and redo, saving, and recovery after a crash.
#pragma once

#include <QLockFile>
#include <QObject>
#include <QTimer>
#include <QUndoStack>
#include <functional>
#include <memory>

#include "job/job.hpp"

namespace doyen {

class JobDocument : public QObject {
  Q_OBJECT
 public:
  explicit JobDocument(QObject* parent = nullptr);
  ~JobDocument() override;

  [[nodiscard]] const Job& job() const { return job_; }
  [[nodiscard]] QString path() const { return path_; }
  [[nodiscard]] bool unsaved() const { return !undo_.isClean() || recovered_; }
  QUndoStack& undo_stack() { return undo_; }

  // Changes the job under a name that undo shows. Edits with the same non-empty `merge` in a row become one.
  void edit(const QString& name, const std::function<void(Job&)>& change, const QString& merge = {});

  // Throw Problem; on failure the open job stays as it is.
  void load(const QString& path);
  void save(const QString& path);
  void replace(const Job& job, const QString& path);  // a new or demo job; path may be empty

  // Unsaved work of a Doyen that was killed.
  struct Recovered {
    QString file, original_path, job_name;
  };
  static QList<Recovered> recoverable();
  void recover(const Recovered& which);
  static void forget(const Recovered& which);
  // Writes the recovery copy at once (it is also written two seconds after an edit).
  void write_recovery();

 Q_SIGNALS:
  void changed();

 private:
  friend class JobEdit;
  void set(const Job& job);
  void drop_recovery();
  static QString recovery_folder();

  Job job_;
  QString path_;
  QUndoStack undo_;
  QTimer recovery_timer_;
  QString recovery_file_;
  std::unique_ptr<QLockFile> recovery_lock_;
  bool recovered_ = false;
};

}  // namespace doyen
