#include "shell/commands.hpp"

#include <QCoreApplication>
#include <QMenu>
#include <QShortcut>

namespace doyen {

QString group_name(Command::Group group) {
  switch (group) {
    case Command::Group::Job:
      return QCoreApplication::translate("Commands", "Job");
    case Command::Group::Pieces:
      return QCoreApplication::translate("Commands", "Pieces");
    case Command::Group::View:
      return QCoreApplication::translate("Commands", "View");
    case Command::Group::Help:
      return QCoreApplication::translate("Commands", "Help");
  }
  return {};
}

Commands::Commands(QList<Command> all, QWidget* window) : all_(std::move(all)) {
  for (const Command& command : all_) {
    if (command.keys.isEmpty()) continue;
    auto* shortcut = new QShortcut(command.keys, window);
    QObject::connect(shortcut, &QShortcut::activated, window, [command] {
      if (command.can()) command.act();
    });
  }
}

void Commands::fill_menu(QMenu& menu, Command::Group group) const {
  for (const Command& command : all_) {
    if (command.group != group) continue;
    QAction* action = menu.addAction(command.says() +
                                     (command.keys.isEmpty() ? QString() : QLatin1Char('\t') + command.keys_shown()));
    action->setObjectName(command.id);
    action->setEnabled(command.can());
    QObject::connect(action, &QAction::triggered, &menu, command.act);
  }
}

}  // namespace doyen
