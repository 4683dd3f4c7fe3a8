// Edits in any order, each from a few bytes: what is taken over can be saved and opened, and is then the same; what is
// refused leaves the job as it was.
#include <algorithm>
#include <array>

#include "artwork/drawing/points.hpp"
#include "fuzz_target.hpp"
#include "job/job.hpp"
#include "job/layout.hpp"
#include "problem.hpp"

using namespace doyen;

namespace {

class Dice {
 public:
  explicit Dice(const std::string& bytes) : bytes_(bytes) {}
  [[nodiscard]] bool empty() const { return at_ >= bytes_.size(); }
  unsigned byte() { return empty() ? 0 : static_cast<unsigned char>(bytes_[at_++]); }
  // Small, usual, huge, negative and odd figures.
  double figure() {
    static constexpr std::array kFigures{0.0,   -1.0,  0.01, 0.1, 0.5, 1.0, 2.0, 3.175, 6.35, 10.0,  25.4,
                                         100.0, 300.0, 1e3,  1e4, 5e4, 1e5, 1e6, 1e9,   1e-6, 1e300, -0.5};
    const unsigned b = byte();
    return b < kFigures.size() ? kFigures[b] : (b - 128.0) * (byte() + 1.0) / 16;
  }
  std::string text() {
    std::string out;
    for (unsigned n = byte() % 12; n > 0 && !empty(); --n) out += static_cast<char>(byte());
    return out;
  }

 private:
  const std::string& bytes_;
  std::size_t at_ = 0;
};

Piece fresh_piece(Dice& dice, const Job& job) {
  Piece piece;
  piece.id = job.fresh_id("p");
  piece.name = dice.text();
  switch (dice.byte() % 4) {
    case 0: {
      Lettering l;
      l.words = dice.text();
      l.cap_height = dice.figure();
      l.letter_spacing = dice.figure();
      l.arc_radius = dice.figure();
      piece.what = l;
      break;
    }
    case 1: {
      Drawing d;
      d.parts.edit().push_back({"a", "g", "M0 0 L10 0 L10 10 Z", false, dice.byte() % 2 == 0, dice.figure()});
      d.scale = dice.figure();
      d.lines = static_cast<Drawing::Lines>(dice.byte() % 3);
      piece.what = d;
      break;
    }
    case 2: {
      Derived made;
      made.how = static_cast<Derived::How>(dice.byte() % 10);
      for (unsigned n = dice.byte() % 3; n > 0 && !job.items.empty(); --n)
        made.from.push_back(job.items[dice.byte() % job.items.size()].piece.id);
      made.distance = dice.figure();
      made.count = static_cast<int>(dice.byte());
      made.columns = static_cast<int>(dice.byte() % 4);
      made.step_x = dice.figure();
      piece.what = made;
      break;
    }
    default: {
      PlainShape s;
      s.kind = static_cast<PlainShape::Kind>(dice.byte() % 7);
      s.width = dice.figure();
      s.height = dice.figure();
      s.corner_radius = dice.figure();
      piece.what = s;
    }
  }
  piece.at = {dice.figure(), dice.figure()};
  return piece;
}

void edit_cut(Dice& dice, Treatment& cut) {
  switch (dice.byte() % 8) {
    case 0:
      cut.kind = static_cast<Treatment::Kind>(dice.byte() % 12);
      break;
    case 1:
      cut.depth = dice.figure();
      break;
    case 2:
      cut.incise.floor_limit = dice.figure();
      break;
    case 3:
      cut.through.tabs.length = dice.figure();
      cut.through.tabs.placed.push_back({static_cast<int>(dice.byte()), dice.figure()});
      break;
    case 4:
      cut.insert.thickness = dice.figure();
      cut.raise.steps = static_cast<int>(dice.byte());
      break;
    case 5:
      cut.bit = dice.text();
      cut.raise.panel = dice.text();
      break;
    case 6:
      cut.moves.stepover = dice.figure();
      cut.line.hatch = dice.figure();
      break;
    default:
      cut.inlay.contact = dice.figure();
      cut.inlay.wood = dice.text();
  }
}

void edit_job(Dice& dice, Job& job) {
  const unsigned what = dice.byte() % 8;
  Item* item = job.items.empty() ? nullptr : &job.items[dice.byte() % job.items.size()];
  if (what == 0 || item == nullptr) {
    job.items.push_back({fresh_piece(dice, job), {}});
  } else if (what == 1) {
    item->piece.at = {dice.figure(), dice.figure()};
    item->piece.turn = dice.figure();
  } else if (what == 2) {
    size_piece(item->piece, dice.figure(), dice.figure());
  } else if (what == 3) {
    job.items.erase(job.items.begin() + (item - job.items.data()));
  } else if (what == 4) {
    job.blank.width = dice.figure();
    job.blank.readings = {dice.figure(), dice.figure()};
    job.blank.keep_outs.push_back({KeepOut::Kind::Clamp, dice.figure(), dice.figure(), dice.figure(), 5});
  } else if (what == 5) {
    job.run.feeds[dice.text()] = {dice.figure(), dice.figure(), dice.figure(), dice.figure()};
    job.run.mill_level = dice.figure();
    job.name = dice.text();
  } else {
    edit_cut(dice, item->cut);
  }
}

}  // namespace

FUZZ_TARGET(edits) {
  Dice dice(bytes);
  Job job;
  for (int n = 0; n < 40 && !dice.empty(); ++n) {
    Job after = job;
    try {
      edit_job(dice, after);
      check_job(after, job);
    } catch (const Problem&) {
      continue;
    }
    std::swap(job, after);
    for (const Item& item : job.items) {
      // As the window does: what an edit did not touch is not worked out again.
      if (std::find(after.items.begin(), after.items.end(), item) != after.items.end()) continue;
      try {
        (void)job.outlines(item);
      } catch (const Problem&) {
      }
    }
  }
  std::string text;
  try {
    text = job_text(job);
  } catch (const Problem& problem) {
    fuzz::broken(std::string("what was taken over can be saved: ") + problem.what());
  }
  Job opened = read_job(text, "job");
  for (Item& item : opened.items) {
    if (auto* l = std::get_if<Lettering>(&item.piece.what)) l->kept = {};
  }
  // Bytes that are no UTF-8 are replaced when they are saved: once saved it stays the same.
  if (job_text(read_job(job_text(opened), "job")) != job_text(opened))
    fuzz::broken("what was saved and opened is the same");
}
