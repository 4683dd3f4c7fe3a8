// Ways of working on the bench that come before choosing and moving pieces. Each says by itself when it is there, takes
// the mouse and keys that belong to it, and tells the bench how the job shall change.
#pragma once

#include <QMouseEvent>
#include <QPainter>

#include "artwork/drawing/points.hpp"
#include "bench/bench.hpp"

namespace doyen {

namespace bench_detail {
inline constexpr int kRuler = 22;   // px
inline constexpr double kGrip = 8;  // px, how near a handle counts
QPointF handle_point(const QRectF& r, int i);
}  // namespace bench_detail

// What can be taken hold of on the board, by the mouse or, one after the other, by a key (KeyHand).
struct HandGrip {
  Point at;       // mm on the board
  QString words;  // what it is, as it is spoken
  std::function<void(Point by)> move;
};

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
  virtual bool key(int, Qt::KeyboardModifiers) { return false; }
  virtual bool hovers(QPointF) const { return false; }  // the mouse would take hold of something here
  virtual std::vector<HandGrip> grips() { return {}; }  // that are there now
  virtual void job_changed() {}                         // the job, the selection or the stage

 protected:
  // Where the keys point, for hands that draw: arrows move it, from the middle of what is seen.
  bool move_cursor(int key, Qt::KeyboardModifiers keys);
  void paint_cursor(QPainter& p) const;
  std::optional<Point> cursor_;
  static QString words(const char* text);  // in the user's language
  static void dot(QPainter& p, QPointF at, double radius, bool full);
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

}  // namespace doyen
