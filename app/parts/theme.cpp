#include "parts/theme.hpp"

#include <QPalette>

#include <array>

namespace doyen::theme {

QColor dye(int i) {
  static const std::array<QColor, 6> kDyes{QColor(0x8C, 0x39, 0x46), QColor(0xB3, 0x99, 0x3A),
                                           QColor(0x48, 0x62, 0x80), QColor(0x7A, 0x5A, 0x3C),
                                           QColor(0x7D, 0x86, 0x55), QColor(0x86, 0x84, 0x80)};
  return kDyes[static_cast<std::size_t>(i) % kDyes.size()];
}

QFont font(double points, bool bold) {
  QFont f(QStringLiteral("Open Sans"));
  f.setPointSizeF(points);
  f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
  return f;
}

Unstyled::Unstyled() : sheet_(qApp->styleSheet()) { qApp->setStyleSheet({}); }

Unstyled::~Unstyled() { qApp->setStyleSheet(sheet_); }

void apply(QApplication& app) {
  app.setStyle(QStringLiteral("Fusion"));
  app.setFont(font(10));
  QPalette p;
  p.setColor(QPalette::Window, kLinen);
  p.setColor(QPalette::Base, Qt::white);
  p.setColor(QPalette::AlternateBase, kChalk);
  p.setColor(QPalette::Button, kChalk);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) p.setColor(role, kInk);
  p.setColor(QPalette::PlaceholderText, kFaded);
  p.setColor(QPalette::Highlight, kPlum);
  p.setColor(QPalette::HighlightedText, Qt::white);
  p.setColor(QPalette::ToolTipBase, kChalk);
  p.setColor(QPalette::ToolTipText, kInk);
  app.setPalette(p);
  app.setStyleSheet(QStringLiteral(R"(
    QWidget { color: #2B2A28; }
    QLabel[role="faded"] { color: #6E675C; }
    QLabel[role="title"] { font-size: 14pt; font-weight: 600; }
    QLabel[role="number"] { font-size: 16pt; font-weight: 600; }
    QLabel[role="heading"] { font-weight: 600; }
    QLabel[role="error"] { color: #9C3B2E; }
    QFrame[role="ticket"] { background: #FBF8F2; border-left: 1px solid #D8CFBF; }
    QFrame[role="next"] { background: #F2EDE3; border-left: 1px solid #D8CFBF; border-top: 1px solid #D8CFBF; }
    QFrame[role="slip"] { background: #FFFEFA; border: 1px solid #D8CFBF; border-radius: 3px; }
    QFrame[role="bar"] { background: #FBF8F2; border: 1px solid #D8CFBF; border-radius: 8px; }
    QFrame[role="bar"] QLineEdit { padding: 1px 5px; min-height: 18px; }
    QFrame[role="bar"] QPushButton { padding: 2px 14px 2px 8px; }
    QFrame[role="line"] { background: #D8CFBF; max-height: 1px; min-height: 1px; border: none; }
    QScrollArea { background: transparent; border: none; }
    QScrollArea > QWidget > QWidget { background: transparent; }
    QLabel[role="notice"] { background: #FBF3E6; border: 1px solid #B4552D; border-radius: 6px; padding: 8px 12px; color: #3B2F2A; }
    QLineEdit, QPlainTextEdit, QComboBox, QAbstractSpinBox { background: white; border: 1px solid #D8CFBF; border-radius: 5px; padding: 4px 7px; min-height: 20px; selection-background-color: #5B4A6F; }
    QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus, QAbstractSpinBox:focus { border: 1px solid #5B4A6F; }
    QLineEdit[wrong="true"] { border: 1px solid #9C3B2E; background: #FBF0EC; }
    QComboBox::drop-down { border: none; width: 22px; }
    QComboBox::down-arrow { image: url(:/arrow.svg); width: 10px; height: 10px; }
    QAbstractSpinBox::up-button, QAbstractSpinBox::down-button { border: none; width: 20px; }
    QAbstractSpinBox::up-arrow { image: url(:/arrow-up.svg); width: 8px; height: 8px; }
    QAbstractSpinBox::down-arrow { image: url(:/arrow.svg); width: 8px; height: 8px; }
    QPushButton { background: white; border: 1px solid #D8CFBF; border-radius: 6px; padding: 5px 10px; }
    QPushButton:hover { border-color: #5B4A6F; }
    QPushButton:focus { border: 1px solid #5B4A6F; }
    QPushButton:checked { background: #ECE7EF; border: 1px solid #5B4A6F; color: #4B3C5D; font-weight: 600; }
    QPushButton[role="main"] { background: #5B4A6F; color: white; border: none; padding: 10px 18px; font-weight: 600; }
    QPushButton[role="main"]:hover { background: #6A587F; }
    QPushButton[role="main"]:focus { border: 2px solid #2B2A28; }
    QPushButton[role="main"]:disabled { background: #ECE7EF; color: #6A6172; }
    QPushButton[role="remedy"] { color: #5B4A6F; font-weight: 600; padding: 3px 9px; }
    QPushButton:disabled { color: #6E675C; background: transparent; border-style: dashed; }
    QFrame[role="sum"] { background: #F2EEF4; border-radius: 6px; }
    QToolButton { border: none; padding: 3px; color: #5B4A6F; }
    QToolButton:focus { border: 1px solid #5B4A6F; border-radius: 4px; }
    QToolButton[role="fold"] { color: #2B2A28; font-weight: 600; padding: 4px 4px 4px 0; }
    QListWidget { background: white; border: 1px solid #D8CFBF; border-radius: 5px; outline: none; }
    QListWidget::item { padding: 4px 6px; border: none; }
    QListWidget::item:selected { background: #ECE7EF; color: #2B2A28; border: none; }
    QListWidget::item:disabled { color: #6E675C; }
    QAbstractItemView { selection-background-color: #ECE7EF; selection-color: #2B2A28; }
    QTreeWidget { background: white; border: 1px solid #D8CFBF; border-radius: 5px; }
    QTreeWidget::item { padding: 3px 4px; }
    QTableWidget::item:selected, QTreeWidget::item:selected { background: #ECE7EF; color: #2B2A28; }
    QTableWidget { background: white; border: 1px solid #D8CFBF; gridline-color: #E8E1D4; }
    QHeaderView::section { background: #FBF8F2; border: none; border-bottom: 1px solid #D8CFBF; padding: 4px 6px; color: #6E675C; }
    QCheckBox { spacing: 7px; }
    QScrollBar:vertical { background: transparent; width: 9px; } QScrollBar::handle:vertical { background: #D8CFBF; border-radius: 4px; min-height: 30px; }
    QScrollBar::add-line:vertical, QScrollBar::sub-line:vertical { height: 0; }
    QMenu { background: #FBF8F2; border: 1px solid #D8CFBF; } QMenu::item { padding: 5px 22px; } QMenu::item:selected { background: #ECE7EF; color: #2B2A28; }
  )"));
}

}  // namespace doyen::theme
