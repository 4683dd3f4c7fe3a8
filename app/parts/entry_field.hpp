// A line that is typed into. What is being typed is never taken away by what is shown anew, and only what was typed is
// taken over.
#pragma once

#include <QLineEdit>
#include <functional>

namespace doyen {

class EntryField : public QLineEdit {
  Q_OBJECT
 public:
  explicit EntryField(QWidget* parent = nullptr);
  // What the job holds. While something else is being typed here it waits behind that; Escape brings it back.
  void show_text(const QString& text);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  // Takes what was typed over. Throws Problem with what is wrong with it.
  virtual void take(const QString& typed) = 0;

 private:
  void confirm();
  void put(const QString& text);
  void refuse(const QString& why);
  QString shown_, tip_;
};

// For names and other words: nothing but spaces is no name.
class TextField : public EntryField {
  Q_OBJECT
 public:
  // `check` throws a Problem for what is not wanted; words are trimmed before.
  explicit TextField(std::function<void(const QString&)> check = {}, QWidget* parent = nullptr);

 Q_SIGNALS:
  void entered(const QString& text);

 protected:
  void take(const QString& typed) override;

 private:
  std::function<void(const QString&)> check_;
};

// Throws what a name may not be: empty, or longer than files take.
void check_name(const QString& text);

// An angle with or without its sign, a comma or a point in it. Throws Problem.
double parse_angle(const QString& text);

}  // namespace doyen
