#include "stages/proof/tilt_view.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QSaveFile>
#include <QSlider>
#include <cmath>

#include "finish/finish_paint.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "planning/finished_look.hpp"
#include "planning/lost_places.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"
#include "work/planner.hpp"

namespace doyen {
namespace {

constexpr int kRest = 140;       // ms without a move until it is drawn finely
constexpr double kCells = 1300;  // along the board's greater side
constexpr double kATurn = 0.35;  // degrees for each point of the mouse's way
constexpr double kMostTilt = 85, kLeastLight = 8, kMostLight = 88;

constexpr Colour kLostColour{0.85, 0.16, 0.40};

double round_about(double degrees) { return std::remainder(degrees, 360); }

// Bare wood, or a colour; only to look at.
QComboBox* paint_box(const char* name) {
  auto* box = new QComboBox;
  box->setObjectName(QLatin1String(name));
  box->addItem(TiltView::tr("bare wood"), QColor());
  const std::pair<QString, QColor> colours[] = {
      {TiltView::tr("black"), QColor(0x20, 0x20, 0x20)},      {TiltView::tr("white"), QColor(0xF4, 0xF1, 0xE8)},
      {TiltView::tr("gold leaf"), QColor(0xD9, 0xA9, 0x3A)},  {TiltView::tr("cream"), QColor(0xEA, 0xDD, 0xB8)},
      {TiltView::tr("dark green"), QColor(0x23, 0x45, 0x36)}, {TiltView::tr("dark blue"), QColor(0x22, 0x38, 0x5E)},
      {TiltView::tr("oxide red"), QColor(0x8A, 0x2F, 0x25)},  {TiltView::tr("grey"), QColor(0x7C, 0x7E, 0x7C)}};
  for (const auto& [words, colour] : colours) {
    QPixmap dot(14, 14);
    dot.fill(colour);
    box->addItem(QIcon(dot), words, colour);
  }
  return box;
}

}  // namespace

TiltPicture::TiltPicture(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("tilted"));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(300, 200);
  setCursor(Qt::OpenHandCursor);
  setAccessibleName(tr("The carved board, tilted"));
  rest_.setSingleShot(true);
  rest_.setInterval(kRest);
  connect(&rest_, &QTimer::timeout, this, [this] {
    fine_ = true;
    image_ = {};
    update();
  });
}

void TiltPicture::show_board(std::shared_ptr<TiltedBoard> board, const LightPlace& lit_from) {
  board_ = std::move(board);
  if (board_ && !(lit_from == lamp_)) board_->light(lamp_);  // it was moved meanwhile
  look();
}

void TiltPicture::set_stance(const Stance& stance) {
  stance_ = stance;
  stance_.turn = round_about(stance.turn);
  stance_.tilt = std::clamp(stance.tilt, 0.0, kMostTilt);
  stance_.zoom = std::clamp(stance.zoom, 1.0, 8.0);
  look();
}

void TiltPicture::set_lamp(const LightPlace& lamp) {
  lamp_ = {round_about(lamp.from), std::clamp(lamp.height, kLeastLight, kMostLight)};
  if (board_) board_->light(lamp_);
  look();
}

void TiltPicture::look() {
  fine_ = false;
  image_ = {};
  rest_.start();
  update();
}

QImage TiltPicture::drawn(QSize size) const {
  if (!board_) return {};
  const auto wide = static_cast<std::size_t>(2 * size.width()), high = static_cast<std::size_t>(2 * size.height());
  return to_image(board_->seen(stance_, wide, high, theme::kBench.rgb()))
      .scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
}

void TiltPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), theme::kBench);
  if (!board_) {
    p.setPen(theme::kFaded);
    p.drawText(rect(), Qt::AlignCenter, tr("The board is being carved…"));
    return;
  }
  if (image_.isNull()) {
    const QSize points = size() * devicePixelRatioF();
    image_ = fine_ ? drawn(points)
                   : to_image(board_->seen(stance_, static_cast<std::size_t>(points.width()),
                                           static_cast<std::size_t>(points.height()), theme::kBench.rgb()))
                         .copy();
    image_.setDevicePixelRatio(devicePixelRatioF());
  }
  p.drawImage(0, 0, image_);
  if (hasFocus()) {
    p.setPen(QPen(theme::kPlum, 2));
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void TiltPicture::mousePressEvent(QMouseEvent* event) {
  last_ = event->position();
  setCursor(Qt::ClosedHandCursor);
}

void TiltPicture::mouseReleaseEvent(QMouseEvent*) { setCursor(Qt::OpenHandCursor); }

void TiltPicture::mouseMoveEvent(QMouseEvent* event) {
  const QPointF by = event->position() - last_;
  last_ = event->position();
  if (event->buttons().testFlag(Qt::RightButton)) {
    set_lamp({lamp_.from - kATurn * by.x(), lamp_.height - kATurn * by.y()});
  } else if (event->buttons().testFlag(Qt::MiddleButton) || event->modifiers().testFlag(Qt::ShiftModifier)) {
    if (!board_) return;
    const QSize points = size() * devicePixelRatioF();
    const double scale =
        board_->scale(stance_, static_cast<std::size_t>(points.width()), static_cast<std::size_t>(points.height())) /
        devicePixelRatioF();
    const double turn = stance_.turn * M_PI / 180, across = -by.x() / scale,
                 away = by.y() / scale / std::max(0.2, std::cos(stance_.tilt * M_PI / 180));
    Stance to = stance_;
    to.towards = to.towards + Point{across * std::cos(turn) - away * std::sin(turn),
                                    across * std::sin(turn) + away * std::cos(turn)};
    set_stance(to);
  } else if (event->buttons().testFlag(Qt::LeftButton)) {
    Stance to = stance_;
    to.turn -= kATurn * by.x();
    to.tilt -= kATurn * by.y();
    set_stance(to);
  } else {
    return;
  }
  Q_EMIT moved();
}

void TiltPicture::wheelEvent(QWheelEvent* event) {
  Stance to = stance_;
  to.zoom *= std::pow(1.0015, event->angleDelta().y());
  if (to.zoom <= 1) to.towards = {};
  set_stance(to);
  Q_EMIT moved();
  event->accept();
}

void TiltPicture::keyPressEvent(QKeyEvent* event) {
  const bool light = event->modifiers().testFlag(Qt::ShiftModifier);
  const int across = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
  const int up = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
  Stance to = stance_;
  if (across != 0 || up != 0) {
    if (light) {
      set_lamp({lamp_.from - 5 * across, lamp_.height + 3 * up});
    } else {
      to.turn -= 5 * across;
      to.tilt += 3 * up;
      set_stance(to);
    }
  } else if (event->key() == Qt::Key_Plus || event->key() == Qt::Key_Minus) {
    to.zoom *= event->key() == Qt::Key_Plus ? 1.2 : 1 / 1.2;
    if (to.zoom <= 1) to.towards = {};
    set_stance(to);
  } else {
    return QWidget::keyPressEvent(event);
  }
  Q_EMIT moved();
}

void TiltPicture::resizeEvent(QResizeEvent*) { look(); }

TiltView::TiltView(const std::shared_ptr<const Plan>& plan, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("tiltView"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  picture_ = new TiltPicture;
  row->addWidget(picture_, 1);
  auto* column = add_sheet(row);
  column->addWidget(make_label(tr("The board in your hands"), "title"));
  column->addWidget(
      make_label(tr("Drag to turn and tilt it, with the right button to move the light, with Shift to push it about. "
                    "The wheel brings it nearer."),
                 "faded"));
  const auto slider = [&](QSlider*& s, QLabel*& says, const char* name, const QString& label, int least, int most) {
    s = new QSlider(Qt::Horizontal);
    s->setObjectName(QLatin1String(name));
    s->setAccessibleName(label);
    s->setRange(least, most);
    says = make_label({}, "plain");
    auto* line = new QHBoxLayout;
    line->addWidget(make_label(label, "plain"), 1);
    line->addWidget(says);
    column->addLayout(line);
    column->addWidget(s);
    connect(s, &QSlider::valueChanged, this, &TiltView::from_sliders);
  };
  column->addWidget(make_label(tr("The board"), "heading"));
  slider(turn_, turn_says_, "tiltTurn", tr("Turned"), -180, 180);
  slider(tilt_, tilt_says_, "tiltTilt", tr("Tilted"), 0, static_cast<int>(kMostTilt));
  whole_ = new QCheckBox(tr("Without the waste"));
  whole_->setObjectName(QStringLiteral("tiltKept"));
  column->addWidget(whole_);
  side_ = new QComboBox;
  side_->setObjectName(QStringLiteral("tiltSide"));
  side_->addItems({tr("the front"), tr("the back")});
  side_row_ = make_row(tr("Seen from"), side_);
  column->addWidget(side_row_);
  finish_ = new QCheckBox(tr("In the colours of its finish"));
  finish_->setObjectName(QStringLiteral("tiltFinish"));
  finish_->setChecked(true);
  finish_->setToolTip(tr("Paint, resin, plugs and inserts, as Finish and Cuts say"));
  column->addWidget(finish_);
  lost_ = new QCheckBox(tr("Light what no bit reaches"));
  lost_->setObjectName(QStringLiteral("tiltLost"));
  lost_->setToolTip(tr("Corners and narrow places where wood stays that was to go"));
  not_known_ = make_label({}, "faded");
  not_known_->setObjectName(QStringLiteral("tiltNotKnown"));
  not_known_->hide();
  column->addWidget(not_known_);
  face_ = paint_box("tiltFace");
  cuts_ = paint_box("tiltCuts");
  column->addWidget(make_row(tr("Its face"), face_));
  column->addWidget(make_row(tr("What is cut"), cuts_));
  column->addWidget(lost_);
  column->addWidget(make_line());
  column->addWidget(make_label(tr("The light"), "heading"));
  slider(from_, from_says_, "tiltFrom", tr("Comes from"), -180, 180);
  slider(height_, height_says_, "tiltHeight", tr("Stands"), static_cast<int>(kLeastLight),
         static_cast<int>(kMostLight));
  height_->setToolTip(tr("Low light from the side shows shallow cuts, as evening sun does on a wall."));
  column->addStretch();
  saved_ = make_label({}, "plain");
  saved_->setObjectName(QStringLiteral("tiltSaved"));
  column->addWidget(saved_);
  auto* save_it = new QPushButton(tr("Save this picture…"));
  save_it->setObjectName(QStringLiteral("tiltSave"));
  auto* anew = new QPushButton(tr("As it was"));
  anew->setObjectName(QStringLiteral("tiltReset"));
  auto* back = new QPushButton(tr("Back to the board"));
  back->setObjectName(QStringLiteral("tiltBack"));
  for (QPushButton* button : {save_it, anew, back}) column->addWidget(button);
  connect(back, &QPushButton::clicked, this, &QDialog::reject);
  connect(save_it, &QPushButton::clicked, this, &TiltView::save);
  connect(anew, &QPushButton::clicked, this, [this] {
    picture_->set_lamp({});
    picture_->set_stance({});
    show_figures();
  });
  for (QCheckBox* box : {whole_, finish_, lost_}) connect(box, &QCheckBox::clicked, this, &TiltView::carve);
  for (QComboBox* box : {face_, cuts_}) connect(box, &QComboBox::activated, this, &TiltView::carve);
  connect(side_, &QComboBox::activated, this, &TiltView::carve);
  connect(picture_, &TiltPicture::moved, this, &TiltView::show_figures);
  setFocusProxy(picture_);
  show_figures();
  show_plan(plan);
}

void TiltView::show_plan(const std::shared_ptr<const Plan>& plan) {
  if (plan == plan_) return;
  plan_ = plan;
  whole_->setVisible(!plan->finished_shape().empty());
  side_row_->setVisible(plan->has_back());
  finish_->setVisible(is_coloured(plan->job));
  carve();
}

void TiltView::carve() {
  picture_->show_board(nullptr, {});
  const Side side = side_->currentIndex() == 1 && plan_->has_back() ? Side::Back : Side::Front;
  const bool kept_only = whole_->isChecked() && !whole_->isHidden();
  const auto colour = [](const QComboBox* box) {
    const auto chosen = box->currentData().value<QColor>();
    return chosen.isValid() ? std::optional(Colour{chosen.redF(), chosen.greenF(), chosen.blueF()}) : std::nullopt;
  };
  const bool finished = side == Side::Front && finish_->isChecked() && !finish_->isHidden();
  for (QComboBox* box : {face_, cuts_}) box->setEnabled(!finished);
  lost_->setVisible(loses_something(*plan_, side));
  const bool lost = lost_->isChecked() && !lost_->isHidden();
  behind_.start([this, plan = plan_, side, kept_only, finished, lost, face = colour(face_), cuts = colour(cuts_),
                 lamp = picture_->lamp()](const Cancel& cancel, const Behind::Tell& tell) {
    const Box box = plan->job.blank.box();
    WoodLook look = wood_look(plan->job.blank);
    if (kept_only) {
      look.edge = plan->finished_shape();
      if (side == Side::Back) look.edge = turned_over(look.edge, plan->job.blank, plan->job.run.turn);
    }
    const double cell = std::max(box.width(), box.height()) / kCells;
    HeightField field = relief_of(*plan, box, cell, cancel, side);
    FinishPaint paint = finished ? finish_paint(*plan, field) : FinishPaint{face_and_cuts(field, face, cuts), {}};
    if (lost) show_lost(paint.paint, field, *plan, side, kLostColour);
    if (side == Side::Front) take_off_by_hand(field, *plan);
    auto board = std::make_shared<TiltedBoard>(field, look, paint.paint, lamp, cancel);
    tell([this, board, lamp, not_known = paint.not_known] {
      picture_->show_board(board, lamp);
      say_not_known(not_known);
    });
  });
}

void TiltView::say_not_known(const std::vector<std::string>& words) {
  QStringList all;
  for (const std::string& one : words) all << QStringLiteral("“%1”").arg(QString::fromStdString(one));
  not_known_->setText(tr("%1: shown bare, since Doyen knows no such colour. Say it as “dark green” or “#23452f”.")
                          .arg(all.join(QStringLiteral(", "))));
  not_known_->setVisible(!all.isEmpty());
}

void TiltView::from_sliders() {
  if (filling_) return;
  const Stance& now = picture_->stance();
  if (Stance to = now; turn_->value() != std::lround(now.turn) || tilt_->value() != std::lround(now.tilt)) {
    to.turn = turn_->value();
    to.tilt = tilt_->value();
    picture_->set_stance(to);
  }
  const LightPlace& lamp = picture_->lamp();
  if (from_->value() != std::lround(lamp.from) || height_->value() != std::lround(lamp.height))
    picture_->set_lamp({static_cast<double>(from_->value()), static_cast<double>(height_->value())});
  show_figures();
}

void TiltView::show_figures() {
  filling_ = true;
  const Stance& stance = picture_->stance();
  const LightPlace& lamp = picture_->lamp();
  const auto degrees = [](double v) { return std::lround(v); };
  turn_->setValue(static_cast<int>(degrees(stance.turn)));
  tilt_->setValue(static_cast<int>(degrees(stance.tilt)));
  from_->setValue(static_cast<int>(degrees(lamp.from)));
  height_->setValue(static_cast<int>(degrees(lamp.height)));
  const long turned = degrees(stance.turn);
  turn_says_->setText(turned == 0  ? tr("lying straight")
                      : turned > 0 ? tr("%1° to the left").arg(turned)
                                   : tr("%1° to the right").arg(-turned));
  tilt_says_->setText(degrees(stance.tilt) == 0 ? tr("seen from above") : tr("%1°").arg(degrees(stance.tilt)));
  const QString sides[] = {tr("the left"),  tr("left in front"), tr("the front"), tr("right in front"),
                           tr("the right"), tr("right behind"),  tr("behind"),    tr("left behind")};
  from_says_->setText(sides[static_cast<std::size_t>(std::lround((lamp.from + 180) / 45)) % 8]);
  height_says_->setText(tr("%1° high").arg(degrees(lamp.height)));
  picture_->setAccessibleDescription(tr("turned %1°, tilted %2°, the light %3° high")
                                         .arg(degrees(stance.turn))
                                         .arg(degrees(stance.tilt))
                                         .arg(degrees(lamp.height)));
  filling_ = false;
}

void TiltView::save() {
  const QString name = QString::fromStdString(plan_->job.name) + QStringLiteral(".png");
  const QString path = QFileDialog::getSaveFileName(this, tr("Save this picture"), name, tr("Pictures (*.png)"));
  if (path.isEmpty()) return;
  QSaveFile file(path);
  const bool fine =
      file.open(QIODevice::WriteOnly) && picture_->drawn(picture_->size() * 2).save(&file, "PNG") && file.commit();
  saved_->setText(fine ? tr("Saved as %1.").arg(path)
                       : tr("“%1” could not be written: %2").arg(path, file.errorString()));
}

}  // namespace doyen
