#include "parts/cards.hpp"

#include <QAbstractItemView>
#include <QComboBox>
#include <QCoreApplication>
#include <QDesktopServices>
#include <QGraphicsOpacityEffect>
#include <QPainter>
#include <QPainterPath>
#include <QUrl>
#include <algorithm>
#include <cmath>

#include "parts/flow_layout.hpp"
#include "parts/theme.hpp"
#include "parts/why.hpp"

namespace doyen {

QLabel* make_label(const QString& text, const char* role, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setProperty("role", QString::fromLatin1(role));
  label->setWordWrap(true);
  return label;
}

QFrame* make_line(QWidget* parent) {
  auto* line = new QFrame(parent);
  line->setProperty("role", QStringLiteral("line"));
  return line;
}

QString speed_of_asked(double reached, double asked, const LengthStyle& lengths) {
  const bool inch = lengths.unit == Unit::Inch;
  const auto tr = [](const char* words) { return QCoreApplication::translate("Cards", words); };
  return tr("%1 %2 (%3 asked)")
      .arg(inch ? std::lround(reached / kMmPerInch) : 10 * std::lround(reached / 10))
      .arg(inch ? tr("in/min") : tr("mm/min"))
      .arg(asked / (inch ? kMmPerInch : 1), 0, 'f', 0);
}

QListWidget* make_picture_list(const QString& name, QSize picture, QSize beside) {
  auto* list = new QListWidget;
  list->setViewMode(QListView::IconMode);
  list->setResizeMode(QListView::Adjust);
  list->setMovement(QListView::Static);
  list->setIconSize(picture);
  list->setGridSize(picture + beside);
  list->setWordWrap(true);
  list->setAccessibleName(name);
  list->setStyleSheet(
      QStringLiteral("QListWidget { background: %1; border: none; } QListWidget::item { padding: 6px; "
                     "border: 1px solid transparent; border-radius: 6px; } QListWidget::item:selected { "
                     "background: %2; border: 1px solid %3; color: %4; }")
          .arg(theme::kLinen.name(), theme::kPlumPale.name(), theme::kPlum.name(), theme::kInk.name()));
  return list;
}

QWidget* make_row(const QString& label, QWidget* field) {
  auto* row = new QWidget;
  auto* layout = new QHBoxLayout(row);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  auto* name = new QLabel(label);
  name->setProperty("role", QStringLiteral("faded"));
  name->setFixedWidth(96);
  name->setWordWrap(true);
  name->setBuddy(field);
  // A list's longest entry does not push the ticket wider than it is: opened, the list shows all of it.
  if (auto* list = qobject_cast<QComboBox*>(field)) {
    list->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    list->setMinimumContentsLength(8);
    QObject::connect(list, &QComboBox::currentTextChanged, list->view(), [list](const QString& words) {
      list->view()->setMinimumWidth(list->view()->sizeHintForColumn(0) + 24);
      if (list->toolTip().isEmpty() || list->property("saysItself").toBool()) {
        list->setProperty("saysItself", true);
        list->setToolTip(words);
      }
    });
  }
  field->setAccessibleName(label);
  layout->addWidget(name);
  layout->addWidget(field, 1);
  return row;
}

QVBoxLayout* add_sheet(QHBoxLayout* row) {
  auto* sheet = new QFrame;
  sheet->setProperty("role", QStringLiteral("ticket"));
  sheet->setFixedWidth(theme::kTicketWidth);
  auto* column = new QVBoxLayout(sheet);
  column->setContentsMargins(18, 14, 16, 16);
  column->setSpacing(7);
  row->addWidget(sheet);
  return column;
}

void clear_layout(QLayout* layout) {
  while (QLayoutItem* item = layout->takeAt(0)) {
    if (QWidget* widget = item->widget()) {
      widget->hide();
      widget->deleteLater();
    }
    delete item;
  }
}

void show_faded(QWidget* widget, bool faded) {
  if (faded == (widget->graphicsEffect() != nullptr)) return;
  auto* effect = faded ? new QGraphicsOpacityEffect(widget) : nullptr;
  if (effect != nullptr) effect->setOpacity(kFadedAway);
  widget->setGraphicsEffect(effect);
}

Lamp lamp_of(Grade grade) { return grade == Grade::Stop ? Lamp::Stop : grade == Grade::Mind ? Lamp::Mind : Lamp::Note; }

QPixmap lamp_picture(Lamp lamp, int size, qreal ratio) {
  QPixmap pixmap(QSize(size, size) * ratio);
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  QPainter p(&pixmap);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::NoPen);
  const qreal s = size;
  switch (lamp) {
    case Lamp::Off:
      p.setPen(QPen(theme::kStone, 1.2));
      p.drawEllipse(QRectF(s * 0.25, s * 0.25, s * 0.5, s * 0.5));
      break;
    case Lamp::Fine:
    case Lamp::Note:
      p.setBrush(lamp == Lamp::Fine ? theme::kFern : theme::kStone);
      p.drawEllipse(QRectF(s * 0.18, s * 0.18, s * 0.64, s * 0.64));
      break;
    case Lamp::Mind:
      p.setBrush(theme::kAmber);
      p.drawPolygon(QPolygonF{{s * 0.5, s * 0.08}, {s * 0.96, s * 0.9}, {s * 0.04, s * 0.9}});
      break;
    case Lamp::Stop:
      p.setBrush(theme::kBrick);
      p.drawPolygon(QPolygonF{{s * 0.5, 0}, {s, s * 0.5}, {s * 0.5, s}, {0, s * 0.5}});
      break;
  }
  return pixmap;
}

