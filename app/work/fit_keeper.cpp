#include "work/fit_keeper.hpp"

#include <algorithm>
#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kClosed = 0.02, kWidest = 2;  // mm: a gap that counts as closed, and the widest that is told apart

WoodLook look_of_plug(const Job& job, const Inlay& inlay) {
  WoodLook look = wood_look(job.blank);
  if (const Species* s = species_table().find(inlay.wood)) look.species = *s;
  if (inlay.crossed) look.grain = look.grain == Grain::AlongWidth ? Grain::AlongHeight : Grain::AlongWidth;
  look.thickness = inlay.thickness;
  return look;
}

}  // namespace

QColor gap_colour(double mm) {
  if (mm <= kClosed) return {0xEF, 0xE7, 0xD6};  // closed: pale wood
  const double share = std::clamp(std::sqrt(mm / kWidest), 0.0, 1.0);
  const auto mix = [share](int from, int to) { return static_cast<int>(from + (to - from) * share); };
  return {mix(0xC9, 0x24), mix(0xD6, 0x4A), mix(0xDD, 0x6E)};  // woad, the deeper the wider
}

QImage fit_picture(const Fit& fit, const Halves& halves, const Job& job, FitKeeper::Show what, double sanded,
                   const Cancel& cancel) {
  using Show = FitKeeper::Show;
  if (what == Show::Carved) return {};
  const int columns = static_cast<int>(fit.pocket.columns()), rows = static_cast<int>(fit.pocket.rows());
  QImage image(columns, rows, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  const std::vector<unsigned char> inside = cells_inside(grow(halves.art, 3), fit.pocket);
  HeightField flat(fit.pocket.box().grown(-fit.pocket.cell() / 4), fit.pocket.cell());
  flat.clear();
  Picture board, plug;
  Face face;
  if (what == Show::Levelled) {
    board = lit_picture(flat, wood_look(job.blank), 1, cancel);
    plug = lit_picture(flat, look_of_plug(job, halves.inlay), 1, cancel);
    face = face_after(fit, sanded);
  } else if (what == Show::Plug) {
    // Its own relief again, seen from its face and in its own wood, mirrored as it comes to lie.
    for (std::size_t r = 0; r < flat.rows(); ++r) {
      for (std::size_t c = 0; c < flat.columns(); ++c)
        flat.row(r)[c] = static_cast<float>(-(fit.plug.at(c, r) + halves.inlay.contact));
    }
    plug = lit_picture(flat, look_of_plug(job, halves.inlay), 1, cancel);
  }
  for (int r = 0; r < rows; ++r) {
    cancel.check();
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(rows - 1 - r));
    for (int c = 0; c < columns; ++c) {
      const auto cc = static_cast<std::size_t>(c), rr = static_cast<std::size_t>(r);
      if (inside[rr * fit.pocket.columns() + cc] == 0) continue;
      const std::size_t top = static_cast<std::size_t>(rows - 1 - r);
      if (what == Show::Plug) {
        line[c] = plug.at(cc, top);
      } else if (what == Show::Levelled) {
        const FaceWood wood = face.cells[rr * fit.pocket.columns() + cc];
        line[c] = wood == FaceWood::Board  ? board.at(cc, top)
                  : wood == FaceWood::Plug ? plug.at(cc, top)
                                           : theme::kBrick.rgb();
      } else if (fit.in_the_way(cc, rr) > kClosed) {
        line[c] = theme::kBrick.rgb();
      } else if (fit.pocket.at(cc, rr) > -0.005F) {
        // Outside the pocket: the board's face under the saw gap, faded.
        line[c] = qRgb(0xD9, 0xD0, 0xC0);
      } else {
        line[c] = gap_colour(fit.gap(cc, rr)).rgb();
      }
    }
  }
  return image;
}

FitKeeper::FitKeeper(QObject* parent) : QObject(parent) { pool_.setMaxThreadCount(1); }

FitKeeper::~FitKeeper() {
  cancel_.request();
  pool_.waitForDone();
}

void FitKeeper::start(const std::function<std::function<void()>(const Cancel&)>& work) {
  ++waiting_;
  pool_.start([this, work, mine = generation_, cancel = cancel_] {
    std::function<void()> take;
    QString problem;
    try {
      const Cancel::Scope stops(cancel);
      cancel.check();
      take = work(cancel);
    } catch (const Cancelled&) {
      // Something newer is asked.
    } catch (const std::exception& e) {
      problem = QString::fromUtf8(e.what());
    }
    QMetaObject::invokeMethod(
        this,
        [this, mine, take, problem] {
          --waiting_;
          if (mine != generation_) return;
          if (!problem.isEmpty()) problem_ = problem;
          if (take) take();
          Q_EMIT changed();
        },
        Qt::QueuedConnection);
  });
}

