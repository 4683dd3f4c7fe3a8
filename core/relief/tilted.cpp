#include "relief/tilted.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>

#include "relief/lighting.hpp"

namespace doyen {

using lighting::Lighter;
using lighting::Rgb;
using lighting::Wood;

namespace {

constexpr double kTable = 0.1;    // of the board's greater side: how far round it its shadow is drawn
constexpr long kRound = 3;        // cells
constexpr float kWall = 0.5F;     // mm: a step so high from one cell to the next is a wall, coloured by its own height
constexpr double kFilled = 0.94;  // of the picture, by the board

double radians(double degrees) { return degrees * std::numbers::pi / 180; }

enum class What : unsigned char { Table, Wood, Hole };

std::uint32_t shaded(std::uint32_t colour, float k) {
  const auto part = [&](int shift) {
    return static_cast<std::uint32_t>(std::clamp(static_cast<float>(colour >> shift & 255U) * k, 0.0F, 255.0F))
           << shift;
  };
  return 0xFF000000U | part(16) | part(8) | part(0);
}

}  // namespace

struct TiltedBoard::Inside {
  HeightField z;  // the board and the table round it, which lies as deep as the board is thick
  WoodLook look;
  CellPaint paint;  // along the cells here, the table's among them
  std::vector<What> what;
  std::vector<Rgb> own;              // the wood's own colours
  std::vector<std::uint32_t> lit;    // of wood and what is seen through it
  std::vector<float> dark;           // of the table: how much of the light is kept from it
  std::unique_ptr<Lighter> lighter;  // of the light as it stands
  Rgb towards_light = lighting::kUsualLight;

  [[nodiscard]] std::size_t index(std::size_t c, std::size_t r) const { return r * z.columns() + c; }
  [[nodiscard]] Point middle() const { return look.board.centre(); }

  // How straight the light falls on the wall that this cell stands on.
  [[nodiscard]] float straight_on_wall(std::size_t c, std::size_t r) const {
    // Which way it faces, from some cells round it: curves are walls of steps.
    float nx = 0, ny = 0;
    for (long dr = -kRound; dr <= kRound; ++dr) {
      for (long dc = -kRound; dc <= kRound; ++dc) {
        const long cc = std::clamp(static_cast<long>(c) + dc, 0L, static_cast<long>(z.columns()) - 1);
        const long rr = std::clamp(static_cast<long>(r) + dr, 0L, static_cast<long>(z.rows()) - 1);
        const float there = z.at(static_cast<std::size_t>(cc), static_cast<std::size_t>(rr));
        nx -= static_cast<float>(dc) * there;
        ny -= static_cast<float>(dr) * there;
      }
    }
    const float size = std::sqrt(nx * nx + ny * ny);
    if (size <= 0) return 0;
    return std::max(0.0F, (nx * towards_light.r + ny * towards_light.g) / size) / std::max(towards_light.b, 0.45F);
  }

