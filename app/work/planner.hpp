// Plans and pictures off the interface thread: the newest request wins, older ones are cancelled.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>
#include <atomic>
#include <memory>
#include <mutex>
#include <vector>

#include "planning/expected.hpp"
#include "planning/judged.hpp"
#include "planning/plan.hpp"
#include "planning/relief_keeper.hpp"
#include "relief/picture.hpp"

namespace doyen {

using PlanPtr = std::shared_ptr<const Plan>;
using JudgementPtr = std::shared_ptr<const Judgement>;
using SetJobPtr = std::shared_ptr<const SetJob>;

class Planner : public QObject {
  Q_OBJECT
 public:
  explicit Planner(QObject* parent = nullptr);
  ~Planner() override;
  void request(const Job& job, const Rack& rack);
  void cancel();
  [[nodiscard]] bool busy() const { return busy_; }
  [[nodiscard]] bool judging() const { return judging_; }  // the plan stands, its files are still being looked at

 Q_SIGNALS:
  // Where the plan takes a while: what is going to be cut, before it is.
  void set_out(doyen::SetJobPtr set);
  // The plan without remedies: those are tried first.
  void planned(doyen::PlanPtr plan);
  // The same plan again, with what the judge says of its files (null where none can be written), and with the remedies
  // that were tried and do mend.
  void judged(doyen::PlanPtr plan, doyen::JudgementPtr judgement);
  // Planning ended with something nobody foresaw: said, not swallowed.
  void failed(const QString& what);
  void progressed(int done, int of);
  // How many easings of a plug's corners have been tried so far; 0: no more are.
  void easings_tried(int tried);
  void busy_changed(bool busy);

 private:
  void set_busy(bool busy);
  void give_up(quint64 mine, const QString& what);
  QThreadPool pool_;
  Cancel current_;
  quint64 generation_ = 0;
  bool busy_ = false, judging_ = false;
  // What was planned and judged before, in whichever window.
  struct Memory {
    PlanCache plans;
    std::mutex judge_lock;
    JudgeMemory judged;  // under that lock
  };
  static const std::shared_ptr<Memory>& memory();
};

// Where the section is cut: along the board at a distance from the front, or across it at a distance from the left.
struct SectionLine {
  bool along = true;
  double at = 0;  // mm
  // The other way, through the middle of the board; and moved along, no farther than the board goes.
  [[nodiscard]] SectionLine turned(const Blank& blank) const {
    return {!along, (along ? blank.width : blank.height) / 2};
  }
  [[nodiscard]] SectionLine moved(double by, const Blank& blank) const {
    return {along, std::clamp(at + by, 0.0, along ? blank.height : blank.width)};
  }
  friend bool operator==(const SectionLine&, const SectionLine&) = default;
};

struct BoardView {
  Box area;              // what the bench shows, in the coordinates of that side
  double per_pixel = 1;  // mm a device pixel
  Side side = Side::Front;
  [[nodiscard]] bool same_as(const BoardView& other) const;
};

// The carved picture of what the bench shows, coarse first, then fine; and the section's profile.
class ReliefPainter : public QObject {
  Q_OBJECT
 public:
  explicit ReliefPainter(QObject* parent = nullptr);
  ~ReliefPainter() override;
  void request(const PlanPtr& plan, const BoardView& view);
  // The board as its job wants it, until there is a plan: coarse, and sharp where planning takes long. Neither counts
  // as fine.
  void request_expected(const SetJobPtr& set, const BoardView& view);
  // Along the line from here to there, mm from the board's left or front edge.
  void request_section(const PlanPtr& plan, const SectionLine& line, double from, double to, int samples);
  // For tests that look at no picture: the coarse one is the last, in every window of the program.
  static void stay_coarse(bool coarse) { stays_coarse_ = coarse; }

 Q_SIGNALS:
  void painted(const QImage& image, const doyen::Box& area, bool fine);
  // Below the face, and above the underside what is cut from the back (empty when nothing is); mm.
  // `machined`: the front's heights before its edges are rounded over by hand.
  void section_cut(const std::vector<float>& heights, const std::vector<float>& back,
                   const std::vector<float>& machined);

 private:
  QThreadPool pool_, section_pool_;
  Cancel current_, section_current_;
  quint64 generation_ = 0, section_generation_ = 0;
  static inline std::atomic<bool> stays_coarse_ = false;
  SetJobPtr sharp_;       // of which a sharp picture is shown,
  BoardView sharp_view_;  // seen so
  // The one thread of pool_ alone works with these.
  PictureKeeper coarse_, fine_;
  ExpectedPicture expected_coarse_, expected_sharp_;
};

QImage to_image(const Picture& picture);

}  // namespace doyen

Q_DECLARE_METATYPE(doyen::PlanPtr)
Q_DECLARE_METATYPE(doyen::JudgementPtr)
Q_DECLARE_METATYPE(doyen::SetJobPtr)
