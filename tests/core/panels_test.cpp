// Panels of a large sign: each panel's files, carved by the independent reader, against the whole sign's own relief;
// seams against every way of placing them on small signs (exhaustion) and a flag's published proportions.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "cutting/run_off.hpp"
#include "panels/panels.hpp"
#include "panels/seams.hpp"
#include "planning/further_boards.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"
#include "random_jobs.hpp"
#include "remedies.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

constexpr double kCell = 0.5;  // mm

// How far the panel's cells lie outside of what the sign has there and in the cells beside, mm, and where on the sign:
// at a wall the last figure of a file decides in which cell it stands.
std::pair<double, Point> unlike(const HeightField& sign, const HeightField& panel, const Box& box) {
  double most = 0;
  Point where;
  for (std::size_t r = 0; r < panel.rows(); ++r) {
    for (std::size_t c = 0; c < panel.columns(); ++c) {
      const Point p{box.left + panel.x_of(c), box.bottom + panel.y_of(r)};
      float low = 1e9F, high = -1e9F;
      for (const double dx : {-kCell, 0.0, kCell}) {
        for (const double dy : {-kCell, 0.0, kCell}) {
          const Point q = p + Point{dx, dy};
          if (!sign.box().contains(q)) continue;
          low = std::min(low, at(sign, q));
          high = std::max(high, at(sign, q));
        }
      }
      const double own = panel.at(c, r), off = std::max(low - own, own - high);
      if (off <= most) continue;
      most = off;
      where = p;
    }
  }
  return {most, where};
}

// How far the moves of a plan go past the board, beyond half the bit, mm.
double past_board(const Plan& p) {
  double most = -1e9;
  for (const BitRun& run : p.runs) {
    const double half = run.bit.true_diameter() / 2;
    for (const Operation* op : run.operations) {
      for (const Pass& pass : op->passes) {
        for (const Point3& q : pass.points)
          most = std::max(
              {most, -q.x - half, q.x - p.job.blank.width - half, -q.y - half, q.y - p.job.blank.height - half});
      }
    }
  }
  return most;
}

// A flag's stripes, canton and stars, as published.
Job flag(double hoist) {  // US Executive Order 10834 (1959), attachment: hoist 1, fly 1.9, canton 7/13 × 0.76
  Job job = board(1.9 * hoist, hoist, 18);
  const double stripe = hoist / 13;
  for (int i = 0; i < 7; ++i) {  // the upper ones begin behind the canton
    const double from = i < 3 ? 0 : 0.76 * hoist, to = 1.9 * hoist;
    add(job, ("stripe-" + std::to_string(i)).c_str(), {kBox, to - from, stripe},
        {(from + to) / 2, stripe / 2 + 2 * stripe * i}, cut(Kind::Recess, 2, {"flat-1/4in"}));
  }
  for (int row = 0; row < 9; ++row) {
    for (int column = 0; column < (row % 2 == 0 ? 6 : 5); ++column) {
      PlainShape star{PlainShape::Kind::Star, 0.0616 * hoist, 0.0616 * hoist};
      star.points = 5;
      star.inner = 0.381966;
      const double x = 0.063 * hoist * (1 + 2 * column + (row % 2 == 0 ? 0 : 1));
      add(job, ("star-" + std::to_string(row) + "-" + std::to_string(column)).c_str(), star,
          {x, hoist - 0.054 * hoist * (1 + row)}, cut(Kind::Incise, 1));
    }
  }
  return job;
}

}  // namespace

