#include "stages/proof/boards_view.hpp"

#include <QPushButton>
#include <QScrollArea>

#include "files/outputs.hpp"
#include "job/off_cuts.hpp"
#include "parts/cards.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "work/planner.hpp"

namespace doyen {
QString BoardsView::name_of(const FurtherBoard& board) {
  using Kind = FurtherBoard::Kind;
  const Species* s = species_table().find(board.job.blank.species);
  const QString wood = QString::fromStdString(s == nullptr ? board.job.blank.species : s->name);
  switch (board.kind) {
    case Kind::Sheet:
      return tr("Sheet %1").arg(QString::fromStdString(board.folder.substr(board.folder.rfind('-') + 1)));
    case Kind::Strip:
    case Kind::Panel:
    case Kind::Parts:
      return QString::fromStdString(board.title);
    case Kind::Levelling:
      return tr("The board again, milled level");
    case Kind::Inserts:
      return tr("Inserts of %1").arg(wood);
    case Kind::Plugs:
      break;
  }
  return tr("Plugs of %1").arg(wood);
}

BoardsView::BoardsView(const Job& job, const Rack& rack, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("boards"));
  pool_.setMaxThreadCount(1);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(22, 18, 22, 18);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->addWidget(make_label(tr("Further boards"), "title"));
  left->addWidget(make_label(tr("Each is a job of its own: its files go to a folder beside this board's."), "faded"));
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("boardList"));
  list_->setFixedWidth(230);
  list_->setSpacing(2);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);  // long names end in …, and stand whole beside
  left->addWidget(list_);
  auto* open = new QPushButton(tr("Open it as a job of its own"));
  open->setObjectName(QStringLiteral("openBoard"));
  open->setToolTip(
      tr("To rehearse it, lay it on the bed, or cut it again from where it was stopped. This job stays as it "
         "is."));
  open->setEnabled(false);
  connect(open, &QPushButton::clicked, this, [this] {
    const int row = list_->currentRow();
    if (row >= 0 && row < static_cast<int>(boards_.size()))
      Q_EMIT board_wanted(boards_[static_cast<std::size_t>(row)].board.job);
  });
  connect(list_, &QListWidget::currentRowChanged, open, [open](int row) { open->setEnabled(row >= 0); });
  left->addWidget(open);
  all_ = new QPushButton(tr("All side by side"));
  all_->setObjectName(QStringLiteral("sideBySide"));
  all_->setToolTip(tr("At one scale, with this board as it is drawn; a click takes one"));
  all_->setCheckable(true);
  all_->setEnabled(false);
  connect(all_, &QPushButton::clicked, this, &BoardsView::show_all);
  left->addWidget(all_);
  auto* back = new QPushButton(tr("Back to the board"));
  back->setObjectName(QStringLiteral("boardsBack"));
  connect(back, &QPushButton::clicked, this, &QDialog::reject);
  left->addWidget(back);
  left->addStretch();
  row->addLayout(left);
  picture_ = new QLabel;
  picture_->setObjectName(QStringLiteral("boardPicture"));
  picture_->setAlignment(Qt::AlignCenter);
  picture_->setMinimumSize(300, 200);
  row->addWidget(picture_, 1);
  overview_ = new BoardsOverview;
  overview_->hide();
  row->addWidget(overview_, 1);
  connect(overview_, &BoardsOverview::picked, this, [this](int board) {
    if (board == 0) return;  // this board itself
    all_->setChecked(false);
    show_all(false);
    list_->setCurrentRow(board - 1);
  });
  auto* right = new QWidget;
  auto* seen = new QScrollArea;  // many parts have much to say
  seen->setFrameShape(QFrame::NoFrame);
  seen->setWidgetResizable(true);
  seen->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  seen->setFixedWidth(316);
  seen->setWidget(right);
  auto* column = new QVBoxLayout(right);
  column->setContentsMargins(0, 0, 10, 0);
  title_ = make_label({}, "title");
  about_ = make_label({}, "plain");
  about_->setObjectName(QStringLiteral("boardAbout"));
  column->addWidget(title_);
  column->addWidget(about_);
  facts_ = new QVBoxLayout;
  facts_->setSpacing(6);
  column->addLayout(facts_);
  column->addStretch();
  row->addWidget(seen);
  connect(list_, &QListWidget::currentRowChanged, this, [this] { show_chosen(); });
  own_.board.job = job;
  about_->setText(tr("Working out which boards there are…"));
  ++waiting_;
  pool_.start([this, job, rack, cancel = cancel_] {
    std::vector<FurtherBoard> boards;
    QString problem;
    try {
      const Cancel::Scope stops(cancel);
      boards = further_boards(job, rack);
      if (boards.empty())
        problem =
            tr("There is none: nothing in this job is inlaid, no insert is cut, no list makes plates of it, no seam "
               "parts it and no parts are laid on boards.");
    } catch (const Cancelled&) {
      return;  // the view is closed
    } catch (const std::exception& e) {
      problem = QString::fromUtf8(e.what());
    }
    QMetaObject::invokeMethod(
        this, [this, boards = std::move(boards), problem, rack]() mutable { take(std::move(boards), problem, rack); },
        Qt::QueuedConnection);
  });
}