  // A wall's pixel: the wood at that height, lit as what faces away from the higher cell is.
  [[nodiscard]] std::uint32_t wall(Wood& wood, std::size_t c, std::size_t r, std::size_t before, float height,
                                   float straight) const {
    if (straight > 0) straight *= 1 - 0.75F * lighter->shadowed(before % z.columns(), before / z.columns(), height);
    Rgb base = wood.at(static_cast<float>(z.x_of(c)), static_cast<float>(z.y_of(r)), height);
    // As its foot is; edges that are sawn stay bare.
    if (const Coat* coat = what[before] == What::Wood ? paint.at(before) : nullptr; coat != nullptr && !coat->wood)
      base = lighting::painted(base, coat->colour);
    const float light = 0.84F * (0.48F + 0.52F * std::min(1.2F, straight));
    return lighting::pack({base.r * light, base.g * light * 0.98F, base.b * light * 0.95F});
  }
};

TiltedBoard::TiltedBoard(const HeightField& carved, const WoodLook& look, const CellPaint& paint,
                         const LightPlace& lamp, const Cancel& cancel)
    : in_(std::make_unique<Inside>()) {
  Inside& in = *in_;
  in.look = look;
  in.paint.coats = paint.coats;
  const double cell = carved.cell(), round = kTable * std::max(look.board.width(), look.board.height());
  const auto extra = static_cast<std::size_t>(std::ceil(round / cell));
  const Box box = carved.box();
  const double by = static_cast<double>(extra) * cell;
  in.z = HeightField(
      {box.left - by, box.bottom - by, box.left - by + cell * static_cast<double>(carved.columns() + 2 * extra),
       box.bottom - by + cell * static_cast<double>(carved.rows() + 2 * extra)},
      cell);
  const std::size_t columns = in.z.columns(), rows = in.z.rows();
  const auto bed = static_cast<float>(-look.thickness);
  in.what.assign(columns * rows, What::Table);
  in.own.resize(columns * rows);
  if (!paint.of.empty()) in.paint.of.assign(columns * rows, 0);
  const std::vector<unsigned char> on_board =
      look.edge.empty() ? std::vector<unsigned char>{} : cells_inside(look.edge, carved);
  tbb::parallel_for(std::size_t{0}, rows, [&](std::size_t r) {
    cancel.check();
    Wood wood(in.look.species, in.look.grain);
    lighting::Coated coated(paint);
    for (std::size_t c = 0; c < columns; ++c) {
      float& z = in.z.row(r)[c];
      z = bed;
      if (c < extra || r < extra || c - extra >= carved.columns() || r - extra >= carved.rows()) continue;
      const std::size_t cc = c - extra, rr = r - extra;
      if (!look.board.contains({carved.x_of(cc), carved.y_of(rr)})) continue;
      if (!on_board.empty() && on_board[rr * carved.columns() + cc] == 0) continue;
      z = std::max(carved.at(cc, rr), bed);
      const bool hole = z <= bed + 1e-3F;
      in.what[in.index(c, r)] = hole ? What::Hole : What::Wood;
      if (hole) continue;
      const std::size_t i = in.index(c, r);
      in.own[i] = wood.at(static_cast<float>(in.z.x_of(c)), static_cast<float>(in.z.y_of(r)), z);
      const Coat* coat = paint.at(rr * carved.columns() + cc);
      if (coat == nullptr) continue;
      in.paint.of[i] = paint.of[rr * carved.columns() + cc];
      in.own[i] = coated.over(in.own[i], *coat, static_cast<float>(in.z.x_of(c)), static_cast<float>(in.z.y_of(r)), z);
    }
  });
  in.lit.resize(columns * rows);
  in.dark.resize(columns * rows);
  light(lamp, cancel);
}

TiltedBoard::~TiltedBoard() = default;

void TiltedBoard::light(const LightPlace& lamp, const Cancel& cancel) {
  Inside& in = *in_;
  const double high = std::sin(radians(std::clamp(lamp.height, 8.0, 88.0)));
  const double flat = std::sqrt(1 - high * high);
  in.towards_light = {static_cast<float>(flat * std::cos(radians(lamp.from))),
                      static_cast<float>(flat * std::sin(radians(lamp.from))), static_cast<float>(high)};
  if (in.lighter)
    in.lighter->set_light(in.towards_light);
  else
    in.lighter = std::make_unique<Lighter>(in.z, in.look.thickness, in.towards_light);
  const float whole = in.lighter->on_whole_face();
  // Towards the light as far as a shadow of the board's thickness reaches; what does not come to the board meanwhile
  // lies in the light.
  const double reach = flat / high * (in.look.thickness + 0.1);
  const Point to{reach * std::cos(radians(lamp.from)), reach * std::sin(radians(lamp.from))};
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, in.z.rows(), 8), [&](const auto& range) {
    cancel.check();
    for (std::size_t r = range.begin(); r < range.end(); ++r) {
      for (std::size_t c = 0; c < in.z.columns(); ++c) {
        const std::size_t i = in.index(c, r);
        if (in.what[i] == What::Wood) {
          const Rgb& own = in.own[i];
          in.lit[i] = in.lighter->whole_face(c, r) ? lighting::pack({own.r * whole, own.g * whole, own.b * whole})
                                                   : lighting::pack(in.lighter->shade(own, c, r));
          continue;
        }
        const Point here{in.z.x_of(c), in.z.y_of(r)};
        Box way;
        way.add(here);
        way.add(here + to);
        in.dark[i] = way.meets(in.look.board) ? in.lighter->shadowed(c, r, in.z.at(c, r) + 0.02F) : 0;
      }
    }
  });
}

