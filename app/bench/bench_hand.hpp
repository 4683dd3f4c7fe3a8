// Ways of working on the bench that come before choosing and moving pieces. Each says by itself when it is there, takes
// the mouse and keys that belong to it, and tells the bench how the job shall change.
#pragma once

#include <QMouseEvent>
#include <QPainter>

#include "artwork/points.hpp"
#include "bench/bench.hpp"

namespace doyen {

namespace bench_detail {
inline constexpr int kRuler = 22;   // px
inline constexpr double kGrip = 8;  // px, how near a handle counts
QPointF handle_point(const QRectF& r, int i);
}  // namespace bench_detail

class BenchHand {
 public:
  explicit BenchHand(Bench& bench) : bench_(bench) {}
  virtual ~BenchHand() = default;
  BenchHand(const BenchHand&) = delete;
  BenchHand& operator=(const BenchHand&) = delete;

  virtual void paint(QPainter& p) = 0;
  // True when the press was its own: moves and the release then come here, too.
  virtual bool press(QPointF at) = 0;
  virtual void drag(QPointF at) = 0;
  virtual void release(QPointF at) = 0;
  virtual bool double_click(QPointF) { return false; }
  virtual bool key(int) { return false; }
  virtual bool hovers(QPointF) const { return false; }  // the mouse would take hold of something here
  virtual void job_changed() {}                         // the job, the selection or the stage

 protected:
  [[nodiscard]] const Item* item() const { return bench_.job().find(bench_.selected().toStdString()); }
  [[nodiscard]] bool near(QPointF px, Point board) const;
  // One drag is one step of undo.
  void begin_drag() { ++drags_; }
  void edit(const QString& name, const std::function<void(Job&)>& change) const;
  void edit_piece(const QString& name, const std::function<void(Piece&)>& change) const;

  Bench& bench_;

 private:
  static inline int drags_ = 0;
};

// The points of a drawing's outlines.
class PointHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void set_active(bool active);
  [[nodiscard]] bool active() const { return active_; }
  [[nodiscard]] const std::vector<BoardPoint>& points() const { return points_; }
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool double_click(QPointF at) override;
  bool key(int key) override;
  bool hovers(QPointF at) const override;
  void job_changed() override;

 private:
  [[nodiscard]] const BoardPoint* chosen() const;
  bool active_ = false;
  std::vector<BoardPoint> points_;
  std::optional<PointPlace> chosen_;
  PointPart part_ = PointPart::Itself;
};

// A length between two points of a piece, to say what it really is.
class MeasureHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void set_active(bool active);
  [[nodiscard]] bool active() const { return active_; }
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF at) override;
  bool hovers(QPointF) const override { return active_; }
  bool key(int key) override;

 private:
  [[nodiscard]] Point caught(QPointF at) const;
  bool active_ = false, drawn_ = false;
  Point from_, to_;
};

// The bridges of a linked word.
class BridgeHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;
  void job_changed() override;
  [[nodiscard]] const std::vector<Derived::Bridge>& bridges() const { return bridges_; }

 private:
  struct Grip {
    std::size_t bridge = 0;
    int end = 0;  // 0 from, 1 to, 2 all of it
  };
  [[nodiscard]] std::optional<Grip> grip_at(QPointF at) const;
  std::vector<Derived::Bridge> bridges_;
  Grip held_;
  Point last_;
};

// Pulls straight words up into an arch or down into a bowl.
class ArcHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;
  [[nodiscard]] std::optional<QPointF> grip() const;

 private:
  QPointF pressed_;
  double rise_ = 0, half_ = 0;  // mm: of the arc over the words' half width
  std::string piece_;
};

// Clamps, screws and the wood's faults, while the blank is worked on.
class KeepOutHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter&) override {}
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;

 private:
  [[nodiscard]] std::optional<std::size_t> at(QPointF px) const;
  std::size_t held_ = 0;
  Point last_;
};

}  // namespace doyen