NumberCard::NumberCard(const QString& label, QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  layout->addWidget(make_label(label, "faded"));
  row_ = new QHBoxLayout;
  row_->setSpacing(10);
  number_ = make_label({}, "number");
  number_->setWordWrap(false);
  beside_ = make_label({}, "faded");
  opener_ = new QToolButton;
  opener_->setText(tr("how?"));
  opener_->setCheckable(true);
  opener_->setToolTip(tr("Show the sum behind this number"));
  opener_->setAccessibleName(tr("How %1 comes about").arg(label));
  row_->addWidget(number_);
  row_->addWidget(beside_, 1);
  row_->addWidget(opener_);
  layout->addLayout(row_);
  frame_ = new QFrame;
  frame_->setProperty("role", QStringLiteral("sum"));
  auto* inner = new QVBoxLayout(frame_);
  inner->setContentsMargins(11, 8, 11, 8);
  sum_ = new QLabel;
  sum_->setWordWrap(true);
  sum_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
  sum_->setOpenExternalLinks(true);
  inner->addWidget(sum_);
  frame_->hide();
  layout->addWidget(frame_);
  connect(opener_, &QToolButton::toggled, this, &NumberCard::look);
}

void NumberCard::set_open(bool open) { opener_->setChecked(open); }

void NumberCard::show_number(const QString& number, const QString& beside, SumWork sum) {
  // Bits by name are words, not a figure: smaller, and in lines that fit.
  const bool words = number.size() > 12;
  if (number_->wordWrap() != words) {
    number_->setWordWrap(words);
    number_->setProperty("role", QLatin1String(words ? "heading" : "number"));
    number_->style()->unpolish(number_);
    number_->style()->polish(number_);
    row_->setStretchFactor(number_, words ? 2 : 0);
  }
  number_->setText(number);
  beside_->setText(beside);
  asked_ = std::move(sum);
  opener_->setVisible(asked_ != nullptr);
  look();
}

void NumberCard::show_number(const QString& number, const QString& beside, std::function<Sum()> sum) {
  show_number(number, beside,
              SumWork([sum = std::move(sum)](const Cancel&, const std::function<void(Sum)>& tell) { tell(sum()); }));
}

void NumberCard::show_number(const QString& number, const QString& beside, const Sum& sum) {
  show_number(number, beside, SumWork());
  if (sum.result.empty()) return;
  asked_ = [sum](const Cancel&, const std::function<void(Sum)>& tell) { tell(sum); };
  opener_->show();
  if (opener_->isChecked()) show_sum(sum);
}

void NumberCard::look() {
  behind_.stop();
  waiting_ = opener_->isChecked() && asked_;
  if (!waiting_) return frame_->hide();
  behind_.start(
      [this, work = asked_](const Cancel& cancel, const Behind::Tell& tell) {
        work(cancel, [&](Sum sum) { tell([this, sum = std::move(sum)] { show_sum(sum); }); });
      },
      [this](bool well) {
        if (!well) show_sum({});
      });
}

void NumberCard::show_sum(const Sum& sum) {
  waiting_ = false;
  QString text = QStringLiteral("<b>%1</b>").arg(QString::fromStdString(sum.title).toHtmlEscaped());
  for (const std::string& line : sum.lines)
    text += QStringLiteral("<br>") + QString::fromStdString(line).toHtmlEscaped();
  text += QStringLiteral("<br><b>%1</b>").arg(QString::fromStdString(sum.result).toHtmlEscaped());
  if (!sum.page.empty())
    text += QStringLiteral("<br><a href=\"%1\">%2</a>")
                .arg(guide_link(QString::fromStdString(sum.page)), tr("Why, and when it matters"));
  sum_->setText(text);
  frame_->setVisible(!sum.result.empty());
}

