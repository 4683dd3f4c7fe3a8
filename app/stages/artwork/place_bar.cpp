#include "stages/artwork/place_bar.hpp"

#include <QApplication>
#include <QEvent>
#include <QMenu>

#include "bench/hands/all.hpp"
#include "job/layout.hpp"

namespace doyen {

PlaceBar::PlaceBar(Workshop& shop) : QFrame(shop.bench), shop_(shop) {
  setObjectName(QStringLiteral("placeBar"));
  setProperty("role", QStringLiteral("bar"));
  row_ = new QHBoxLayout(this);
  row_->setContentsMargins(8, 3, 5, 3);
  row_->setSpacing(4);
  fields_ = new PlaceFields(shop_, this);
  add(tr("left"), tr("From the left edge"), fields_->left);
  add(tr("front"), tr("From the front edge"), fields_->front);
  add(tr("wide"), tr("Width over all"), fields_->wide);
  add(tr("high"), tr("Height over all"), fields_->high);
  add(tr("turned"), tr("Turned by, in degrees; to the left is more"), fields_->turn);
  centre_ = new QPushButton(tr("Centre"));
  auto* menu = new QMenu(centre_);
  const auto centre = [this](bool across, bool back) {
    const doyen::Box box = shop_.bench->chosen_box();
    const Blank& blank = shop_.document.job().blank;
    const Point by{across ? blank.width / 2 - box.centre().x : 0, back ? blank.height / 2 - box.centre().y : 0};
    shop_.document.edit(tr("centre it"), [&](Job& job) { shift_chosen(job, shop_.chosen_ids(), by); });
  };
  connect(menu->addAction(tr("Between left and right")), &QAction::triggered, this, [centre] { centre(true, false); });
  connect(menu->addAction(tr("Between front and back")), &QAction::triggered, this, [centre] { centre(false, true); });
  connect(menu->addAction(tr("In the middle of the board")), &QAction::triggered, this,
          [centre] { centre(true, true); });
  centre_->setMenu(menu);
  row_->addWidget(centre_);
  hide();
  shop_.bench->installEventFilter(this);
}

void PlaceBar::add(const QString& word, const QString& says, QLineEdit* field) {
  auto* label = make_label(word, "faded");
  label->setWordWrap(false);
  label->setBuddy(field);
  field->setAccessibleName(says);
  field->setToolTip(says);
  row_->addWidget(label);
  row_->addWidget(field);
  if (field == fields_->wide || field == fields_->high) sizes_ << label << field;
}

void PlaceBar::refresh() {
  const Item* item = shop_.item();
  Bench& bench = *shop_.bench;
  wanted_ = item != nullptr && bench.stage() == Stage::Artwork && !bench.chosen_box().empty() &&
            !bench.points().active() && !bench.measure().active() && !bench.draw().active();
  if (wanted_) {
    fields_->show(*item);
    for (QWidget* widget : sizes_) widget->setVisible(fields_->sized_as_a_whole(*item));
    for (QLineEdit* field : findChildren<QLineEdit*>())  // what stands in it, and room to type
      field->setFixedWidth(std::max(56, field->fontMetrics().horizontalAdvance(field->text()) + 20));
    layout()->activate();
    resize(sizeHint());
  }
  find_place();
}

void PlaceBar::leave() {
  wanted_ = false;
  hide();
}

void PlaceBar::find_place() {
  Bench& bench = *shop_.bench;
  const QRectF frame = bench.selection_rect();
  // A bench that shows another stage has no place for it.
  const bool here = wanted_ && bench.stage() == Stage::Artwork && shop_.item() != nullptr;
  // Who types in it does not lose it, whatever is worked out anew meanwhile.
  const bool typing = here && isVisible() && isAncestorOf(QApplication::focusWidget());
  const bool shown = typing || (here && !dragging_ && frame.intersects(bench.rect()));
  setVisible(shown);
  if (!shown) return;
  const Blank& blank = bench.job().blank;
  const double top = bench.to_screen({0, blank.height}).y(), bottom = bench.to_screen({0, 0}).y();
  const QRectF all(bench_detail::kRuler + 4, bench_detail::kRuler + 4, bench.width() - bench_detail::kRuler - 8,
                   bench.height() - bench_detail::kRuler - 8);
  const double x =
      std::clamp(frame.center().x() - width() / 2.0, all.left(), std::max(all.left(), all.right() - width()));
  // Off the board first, above it or below; else above the frame's handles, or below the frame.
  const double off_board[] = {top - height() - 10, bottom + 28},
               at_frame[] = {frame.top() - height() - 56, frame.bottom() + 14};
  double y = all.bottom() - height();
  for (const double tried : {off_board[0], off_board[1], at_frame[1], at_frame[0]}) {
    if (tried < all.top() || tried + height() > all.bottom()) continue;
    y = tried;
    break;
  }
  move(static_cast<int>(x), static_cast<int>(y));
}

bool PlaceBar::eventFilter(QObject*, QEvent* event) {
  switch (event->type()) {
    case QEvent::MouseButtonPress:
      dragging_ = true;
      break;
    case QEvent::MouseButtonRelease:
      dragging_ = false;
      QMetaObject::invokeMethod(this, &PlaceBar::refresh, Qt::QueuedConnection);
      return false;
    case QEvent::MouseMove:
      if (!dragging_ || !isVisible()) return false;
      break;  // it is in nobody's way while something is dragged
    case QEvent::Paint:
    case QEvent::Resize:
      QMetaObject::invokeMethod(this, &PlaceBar::find_place, Qt::QueuedConnection);
      return false;
    default:
      return false;
  }
  if (event->type() == QEvent::MouseMove) hide();
  return false;
}

}  // namespace doyen