void BoardsView::take(std::vector<FurtherBoard> boards, const QString& problem, const Rack& rack) {
  --waiting_;
  about_->setText(problem);
  for (FurtherBoard& board : boards) boards_.push_back({std::move(board), nullptr, {}, {}});
  offer_off_cuts();
  for (std::size_t i = 0; i < boards_.size(); ++i) {
    list_->addItem(name_of(boards_[i].board));
    work_out(i, rack);
  }
  if (!boards_.empty()) work_out(boards_.size(), rack);  // itself
  all_->setEnabled(!boards_.empty());
  constexpr int kMostRows = 16;  // then it scrolls
  list_->setFixedHeight(12 + 30 * std::clamp(list_->count(), 2, kMostRows));
  list_->setCurrentRow(0);
}

// Each board another one; a damaged list of them is said under Blank.
void BoardsView::offer_off_cuts() {
  std::vector<Blank> blanks;
  for (const Seen& seen : boards_) blanks.push_back(seen.board.job.blank);
  try {
    const std::vector<std::optional<OffCut>> offered = shared_out(load_off_cuts(), blanks);
    for (std::size_t i = 0; i < boards_.size(); ++i) {
      if (offered[i])
        boards_[i].off_cut = QString::fromStdString(off_cut_in_words(*offered[i], boards_[i].board.job.lengths));
    }
  } catch (const Problem&) {
    return;
  }
}

BoardsView::~BoardsView() {
  cancel_.request();
  pool_.waitForDone();
}

void BoardsView::work_out(std::size_t which, const Rack& rack) {
  ++waiting_;
  pool_.start([this, which, rack, job = seen(which).board.job, cancel = cancel_] {
    std::shared_ptr<const Plan> planned;
    QImage picture;
    QString problem;
    try {
      const Cancel::Scope stops(cancel);
      planned = std::make_shared<const Plan>(plan(job, rack, machine_for(job), &cache_, cancel));
      picture = to_image(board_picture(*planned, 1400, Side::Front, cancel)).copy();
    } catch (const Cancelled&) {
      return;  // the view is closed
    } catch (const std::exception& e) {
      problem = QString::fromUtf8(e.what());
    }
    QMetaObject::invokeMethod(
        this,
        [this, which, planned, picture, problem] {
          --waiting_;
          Seen& it = seen(which);
          it.plan = planned;
          it.picture = picture;
          it.problem = problem;
          show_chosen();
          fill_overview();
        },
        Qt::QueuedConnection);
  });
}

