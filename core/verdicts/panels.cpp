// The panels of a large sign: too large for the machine, seams through what they would spoil, dowels and screws that
// find no room.
#include <algorithm>
#include <cmath>

#include "panels/panels.hpp"
#include "panels/seams.hpp"
#include "problem.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// A seam of the sign, with its place among its kind.
struct Seam {
  bool upright = true;
  std::size_t index = 0;
  double at = 0;  // mm
};

std::vector<Seam> seams_of(const PanelChoices& panels) {
  std::vector<Seam> all;
  for (std::size_t i = 0; i < panels.across.size(); ++i) all.push_back({true, i, panels.across[i]});
  for (std::size_t i = 0; i < panels.deep.size(); ++i) all.push_back({false, i, panels.deep[i]});
  return all;
}

std::vector<double>& list_of(Job& job, const Seam& seam) { return seam.upright ? job.panels.across : job.panels.deep; }

void put_seam(Job& job, const Seam& seam, double at) {
  std::vector<double>& seams = list_of(job, seam);
  if (seam.index >= seams.size()) return;
  seams[seam.index] = at;
  std::sort(seams.begin(), seams.end());
}

std::string seam_in_words(const Situation& s, const Seam& seam) {
  return seam.upright ? say("the seam {0} from the left", s.show(seam.at))
                      : say("the seam {0} from the front", s.show(seam.at));
}

Point middle_of(const Situation& s, const Seam& seam) {
  const Point middle = s.job.blank.box().centre();
  return seam.upright ? Point{seam.at, middle.y} : Point{middle.x, seam.at};
}

// By a figure that can be said and typed, where it is as calm there.
double round_place(const Situation& s, const SeamCosts& costs, double at, double was) {
  const double step = s.job.lengths.unit == Unit::Inch ? kMmPerInch / 32 : 0.5;
  const double round = std::round(at / step) * step;
  return costs.at(round) <= costs.at(at) + 1 || costs.at(round) < costs.at(was) / 4 ? round : at;
}

// By how far and which way, in words that say what is seen.
Remedy move_seam(const Situation& s, const Seam& seam, double to) {
  const double by = to - seam.at;
  const std::string how = seam.upright ? (by > 0 ? say("Move the seam {0} to the right", s.show(by))
                                                 : say("Move the seam {0} to the left", s.show(-by)))
                                       : (by > 0 ? say("Move the seam {0} to the back", s.show(by))
                                                 : say("Move the seam {0} to the front", s.show(-by)));
  return {how, [seam, to](Job& job) { put_seam(job, seam, to); }};
}

void check_size(const Situation& s, std::vector<Verdict>& out) {
  const LargestPanel most = largest_panel(s.job.panels, s.machine, s.job.run.on_bed);
  for (const Panel& panel : panels_of(s.job)) {
    const double wide = panel.box.width(), high = panel.box.height();
    if (wide <= most.width + 1e-6 && high <= most.height + 1e-6) continue;
    std::vector<Remedy> remedies;
    try {
      PanelChoices seams = propose_seams(s.job, most);
      remedies.push_back({say("Take Doyen's seams"), [seams](Job& job) { job.panels = seams; }});
    } catch (const Problem&) {
      // no number of seams does
    }
    out.push_back({Grade::Stop, "panel-too-large", "", panel.box.centre(),
                   say("Panel {0} is {1} × {2}; at most {3} × {4} can be made.", panel.number, s.show(wide),
                       s.show(high), s.show(most.width), s.show(most.height)),
                   s.job.panels.most_width > 0 && s.job.panels.most_height > 0
                       ? say("That is the largest panel you asked for.")
                       : say("The machine travels no farther, with room for bits that run off its sides."),
                   std::move(remedies)});
    return;
  }
}

// A seam beside the sign, or so near another one that no panel is left between.
void check_lost(const Situation& s, std::vector<Verdict>& out) {
  double last[2] = {0, 0};
  for (const Seam& seam : seams_of(s.job.panels)) {
    const double whole = seam.upright ? s.job.blank.width : s.job.blank.height, half = s.job.panels.gap / 2;
    double& before = last[seam.upright ? 0 : 1];
    if (seam.at - half - before >= kNarrowestPanel && whole - seam.at - half >= kNarrowestPanel) {
      before = seam.at + half;
      continue;
    }
    out.push_back(
        {Grade::Stop,
         "seam-lost",
         "",
         middle_of(s, seam),
         say("No panel is left beside {0}.", seam_in_words(s, seam)),
         say("It lies beyond the sign, or nearer than {0} to its edge or another seam.", s.show(kNarrowestPanel)),
         {{say("Leave this seam out"), [seam](Job& job) {
             std::vector<double>& seams = list_of(job, seam);
             if (seam.index < seams.size()) seams.erase(seams.begin() + static_cast<std::ptrdiff_t>(seam.index));
           }}}});
    return;
  }
}