TEST_CASE("moves kept inside a box are those parts of them that lie there") {
  std::mt19937 random(5);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  const Box box{-10, -6, 12, 9};
  for (int round = 0; round < 200; ++round) {
    Pass pass;
    const int points = 2 + static_cast<int>(random() % 8);
    for (int i = 0; i < points; ++i) pass.points.push_back({between(-25, 25), between(-20, 20), between(-5, 0)});
    const std::vector<Pass> kept = kept_inside({pass}, box);
    // By sampling: every place of the way that lies well inside is on one of the parts, at its height, and no other.
    double inside = 0, length = 0;
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      constexpr int kSamples = 4000;
      for (int k = 0; k < kSamples; ++k) {
        const double t = (k + 0.5) / kSamples;
        const Point p{a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t};
        if (box.contains(p)) inside += distance(a, b) / kSamples;
      }
    }
    for (const Pass& part : kept) {
      length += path_length(part);
      for (const Point3& p : part.points) CHECK(box.grown(1e-9).contains(p.flat()));
    }
    CHECK(length == Approx(inside).margin(0.05));
  }
  const Pass within{{{0, 0, -1}, {3, 3, -2}}, -0.5};
  const std::vector<Pass> same = kept_inside({within}, box);
  REQUIRE(same.size() == 1);
  CHECK(same.front().points == within.points);
  CHECK(same.front().gone_above == -0.5);
  // Where it comes into the box nothing is known of the wood above.
  CHECK(kept_inside({{{{-20, 0, -1}, {3, 0, -2}}, -0.5}}, box).front().gone_above == Pass::kFace);
  CHECK(kept_inside({{{{50, 50, -1}}, 0}}, box).empty());    // a plunge beside it
  CHECK(kept_inside({{{{1, 1, -1}}, 0}}, box).size() == 1);  // and in it
}

TEST_CASE("panels of random signs are carved as the whole sign would be, and bits go just past their seams") {
  int panels = 0, cut_across = 0;
  const unsigned last = under_sanitizers() ? 904 : 930;
  for (unsigned seed = 900; seed < last; ++seed) {
    Job job = SignMaker(seed).job();
    std::erase_if(job.items, [](const Item& item) {
      return item.cut.kind == Kind::Inlay || item.cut.back || item.cut.kind == Kind::HangerSlot;
    });
    // The readers' grids lie alike where everything lies on the cells.
    job.blank.width = std::round(job.blank.width);
    job.blank.height = std::round(job.blank.height);
    job.run.on_bed = OnBed::AsDrawn;
    if (seed % 3 == 0) job.blank.form = BlankForm::Oval;
    INFO("seed " << seed);
    const Plan whole = planned(job);
    const HeightField sign = carved(whole, kCell);
    const std::vector<Fault> spoilt = judge_files(whole, gcode_files(whole), 0.4).faults;
    job.panels.across = {std::round(job.blank.width * (0.3 + 0.05 * (seed % 9)))};
    job.panels.deep = {std::round(job.blank.height * (0.7 - 0.05 * (seed % 7)))};
    job.panels.gap = seed % 4 == 0 ? 6 : 0;
    const Rack rack = load_rack();
    for (const Panel& panel : panels_of(job)) {
      const Job own = panel_job(job, rack, panel);
      const Plan p = planned(own);
      if (p.runs.empty()) continue;
      INFO("panel " << panel.number << " " << panel.box.left << " " << panel.box.bottom);
      if (job.blank.form == BlankForm::Rectangle) {
        const auto [off, where] = unlike(sign, carved(p, kCell), panel.box);
        INFO("at " << where.x << " " << where.y << " of " << job.blank.width << " " << job.blank.height);
        CHECK(off < 0.02);
      }
      CHECK(read_job(write_job(own), "panel") == own);
      // The judge knows nothing of the whole sign: what the panel wants is what its files cut, or it is the sign's own
      // fault.
      for (const Fault& fault : judge_files(p, gcode_files(p), 0.4).faults) {
        // What an operation has to do may all lie on another panel.
        if (fault.kind == Fault::Kind::Air) continue;
        const bool known = std::any_of(spoilt.begin(), spoilt.end(), [&](const Fault& other) {
          return other.kind == fault.kind && other.piece == fault.piece;
        });
        INFO(to_word(fault.kind) << " " << fault.mm << " at " << fault.at.x << " " << fault.at.y);
        CHECK(known);
      }
      ++panels;
      cut_across += past_board(p) > 0.5 ? 1 : 0;
      const RunsOff& off = own.blank.runs_off;
      for (const BitRun& run : p.runs) {
        const double half = run.bit.true_diameter() / 2 + 1 + 1e-6;
        for (const Operation* op : run.operations) {
          for (const Pass& pass : op->passes) {
            for (const Point3& q : pass.points) {
              if (off.left) CHECK(q.x >= -half);
              if (off.right) CHECK(q.x <= own.blank.width + half);
              if (off.front) CHECK(q.y >= -half);
              if (off.back) CHECK(q.y <= own.blank.height + half);
            }
          }
        }
      }
    }
  }
  CHECK(panels > (under_sanitizers() ? 8 : 80));
  CHECK(cut_across > panels / 4);
}

