#include "bench/bench.hpp"

#include <cmath>

#include "bench/hands/all.hpp"
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

// How far a piece moved, when it did nothing else; nothing when it has to be set anew.
std::optional<Point> moved_by(const std::vector<Piece>& was, const std::vector<Piece>& is) {
  if (was.size() != is.size() || is.empty()) return {};
  Piece here = was.front();
  here.at = is.front().at;
  here.name = is.front().name;
  if (!(here == is.front()) || !std::equal(was.begin() + 1, was.end(), is.begin() + 1)) return {};
  const Point from = was.front().at, to = is.front().at;
  const Point by{snap_to_grid(to.x) - snap_to_grid(from.x), snap_to_grid(to.y) - snap_to_grid(from.y)};
  const auto* shape = std::get_if<PlainShape>(&here.what);
  const auto* words = std::get_if<Lettering>(&here.what);
  const bool follows = (shape != nullptr && !shape->shares_of.empty()) ||
                       (words != nullptr && (!words->along.empty() || !words->inside.empty()));
  if (follows && length(by) > 0) return {};
  return by;
}

}  // namespace

Bench::Bench(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(420, 260);
  setAccessibleName(tr("The board. N and P choose a piece, arrows move it."));
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
  turn_ = new QPushButton(tr("Turn over: see the back"), this);
  turn_->setObjectName(QStringLiteral("turnOver"));
  turn_->setCursor(Qt::ArrowCursor);
  turn_->hide();
  connect(turn_, &QPushButton::clicked, this, [this] { show_side(side_ == Side::Front ? Side::Back : Side::Front); });
  // Who draws, measures or edits points has the keys before anything is taken hold of.
  draw_ = add(std::make_unique<DrawHand>(*this));
  measure_ = add(std::make_unique<MeasureHand>(*this));
  points_ = add(std::make_unique<PointHand>(*this));
  add(std::make_unique<KeyHand>(*this));
  add(std::make_unique<BridgeHand>(*this));
  add(std::make_unique<ArcHand>(*this));
  add(std::make_unique<KeepOutHand>(*this));
  add(std::make_unique<SeamHand>(*this));
}

Bench::~Bench() = default;

void Bench::hands_look() {
  for (const auto& hand : hands_) hand->job_changed();
}

Point Bench::flipped(Point p) const { return side_ == Side::Back ? turned_over(p, job_.blank, job_.run.turn) : p; }
QPointF Bench::to_screen(Point p) const {
  const Point q = flipped(p);
  return {origin_.x() + q.x * scale_, origin_.y() - q.y * scale_};
}
Point Bench::to_board(QPointF p) const {
  return flipped({(p.x() - origin_.x()) / scale_, (origin_.y() - p.y()) / scale_});
}
QTransform Bench::board_to_px() const {
  const QPointF o = to_screen({0, 0}), x = to_screen({1, 0}) - o, y = to_screen({0, 1}) - o;
  return {x.x(), x.y(), y.x(), y.y(), o.x(), o.y()};
}
QRectF Bench::px_rect(const Box& box) const {
  return QRectF(to_screen({box.left, box.top}), to_screen({box.right, box.bottom})).normalized();
}

void Bench::show_side(Side side) {
  if (side == Side::Back && !job_.has_back()) side = Side::Front;
  turn_->setText(side == Side::Front ? tr("Turn over: see the back") : tr("Turn over: see the front"));
  if (side == side_) return;
  side_ = side;
  image_ = {};
  layer_key_.clear();
  ask_for_picture();
  update();
}

void Bench::fit() {
  const double room_w = width() - kRuler - 70, room_h = height() - kRuler - 76;
  const double was_scale = scale_;
  const QPointF was_origin = origin_;
  scale_ = std::max(0.02, std::min(room_w / job_.blank.width, room_h / job_.blank.height));
  const double left = kRuler + (width() - kRuler - job_.blank.width * scale_) / 2;
  const double bottom = kRuler + (height() - kRuler + job_.blank.height * scale_) / 2;
  origin_ = {left, bottom};
  fitted_ = true;
  // Seen from where it was seen already, the picture stays until there is a newer plan.
  if (scale_ != was_scale || origin_ != was_origin || image_.isNull()) ask_for_picture();
  update();
}