QString VerdictCard::grade_name(Grade grade) {
  switch (grade) {
    case Grade::Note:
      return tr("Note");
    case Grade::Mind:
      return tr("Warning");
    case Grade::Stop:
      return tr("Stop");
  }
  return {};
}

QPushButton* make_remedy_button(const QString& words) {
  // The narrowest ticket, less its margins, the scroll bar, a card's mark and the button's own edge.
  constexpr int kRoom = theme::kTicketWidth - 18 - 16 - 9 - 26 - 22;
  auto* button = new QPushButton;
  button->setProperty("role", QStringLiteral("remedy"));
  const QFontMetrics metrics(theme::font(QApplication::font().pointSizeF(), true));
  QString line, all;
  for (const QString& word : words.split(QLatin1Char(' '))) {
    const QString longer = line.isEmpty() ? word : line + QLatin1Char(' ') + word;
    if (!line.isEmpty() && metrics.horizontalAdvance(longer) > kRoom) {
      all += line + QLatin1Char('\n');
      line = word;
    } else {
      line = longer;
    }
  }
  button->setText(all + line);
  return button;
}

VerdictCard::VerdictCard(const Verdict& verdict, bool can_accept, QWidget* parent)
    : QWidget(parent), verdict_(verdict) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 2, 0, 6);
  layout->setSpacing(8);
  auto* lamp = new QLabel;
  lamp->setPixmap(lamp_picture(lamp_of(verdict.grade), 15, devicePixelRatioF()));
  lamp->setFixedWidth(18);
  lamp->setAlignment(Qt::AlignTop);
  layout->addWidget(lamp, 0, Qt::AlignTop);
  auto* column = new QVBoxLayout;
  column->setSpacing(3);
  auto* text = make_label(grade_name(verdict.grade) + QStringLiteral(": ") + QString::fromStdString(verdict.text),
                          verdict.grade == Grade::Note ? "plain" : "heading");
  column->addWidget(text);
  if (!verdict.why.empty()) column->addWidget(make_label(QString::fromStdString(verdict.why), "faded"));
  add_buttons(column, can_accept);
  layout->addLayout(column, 1);
  setCursor(Qt::PointingHandCursor);
  setToolTip(tr("Show it on the board"));
}

void VerdictCard::add_buttons(QVBoxLayout* column, bool can_accept) {
  const bool acceptable = can_accept && verdict_.grade != Grade::Note && !verdict_.accepted;
  const bool accepted = can_accept && verdict_.accepted;
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  int which = 0;
  for (const Remedy& remedy : verdict_.remedies) {
    const QString label = QString::fromStdString(remedy.label);
    QPushButton* button = make_remedy_button(label);
    connect(button, &QPushButton::clicked, this, [this, label, which] { Q_EMIT remedy_taken(label, which); });
    flow->addWidget(button);
    ++which;
  }
  const auto say_of_it = [&](const QString& words, const char* name, void (VerdictCard::*wanted)()) {
    auto* button = new QToolButton;
    button->setText(words);
    button->setObjectName(QLatin1String(name));
    connect(button, &QToolButton::clicked, this, wanted);
    flow->addWidget(button);
    return button;
  };
  if (acceptable)
    say_of_it(tr("Accept…"), "acceptVerdict", &VerdictCard::accept_wanted)
        ->setToolTip(tr("It is right so here: the job keeps your reason, the run sheet says it"));
  if (accepted) say_of_it(tr("Take that back"), "takeBack", &VerdictCard::take_back_wanted);
  auto* why = new QToolButton;
  why->setText(tr("why?"));
  why->setObjectName(QStringLiteral("whyVerdict"));
  why->setToolTip(tr("A page of the guide: what it is about, and when it matters"));
  connect(why, &QToolButton::clicked, this,
          [page = why_page(verdict_.code)] { QDesktopServices::openUrl(QUrl(guide_link(page))); });
  flow->addWidget(why);
  column->addWidget(holder);
}

void VerdictCard::mousePressEvent(QMouseEvent*) {
  Q_EMIT go_to(QString::fromStdString(verdict_.piece), verdict_.at.x, verdict_.at.y);
}

}  // namespace doyen
