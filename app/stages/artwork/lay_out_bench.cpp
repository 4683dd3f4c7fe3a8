#include "stages/artwork/lay_out_bench.hpp"

#include <QScrollArea>
#include <QVBoxLayout>

#include "files/outputs.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "work/planner.hpp"

namespace doyen {
namespace {

constexpr int kBoardWide = 380, kBoardHigh = 200;  // px of a board's picture, at most
constexpr std::size_t kMost = 10;

}  // namespace

LayOutBench::LayOutBench(const Job& job, const Rack& rack, QWidget* parent)
    : QDialog(parent), job_(job), rack_(rack), wish_(usual_wish(job)) {
  setWindowTitle(tr("Lay it out for me"));
  setObjectName(QStringLiteral("layOutBench"));
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  auto* left = new QVBoxLayout;
  left->setContentsMargins(20, 14, 8, 16);
  left->addWidget(make_label(tr("Lay it out for me"), "title"));
  summary_ = make_label({}, "faded");
  left->addWidget(summary_);
  const double shape = job.blank.height / std::max(1.0, job.blank.width);
  const int high = std::min(kBoardHigh, static_cast<int>(kBoardWide * shape) + 1);
  cards_ = make_picture_list(tr("Arrangements"), QSize(kBoardWide, high), QSize(26, 76));
  cards_->setObjectName(QStringLiteral("arrangements"));
  left->addWidget(cards_, 1);
  whole->addLayout(left, 1);
  auto* right = add_sheet(whole);
  right->addWidget(make_label(tr("What is what"), "heading"));
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  auto* holder = new QWidget;
  auto* rows = new QVBoxLayout(holder);
  rows->setContentsMargins(0, 0, 6, 0);
  rows->setSpacing(7);
  list_pieces(rows);
  rows->addStretch();
  scroll->setWidget(holder);
  right->addWidget(scroll, 1);
  right->addWidget(make_line());
  title_ = make_label({}, "heading");
  reasons_ = make_label({}, "plain");
  sum_ = new NumberCard(tr("How it comes about"));
  take_ = new QPushButton(tr("Take this arrangement"));
  take_->setObjectName(QStringLiteral("takeArrangement"));
  take_->setProperty("role", QStringLiteral("main"));
  take_->setDefault(true);
  auto* no = new QPushButton(tr("Back, nothing changed"));
  for (QWidget* w : {static_cast<QWidget*>(title_), static_cast<QWidget*>(reasons_), static_cast<QWidget*>(sum_),
                     static_cast<QWidget*>(take_), static_cast<QWidget*>(no)})
    right->addWidget(w);
  connect(no, &QPushButton::clicked, this, &QDialog::reject);
  connect(take_, &QPushButton::clicked, this, &LayOutBench::take);
  connect(cards_, &QListWidget::itemActivated, this, [this] { take(); });
  connect(cards_, &QListWidget::currentRowChanged, this, [this](int row) {
    chosen_by_hand_ = row >= 0;  // what the bench does itself is not told
    show_chosen();
  });
  again_.setSingleShot(true);
  again_.setInterval(150);
  connect(&again_, &QTimer::timeout, this, &LayOutBench::look_again);
  pool_.setMaxThreadCount(1);
  look_again();
  cards_->setFocus();
}

LayOutBench::~LayOutBench() {
  cancel_.request();
  pool_.clear();
  pool_.waitForDone();
}

void LayOutBench::list_pieces(QLayout* rows) {
  using Role = ArrangeWish::Role;
  for (std::size_t i = 0; i < wish_.parts.size(); ++i) {
    const Item* item = job_.find(wish_.parts[i].id);
    if (item == nullptr || job_.is_source(wish_.parts[i].id)) continue;
    auto* box = new QComboBox;
    const QString name = QString::fromStdString(item->piece.name);
    box->setObjectName(QStringLiteral("role-") + QString::fromStdString(wish_.parts[i].id));
    box->setAccessibleName(name);
    const bool words = std::holds_alternative<Lettering>(item->piece.what);
    const QList<std::pair<Role, QString>> roles =
        words ? QList<std::pair<Role, QString>>{{Role::Main, tr("main line")},
                                                {Role::Second, tr("second line")},
                                                {Role::Small, tr("small line")},
                                                {Role::Stays, tr("stays where it is")}}
              : QList<std::pair<Role, QString>>{{Role::Motif, tr("motif")},
                                                {Role::Border, tr("border")},
                                                {Role::Outline, tr("outline")},
                                                {Role::Stays, tr("stays where it is")}};
    for (const auto& [role, word] : roles) {
      if (may_be(*item, role)) box->addItem(word, static_cast<int>(role));
    }
    box->setCurrentIndex(std::max(0, box->findData(static_cast<int>(wish_.parts[i].role))));
    connect(box, &QComboBox::activated, this, [this, box, i] {
      wish_.parts[i].role = static_cast<Role>(box->currentData().toInt());
      show_what_can_be();
      again_.start();
    });
    rows->addWidget(make_row(name, box));
  }
  const auto tick = [&](const QString& text, const QString& name, bool ArrangeWish::*member) -> QCheckBox* {
    auto* box = new QCheckBox(text);
    box->setObjectName(name);
    box->setChecked(wish_.*member);
    connect(box, &QCheckBox::clicked, this, [this, member](bool on) {
      wish_.*member = on;
      again_.start();
    });
    rows->addWidget(box);
    return box;
  };
  tick(tr("With a border"), QStringLiteral("wishBorder"), &ArrangeWish::border);
  outlines_ = tick(tr("Try outlines that suit"), QStringLiteral("wishOutline"), &ArrangeWish::outline);
  show_what_can_be();
}

void LayOutBench::show_what_can_be() {
  const bool can = may_try_outlines(job_, wish_);
  outlines_->setEnabled(can);
  outlines_->setToolTip(can ? tr("Rounded plate, oval, arch top, shield or strip, cut out of the board")
                            : tr("The board, or what goes round the sign, has a form of its own that stays"));
}

void LayOutBench::look_again() {
  cancel_.request();
  cancel_ = Cancel();
  found_.clear();
  problem_.clear();
  cards_->clear();
  looking_ = true;
  const int round = ++round_;
  show_chosen();
  pool_.start([this, round, job = job_, rack = rack_, wish = wish_, cancel = cancel_] {
    // The bench waits for its threads before it goes: it is there as long as this runs.
    const auto tell = [&](auto work) {
      QMetaObject::invokeMethod(
          this,
          [this, round, work = std::move(work)]() mutable {
            if (round == round_) work();
          },
          Qt::QueuedConnection);
    };
    QString problem;
    try {
      const Cancel::Scope stops(cancel);
      propose(job, rack, wish, kMost, cancel, [&](Arrangement one) {
        const QImage picture = to_image(board_picture(*one.plan, 1.5 * kBoardWide, Side::Front, cancel))
                                   .scaled(kBoardWide, kBoardHigh, Qt::KeepAspectRatio, Qt::SmoothTransformation);
        tell([this, one = std::move(one), picture] { add(one, picture); });
      });
    } catch (const Cancelled&) {
      return;
    } catch (const std::exception& trouble) {
      problem = QString::fromUtf8(trouble.what());
    }
    tell([this, problem] { end(problem); });
  });
}

void LayOutBench::add(Arrangement one, const QImage& picture) {
  QIcon icon;  // chosen or not, the wood keeps its colour
  for (const QIcon::Mode mode : {QIcon::Normal, QIcon::Selected}) icon.addPixmap(QPixmap::fromImage(picture), mode);
  const QString form = QString::fromStdString(one.form), frame = QString::fromStdString(one.frame);
  const QString time = QString::fromStdString(format_duration(one.plan->seconds));
  auto* card = new QListWidgetItem(icon, frame.isEmpty() ? form + QLatin1Char('\n') + time
                                                         : form + QLatin1Char('\n') + tr("%1 · %2").arg(frame, time));
  card->setTextAlignment(Qt::AlignHCenter | Qt::AlignTop);
  // The best first: where nobody has chosen yet, it is the one that is shown.
  const auto place =
      std::find_if(found_.begin(), found_.end(), [&](const Arrangement& other) { return other.merit < one.merit; });
  const auto row = static_cast<int>(place - found_.begin());
  const bool follows = found_.empty() || (cards_->currentRow() == 0 && !chosen_by_hand_);
  found_.insert(place, std::move(one));
  const QSignalBlocker quiet(cards_);
  cards_->insertItem(row, card);
  if (follows) cards_->setCurrentRow(0);
  show_chosen();
}

void LayOutBench::end(const QString& problem) {
  looking_ = false;
  problem_ = problem;
  show_chosen();
}

void LayOutBench::show_chosen() {
  const QString promise = tr("Each fits this board, keeps your margin and can be carved.");
  const auto count = static_cast<int>(found_.size());
  const QString so_many = count == 1 ? tr("One arrangement") : tr("%1 arrangements").arg(count);
  summary_->setText(!problem_.isEmpty()          ? problem_
                    : looking_ && found_.empty() ? tr("Looking for arrangements…")
                    : looking_                   ? tr("%1, more to come. %2").arg(so_many, promise)
                                                 : tr("%1, the best first. %2").arg(so_many, promise));
  const int row = cards_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(found_.size());
  take_->setEnabled(any);
  for (QWidget* w : {static_cast<QWidget*>(title_), static_cast<QWidget*>(reasons_), static_cast<QWidget*>(sum_)})
    w->setVisible(any);
  if (!any) return;
  const Arrangement& one = found_[static_cast<std::size_t>(row)];
  title_->setText(QString::fromStdString(one.form));
  QStringList reasons;
  for (const std::string& reason : one.reasons) reasons << QString::fromStdString(reason);
  reasons_->setText(reasons.join(QLatin1Char('\n')));
  sum_->show_number(QString::fromStdString(one.sum.result), {}, one.sum);
}

void LayOutBench::take() {
  const int row = cards_->currentRow();
  if (row < 0 || row >= static_cast<int>(found_.size())) return;
  taken_ = found_[static_cast<std::size_t>(row)];
  accept();
}

}  // namespace doyen
