// Artwork that cannot be set, characters that a face lacks, pieces without a treatment.
#include <algorithm>

#include "verdicts/verdict.hpp"

namespace doyen {

namespace {

// A piece that is not cut itself, but says how far the ground round a raised one is sunk.
bool bounds_a_panel(const Job& job, const std::string& id) {
  return std::any_of(job.items.begin(), job.items.end(),
                     [&](const Item& item) { return item.cut.kind == Treatment::Kind::Raise && item.cut.panel == id; });
}

}  // namespace

void check_pieces(const Situation& s, std::vector<Verdict>& out) {
  if (s.job.items.empty()) {
    out.push_back({Grade::Note,
                   "empty-job",
                   "",
                   s.job.blank.box().centre(),
                   "Nothing lies on the board yet.",
                   "Add lettering, a drawing or a shape under Artwork.",
                   {}});
  }
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Piece& piece = s.job.items[i].piece;
    if (!s.pieces[i].problem.empty()) {
      out.push_back({Grade::Stop,
                     "piece-cannot-be-set",
                     piece.id,
                     piece.at,
                     "“" + piece.name + "” cannot be set.",
                     s.pieces[i].problem,
                     {}});
      continue;
    }
    const Outlines& outlines = *s.pieces[i].outlines;
    if (!outlines.notice.empty()) {
      out.push_back({Grade::Mind,
                     "face-missing",
                     piece.id,
                     piece.at,
                     "“" + piece.name + "” uses outlines kept in the job.",
                     outlines.notice,
                     {}});
    }
    if (!outlines.missing.empty()) {
      std::string which;
      for (const std::string& m : outlines.missing) which += (which.empty() ? "“" : ", “") + m + "”";
      out.push_back({Grade::Stop,
                     "missing-glyph",
                     piece.id,
                     piece.at,
                     "The face of “" + piece.name + "” has no " + which + ".",
                     "It would be left out of the wood. Choose a face that has it, or change the words.",
                     {}});
    }
    if (outlines.region.empty() && outlines.lines.empty()) {
      if (!outlines.missing.empty()) continue;  // that says it all
      out.push_back({Grade::Mind,
                     "empty-piece",
                     piece.id,
                     piece.at,
                     "“" + piece.name + "” has nothing to carve.",
                     "Its words or outlines are empty.",
                     {}});
    } else if (outlines.region.empty() && (s.job.items[i].cut.kind == Treatment::Kind::Incise ||
                                           s.job.items[i].cut.kind == Treatment::Kind::CutOut)) {
      out.push_back({Grade::Stop,
                     "only-lines",
                     piece.id,
                     outlines.lines.front().front(),
                     "“" + piece.name + "” is made of single lines, which enclose nothing to carve.",
                     "Let the bit follow them, or give the lines a width under Artwork.",
                     {{"Follow the lines", [id = piece.id](Job& job) {
                         if (Item* item = job.find(id)) item->cut.kind = Treatment::Kind::Line;
                       }}}});
    } else if (s.job.items[i].cut.kind == Treatment::Kind::None && !s.job.is_source(piece.id) &&
               !bounds_a_panel(s.job, piece.id)) {
      out.push_back({Grade::Mind,
                     "no-treatment",
                     piece.id,
                     outlines.region.empty() ? outlines.lines.front().front() : bounds(outlines.region).centre(),
                     "“" + piece.name + "” is not cut yet.",
                     "Say under Cuts how it shall look.",
                     {{"Incise it", [id = piece.id](Job& job) {
                         if (Item* item = job.find(id)) item->cut.kind = Treatment::Kind::Incise;
                       }}}});
    }
  }
}

}  // namespace doyen