namespace {

// The picture's frame: board to picture and back, from one stance.
struct Frame {
  double cos_turn, sin_turn, cos_tilt, sin_tilt, scale;
  Point middle;         // of the board, mm
  double mid_x, mid_y;  // pixels
  // Across the picture, and away from the user, mm.
  [[nodiscard]] Point turned(Point p) const {
    const Point d = p - middle;
    return {d.x * cos_turn + d.y * sin_turn, d.y * cos_turn - d.x * sin_turn};
  }
};

Frame frame_of(const WoodLook& look, const Stance& stance, std::size_t width, std::size_t height) {
  Frame f{};
  f.cos_turn = std::cos(radians(stance.turn));
  f.sin_turn = std::sin(radians(stance.turn));
  const double tilt = std::clamp(stance.tilt, 0.0, 85.0);
  f.cos_tilt = std::cos(radians(tilt));
  f.sin_tilt = std::sin(radians(tilt));
  const Box& b = look.board;
  f.middle = b.centre();
  Box seen;
  for (const Point& corner :
       {Point{b.left, b.bottom}, Point{b.right, b.bottom}, Point{b.right, b.top}, Point{b.left, b.top}}) {
    const Point p = f.turned(corner);
    seen.add(Point{p.x, p.y * f.cos_tilt});
    seen.add(Point{p.x, p.y * f.cos_tilt - look.thickness * f.sin_tilt});
  }
  f.scale = kFilled * std::min(static_cast<double>(width) / seen.width(), static_cast<double>(height) / seen.height());
  f.scale *= std::clamp(stance.zoom, 0.2, 20.0);
  const Point to = f.turned(f.middle + stance.towards);
  f.mid_x = static_cast<double>(width) / 2 - to.x * f.scale;
  f.mid_y = static_cast<double>(height) / 2 + (to.y * f.cos_tilt - look.thickness / 2 * f.sin_tilt) * f.scale;
  return f;
}

// One column of the picture is one walk over the board, away from the user: whatever rises above all that was passed is
// seen, from there up.
class Walk {
 public:
  Walk(const TiltedBoard::Inside& in, const Frame& frame, std::uint32_t table, Picture& picture)
      : in_(in),
        f_(frame),
        table_(table),
        picture_(picture),
        box_(in.z.box()),
        cell_(in.z.cell()),
        step_(std::max(in.z.cell(), 0.9 / frame.scale)),
        rises_(static_cast<float>(frame.sin_tilt * frame.scale)),
        wood_(in.look.species, in.look.grain) {}

  void column(std::size_t px) {
    px_ = px;
    const double across = (static_cast<double>(px) + 0.5 - f_.mid_x) / f_.scale;
    const Point from = f_.middle + Point{across * f_.cos_turn, across * f_.sin_turn}, way{-f_.sin_turn, f_.cos_turn};
    const auto [enter, leave] = within(from, way);
    // In whole cells and pixels from here on, a step at a time.
    const auto columns = static_cast<int>(in_.z.columns()), rows = static_cast<int>(in_.z.rows());
    auto cx = static_cast<float>((from.x + way.x * enter - box_.left) / cell_);
    auto cy = static_cast<float>((from.y + way.y * enter - box_.bottom) / cell_);
    auto level = static_cast<float>(f_.mid_y - enter * f_.cos_tilt * f_.scale);
    const auto dx = static_cast<float>(way.x * step_ / cell_), dy = static_cast<float>(way.y * step_ / cell_);
    const auto dlevel = static_cast<float>(step_ * f_.cos_tilt * f_.scale);
    const int steps = leave > enter ? static_cast<int>((leave - enter) / step_) + 1 : 0;
    open_ = static_cast<float>(picture_.height);
    before_.reset();
    for (int k = 0; k < steps && open_ > 0; ++k, cx += dx, cy += dy, level -= dlevel) {
      const int column = static_cast<int>(cx), line = static_cast<int>(cy);
      if (cx < 0 || cy < 0 || column >= columns || line >= rows) continue;
      const auto c = static_cast<std::size_t>(column), r = static_cast<std::size_t>(line);
      const float top = level - in_.z.at(c, r) * rises_;
      if (top < open_) rise(c, r, top);
      before_ = in_.index(c, r);
    }
  }

