#include "bench/hands/seam_hand.hpp"

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

const std::vector<double>& seams_of(const Job& job, bool upright) {
  return upright ? job.panels.across : job.panels.deep;
}

}  // namespace

void SeamHand::job_changed() {
  const Job& job = bench_.job();
  if (job.panels == of_ && job.blank == wood_) return;
  of_ = job.panels;
  wood_ = job.blank;
  panels_.clear();
  edges_.clear();
  dowels_.clear();
  if (!of_.there() || job.plates.there()) return;
  try {
    panels_ = panels_of(job);
    edges_ = mating_edges(job);
  } catch (const Problem&) {
    return;  // the board's outline is no path: its own verdict says so
  }
  if (of_.join != PanelChoices::Join::Dowels) return;
  for (const MatingEdge& edge : edges_) {
    for (const double along : dowels_of(job, edge)) dowels_.push_back(edge.place(along));
  }
}

void SeamHand::sign(QPainter& p, Point at, const QString& words, const QColor& colour, double size) const {
  const QPointF middle = bench_.to_screen(at);
  const QRectF ring(middle.x() - size, middle.y() - size, 2 * size, 2 * size);
  p.setPen(QPen(colour, 1.5));
  p.setBrush(QColor(255, 255, 255, 235));
  p.drawEllipse(ring);
  p.setFont(theme::font(static_cast<int>(size * 0.75)));
  p.drawText(ring, Qt::AlignCenter, words);
}

void SeamHand::paint(QPainter& p) {
  if (panels_.empty()) return;
  const double gap = of_.gap * bench_.pixels_per_mm();
  for (const MatingEdge& edge : edges_) {
    const QPointF a = bench_.to_screen(edge.place(edge.from)), b = bench_.to_screen(edge.place(edge.to));
    p.setPen(QPen(QColor(255, 255, 255, 220), std::max(3.0, gap), Qt::SolidLine, Qt::FlatCap));
    p.drawLine(a, b);
    p.setPen(QPen(theme::kPlum, 1.4, Qt::DashLine));
    p.drawLine(a, b);
  }
  for (const Point& dowel : dowels_) {
    const QPointF at = bench_.to_screen(dowel);
    const double half = std::max(2.5, of_.hole / 2 * bench_.pixels_per_mm());
    p.setPen(QPen(theme::kPlum, 1.2));
    p.setBrush(QColor(255, 255, 255, 220));
    p.drawEllipse(at, half, half);
  }
  constexpr double kBesideMiddle = 0.62;  // of the seam: panels' numbers stand in their middles
  for (const MatingEdge& edge : edges_)
    sign(p, edge.place(edge.from + kBesideMiddle * (edge.to - edge.from)), QString::fromStdString(edge.letter),
         theme::kPlum, 10);
  for (const Panel& panel : panels_) {  // in a corner, so that nothing in its middle is covered
    constexpr double kFromCorner = 22;  // px
    const double off = std::min({kFromCorner / bench_.pixels_per_mm(), panel.box.width() / 2, panel.box.height() / 2});
    sign(p, {panel.box.left + off, panel.box.bottom + off}, QString::number(panel.number), theme::kInk, 14);
  }
}

std::optional<SeamHand::Held> SeamHand::at(QPointF px) const {
  if (bench_.stage() != Stage::Blank || panels_.empty()) return std::nullopt;
  const Point here = bench_.to_board(px);
  if (!bench_.job().blank.box().contains(here)) return std::nullopt;
  const double near = (bench_detail::kGrip - 2) / bench_.pixels_per_mm();
  for (const bool upright : {true, false}) {
    const std::vector<double>& seams = seams_of(bench_.job(), upright);
    for (std::size_t i = 0; i < seams.size(); ++i) {
      if (std::abs(seams[i] - (upright ? here.x : here.y)) <= near + of_.gap / 2) return Held{upright, i};
    }
  }
  return std::nullopt;
}

bool SeamHand::hovers(QPointF px) const { return at(px).has_value(); }

bool SeamHand::press(QPointF px) {
  held_ = at(px);
  if (!held_) return false;
  begin_drag();
  costs_.emplace(bench_.job(), held_->upright);
  return true;
}

void SeamHand::put(const Held& seam, double place) const {
  edit(words("move a seam"), [seam, place](Job& job) {
    std::vector<double>& seams = seam.upright ? job.panels.across : job.panels.deep;
    if (seam.index >= seams.size()) return;
    const double whole = seam.upright ? job.blank.width : job.blank.height, apart = kNarrowestPanel + job.panels.gap;
    const double least = seam.index == 0 ? apart : seams[seam.index - 1] + apart;
    const double most = seam.index + 1 == seams.size() ? whole - apart : seams[seam.index + 1] - apart;
    if (most >= least) seams[seam.index] = std::clamp(place, least, most);
  });
}

void SeamHand::drag(QPointF px) {
  if (!held_ || !costs_) return;
  constexpr double kSnaps = 9;  // px
  const Point here = bench_.to_board(px);
  const double raw = held_->upright ? here.x : here.y;
  put(*held_, costs_->calmest(raw, kSnaps / bench_.pixels_per_mm()));
}

void SeamHand::release(QPointF) {
  held_.reset();
  costs_.reset();
}

std::vector<HandGrip> SeamHand::grips() {
  std::vector<HandGrip> all;
  if (bench_.stage() != Stage::Blank || panels_.empty()) return all;
  for (const bool upright : {true, false}) {
    const std::vector<double>& seams = seams_of(bench_.job(), upright);
    const Point middle = bench_.job().blank.box().centre();
    for (std::size_t i = 0; i < seams.size(); ++i)
      all.push_back({upright ? Point{seams[i], middle.y} : Point{middle.x, seams[i]},
                     words("seam, %1 of %2").arg(i + 1).arg(seams.size()), [this, upright, i](Point by) {
                       begin_drag();
                       const std::vector<double>& now = seams_of(bench_.job(), upright);
                       if (i < now.size()) put({upright, i}, now[i] + (upright ? by.x : by.y));
                     }});
  }
  return all;
}

}  // namespace doyen
