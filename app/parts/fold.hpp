// A part of a ticket that can be folded away: its heading stays, with a word on what is set inside.
#pragma once

#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>
#include <QWidget>

namespace doyen {

class Fold : public QWidget {
  Q_OBJECT
 public:
  // `key` names it among the settings: however it was left, it is found so again; without one it is not kept. It begins
  // folded unless `open`.
  Fold(const QString& title, const QString& key, bool open = false, QWidget* parent = nullptr);
  [[nodiscard]] QVBoxLayout* body() const { return column_; }
  void set_summary(const QString& words);  // what is set inside, shown while it is folded
  void keep_summary();                     // and while it is open, beside the heading
  void set_open(bool open) { head_->setChecked(open); }
  [[nodiscard]] bool open() const { return head_->isChecked(); }

 Q_SIGNALS:
  void opened();
  void closed();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void take(bool open);
  void show_summary();
  QToolButton* head_;
  QLabel* summary_;
  QString words_;
  bool keeps_ = false;
  QWidget* inside_;
  QVBoxLayout* column_;
};

}  // namespace doyen
