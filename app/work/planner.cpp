#include "work/planner.hpp"

#include <QSemaphore>
#include <QThread>
#include <QTimer>
#include <cstring>

#include "inlay/riding.hpp"
#include "planning/board_stops.hpp"
#include "planning/expected.hpp"
#include "planning/finished_look.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"

namespace doyen {

const std::shared_ptr<Planner::Memory>& Planner::memory() {
  static const auto kMemory = std::make_shared<Memory>();
  return kMemory;
}

Planner::Planner(QObject* parent) : QObject(parent) {
  pool_.setMaxThreadCount(2);
  qRegisterMetaType<PlanPtr>("doyen::PlanPtr");
  qRegisterMetaType<JudgementPtr>("doyen::JudgementPtr");
  qRegisterMetaType<SetJobPtr>("doyen::SetJobPtr");
}

Planner::~Planner() {
  current_.request();
  pool_.waitForDone();
}

void Planner::set_busy(bool busy) {
  if (busy_ == busy) return;
  busy_ = busy;
  Q_EMIT busy_changed(busy);
}

void Planner::cancel() {
  current_.request();
  ++generation_;
  judging_ = false;
  set_busy(false);
  Q_EMIT easings_tried(0);
}

namespace {

// The plan with the judge's verdicts and tried remedies.
std::pair<std::shared_ptr<Plan>, JudgementPtr> looked_at(const Plan& whole, const Rack& rack, PlanCache& cache,
                                                         const Cancel& cancel, std::mutex& lock, JudgeMemory& memory,
                                                         const std::function<void(int)>& easings_tried) {
  // While edits follow each other, the next plan matters more than a look at this one.
  constexpr int kPause = 250, kStep = 10;  // ms
  for (int waited = 0; waited < kPause; waited += kStep) {
    cancel.check();
    QThread::msleep(kStep);
  }
  auto plan = std::make_shared<Plan>(whole);
  std::shared_ptr<Judgement> judgement;
  try {
    if (!plan->runs.empty() && !plan->job.made_as_parts()) {  // else each of its boards is, where it is written
      const std::scoped_lock one_at_a_time(lock);
      cancel.check();
      judgement = std::make_shared<Judgement>(
          judge_files(*plan, gcode_files(*plan), glancing_cell(plan->job.blank), cancel, &memory));
      add_judgement(*plan, *judgement);
    }
  } catch (const Problem&) {
    // No file can be written; a verdict says why.
  }
  plan->verdicts = with_tried_remedies(*plan, rack, &cache, cancel);
  // Its remedies come out of mating the halves, and need no other trial.
  for (Verdict& v : riding_inlays(*plan, rack, cancel, easings_tried)) plan->verdicts.push_back(std::move(v));
  for (Verdict& v : board_stops(*plan, rack, &cache, cancel)) plan->verdicts.push_back(std::move(v));
  sort_by_grade(plan->verdicts);
  return {plan, judgement};
}

}  // namespace

void Planner::request(const Job& job, const Rack& rack) {
  current_.request();
  current_ = Cancel();
  const quint64 mine = ++generation_;
  set_busy(true);
  judging_ = true;
  pool_.start([this, job, rack, cancel = current_, memory = memory(), mine] {
    const Cancel::Scope stops(cancel);
    try {
      const Progress progress{[this, mine](int done, int of) {
                                QMetaObject::invokeMethod(
                                    this,
                                    [this, mine, done, of] {
                                      if (mine == generation_) Q_EMIT progressed(done, of);
                                    },
                                    Qt::QueuedConnection);
                              },
                              [this, mine](SetJob set) {
                                QMetaObject::invokeMethod(
                                    this,
                                    [this, mine, set = std::make_shared<const SetJob>(std::move(set))] {
                                      if (mine == generation_) Q_EMIT set_out(set);
                                    },
                                    Qt::QueuedConnection);
                              }};
      const Plan whole = plan(job, rack, machine_for(job), &memory->plans, cancel, progress);
      auto bare = std::make_shared<Plan>(whole);
      for (Verdict& v : bare->verdicts) v.remedies.clear();
      QMetaObject::invokeMethod(
          this,
          [this, mine, result = PlanPtr(std::move(bare))] {
            if (mine != generation_) return;
            set_busy(false);
            Q_EMIT planned(result);
          },
          Qt::QueuedConnection);
      auto [seen, judgement] =
          looked_at(whole, rack, memory->plans, cancel, memory->judge_lock, memory->judged, [this, mine](int tried) {
            QMetaObject::invokeMethod(
                this,
                [this, mine, tried] {
                  if (mine == generation_) Q_EMIT easings_tried(tried);
                },
                Qt::QueuedConnection);
          });
      QMetaObject::invokeMethod(
          this,
          [this, mine, result = PlanPtr(std::move(seen)), judgement = std::move(judgement)] {
            if (mine != generation_) return;
            judging_ = false;
            Q_EMIT easings_tried(0);
            Q_EMIT judged(result, judgement);
          },
          Qt::QueuedConnection);
    } catch (const Cancelled&) {
      // A newer request is on its way.
    } catch (const std::exception& error) {
      give_up(mine, QString::fromUtf8(error.what()));
    }
  });
}

void Planner::give_up(quint64 mine, const QString& what) {
  QMetaObject::invokeMethod(
      this,
      [this, mine, what] {
        if (mine != generation_) return;
        judging_ = false;
        set_busy(false);
        Q_EMIT failed(what);
      },
      Qt::QueuedConnection);
}

QImage to_image(const Picture& picture) {
  QImage image(static_cast<int>(picture.width), static_cast<int>(picture.height), QImage::Format_ARGB32_Premultiplied);
  for (std::size_t y = 0; y < picture.height; ++y) {
    std::memcpy(image.scanLine(static_cast<int>(y)), &picture.pixels[y * picture.width],
                picture.width * sizeof(std::uint32_t));
  }
  return image;
}

ReliefPainter::ReliefPainter(QObject* parent) : QObject(parent) {
  pool_.setMaxThreadCount(1);
  section_pool_.setMaxThreadCount(1);
}

ReliefPainter::~ReliefPainter() {
  current_.request();
  section_current_.request();
  pool_.waitForDone();
  section_pool_.waitForDone();
}

bool BoardView::same_as(const BoardView& other) const {
  return area.left == other.area.left && area.bottom == other.area.bottom && area.right == other.area.right &&
         area.top == other.area.top && per_pixel == other.per_pixel && side == other.side;
}

void ReliefPainter::request(const PlanPtr& plan, const BoardView& view) {
  current_.request();
  current_ = Cancel();
  const quint64 mine = ++generation_;
  // What is sharp already does not go coarse again for a moment.
  const bool sharp = sharp_ && sharp_view_.same_as(view) && sharp_->plan.job == plan->job && !stays_coarse_;
  sharp_.reset();
  pool_.start([this, plan, view, cancel = current_, mine, sharp] {
    const Cancel::Scope stops(cancel);
    const auto seen = std::make_shared<QSemaphore>();
    const auto make = [&](PictureKeeper& keeper, double cell, std::size_t shrink, bool fine) {
      const QImage image = to_image(keeper.bring_up(*plan, view.area, cell, view.side, shrink, cancel));
      const HeightField& field = keeper.field();
      QMetaObject::invokeMethod(
          this,
          [this, mine, image, area = field.box(), fine, seen] {
            if (mine == generation_) Q_EMIT painted(image, area, fine);
            // After what this asked the window to paint is painted.
            QTimer::singleShot(0, this, [seen] { seen->release(); });
          },
          Qt::QueuedConnection);
    };
    try {
      if (!sharp) {
        make(coarse_, view.per_pixel * 3, 1, stays_coarse_);
        if (stays_coarse_) return;
        // The fine one takes every core: it lets the window show the coarse one first.
        constexpr int kPatience = 100;  // ms
        seen->tryAcquire(1, kPatience);
      }
      cancel.check();
      make(fine_, view.per_pixel / 2, 2, true);
    } catch (const Cancelled&) {
      // A newer view is on its way.
    } catch (const std::exception&) {
      // Its plan says what is wrong.
    }
  });
}

void ReliefPainter::request_expected(const SetJobPtr& set, const BoardView& view) {
  current_.request();
  current_ = Cancel();
  const quint64 mine = ++generation_;
  sharp_.reset();
  pool_.start([this, set, view, cancel = current_, mine] {
    const Cancel::Scope stops(cancel);
    const auto show = [&](ExpectedPicture& keeper, double cell, std::size_t shrink, bool sharp) {
      const QImage image = to_image(keeper.bring_up(*set, view.area, cell, view.side, shrink, cancel));
      QMetaObject::invokeMethod(
          this,
          [this, mine, image, area = keeper.field().box(), set, view, sharp] {
            if (mine != generation_) return;
            if (sharp) {
              sharp_ = set;
              sharp_view_ = view;
            }
            Q_EMIT painted(image, area, false);
          },
          Qt::QueuedConnection);
    };
    try {
      show(expected_coarse_, view.per_pixel * 3, 1, false);
      if (stays_coarse_) return;
      // A plan that comes soon brings its own picture.
      constexpr int kSoon = 80, kStep = 10;  // ms
      for (int waited = 0; waited < kSoon; waited += kStep) {
        cancel.check();
        QThread::msleep(kStep);
      }
      show(expected_sharp_, view.per_pixel / 2, 2, true);
    } catch (const Cancelled&) {
      // The plan, or another job, is on its way.
    } catch (const std::exception&) {
      // The plan will say what is wrong.
    }
  });
}

namespace {

struct Section {
  std::vector<float> heights, back, machined;  // as section_cut() tells them
};

Section cut_section(const Plan& plan, const SectionLine& line, double from, double to, int samples,
                    const Cancel& cancel) {
  const Blank& blank = plan.job.blank;
  const double cell = (to - from) / std::max(10, samples);
  const Box strip = line.along ? Box{from, line.at - cell / 2, to, line.at + cell / 2}
                               : Box{line.at - cell / 2, from, line.at + cell / 2, to};
  HeightField field = relief_of(plan, strip, cell, cancel);
  const auto at = [&](std::size_t i) { return line.along ? field.at(i, 0) : field.at(0, i); };
  Section out;
  const std::size_t n = line.along ? field.columns() : field.rows();
  const bool square = blank.form == BlankForm::Rectangle;
  const Region board = square ? Region{} : region_of(blank);
  const auto read = [&](std::vector<float>& into) {
    for (std::size_t i = 0; i < n; ++i) {
      const Point place = line.along ? Point{field.x_of(i), line.at} : Point{line.at, field.y_of(i)};
      const bool wood = square || contains(board, place);  // beside the board's edge the section shows the bed
      into.push_back(wood ? at(i) : -static_cast<float>(blank.thickest()));
    }
  };
  read(out.machined);
  take_off_by_hand(field, plan);
  read(out.heights);
  if (plan.has_back()) {
    const TurnOver turn = plan.job.run.turn;
    const HeightField under = relief_of(plan, turned_over(strip, blank, turn), cell, cancel, Side::Back);
    // Turned over about the edge that the section crosses, the far end comes first.
    const bool reversed = line.along == (turn == TurnOver::LeftEdge);
    for (std::size_t i = 0; i < n; ++i) {
      const std::size_t k = reversed ? n - 1 - i : i;
      out.back.push_back(line.along ? under.at(k, 0) : under.at(0, k));
    }
  }
  return out;
}

}  // namespace

void ReliefPainter::request_section(const PlanPtr& plan, const SectionLine& line, double from, double to, int samples) {
  section_current_.request();
  section_current_ = Cancel();
  const quint64 mine = ++section_generation_;
  section_pool_.start([this, plan, line, from, to, samples, cancel = section_current_, mine] {
    const Cancel::Scope stops(cancel);
    try {
      const Section cut = cut_section(*plan, line, from, to, samples, cancel);
      QMetaObject::invokeMethod(
          this,
          [this, mine, cut] {
            if (mine == section_generation_) Q_EMIT section_cut(cut.heights, cut.back, cut.machined);
          },
          Qt::QueuedConnection);
    } catch (const Cancelled&) {
      // Another section is on its way.
    } catch (const std::exception&) {
      // Its plan says what is wrong.
    }
  });
}

}  // namespace doyen