void check_seam(const Situation& s, const Seam& seam, const SeamCosts& costs, const OutlinesOf& outlines,
                std::vector<Verdict>& out) {
  // As far as neither neighbour becomes too large.
  const LargestPanel most = largest_panel(s.job.panels, s.machine, s.job.run.on_bed);
  const std::vector<double>& all = seam.upright ? s.job.panels.across : s.job.panels.deep;
  const double largest = seam.upright ? most.width : most.height, half = s.job.panels.gap / 2;
  const double before = seam.index == 0 ? 0 : all[seam.index - 1] + half;
  const double behind = seam.index + 1 < all.size() ? all[seam.index + 1] - half : costs.length();
  const double within =
      std::min({largest - (seam.at - half - before), largest - (behind - seam.at - half),
                seam.at - half - before - kNarrowestPanel, behind - seam.at - half - kNarrowestPanel});
  const double calm = within > 0 ? round_place(s, costs, costs.calmest(seam.at, within), seam.at) : seam.at;
  const bool moves = std::abs(calm - seam.at) > 0.1;
  const std::vector<std::string> whole = costs.parted_whole(seam.at);
  if (!whole.empty()) {
    const Item* item = s.job.find(whole.front());
    std::vector<Remedy> remedies;
    if (moves && costs.parted_whole(calm).empty()) remedies.push_back(move_seam(s, seam, calm));
    out.push_back(
        {Grade::Stop, "seam-through-whole", whole.front(), middle_of(s, seam),
         say("“{0}” lies across {1}.", item == nullptr ? whole.front() : item->piece.name, seam_in_words(s, seam)),
         say("Inlays, inserts, holes and slots are of one board: parted they would not fit."), std::move(remedies)});
    return;
  }
  int islands = 0;
  std::string first;
  for (const CutThrough& cut : cut_by_seam(s.job, outlines, seam.upright, seam.at)) {
    const Item* item = s.job.find(cut.piece);
    if (item == nullptr || !std::holds_alternative<Lettering>(item->piece.what)) continue;
    islands += cut.islands;
    if (first.empty()) first = item->piece.name;
  }
  constexpr double kCalmer = 0.5;  // of the outline beside it
  if (islands == 0) return;
  std::vector<Remedy> remedies;
  if (moves && costs.at(calm) < kCalmer * costs.at(seam.at)) remedies.push_back(move_seam(s, seam, calm));
  out.push_back(
      {remedies.empty() ? Grade::Note : Grade::Mind, "seam-through-letters", "", middle_of(s, seam),
       say("{0} {0|letter|letters} of “{1}” {0|is|are} parted by {2}.", islands, first, seam_in_words(s, seam)),
       remedies.empty() ? say("Every place for it parts some: mind that the edges meet well there.")
                        : say("A letter over two panels shows every step between them."),
       std::move(remedies)});
}

// Where a bit goes so deep beside a seam that it would meet a dowel, mm below the face.
bool meets_cut(const Situation& s, const Box& dowel, double above) {
  const auto move_meets = [&](const Point3& a, const Point3& b) {
    Box move;
    move.add(a.flat());
    move.add(b.flat());
    return -std::min(a.z, b.z) > above && move.meets(dowel);
  };
  const auto meets = [&](const Operation& op) {
    return !op.back && op.depth - op.ground >= above &&
           std::any_of(op.passes.begin(), op.passes.end(),
                       [&](const Pass& pass) { return any_move(pass, move_meets); });
  };
  return std::any_of(s.pieces.begin(), s.pieces.end(), [&](const PieceState& piece) {
    return piece.cuts != nullptr && std::any_of(piece.cuts->operations.begin(), piece.cuts->operations.end(), meets);
  });
}

// Joints whose dowels meet something cut, with this job's choices.
std::vector<MatingEdge> dowels_in_cuts(const Situation& s, const Job& job) {
  constexpr double kSkin = 3;  // mm of wood between a dowel's hole and a cut (common practice, no source)
  std::vector<MatingEdge> found;
  const double deep = dowel_depth(job), half = job.panels.hole / 2;
  const double above = job.blank.thinnest() / 2 - half - kSkin;
  for (const MatingEdge& edge : mating_edges(job)) {
    const std::vector<double> places = dowels_of(job, edge);
    if (std::any_of(places.begin(), places.end(), [&](double along) {
          const Point at = edge.place(along);
          const Box dowel = edge.upright ? Box{at.x - deep, at.y - half, at.x + deep, at.y + half}
                                         : Box{at.x - half, at.y - deep, at.x + half, at.y + deep};
          return meets_cut(s, dowel.grown(kSkin), above);
        }))
      found.push_back(edge);
  }
  return found;
}