void Bench::PieceShape::move(Point by) {
  path.translate(by.x, by.y);
  lines.translate(by.x, by.y);
  box = doyen::Box{box.left + by.x, box.bottom + by.y, box.right + by.x, box.top + by.y};
}

void Bench::show_job(const Job& job) {
  const bool other_board = job.blank.width != job_.blank.width || job.blank.height != job_.blank.height;
  const TurnOver was_turned = job_.run.turn;
  job_ = job;
  shapes_.clear();
  decltype(known_) kept;
  for (const Item& item : job.items) {
    auto it = known_.find(item.piece.id);
    PieceShape s;
    std::vector<Piece> made_of;
    for (const Piece* piece : job.with_sources(item.piece)) made_of.push_back(*piece);
    const bool back = item.cut.back && item.cut.kind != Treatment::Kind::None;
    const bool same_side =
        it != known_.end() && it->second.second.back == back && (!back || was_turned == job.run.turn);
    const std::optional<Point> by = same_side ? moved_by(it->second.first, made_of) : std::nullopt;
    if (by) {
      s = it->second.second;
      if (length(*by) > 0) s.move(*by);
    } else {
      s.id = QString::fromStdString(item.piece.id);
      try {
        const Outlines outlines = job.outlines(item);
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
    s.back = back;
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
  turn_->setVisible(job_.has_back() && stage_ != Stage::Blank && stage_ != Stage::Artwork);
  if (!job_.has_back()) show_side(Side::Front);
  speak();
  update();
}

Box Bench::box_of(const QString& id) const {
  const PieceShape* s = shape(id);
  return s == nullptr ? Box{} : s->box;
}

void Bench::show_judgement(const JudgementPtr& judgement) {
  judgement_ = judgement;
  update();
}

void Bench::show_expected(const SetJobPtr& set) {
  expected_ = set;
  ask_for_picture();
}

void Bench::show_plan(const PlanPtr& plan) {
  plan_ = plan;
  expected_.reset();
  judgement_.reset();
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
  // Artwork is laid out as it is seen from the front.
  if (stage == Stage::Blank || stage == Stage::Artwork) show_side(Side::Front);
  turn_->setVisible(job_.has_back() && stage_ != Stage::Blank && stage_ != Stage::Artwork);
  hands_look();
  update();
}

QStringList Bench::group_of(const QString& piece) const {
  QStringList all;
  const Item* item = job_.find(piece.toStdString());
  if (item == nullptr || item->group.empty()) return all;
  for (const Item& other : job_.items) {
    if (other.group == item->group && &other != item) all << QString::fromStdString(other.piece.id);
  }
  return all;
}

void Bench::select(const QString& piece) {
  if (const QStringList also = group_of(piece); also != also_) {
    also_ = also;
    update();
    if (selected_ == piece) Q_EMIT chosen_changed();
  }
  if (selected_ == piece) return;
  selected_ = piece;
  marked_ = false;
  marks_.clear();
  highlight_ = {};
  hands_look();
  speak();
  update();
  Q_EMIT selection_changed(piece);
}

void Bench::speak() {
  const PieceShape* s = shape(selected_);
  if (s == nullptr) return setAccessibleDescription(tr("nothing is chosen"));
  const auto show = [&](double mm) { return QString::fromStdString(size_in_words(mm, job_.lengths)); };
  setAccessibleDescription(
      tr("“%1”, %2 by %3, %4 from the left, %5 from the front")
          .arg(s->name, show(s->box.width()), show(s->box.height()), show(s->box.left), show(s->box.bottom)));
}

void Bench::say(const QString& words) { setAccessibleDescription(words); }

std::vector<HandGrip> Bench::grips() {
  std::vector<HandGrip> all;
  for (const auto& hand : hands_) {
    for (HandGrip& grip : hand->grips()) all.push_back(std::move(grip));
  }
  if (const PieceShape* s = shape(selected_); s != nullptr && stage_ != Stage::Blank) {
    for (std::size_t i = 0; i < s->tabs.size(); ++i) {
      const Point at = s->tabs[i].at;
      all.push_back({at, tr("tab %1 of %2").arg(i + 1).arg(s->tabs.size()),
                     [this, i, at](Point by) { Q_EMIT tab_moved(selected_, static_cast<int>(i), at + by); }});
    }
  }
  const Point middle{job_.blank.width / 2, job_.blank.height / 2};
  all.push_back({section_.along ? Point{middle.x, section_.at} : Point{section_.at, middle.y}, tr("the section"),
                 [this](Point by) {
                   section_ = section_.moved(section_.along ? by.y : by.x, job_.blank);
                   Q_EMIT section_moved(section_);
                 }});
  return all;
}

QStringList Bench::chosen() const { return selected_.isEmpty() ? QStringList() : QStringList(selected_) + also_; }

void Bench::choose(const QStringList& pieces) {
  if (pieces.isEmpty()) return;
  select(pieces.first());
  for (const QString& id : pieces) {
    if (id != selected_ && !also_.contains(id) && shape(id) != nullptr) also_ << id;
  }
  update();
  Q_EMIT chosen_changed();
}

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

void Bench::show_weak(const std::shared_ptr<const WeakMap>& weak) {
  weak_ = weak;
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

void Bench::show_overlay(const QImage& picture, const Box& box) {
  if (overlay_.isNull() && picture.isNull()) return;
  if (overlay_.cacheKey() == picture.cacheKey()) return;
  overlay_ = picture;
  overlay_scaled_ = {};
  overlay_box_ = box;
  update();
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
  if ((!plan_ && !expected_) || width() < 10 || scale_ <= 0) return;
  const Blank& blank = (expected_ ? expected_->plan : *plan_).job.blank;
  // In the coordinates of the side that lies up.
  const Point a = flipped(to_board({kRuler, static_cast<double>(height())})),
              b = flipped(to_board({static_cast<double>(width()), kRuler}));
  Box area{std::max(0.0, a.x), std::max(0.0, a.y), std::min(blank.width, b.x), std::min(blank.height, b.y)};
  if (area.left >= area.right || area.bottom >= area.top) return;
  fine_ = false;
  const BoardView view{area, 1 / (scale_ * devicePixelRatioF()), side_};
  if (expected_)
    painter_.request_expected(expected_, view);
  else
    painter_.request(plan_, view);
}

const Bench::PieceShape* Bench::shape(const QString& id) const {
  for (const PieceShape& s : shapes_) {
    if (s.id == id) return &s;
  }
  return nullptr;
}

QRectF Bench::selection_rect() const {
  const Box box = chosen_box();
  return box.empty() ? QRectF() : px_rect(box).adjusted(-5, -5, 5, 5);
}

Box Bench::chosen_box() const {
  Box all;
  for (const QString& id : chosen()) {
    const PieceShape* s = shape(id);
    if (s != nullptr && !s->box.empty()) all.add(s->box);
  }
  return all;
}

namespace bench_detail {
QPointF handle_point(const QRectF& r, int i) {
  static constexpr double kX[] = {0, 0.5, 1, 1, 1, 0.5, 0, 0}, kY[] = {0, 0, 0, 0.5, 1, 1, 1, 0.5};
  if (i == 8) return {r.center().x(), r.top() - 22};
  return {r.left() + r.width() * kX[i], r.top() + r.height() * kY[i]};
}
}  // namespace bench_detail

void Bench::resizeEvent(QResizeEvent*) {
  turn_->adjustSize();
  turn_->move(width() - std::max(turn_->width(), 180) - 12, kRuler + 10);
  if (fitted_)
    fit();
  else
    ask_for_picture();
}

}  // namespace doyen
