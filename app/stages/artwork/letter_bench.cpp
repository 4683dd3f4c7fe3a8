#include "stages/artwork/letter_bench.hpp"

#include <QPainter>

#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "relief/groove_field.hpp"
#include "treatments/piece_cuts.hpp"
#include "treatments/suits.hpp"
#include "work/planner.hpp"

namespace doyen {
namespace {

constexpr int kWide = 400, kHigh = 104;  // px of a face's picture

// The words on a strip of the job's own wood.
QImage carved_strip(const Region& region, const Bit& bit, const Blank& blank, const Cancel& cancel) {
  const Box box = bounds(region);
  const double scale = std::max(box.width() / (kWide - 24.0), box.height() / (kHigh - 18.0));
  const Point c = box.centre();
  const Box strip{c.x - scale * kWide / 2, c.y - scale * kHigh / 2, c.x + scale * kWide / 2, c.y + scale * kHigh / 2};
  HeightField field(strip, scale / 2);
  const GrooveShape shape{bit.tan_half(), bit.tip, bit.body_depth()};
  paint_groove(field, plan_groove(region, shape, Threads::One, cancel));
  WoodLook look = wood_look(blank);
  look.board = strip;
  return to_image(lit_picture(field, look, 2, cancel));
}

}  // namespace

LetterBench::LetterBench(const Job& job, const Item& item, const Rack& rack, QWidget* parent)
    : QDialog(parent), job_(job), piece_(item.piece), machine_(machine_for(job)) {
  setWindowTitle(tr("Letter bench"));
  setObjectName(QStringLiteral("letterBenchDialog"));
  const Bit* bit = rack.find(item.cut.bit);
  if (bit == nullptr || bit->kind != BitKind::V) bit = usual_v(rack);
  bit_ = bit != nullptr ? *bit : Bit{};
  feeds_ = bit_.feeds_in(wood_class_of(job.blank));
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  auto* left = new QVBoxLayout;
  left->setContentsMargins(20, 14, 8, 16);
  const Species* species = species_table().find(job.blank.species);
  const auto* l = std::get_if<Lettering>(&piece_.what);
  left->addWidget(make_label(tr("Letter bench"), "title"));
  left->addWidget(
      make_label(tr("Your words at the real size, caps %1, incised with the %2 in %3: fittest first.")
                     .arg(length(l == nullptr ? 0 : l->cap_height), QString::fromStdString(bit_.name),
                          species == nullptr ? tr("this wood") : QString::fromStdString(species->name).toLower()),
                 "faded"));
  cards_ = make_picture_list(tr("Faces"), QSize(kWide, kHigh), QSize(26, 86));
  cards_->setObjectName(QStringLiteral("faces"));
  left->addWidget(cards_, 1);
  more_ = new QPushButton;
  more_->setObjectName(QStringLiteral("moreFaces"));
  more_->hide();
  left->addWidget(more_, 0, Qt::AlignLeft);
  connect(more_, &QPushButton::clicked, this, &LetterBench::judge_more);
  whole->addLayout(left, 1);
  auto* right = add_sheet(whole);
  title_ = make_label({}, "title");
  summary_ = make_label({}, "faded");
  figures_ = make_label({}, "plain");
  figures_->setTextFormat(Qt::RichText);
  smaller_ = make_label({}, "plain");
  open_ = new QPushButton;
  open_->setProperty("role", QStringLiteral("remedy"));
  thicken_ = new QPushButton;
  thicken_->setObjectName(QStringLiteral("thickenFace"));
  thicken_->setProperty("role", QStringLiteral("remedy"));
  take_ = new QPushButton(tr("Take this face"));
  take_->setObjectName(QStringLiteral("takeFace"));
  take_->setProperty("role", QStringLiteral("main"));
  take_->setDefault(true);
  for (QWidget* w : {static_cast<QWidget*>(title_), static_cast<QWidget*>(summary_), static_cast<QWidget*>(make_line()),
                     static_cast<QWidget*>(figures_), static_cast<QWidget*>(make_line()),
                     static_cast<QWidget*>(smaller_), static_cast<QWidget*>(open_), static_cast<QWidget*>(thicken_)})
    right->addWidget(w);
  right->addStretch();
  right->addWidget(take_);
  connect(cards_, &QListWidget::currentRowChanged, this, [this] {
    chosen_by_hand_ = true;
    show_chosen();
  });
  connect(cards_, &QListWidget::itemActivated, this, [this] { take(); });
  connect(take_, &QPushButton::clicked, this, &LetterBench::take);
  connect(open_, &QPushButton::clicked, this, [this] {
    spacing_ = open_->property("spacing").toDouble();
    take();
  });
  connect(thicken_, &QPushButton::clicked, this, [this] {
    thickened_ = thicken_->property("thicken").toDouble();
    take();
  });
  auto* no = new QPushButton(tr("Back, face unchanged"));
  right->addWidget(no);
  connect(no, &QPushButton::clicked, this, &QDialog::reject);
  pool_.setMaxThreadCount(2);
  start();
}

LetterBench::~LetterBench() {
  cancel_.request();
  pool_.clear();
  pool_.waitForDone();
}

QString LetterBench::length(double mm) const { return QString::fromStdString(depth_in_words(mm, job_.lengths)); }

void LetterBench::start() {
  const auto* l = std::get_if<Lettering>(&piece_.what);
  if (l == nullptr) return;
  const std::vector<InstalledFace> all = installed_faces();
  for (const InstalledFace& face : all) {
    if (face.name == l->face) to_judge_.push_back(face);
    symbols_ += face.letters || face.name == l->face ? 0 : 1;
  }
  // Every family in its plain, bold and italic style before any family in all of its weights.
  const auto common = [](const FaceName& f) {
    return f.style == "Regular" || f.style == "Bold" || f.style == "Italic";
  };
  for (const auto& [good, main] : {std::pair{true, true}, {false, true}, {true, false}, {false, false}}) {
    for (const InstalledFace& face : all) {
      if (face.letters && face.carves_well == good && common(face.name) == main && face.name != l->face)
        to_judge_.push_back(face);
    }
  }
  judge_more();
}

void LetterBench::judge_more() {
  constexpr std::size_t kAtOnce = 40;
  for (std::size_t i = 0; i < kAtOnce && !to_judge_.empty(); ++i) {
    judge(to_judge_.front().name, to_judge_.front().carves_well);
    to_judge_.pop_front();
  }
  show_chosen();
}

void LetterBench::judge(const FaceName& face, bool good) {
  ++waiting_;
  pool_.start([this, face, good, piece = piece_, source_job = job_, bit = bit_, feeds = feeds_, machine = machine_,
               cancel = cancel_]() mutable {
    Judged j;
    j.face = face;
    j.good = good;
    try {
      const Cancel::Scope stops(cancel);
      auto& l = std::get<Lettering>(piece.what);
      l.face = face;
      l.kept = {};
      const Outlines outlines = outlines_of(piece, source_job.source());
      j.fit = fitness_of(outlines.region, bit, feeds, machine, cancel);
      if (!outlines.region.empty()) j.picture = carved_strip(outlines.region, bit, source_job.blank, cancel);
      const double gap = least_gap(wood_class_of(source_job.blank));
      const auto shown = [&](double mm) { return QString::fromStdString(depth_in_words(mm, source_job.lengths)); };
      if (!outlines.missing.empty()) {
        j.grade = 2;
        j.says = LetterBench::tr("has no “%1”").arg(QString::fromStdString(outlines.missing.front()));
      } else if (j.fit.unreached > 0.5) {
        j.grade = 2;
        j.says = LetterBench::tr("strokes of %1 are narrower than the bit's tip").arg(shown(j.fit.thinnest));
      } else if (j.fit.deepest > source_job.blank.thinnest() - source_job.run.least_wood) {
        j.grade = 2;
        j.says = LetterBench::tr("goes too deep for this board");
      } else if (j.fit.gap > 0 && j.fit.gap < gap) {
        j.grade = 1;
        j.says = LetterBench::tr("gaps of %1 may crumble").arg(shown(j.fit.gap));
      } else if (j.fit.thinnest < least_stroke(bit) - 1e-3) {
        j.grade = 1;
        j.says = LetterBench::tr("hairlines of %1 stay shallow").arg(shown(j.fit.thinnest));
      } else if (j.fit.too_wide) {
        j.grade = 1;
        j.says = LetterBench::tr("wide strokes end flat under the bit's body");
      } else {
        j.says = LetterBench::tr("all of it is reached");
      }
    } catch (const Cancelled&) {
      return;
    } catch (const Problem& problem) {
      j.grade = 3;
      j.problem = QString::fromUtf8(problem.what());
    }
    if (cancel.requested()) return;
    QMetaObject::invokeMethod(
        this, [this, j] { add(j); }, Qt::QueuedConnection);
  });
}

void LetterBench::add(const Judged& j) {
  --waiting_;
  if (j.grade > 2 || j.picture.isNull()) {
    cannot_ << QString::fromStdString(j.face.family + " " + j.face.style);
    return show_chosen();
  }
  // Fittest first: by grade, faces that carve well before others, then the sturdier thinnest stroke.
  int at = 0;
  while (at < judged_.size() &&
         (judged_[at].grade < j.grade ||
          (judged_[at].grade == j.grade && judged_[at].good == j.good && judged_[at].fit.thinnest >= j.fit.thinnest) ||
          (judged_[at].grade == j.grade && judged_[at].good && !j.good)))
    ++at;
  judged_.insert(at, j);
  static constexpr const char* kMarks[] = {"●", "▲", "◆"};
  QIcon icon;  // chosen or not, the wood keeps its colour
  for (const QIcon::Mode mode : {QIcon::Normal, QIcon::Selected}) icon.addPixmap(QPixmap::fromImage(j.picture), mode);
  auto* card =
      new QListWidgetItem(icon, tr("%1 %2  ·  deepest %3\nstrokes %4 to %5, gap %6\n%7 %8")
                                    .arg(QString::fromStdString(j.face.family), QString::fromStdString(j.face.style),
                                         length(j.fit.deepest), length(j.fit.thinnest), length(j.fit.widest),
                                         length(j.fit.gap), QString::fromUtf8(kMarks[j.grade]), j.says));
  cards_->insertItem(at, card);
  if (!chosen_by_hand_) {  // until the user chooses, the fittest so far is looked at
    const QSignalBlocker quiet(cards_);
    cards_->setCurrentRow(0);
    cards_->scrollToTop();
  }
  show_chosen();
}

void LetterBench::show_chosen() {
  int fits = 0, care = 0, not_fit = 0;
  for (const Judged& j : judged_) ++(j.grade == 0 ? fits : j.grade == 1 ? care : not_fit);
  summary_->setText(tr("%1 faces fit, %2 carve with care, %3 do not").arg(fits).arg(care).arg(not_fit) +
                    (waiting_ > 0 ? tr("; %1 still to be judged").arg(waiting_) : QString()) +
                    (cannot_.isEmpty() ? QString() : tr("; cannot be set: %1").arg(cannot_.join(tr(", ")))) +
                    (symbols_ == 0   ? QString()
                     : symbols_ == 1 ? tr("; one face of symbols is left out")
                                     : tr("; %1 faces of symbols are left out").arg(symbols_)));
  more_->setVisible(!to_judge_.empty() && waiting_ == 0);
  more_->setText(to_judge_.size() == 1 ? tr("Judge the one that is left")
                                       : tr("Judge the %1 faces that are left").arg(to_judge_.size()));
  const int row = cards_->currentRow();
  take_->setEnabled(row >= 0);
  open_->setVisible(false);
  thicken_->setVisible(false);
  if (row < 0 || row >= judged_.size()) return;
  const Judged& j = judged_[row];
  const Fitness& f = j.fit;
  title_->setText(QString::fromStdString(j.face.family) + QStringLiteral(", ") +
                  QString::fromStdString(j.face.style).toLower());
  const auto line = [](const QString& label, const QString& number, const QString& beside) {
    return QStringLiteral(
               "<p style='margin:0 0 6px 0'><span style='color:#6E675C'>%1</span><br><b "
               "style='font-size:13pt'>%2</b>&nbsp;&nbsp;<span style='color:#6E675C'>%3</span></p>")
        .arg(label, number, beside);
  };
  figures_->setText(line(tr("Thinnest stroke"), length(f.thinnest), {}) +
                    line(tr("Narrowest gap"), length(f.gap), tr("between letters, or inside one")) +
                    line(tr("Deepest groove"), length(f.deepest), tr("of %1 wood").arg(length(job_.blank.thinnest()))) +
                    line(tr("Separate parts"), QString::number(f.parts),
                         f.loose_counters == 0   ? tr("cut through, no middle would fall out")
                         : f.loose_counters == 1 ? tr("cut through, 1 middle would fall out")
                                                 : tr("cut through, %1 middles would fall out").arg(f.loose_counters)) +
                    line(tr("Points"), QString::number(f.points),
                         tr("%1 per cm; expected speed %2")
                             .arg(f.points_per_cm, 0, 'f', 0)
                             .arg(speed_of_asked(f.feed, f.feed_asked, job_.lengths))) +
                    line(tr("Time"), QString::fromStdString(format_duration(f.seconds)), tr("one bit")));
  // What happens when it is made smaller, by the least that matters.
  const double gap = least_gap(wood_class_of(job_.blank));
  const auto* l = std::get_if<Lettering>(&piece_.what);
  const double cap = l == nullptr ? 0 : l->cap_height;
  const double stroke = least_stroke(bit_);
  const QString gaps = f.gap > gap
                           ? tr("If it were smaller: under caps of %1 the gap of %2 falls below %3 and may crumble.")
                                 .arg(length(cap * gap / f.gap), length(f.gap), length(gap))
                           : tr("From caps of %1 up every gap is at least %2 wide.")
                                 .arg(length(f.gap > 0 ? cap * gap / f.gap : cap), length(gap));
  const QString strokes = f.thinnest > stroke
                              ? tr("Under caps of %1 the thinnest stroke falls below %2 and stays shallow.")
                                    .arg(length(cap * stroke / f.thinnest), length(stroke))
                              : tr("From caps of %1 up every stroke is at least %2 wide.")
                                    .arg(length(f.thinnest > 0 ? cap * stroke / f.thinnest : cap), length(stroke));
  smaller_->setText(gaps + QLatin1Char(' ') + strokes);
  // The least that the bit needs, on both sides of every stroke; rounded up to a hundredth.
  const double thin = f.thinnest > 0 ? std::ceil(std::max(0.0, stroke - f.thinnest) / 2 * 100) / 100 : 0;
  if (l != nullptr && thin > 0) {
    thicken_->setText(tr("Take it, thin strokes thickened to %1").arg(length(f.thinnest + 2 * thin)));
    thicken_->setProperty("thicken", l->thicken + thin);
    thicken_->setVisible(true);
  }
  if (l != nullptr && f.gap > 0 && f.gap < gap && f.parts > 1) {
    const double more = l->letter_spacing + std::ceil((gap - f.gap) / cap * 100);
    open_->setText(tr("Take it, gaps opened to %1").arg(length(gap)));
    open_->setProperty("spacing", more);
    open_->setVisible(true);
  }
}

void LetterBench::take() {
  const int row = cards_->currentRow();
  if (row < 0 || row >= judged_.size()) return;
  taken_ = judged_[row].face;
  accept();
}

}  // namespace doyen
