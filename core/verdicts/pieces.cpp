// Artwork that cannot be set, characters that a face lacks, pieces without a treatment.
#include <algorithm>

#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {

namespace {

bool is_closed(const Line2& line) { return line.size() > 3 && distance(line.front(), line.back()) < 0.02; }

std::string counted(std::size_t n, const char* one, const char* many) {
  return std::to_string(n) + " " + (n == 1 ? one : many);
}

Remedy use_lines(const std::string& label, const std::string& id, Drawing::Lines lines) {
  return {label, [id, lines](Job& job) {
            Item* item = job.find(id);
            if (auto* d = item == nullptr ? nullptr : std::get_if<Drawing>(&item->piece.what)) d->lines = lines;
          }};
}

// Lines that the look makes nothing of: all there is, or some beside an area.
void check_lines(const Item& item, const Outlines& outlines, std::vector<Verdict>& out) {
  const Piece& piece = item.piece;
  const bool drawn = std::holds_alternative<Drawing>(piece.what);
  std::vector<Remedy> remedies;
  if (drawn && std::any_of(outlines.lines.begin(), outlines.lines.end(), is_closed))
    remedies.push_back(use_lines("Take what its lines enclose", piece.id, Drawing::Lines::Enclose));
  if (outlines.region.empty())
    remedies.push_back({"Follow the lines", [id = piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.kind = Treatment::Kind::Line;
                        }});
  if (drawn) remedies.push_back(use_lines("Carve the lines as wide as they are drawn", piece.id, Drawing::Lines::Wide));
  if (outlines.region.empty())
    out.push_back({Grade::Stop, "only-lines", piece.id, outlines.lines.front().front(),
                   "“" + piece.name + "” is made of single lines, which are no area to cut.",
                   drawn ? "Take what they enclose, follow them with the bit, or carve them as wide as they are drawn."
                         : "Let the bit follow them, or give them a width under Artwork.",
                   remedies});
  else
    out.push_back({Grade::Mind, "lines-not-cut", piece.id, outlines.lines.front().front(),
                   counted(outlines.lines.size(), "line", "lines") + " of “" + piece.name + "” " +
                       (outlines.lines.size() == 1 ? "is" : "are") + " not cut.",
                   "They are for the bit to follow, and this look is made of areas only.", remedies});
}

// Lines that should enclose something and do not.
void check_open_lines(const Piece& piece, const Outlines& outlines, std::vector<Verdict>& out) {
  const std::size_t n = outlines.open.size();
  out.push_back({outlines.region.empty() ? Grade::Stop : Grade::Mind,
                 "open-lines",
                 piece.id,
                 outlines.open.front().front(),
                 counted(n, "line", "lines") + " of “" + piece.name + "” " +
                     (n == 1 ? "is open and encloses" : "are open and enclose") + " nothing.",
                 "Not cut. Clean up under Artwork joins ends that nearly meet.",
                 {use_lines("Carve the lines as wide as they are drawn", piece.id, Drawing::Lines::Wide)}});
}

// What the job's file says and this Doyen does not understand.
void check_known(const Job& job, std::vector<Verdict>& out) {
  const std::vector<std::string> names = not_known(job);
  if (names.empty()) return;
  std::string listed;
  constexpr std::size_t kShown = 5;
  for (std::size_t i = 0; i < std::min(kShown, names.size()); ++i)
    listed += (i > 0 ? ", “" : "“") + names[i].substr(0, 60) + "”";
  if (names.size() > kShown) listed += " and " + std::to_string(names.size() - kShown) + " more";
  out.push_back({Grade::Note,
                 "not-known",
                 "",
                 job.blank.box().centre(),
                 "The job's file says what this Doyen does not know: " + listed + ".",
                 "It is kept, and changes nothing. A newer Doyen, or a slip of a hand, wrote it.",
                 {}});
}

// What nobody has said how it should look, or that it is not cut on purpose.
Verdict not_cut_yet(const Piece& piece, const Outlines& outlines) {
  return {Grade::Mind,
          "no-treatment",
          piece.id,
          outlines.region.empty() ? outlines.lines.front().front() : bounds(outlines.region).centre(),
          "“" + piece.name + "” is not cut yet.",
          "Say under Cuts how it should look.",
          {{"Incise it",
            [id = piece.id](Job& job) {
              if (Item* item = job.find(id)) item->cut.kind = Treatment::Kind::Incise;
            }},
           {"Leave it uncut",
            [id = piece.id](Job& job) {
              if (Item* item = job.find(id)) item->cut.left_uncut = true;
            },
            true}}};
}

}  // namespace

void check_pieces(const Situation& s, std::vector<Verdict>& out) {
  check_known(s.job, out);
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
    if (!outlines.open.empty()) check_open_lines(piece, outlines, out);
    if (outlines.region.empty() && outlines.lines.empty()) {
      if (!outlines.missing.empty() || !outlines.open.empty()) continue;  // that says it all
      out.push_back({Grade::Mind,
                     "empty-piece",
                     piece.id,
                     piece.at,
                     "“" + piece.name + "” has nothing to carve.",
                     "Its words or outlines are empty.",
                     {}});
    } else if (!outlines.lines.empty() && look_of(s.job.items[i].cut.kind).needs_area) {
      check_lines(s.job.items[i], outlines, out);
    } else if (s.job.undecided(s.job.items[i])) {
      out.push_back(not_cut_yet(piece, outlines));
    }
  }
}

}  // namespace doyen