void FitKeeper::clear() {
  cancel_.request();
  cancel_ = Cancel();
  ++generation_;
  fit_.reset();
  face_.reset();
  binds_.clear();
  picture_ = {};
  problem_.clear();
}

// All that is known of the plan and piece, beyond what one what-if shows.
void FitKeeper::forget() {
  halves_.reset();
  forgiven_.clear();
  ways_.clear();
  ++forgiven_of_;
  ++ways_of_;
  ease_.reset();
}

void FitKeeper::leave() {
  if (!active()) return;
  clear();
  forget();
  piece_.clear();
  plan_.reset();
  Q_EMIT changed();
}

void FitKeeper::look_at(const PlanPtr& plan, const std::string& piece, const Rack& rack) {
  if (plan == plan_ && piece == piece_ && rack == rack_) return;
  clear();
  if (piece != piece_) what_if_ = {};
  forget();
  plan_ = plan;
  piece_ = piece;
  rack_ = rack;
  prove();
  compare();
  Q_EMIT changed();  // what was shown is of another plan
}

void FitKeeper::try_it(const WhatIf& what_if) {
  if (what_if == what_if_ || !active()) return;
  what_if_ = what_if;
  const bool whole = !forgiven_.empty() && !ways_.empty();
  clear();
  prove();
  if (!whole) compare();
}

void FitKeeper::show(Show what) {
  if (what == show_) return;
  show_ = what;
  paint();
}

void FitKeeper::sand(double mm) {
  if (mm == sanded_) return;
  sanded_ = mm;
  paint();
}

void FitKeeper::prove() {
  start([this, plan = plan_, id = piece_, rack = rack_, what_if = what_if_, known = halves_, what = show_,
         sanded = sanded_](const Cancel& cancel) -> std::function<void()> {
    std::shared_ptr<const Halves> halves = known;
    if (!halves) {
      for (const FurtherBoard& board : plug_boards(plan->job)) {
        for (const PlugPlace& place : board.places) {
          if (place.piece != id) continue;
          const Plan plug = doyen::plan(board.job, rack, machine_for(board.job), nullptr, cancel);
          halves = std::make_shared<const Halves>(halves_of(*plan, plug, place, MovesFrom::Files, cancel));
        }
      }
    }
    if (!halves) throw bad_input(tr("There is no plug for this piece.").toStdString());
    const auto fit = std::make_shared<const Fit>(mate(*halves, fit_cell(halves->art), what_if, cancel));
    const auto face = std::make_shared<const Face>(face_after(*fit, 0));
    const std::vector<FitPlace> binds = binding_places(*fit);
    const QImage picture = fit_picture(*fit, *halves, plan->job, what, sanded, cancel);
    return [this, halves, fit, face, binds, picture] {
      halves_ = halves;
      fit_ = fit;
      face_ = face;
      binds_ = binds;
      picture_ = picture;
      picture_box_ = fit->pocket.box();
    };
  });
}

void FitKeeper::paint() {
  if (!fit_) return;  // it comes with the proof
  start([this, fit = fit_, halves = halves_, plan = plan_, what = show_,
         sanded = sanded_](const Cancel& cancel) -> std::function<void()> {
    const QImage picture = fit_picture(*fit, *halves, plan->job, what, sanded, cancel);
    return [this, picture, what, sanded] {
      if (what == show_ && sanded == sanded_) picture_ = picture;
    };
  });
}

void FitKeeper::compare() {
  start([this, plan = plan_, id = piece_, rack = rack_](const Cancel& cancel) -> std::function<void()> {
    for (const FurtherBoard& board : plug_boards(plan->job)) {
      for (const PlugPlace& place : board.places) {
        if (place.piece != id) continue;
        const Plan plug = doyen::plan(board.job, rack, machine_for(board.job), nullptr, cancel);
        const Halves halves = halves_of(*plan, plug, place, MovesFrom::Plan, cancel);
        const auto rows =
            what_it_forgives(halves, std::max(0.08, fit_cell(halves.art)), plan->job.lengths.unit, cancel);
        return [this, rows] {
          forgiven_ = rows;
          ++forgiven_of_;
        };
      }
    }
    return {};
  });
  start([this, plan = plan_, id = piece_, rack = rack_](const Cancel& cancel) -> std::function<void()> {
    const auto ways = ways_to_inlay(plan->job, id, rack, cancel);
    return [this, ways] {
      ways_ = ways;
      ++ways_of_;
    };
  });
}

void FitKeeper::find_ease() {
  if (!active()) return;
  start([this, plan = plan_, id = piece_, rack = rack_](const Cancel& cancel) -> std::function<void()> {
    const double ease = least_ease(plan->job, id, rack, 0.02, cancel);
    return [this, ease] { ease_ = ease; };
  });
}

}  // namespace doyen
