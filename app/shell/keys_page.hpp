// Every key on one page: the commands', and those that work on the board and in fields.
#pragma once

#include <QDialog>

#include "shell/commands.hpp"

namespace doyen {

class KeysPage : public QDialog {
  Q_OBJECT
 public:
  KeysPage(const Commands& commands, QWidget* parent);
};

}  // namespace doyen
