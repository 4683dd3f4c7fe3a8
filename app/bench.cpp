#include "bench.hpp"

#include <cmath>

#include "bench_hand.hpp"
#include "problem.hpp"

namespace doyen {

using bench_detail::kRuler;

namespace {

QPainterPath path_of(const Region& region) {
  QPainterPath path;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      QPolygonF polygon;
      polygon.reserve(static_cast<qsizetype>(ring.size()));
      for (const Point& p : ring) polygon.append(QPointF(p.x, p.y));
      path.addPolygon(polygon);
      path.closeSubpath();
    }
  }
  return path;
}

}  // namespace

Bench::Bench(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(420, 260);
  setAccessibleName(tr("The board. Tab chooses the next piece, arrows move it."));
  connect(&painter_, &ReliefPainter::painted, this, [this](const QImage& image, const Box& area, bool fine) {
    image_ = image;
    image_area_ = area;
    fine_ = fine;
    update();
    Q_EMIT picture_changed();
  });
  const auto add = [this](auto hand) {
    auto* raw = hand.get();
    hands_.push_back(std::move(hand));
    return raw;
  };
  measure_ = add(std::make_unique<MeasureHand>(*this));
  points_ = add(std::make_unique<PointHand>(*this));
  add(std::make_unique<BridgeHand>(*this));
  add(std::make_unique<ArcHand>(*this));
  add(std::make_unique<KeepOutHand>(*this));
}

Bench::~Bench() = default;

void Bench::hands_look() {
  for (const auto& hand : hands_) hand->job_changed();
}

QPointF Bench::to_screen(Point p) const { return {origin_.x() + p.x * scale_, origin_.y() - p.y * scale_}; }
Point Bench::to_board(QPointF p) const { return {(p.x() - origin_.x()) / scale_, (origin_.y() - p.y()) / scale_}; }

void Bench::fit() {
  const double room_w = width() - kRuler - 70, room_h = height() - kRuler - 76;
  scale_ = std::max(0.02, std::min(room_w / job_.blank.width, room_h / job_.blank.height));
  const double left = kRuler + (width() - kRuler - job_.blank.width * scale_) / 2;
  const double bottom = kRuler + (height() - kRuler + job_.blank.height * scale_) / 2;
  origin_ = {left, bottom};
  fitted_ = true;
  ask_for_picture();
  update();
}

void Bench::show_job(const Job& job) {
  const bool other_board = job.blank.width != job_.blank.width || job.blank.height != job_.blank.height;
  job_ = job;
  shapes_.clear();
  decltype(known_) kept;
  for (const Item& item : job.items) {
    auto it = known_.find(item.piece.id);
    PieceShape s;
    std::vector<Piece> made_of;
    for (const Piece* piece : job.with_sources(item.piece)) made_of.push_back(*piece);
    if (it != known_.end() && it->second.first == made_of) {
      s = it->second.second;
    } else {
      s.id = QString::fromStdString(item.piece.id);
      try {
        const Outlines outlines = outlines_of(item.piece, job.source());
        s.path = path_of(outlines.region);
        s.box = bounds(outlines);
        for (const Line2& line : outlines.lines) {
          QPolygonF polygon;
          for (const Point& p : line) polygon.append(QPointF(p.x, p.y));
          s.lines.addPolygon(polygon);
        }
      } catch (const Problem&) {
        // The verdict says why it cannot be set.
      }
    }
    s.name = QString::fromStdString(item.piece.name);
    s.kind = item.cut.kind;
    kept[item.piece.id] = {std::move(made_of), s};
    shapes_.push_back(std::move(s));
  }
  known_ = std::move(kept);
  marks_.clear();
  highlight_ = {};
  layer_key_.clear();
  board_ = {};
  if (job.blank.form == BlankForm::Rectangle)
    board_.addRect(QRectF(0, 0, job.blank.width, job.blank.height));
  else
    board_ = path_of(region_of(job.blank));
  waste_ = {};  // what falls away outside cut-outs
  bool any = false;
  for (const PieceShape& s : shapes_) {
    if (s.kind != Treatment::Kind::CutOut || s.path.isEmpty()) continue;
    waste_ = any ? waste_.subtracted(s.path) : board_.subtracted(s.path);
    any = true;
  }
  also_.removeIf([this](const QString& id) { return shape(id) == nullptr; });
  if (shape(selected_) == nullptr && !selected_.isEmpty()) select({});
  if (other_board || fitted_) fit();
  hands_look();
  update();
}

