// What the window can be told to do, as one list: the menu, the keys, the call box and the page of keys are made from
// it.
#pragma once

#include <QKeySequence>
#include <QList>
#include <QString>
#include <functional>

class QMenu;
class QWidget;

namespace doyen {

struct Command {
  enum class Group { Job, Pieces, View, Help };
  Group group = Group::Job;
  QString id;     // stays the same whatever the words
  QString words;  // what it does
  QKeySequence keys{};
  std::function<void()> act;
  std::function<bool()> may{};     // whether it can be done now; empty: always
  std::function<QString()> now{};  // its words at this moment; empty: as above

  [[nodiscard]] bool can() const { return !may || may(); }
  [[nodiscard]] QString says() const { return now ? now() : words; }
  [[nodiscard]] QString keys_shown() const { return keys.toString(QKeySequence::NativeText); }
};
QString group_name(Command::Group group);

class Commands {
 public:
  // Every key works wherever the focus is in `window`; what cannot be done now does nothing.
  Commands(QList<Command> all, QWidget* window);
  [[nodiscard]] const QList<Command>& all() const { return all_; }
  void fill_menu(QMenu& menu, Command::Group group) const;

 private:
  QList<Command> all_;
};

}  // namespace doyen
