#include "shell/lesson.hpp"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "parts/cards.hpp"
#include "parts/theme.hpp"

namespace doyen {
namespace {

template <typename What>
std::size_t count_of(const Job& job) {
  return static_cast<std::size_t>(std::count_if(job.items.begin(), job.items.end(), [](const Item& item) {
    return std::holds_alternative<What>(item.piece.what);
  }));
}

bool any_cut(const Job& job, Treatment::Kind kind) {
  return std::any_of(job.items.begin(), job.items.end(), [&](const Item& item) { return item.cut.kind == kind; });
}

// Words of one's own, not those that a new lettering begins with.
bool lettered(const LessonSeen& now, const LessonSeen& then) {
  return std::any_of(now.job.items.begin(), now.job.items.end(), [&](const Item& item) {
    const auto* words = std::get_if<Lettering>(&item.piece.what);
    if (words == nullptr) return false;
    const Item* was = then.job.find(item.piece.id);
    const auto* before = was == nullptr ? nullptr : std::get_if<Lettering>(&was->piece.what);
    return before != nullptr ? before->words != words->words
                             : words->words != QCoreApplication::translate("MainWindow", "Your words").toStdString();
  });
}

bool moved(const LessonSeen& now, const LessonSeen& then) {
  return std::any_of(now.job.items.begin(), now.job.items.end(), [&](const Item& item) {
    const Item* was = then.job.find(item.piece.id);
    return was != nullptr && distance(was->piece.at, item.piece.at) > 0.01;
  });
}

// A ring round a widget, over the whole window; the mouse goes through it.
class LessonRing : public QWidget {
 public:
  LessonRing(QWidget* window, QWidget* round) : QWidget(window) {
    setObjectName(QStringLiteral("lessonRing"));
    setAttribute(Qt::WA_TransparentForMouseEvents);
    constexpr int kBeside = 6;  // px
    const QRect inside(round->mapTo(window, QPoint(0, 0)), round->size());
    setGeometry(inside.adjusted(-kBeside, -kBeside, kBeside, kBeside));
    raise();
    show();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setBrush(Qt::NoBrush);
    const QRectF frame = QRectF(rect()).adjusted(2, 2, -2, -2);
    p.setPen(QPen(QColor(255, 255, 255, 200), 4));
    p.drawRoundedRect(frame, 8, 8);
    p.setPen(QPen(theme::kPlum, 2.5));
    p.drawRoundedRect(frame, 8, 8);
  }
};

}  // namespace

QList<LessonStep> first_sign_steps() {
  using Seen = LessonSeen;
  const auto tr = [](const char* words) { return QCoreApplication::translate("LessonBar", words); };
  return {
      {tr("Measure the board's thickness in three places. Type what you read into “Thickness readings”, with ; between "
          "them, and press Enter."),
       tr("Through cuts go by the thickest place, so that they come through everywhere; what must stay goes by the "
          "thinnest."),
       Stage::Blank, QStringLiteral("readings"),
       [](const Seen& now, const Seen& then) { return now.job.blank.readings != then.job.blank.readings; }},
      {tr("Press “+ Lettering” and type the words of your sign."),
       tr("What you type is carved on the board at once, as it will look."), Stage::Artwork,
       QStringLiteral("addLettering"), lettered},
      {tr("Take hold of the words on the board and drag them where you want them."),
       tr("They snap to the margins, to the board's middle and to other pieces. With Alt held they do not."),
       Stage::Artwork, QStringLiteral("bench"), moved},
      {tr("Press “+ Shape” and choose the rectangle: it will be the sign's edge."),
       tr("What you add is not cut until you say how it shall look."), Stage::Artwork, QStringLiteral("addShape"),
       [](const Seen& now, const Seen& then) {
         return count_of<PlainShape>(now.job) > count_of<PlainShape>(then.job);
       }},
      {tr("Choose the rectangle on the board and press “cut out”."),
       tr("The bit goes round outside of the line. Four tabs hold the sign in the board until you part them."),
       Stage::Cuts, QStringLiteral("look-cutout"),
       [](const Seen& now, const Seen&) { return any_cut(now.job, Treatment::Kind::CutOut); }},
      {tr("Drag the dashed line on the board across a letter, and look at the section below."),
       tr("A V goes as deep as its flanks touch both sides of the stroke: wide strokes go deep. Nobody types that "
          "depth."),
       Stage::Cuts, QStringLiteral("bench"),
       [](const Seen& now, const Seen& then) {
         return now.section.along != then.section.along || std::abs(now.section.at - then.section.at) > 1;
       }},
      {tr("See what Doyen has found. What stops the work must be mended, a warning looked at; each has its remedies."),
       tr("The files were read back and carved in the computer: what is said here is about the wood, not about the "
          "plan."),
       Stage::Proof,
       {},
       [](const Seen& now, const Seen&) {
         return now.stage == Stage::Proof && now.judged != nullptr && !now.judged->has_stop();
       }},
      {tr("Choose your machine, and where zero is taken. Then press “Go on”."),
       tr("Every file counts from the same zero. Set it once, and only z again after each change of bits."),
       Stage::Run,
       QStringLiteral("machine"),
       {}},
      {tr("Press “Write the files…” and choose an empty folder."),
       tr("There will be one file for each bit, and a run sheet to print and take to the machine."), Stage::Run,
       QStringLiteral("write"), [](const Seen& now, const Seen& then) { return now.written > then.written; }},
      {tr("That is a sign. Cut it in scrap first: the run sheet says how, with its cautions."),
       tr("A new one begins with Ctrl+N. F1 opens the guide, and “why?” beside a verdict says what is behind it."),
       Stage::Run,
       {},
       {}}};
}

LessonBar::LessonBar(QWidget* parent) : QFrame(parent), steps_(first_sign_steps()) {
  setObjectName(QStringLiteral("lesson"));
  setProperty("role", QStringLiteral("slip"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 10, 14, 10);
  row->setSpacing(14);
  auto* words = new QVBoxLayout;
  words->setSpacing(2);
  const auto line = [&](const char* role, const char* name) {
    QLabel* label = make_label({}, role);
    label->setObjectName(QLatin1String(name));
    words->addWidget(label);
    return label;
  };
  count_ = line("faded", "lessonCount");
  what_ = line("heading", "lessonWhat");
  why_ = line("faded", "lessonWhy");
  row->addLayout(words, 1);
  const auto button = [&](const QString& text, const char* name, const std::function<void()>& press) {
    auto* made = new QPushButton(text);
    made->setObjectName(QLatin1String(name));
    row->addWidget(made, 0, Qt::AlignBottom);
    connect(made, &QPushButton::clicked, this, press);
    return made;
  };
  show_ = button(tr("Show me where"), "lessonShow", [this] { show_me(); });
  back_ = button(tr("Back"), "lessonBack", [this] { go_to(step_ - 1); });
  on_ = button({}, "lessonOn", [this] { step_ + 1 < steps_.size() ? go_to(step_ + 1) : end(); });
  end_ = button(tr("End the lesson"), "lessonEnd", [this] { end(); });
  hide();
}

LessonBar::~LessonBar() { delete ring_; }

void LessonBar::begin(const LessonSeen& seen) {
  now_ = seen;
  show();
  go_to(0);
}

void LessonBar::end() {
  step_ = -1;
  delete ring_;
  ring_ = nullptr;
  hide();
}

void LessonBar::go_to(int step) {
  step_ = std::clamp(step, 0, static_cast<int>(steps_.size()) - 1);
  then_ = now_;
  passing_ = false;
  delete ring_;
  ring_ = nullptr;
  const LessonStep& now = steps_[step_];
  const bool last = step_ + 1 == steps_.size();
  count_->setText(last ? tr("Your first sign")
                       : tr("Your first sign, step %1 of %2").arg(step_ + 1).arg(steps_.size() - 1));
  what_->setText(now.what);
  why_->setText(now.why);
  show_->setVisible(!now.control.isEmpty());
  back_->setVisible(step_ > 0);
  on_->setText(last ? tr("Well done") : now.done ? tr("Skip this") : tr("Go on"));
  end_->setVisible(!last);
  if (now_.stage != now.stage) Q_EMIT stage_wanted(now.stage);
}

void LessonBar::look_at(const LessonSeen& seen) {
  if (step_ >= 0 && seen.opened != now_.opened) end();  // that job is no lesson
  now_ = seen;
  if (step_ < 0) return;
  const LessonStep& now = steps_[step_];
  if (passing_ || !now.done || !now.done(now_, then_)) return;
  // It is seen that it was that; and whoever did it finishes first.
  passing_ = true;
  what_->setText(QStringLiteral("✓ ") + now.what);
  constexpr int kSeen = 900;  // ms
  QTimer::singleShot(kSeen, this, [this, step = step_] {
    if (passing_ && step_ == step) go_to(step + 1);
  });
}

void LessonBar::show_me() {
  const LessonStep& now = steps_[step_];
  if (now_.stage != now.stage) Q_EMIT stage_wanted(now.stage);
  auto* control = window()->findChild<QWidget*>(now.control);
  if (control == nullptr) return;
  for (QWidget* over = control->parentWidget(); over != nullptr; over = over->parentWidget()) {
    if (auto* area = qobject_cast<QScrollArea*>(over)) area->ensureWidgetVisible(control);
  }
  delete ring_;
  ring_ = nullptr;
  if (!control->isVisible()) return;
  ring_ = new LessonRing(window(), control);
  if (control->focusPolicy() != Qt::NoFocus) control->setFocus();
  constexpr int kShown = 4000;  // ms
  QTimer::singleShot(kShown, ring_, [this, ring = ring_] {
    if (ring_ == ring) ring_ = nullptr;
    ring->deleteLater();
  });
}

}  // namespace doyen