void Bench::show_plan(const PlanPtr& plan) {
  plan_ = plan;
  for (PieceShape& s : shapes_) {
    const PiecePlan* piece = plan->piece(s.id.toStdString());
    s.lost = piece == nullptr ? QPainterPath() : path_of(piece->cuts.lost);
    s.tabs = piece != nullptr && piece->cuts.cut_out ? piece->cuts.cut_out->tabs : std::vector<PlacedTab>{};
  }
  ask_for_picture();
  update();
}

void Bench::show_stage(Stage stage) {
  stage_ = stage;
  hands_look();
  update();
}

void Bench::select(const QString& piece) {
  if (!also_.isEmpty()) {
    also_.clear();
    update();
    Q_EMIT chosen_changed();
  }
  if (selected_ == piece) return;
  selected_ = piece;
  marked_ = false;
  marks_.clear();
  highlight_ = {};
  hands_look();
  update();
  Q_EMIT selection_changed(piece);
}

QStringList Bench::chosen() const { return selected_.isEmpty() ? QStringList() : QStringList(selected_) + also_; }

void Bench::choose_all() {
  if (shapes_.empty()) return;
  if (selected_.isEmpty()) select(shapes_.front().id);
  also_.clear();
  for (const PieceShape& s : shapes_) {
    if (s.id != selected_) also_ << s.id;
  }
  update();
  Q_EMIT chosen_changed();
}

void Bench::show_marks(const std::vector<Point>& marks) {
  marks_ = marks;
  update();
}

void Bench::show_highlight(const std::vector<Region>& regions) {
  highlight_ = {};
  for (const Region& region : regions) highlight_.addPath(path_of(region));
  update();
}

std::optional<Point> Bench::outline_point_near(QPointF px, double reach) const {
  const PieceShape* s = shape(selected_);
  if (s == nullptr) return std::nullopt;
  std::optional<Point> best;
  for (const QPainterPath& path : {s->path, s->lines}) {
    for (int i = 0; i < path.elementCount(); ++i) {
      const Point p{path.elementAt(i).x, path.elementAt(i).y};
      const QPointF d = to_screen(p) - px;
      if (std::hypot(d.x(), d.y()) > reach) continue;
      reach = std::hypot(d.x(), d.y());
      best = p;
    }
  }
  return best;
}

void Bench::set_section(const SectionLine& line) {
  section_ = line;
  update();
}

void Bench::go_to(Point at) {
  marked_ = true;
  mark_ = at;
  const QPointF s = to_screen(at);
  if (!rect().adjusted(kRuler + 20, kRuler + 20, -20, -20).contains(s.toPoint())) {
    origin_ += QPointF(rect().center()) - s;
    fitted_ = false;
    ask_for_picture();
  }
  update();
}

void Bench::come_closer(Point at, double times) {
  fit();
  scale_ = std::clamp(scale_ * times, 0.02, 200.0);
  origin_ += QPointF(rect().center()) - to_screen(at);
  fitted_ = false;
  ask_for_picture();
  update();
}

void Bench::clear_mark() {
  marked_ = false;
  update();
}

void Bench::ask_for_picture() {
  if (!plan_ || width() < 10 || scale_ <= 0) return;
  const Point a = to_board({kRuler, static_cast<double>(height())}),
              b = to_board({static_cast<double>(width()), kRuler});
  Box area{std::max(0.0, a.x), std::max(0.0, a.y), std::min(plan_->job.blank.width, b.x),
           std::min(plan_->job.blank.height, b.y)};
  if (area.left >= area.right || area.bottom >= area.top) return;
  fine_ = false;
  painter_.request(plan_, {area, 1 / (scale_ * devicePixelRatioF())});
}

const Bench::PieceShape* Bench::shape(const QString& id) const {
  for (const PieceShape& s : shapes_) {
    if (s.id == id) return &s;
  }
  return nullptr;
}

QRectF Bench::selection_rect() const {
  const PieceShape* s = shape(selected_);
  if (s == nullptr || s->box.empty()) return {};
  return QRectF(to_screen({s->box.left, s->box.top}), to_screen({s->box.right, s->box.bottom})).adjusted(-5, -5, 5, 5);
}

namespace bench_detail {
QPointF handle_point(const QRectF& r, int i) {
  static constexpr double kX[] = {0, 0.5, 1, 1, 1, 0.5, 0, 0}, kY[] = {0, 0, 0, 0.5, 1, 1, 1, 0.5};
  if (i == 8) return {r.center().x(), r.top() - 22};
  return {r.left() + r.width() * kX[i], r.top() + r.height() * kY[i]};
}
}  // namespace bench_detail

void Bench::resizeEvent(QResizeEvent*) {
  if (fitted_)
    fit();
  else
    ask_for_picture();
}

}  // namespace doyen