 private:
  // Where the walk comes onto the board with its table, and leaves it, mm along it.
  [[nodiscard]] std::pair<double, double> within(Point from, Point way) const {
    double enter = -1e9, leave = 1e9;
    for (const auto& [p, d, low, high] :
         {std::array{from.x, way.x, box_.left, box_.right}, std::array{from.y, way.y, box_.bottom, box_.top}}) {
      if (std::abs(d) < 1e-9) {
        if (p < low || p >= high) leave = -1e9;
        continue;
      }
      enter = std::max(enter, std::min((low - p) / d, (high - p) / d));
      leave = std::min(leave, std::max((low - p) / d, (high - p) / d));
    }
    return {enter + 1e-6, leave};
  }

  [[nodiscard]] std::uint32_t flat(std::size_t i) const {
    if (in_.what[i] == What::Wood) return in_.lit[i];
    return shaded(table_, (in_.what[i] == What::Table ? 1 : 0.80F) - 0.42F * in_.dark[i]);
  }

  // The picture's column from what was drawn last up to `top`, by that cell.
  void rise(std::size_t c, std::size_t r, float top) {
    const std::size_t i = in_.index(c, r);
    const float z = in_.z.at(c, r);
    const float low = before_ ? in_.z.row(0)[*before_] : z;
    const bool wall = in_.what[i] == What::Wood && z - low > kWall;
    const float straight = wall ? in_.straight_on_wall(c, r) : 0;
    const std::uint32_t colour = flat(i);
    const auto first = static_cast<std::size_t>(std::max(0.0F, std::floor(top + 0.5F)));
    const auto last = static_cast<std::size_t>(std::clamp(open_, 0.0F, static_cast<float>(picture_.height)));
    for (std::size_t row = first; row < last; ++row) {
      std::uint32_t& pixel = picture_.pixels[row * picture_.width + px_];
      if (!wall) {
        pixel = colour;
        continue;
      }
      const float there = rises_ > 1e-6F ? z - (static_cast<float>(row) + 0.5F - top) / rises_ : z;
      pixel = in_.wall(wood_, c, r, *before_, std::clamp(there, low, z), straight);
    }
    open_ = std::floor(top + 0.5F);
  }

  const TiltedBoard::Inside& in_;
  const Frame& f_;
  std::uint32_t table_;
  Picture& picture_;
  Box box_;
  double cell_, step_;  // mm
  float rises_;         // pixels for each mm of height
  Wood wood_;
  std::size_t px_ = 0;
  float open_ = 0;  // above this row of pixels nothing is drawn yet
  std::optional<std::size_t> before_;
};

}  // namespace

double TiltedBoard::scale(const Stance& stance, std::size_t width, std::size_t height) const {
  return frame_of(in_->look, stance, width, height).scale;
}

Point TiltedBoard::on_picture(const Stance& stance, std::size_t width, std::size_t height, Point at, double z) const {
  const Frame f = frame_of(in_->look, stance, width, height);
  const Point p = f.turned(at);
  return {f.mid_x + p.x * f.scale, f.mid_y - (p.y * f.cos_tilt + z * f.sin_tilt) * f.scale};
}

Picture TiltedBoard::seen(const Stance& stance, std::size_t width, std::size_t height, std::uint32_t table) const {
  Picture picture;
  picture.width = width;
  picture.height = height;
  picture.pixels.assign(width * height, table);
  if (width == 0 || height == 0) return picture;
  const Frame f = frame_of(in_->look, stance, width, height);
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, width, 16), [&](const auto& range) {
    Walk walk(*in_, f, table, picture);
    for (std::size_t px = range.begin(); px < range.end(); ++px) walk.column(px);
  });
  return picture;
}

}  // namespace doyen
