#include "shell/keys_page.hpp"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "parts/cards.hpp"
#include "parts/theme.hpp"

namespace doyen {

KeysPage::KeysPage(const Commands& commands, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("keysPage"));
  setWindowTitle(tr("All keys"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("All keys"), "title"));
  column->addWidget(make_label(tr("Work from left to right along the stages. Any length field takes 3/8, 1 1/2\", "
                                  "12.7 mm or 3/16 + 0.01."),
                               "faded"));
  auto* list = new QTreeWidget;
  list->setColumnCount(2);
  list->setHeaderHidden(true);
  list->setRootIsDecorated(false);
  list->setAccessibleName(tr("Keys and what they do"));
  const auto heading = [list](const QString& words) {
    auto* row = new QTreeWidgetItem(list, {words});
    QFont bold = row->font(0);
    bold.setBold(true);
    row->setFont(0, bold);
    return row;
  };
  for (const auto group : {Command::Group::Job, Command::Group::Pieces, Command::Group::View, Command::Group::Help}) {
    QTreeWidgetItem* under = heading(group_name(group));
    for (const Command& command : commands.all()) {
      if (command.group == group && !command.keys.isEmpty())
        new QTreeWidgetItem(under, {command.words, command.keys_shown()});
    }
  }
  const std::pair<QString, QString> board[] = {
      {tr("Choose the next piece, the one before; along with the others"), tr("N, P; with Shift")},
      {tr("Move what is chosen; ten times as far; a tenth"), tr("Arrows; with Shift; with Alt")},
      {tr("Move the section; turn it"), tr("Page Up, Page Down; T")},
      {tr("Take hold of the next tab, bridge, clamp or the section; move it; let go"), tr("G; arrows; Esc")},
      {tr("Draw or measure: move there, set a point"), tr("Arrows, Space")},
      {tr("Come closer, go back, show all"), tr("+, −, Home")},
      {tr("Remove what is chosen: a point, else the piece"), tr("Delete")}};
  QTreeWidgetItem* under = heading(tr("On the board"));
  for (const auto& [words, keys] : board) new QTreeWidgetItem(under, {words, keys});
  const std::pair<QString, QString> in_hand[] = {{tr("Turn and tilt it; move the light"), tr("Arrows; with Shift")},
                                                 {tr("Come nearer, go back"), tr("+, −")}};
  QTreeWidgetItem* hand = heading(tr("The board in your hands"));
  for (const auto& [words, keys] : in_hand) new QTreeWidgetItem(hand, {words, keys});
  list->expandAll();
  list->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  list->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  list->header()->setStretchLastSection(false);
  column->addWidget(list, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
  resize(620, 640);
}

}  // namespace doyen