void check_dowels(const Situation& s, std::vector<Verdict>& out) {
  const PanelChoices& panels = s.job.panels;
  const Point middle = s.job.blank.box().centre();
  if (panels.gap > 0)
    out.push_back({Grade::Mind,
                   "panel-dowel-gap",
                   "",
                   middle,
                   say("Dowels would show in the gap of {0}.", s.show(panels.gap)),
                   say("They join edges that meet."),
                   {{say("Let the edges meet"), [](Job& job) { job.panels.gap = 0; }},
                    {say("No dowels"), [](Job& job) { job.panels.join = PanelChoices::Join::Butted; }}}});
  constexpr double kMostOfThickness = 0.5;  // of the board (common practice, no source)
  if (panels.hole > kMostOfThickness * s.job.blank.thinnest()) {
    const double fits = std::max(1.0, std::floor(kMostOfThickness * s.job.blank.thinnest()));
    out.push_back(
        {Grade::Mind,
         "panel-dowel-thick",
         "",
         middle,
         say("Dowels of {0} are thick for a board of {1}.", s.show(panels.hole), s.show(s.job.blank.thinnest())),
         say("At most half of it is usual: the wood beside them splits."),
         {{say("Take dowels of {0}", s.show(fits)), [fits](Job& job) { job.panels.hole = fits; }}}});
    return;
  }
  const std::vector<MatingEdge> met = dowels_in_cuts(s, s.job);
  if (met.empty()) return;
  std::vector<Remedy> remedies;
  for (const double share : {0.9, 0.8, 1.15, 0.7, 1.3, 0.6, 1.5, 0.5}) {
    Job tried = s.job;
    tried.panels.apart = std::round(panels.apart * share);
    if (tried.panels.apart < 20 || !dowels_in_cuts(s, tried).empty()) continue;
    remedies.push_back({say("Put them at most {0} apart", s.show(tried.panels.apart)),
                        [apart = tried.panels.apart](Job& job) { job.panels.apart = apart; }});
    break;
  }
  out.push_back({Grade::Mind, "panel-dowel-cut", "", met.front().place((met.front().from + met.front().to) / 2),
                 say("A dowel in edge {0} would meet what is cut there.", met.front().letter),
                 say("Its hole runs {0} into either edge, in the middle of the thickness.", s.show(dowel_depth(s.job))),
                 std::move(remedies)});
}

void check_screws(const Situation& s, std::vector<Verdict>& out) {
  try {
    for (const Panel& panel : panels_of(s.job)) {
      const std::size_t screws = screws_of(s.job, s.rack, panel).size();
      (void)panel_job(s.job, s.rack, panel);
      if (screws >= 2) continue;
      out.push_back(
          {Grade::Mind,
           "panel-no-hole",
           "",
           panel.box.centre(),
           say("Panel {0} has room for {1} {1|screw|screws} only.", panel.number, screws),
           say("What is cut leaves no plain wood beside its edges."),
           {{say("Without holes for screws"), [](Job& job) { job.panels.join = PanelChoices::Join::Butted; }}}});
      return;
    }
  } catch (const Problem& problem) {
    out.push_back(
        {Grade::Stop,
         "panel-no-hole",
         "",
         s.job.blank.box().centre(),
         say("The holes for its screws cannot be made."),
         problem.what(),
         {{say("Without holes for screws"), [](Job& job) { job.panels.join = PanelChoices::Join::Butted; }}}});
  }
}

}  // namespace

void check_panels(const Situation& s, std::vector<Verdict>& out) {
  const PanelChoices& panels = s.job.panels;
  if (!panels.there() || s.job.plates.there()) return;
  try {
    (void)panels_of(s.job);
  } catch (const Problem&) {
    return;  // the board's outline is said elsewhere
  }
  const std::size_t before = out.size();
  check_lost(s, out);
  if (out.size() > before) return;
  check_size(s, out);
  OutlinesOf outlines;  // as they were made for the plan, which outlives this
  for (const PieceState& piece : s.pieces) outlines.emplace_back(std::shared_ptr<const Outlines>(), piece.outlines);
  const SeamCosts across(s.job, true, outlines), deep(s.job, false, outlines);
  for (const Seam& seam : seams_of(panels)) check_seam(s, seam, seam.upright ? across : deep, outlines, out);
  if (panels.join == PanelChoices::Join::Dowels) check_dowels(s, out);
  if (panels.join == PanelChoices::Join::Screws) check_screws(s, out);
}

}  // namespace doyen