TEST_CASE("panels share out the sign: each place of its wood is on one of them, or in a gap") {
  std::mt19937 random(8);
  for (int round = 0; round < 60; ++round) {
    Job job = board(600 + static_cast<double>(random() % 900), 300 + static_cast<double>(random() % 600));
    job.blank.form = round % 3 == 0 ? BlankForm::Oval : BlankForm::Rectangle;
    job.panels.gap = round % 2 == 0 ? 0 : 8;
    for (std::size_t i = 0; i < random() % 3; ++i)
      job.panels.across.push_back(job.blank.width * (0.2 + 0.3 * static_cast<double>(i)));
    for (std::size_t i = 0; i < 1 + random() % 2; ++i)
      job.panels.deep.push_back(job.blank.height * (0.3 + 0.3 * static_cast<double>(i)));
    const std::vector<Panel> panels = panels_of(job);
    double wood = 0;
    const Rack rack = load_rack();
    for (const Panel& panel : panels) {
      const Job own = panel_job(job, rack, panel);
      CHECK(own.blank.width == Approx(panel.box.width()));
      wood += area(region_of(own.blank));
    }
    double gaps = 0;
    Region all;
    for (const double at : job.panels.across)
      all = unite(all, region_of(Box{at - job.panels.gap / 2, -1, at + job.panels.gap / 2, job.blank.height + 1}));
    for (const double at : job.panels.deep)
      all = unite(all, region_of(Box{-1, at - job.panels.gap / 2, job.blank.width + 1, at + job.panels.gap / 2}));
    gaps = job.panels.gap > 0 ? area(intersect(all, region_of(job.blank))) : 0;
    INFO(round << ": " << panels.size());
    CHECK(wood == Approx(area(region_of(job.blank)) - gaps).epsilon(1e-3));
    for (std::size_t i = 0; i < panels.size(); ++i) {
      CHECK(panels[i].number == static_cast<int>(i) + 1);
      for (std::size_t k = 0; k < i; ++k) CHECK_FALSE(panels[i].box.grown(-0.1).meets(panels[k].box.grown(-0.1)));
    }
    // Read as one reads: the first is the upper left one.
    CHECK(panels.front().row == 0);
    for (const MatingEdge& edge : mating_edges(job)) {
      CHECK(edge.one != edge.other);
      const Box &one = panels[static_cast<std::size_t>(edge.one) - 1].box,
                &other = panels[static_cast<std::size_t>(edge.other) - 1].box;
      const std::vector<double> dowels = dowels_of(job, edge);
      for (std::size_t i = 0; i < dowels.size(); ++i) {  // in the edge of both
        const Point p = edge.place(dowels[i]);
        const double half = job.panels.gap / 2 + 0.2;
        const Point aside = edge.upright ? Point{half, 0} : Point{0, half};
        CHECK(one.grown(0.2).contains(p - aside));
        CHECK(other.grown(0.2).contains(p + aside));
        if (i > 0) CHECK(dowels[i] - dowels[i - 1] <= job.panels.apart + 1e-6);
      }
    }
  }
}

