// The log: every run and test cut that was kept, searched, with what was learnt from it.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <memory>

#include "log/entry.hpp"
#include "log/log_book.hpp"
#include "measure/length.hpp"

namespace doyen {

class LogDialog : public QDialog {
  Q_OBJECT
 public:
  LogDialog(const LengthStyle& lengths, QWidget* parent);
  // The job as it was when a run was kept, if that was asked for; empty otherwise.
  [[nodiscard]] std::string wanted_job() const { return wanted_; }
  [[nodiscard]] bool is_changed() const { return changed_; }  // the log is another than it was
  void done(int result) override;                             // what is typed is kept
  void show_example();                                        // five runs of an inlaid lid, which are kept nowhere

 private:
  void build_left(class QHBoxLayout* row);
  void build_right(class QHBoxLayout* row);
  void open_book();
  void list();
  void show_chosen();
  void show_pictures(std::int64_t id);
  void keep_words();
  void change(const std::function<void()>& work);  // says what goes wrong
  void add_picture();
  void remove_picture(std::int64_t id, std::size_t number);
  void say_outcome();
  void remove();
  void save(const QString& name, const QString& kinds, const std::function<std::string()>& text);
  void take_in();
  void begin_anew();  // the one that cannot be read is put aside
  [[nodiscard]] const LogEntry* chosen() const;
  [[nodiscard]] std::vector<LogEntry> found() const;  // what the search leaves, with the jobs' texts

  LengthStyle lengths_;
  std::unique_ptr<LogBook> book_;
  bool example_ = false, changed_ = false;
  std::vector<LogEntry> all_, listed_;
  QLineEdit *search_, *words_, *why_;
  QListWidget* list_;
  QLabel *says_, *details_;
  QWidget* pictures_;
  QPushButton *open_, *outcome_, *picture_, *remove_, *csv_, *json_, *example_button_, *aside_;
  std::string wanted_;
};

}  // namespace doyen