void BoardsView::show_chosen() {
  const int row = list_->currentRow();
  clear_layout(facts_);
  if (row < 0 || row >= static_cast<int>(boards_.size())) return;
  if (all_->isChecked()) return say_all();
  const Seen& seen = boards_[static_cast<std::size_t>(row)];
  const Job& job = seen.board.job;
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, job.lengths)); };
  title_->setText(name_of(seen.board));
  const QString grain = job.blank.grain == Grain::AlongWidth ? tr("left to right") : tr("front to back");
  about_->setText(tr("A board of at least %1 × %2, %3 thick, its grain running %4. Files in the folder %5.")
                      .arg(show(job.blank.width), show(job.blank.height), show(job.blank.thickest()), grain,
                           QString::fromStdString(seen.board.folder)) +
                  (seen.board.kind == FurtherBoard::Kind::Plugs
                       ? QLatin1Char(' ') + tr("The plugs lie mirrored: each is turned over into its pocket.")
                       : QString()) +
                  (seen.off_cut.isEmpty()
                       ? QString()
                       : QLatin1Char('\n') + tr("An off-cut that is kept is large enough: %1.").arg(seen.off_cut)));
  if (!seen.plan) {
    picture_->setPixmap({});
    picture_->setText(seen.problem.isEmpty() ? tr("Carving it…") : seen.problem);
    return;
  }
  const QSize room = picture_->size();
  picture_->setPixmap(QPixmap::fromImage(seen.picture.scaled(room, Qt::KeepAspectRatio, Qt::SmoothTransformation)));
  auto* time = new NumberCard(tr("Time at the machine"));
  time->show_number(QString::fromStdString(format_duration(seen.plan->seconds)), {},
                    [plan = seen.plan] { return time_sum(*plan); });
  facts_->addWidget(time);
  for (const BitRun& run : seen.plan->runs) {
    facts_->addWidget(make_label(tr("%1: %2, %3, deepest %4")
                                     .arg(QString::fromStdString(run.file), QString::fromStdString(run.bit.name),
                                          QString::fromStdString(format_duration(run.time.seconds)), show(run.deepest)),
                                 "faded"));
  }
  for (const Verdict& v : seen.plan->verdicts) {
    if (v.grade == Grade::Note) continue;
    facts_->addWidget(make_label(
        (v.grade == Grade::Stop ? tr("Stop: ") : tr("Warning: ")) + QString::fromStdString(v.text + " " + v.why),
        v.grade == Grade::Stop ? "error" : "plain"));
  }
}

void BoardsView::show_all(bool all) {
  picture_->setVisible(!all);
  overview_->setVisible(all);
  fill_overview();
  show_chosen();
}

// What they come to together.
void BoardsView::say_all() {
  double seconds = 0;
  bool known = true;
  for (const Seen& seen : boards_) {
    known = known && seen.plan;
    if (seen.plan) seconds += seen.plan->seconds;
  }
  title_->setText(tr("All side by side"));
  about_->setText(known ? tr("Boards: %1. At the machine they take %2 together.")
                              .arg(boards_.size())
                              .arg(QString::fromStdString(format_duration(seconds)))
                        : tr("Boards: %1. They are still being carved…").arg(boards_.size()));
}

void BoardsView::fill_overview() {
  if (!all_->isChecked()) return;
  std::vector<BoardsOverview::Board> all;
  const auto add = [&](const Seen& seen, const QString& title) {
    all.push_back({title, seen.board.job.blank.width, seen.board.job.blank.height, seen.picture});
  };
  add(own_, own_.board.job.made_as_others() ? tr("As it is drawn") : tr("This board"));
  for (const Seen& seen : boards_) add(seen, name_of(seen.board));
  overview_->show_boards(std::move(all));
}

void BoardsView::resizeEvent(QResizeEvent* event) {
  QDialog::resizeEvent(event);
  show_chosen();
}

}  // namespace doyen