TEST_CASE("a flag's seams go through stripes' middles and past its stars") {  // published: US Executive Order 10834
  const double hoist = 1000, stripe = hoist / 13;
  Job job = flag(hoist);
  job.panels = propose_seams(job, {1000, 700});
  REQUIRE(job.panels.across.size() == 1);
  REQUIRE(job.panels.deep.size() == 1);
  // By hand: the last row of stars reaches down to 0.4832, so that the sixth stripe's middle is the nearest free one.
  const double in_stripe = std::fmod(job.panels.deep.front(), stripe);
  CHECK(in_stripe == Approx(stripe / 2).margin(2));
  CHECK(job.panels.deep.front() == Approx(5.5 * stripe).margin(2));
  // Stars end at the canton's fly, 0.76: no seam parts one.
  CHECK(job.panels.across.front() > 0.76 * hoist);
  CHECK(std::max(job.panels.across.front(), job.blank.width - job.panels.across.front()) <= 1000);
  CHECK(find(planned(job), "seam-through-letters") == nullptr);
  CHECK(panels_of(job).size() == 4);
  // Narrow panels: seams must go through the canton, and take the gaps between its columns of stars.
  job.panels = propose_seams(job, {340, 560});
  CHECK(job.panels.across.size() == 5);
  for (const double at : job.panels.across) {
    for (const Item& item : job.items) {
      if (!item.piece.id.starts_with("star")) continue;
      const Box star = bounds(job.outlines(item));
      INFO(at << " " << item.piece.id);
      CHECK((at < star.left + 0.3 || at > star.right - 0.3));
    }
  }
  // The drawing told to be another size keeps its places in shares.
  Job twice = flag(2 * hoist);
  twice.panels = propose_seams(twice, {2000, 1400});
  const double off_edge = std::remainder(twice.panels.deep.front(), 2 * stripe);
  CHECK(std::abs(off_edge) > 30);
}

TEST_CASE("seams harm no more than the best of all ways of placing them") {
  std::mt19937 random(21);
  for (int round = 0; round < 12; ++round) {
    Job job = board(200 + static_cast<double>(random() % 60), 60);
    for (int i = 0; i < 5; ++i) {
      const double wide = 8 + static_cast<double>(random() % 30);
      add(job, ("b" + std::to_string(i)).c_str(), {kBox, wide, 30}, {20 + static_cast<double>(random() % 180), 30},
          cut(Kind::Recess, 1, {"flat-1/8in"}));
    }
    const double most = 90;
    const PanelChoices panels = propose_seams(job, {most, 100});
    const SeamCosts costs(job, true);
    REQUIRE(panels.across.size() == 2);  // 200 to 259 in panels of 90: by hand
    const auto harm = [&](double a, double b) { return costs.at(a) + costs.at(b); };
    double least = 1e300;
    for (double a = 30; a <= most; a += 1) {
      for (double b = a + 30; b - a <= most; b += 1) {
        if (job.blank.width - b > most || job.blank.width - b < 30) continue;
        least = std::min(least, harm(a, b));
      }
    }
    INFO(round << ": " << panels.across[0] << " " << panels.across[1]);
    // Panels as alike as may be count a little, too: at most as much as outline of 60 mm each.
    CHECK(harm(panels.across[0], panels.across[1]) <= least + 3 * 60 * 0.5);
    CHECK(panels.across[0] <= most + 1e-6);
    CHECK(panels.across[1] - panels.across[0] <= most + 1e-6);
    CHECK(job.blank.width - panels.across[1] <= most + 1e-6);
  }
  CHECK_THROWS_WITH(propose_seams(board(5000, 60), {50, 100}), Catch::Contains("more than"));
}

TEST_CASE("each verdict about panels goes with each of its remedies") {
  const auto lettered = [] {
    Job job = board(900, 200);
    Lettering l;
    l.words = "MARROWBY";
    l.face = {"EB Garamond", "Regular"};
    l.cap_height = 70;
    job.items.push_back({{"words", "words", l, {450, 100}, 0}, cut(Kind::Incise, 1)});
    job.panels.most_width = 600;
    job.panels.most_height = 300;
    return job;
  };
  std::vector<std::pair<const char*, Job>> cases;
  {
    Job job = lettered();  // across a letter, with a gap not far
    const Box m = bounds(job.outlines(job.items.front()).region.islands.front().rings.front());
    job.panels.across = {m.right - 0.2 * m.width()};
    job.panels.most_width = 880;
    cases.emplace_back("seam-through-letters", job);
  }
  {
    Job job = lettered();
    job.panels.across = {100};
    cases.emplace_back("panel-too-large", job);
  }
  {
    Job job = lettered();
    job.panels.across = {450, 455};
    cases.emplace_back("seam-lost", job);
    job.panels.across = {450, 950};
    cases.emplace_back("seam-lost", job);
  }
  {
    Job job = board(900, 200);
    job.panels.across = {450};
    job.panels.most_width = 800;
    add(job, "hole", {PlainShape::Kind::Ellipse, 8, 8}, {452, 100}, cut(Kind::Drill, 10, {}, "flat-1/4in"));
    cases.emplace_back("seam-through-whole", job);
    job.items.clear();
    job.panels.join = PanelChoices::Join::Dowels;
    job.panels.gap = 5;
    cases.emplace_back("panel-dowel-gap", job);
    job.panels.gap = 0;
    job.panels.hole = 12;
    cases.emplace_back("panel-dowel-thick", job);
    job.panels.hole = 6;
    job.panels.apart = 60;
    const double met = dowels_of(job, mating_edges(job).front())[1];
    add(job, "deep", {kBox, 100, 14}, {450, met}, cut(Kind::Recess, 9, {"flat-1/8in"}));
    cases.emplace_back("panel-dowel-cut", job);
    job.panels.join = PanelChoices::Join::Screws;
    job.panels.hole = 2;
    cases.emplace_back("panel-no-hole", job);
  }
  for (const auto& [code, job] : cases) check_remedies_mend(job, code);
}

TEST_CASE("panels are boards of their own with lettered edges; screws stand in plain wood beside the edges") {
  Job job = flag(700);
  job.panels = propose_seams(job, {700, 500});
  job.panels.join = PanelChoices::Join::Screws;
  job.panels.hole = 8;
  const Rack rack = load_rack();
  const std::vector<FurtherBoard> boards = further_boards(job, rack);
  REQUIRE(boards.size() == 4);
  CHECK(boards[0].folder == "panel-1");
  CHECK(boards[3].folder == "panel-4");
  // Two by two: four edges, each panel has two of them.
  const std::vector<MatingEdge> edges = mating_edges(job);
  REQUIRE(edges.size() == 4);
  CHECK(boards[0].title.find("A at its right edge") != std::string::npos);
  for (const FurtherBoard& each : boards) {
    INFO(each.folder);
    const Plan p = planned(each.job);
    CHECK_FALSE(p.has_stop());
    int holes = 0;
    for (std::size_t i = 0; i < each.job.items.size(); ++i) {
      if (each.job.items[i].group != "panel-screws") continue;
      ++holes;
      const Region hole = grow(p.pieces[i]->outlines.region, 3);
      for (std::size_t k = 0; k < each.job.items.size(); ++k) {
        if (k == i) continue;
        CHECK(intersect(hole, p.pieces[k]->outlines.region).empty());
      }
    }
    CHECK(holes >= 4);
  }
  // The sign itself lies on no bed: no travel is too short for it.
  CHECK(find(planned(job), "past-travel") == nullptr);
  CHECK(read_job(write_job(job), "job") == job);
}

TEST_CASE("seams are typed as places, and what is none is said") {
  CHECK(parse_seams("1200; 600", Unit::Millimetre) == std::vector<double>{600, 1200});
  CHECK(parse_seams("23 1/2\"", Unit::Inch).front() == Approx(23.5 * 25.4));
  CHECK(parse_seams(seams_in_words({600, 1200.5}, {}), Unit::Millimetre) == std::vector<double>{600, 1200.5});
  CHECK(parse_seams("", Unit::Millimetre).empty());
  for (const char* wrong : {"half", "0", "-3", "1e9", "nan"}) {
    INFO(wrong);
    CHECK_THROWS_AS(parse_seams(wrong, Unit::Millimetre), Problem);
  }
}
