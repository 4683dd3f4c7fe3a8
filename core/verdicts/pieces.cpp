// Artwork that cannot be set, characters that a face lacks, pieces without a treatment.
#include <algorithm>

#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {

namespace {

bool is_closed(const Line2& line) { return line.size() > 3 && distance(line.front(), line.back()) < 0.02; }

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
    remedies.push_back(use_lines(say("Take what its lines enclose"), piece.id, Drawing::Lines::Enclose));
  if (outlines.region.empty())
    remedies.push_back({say("Follow the lines"), [id = piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.kind = Treatment::Kind::Line;
                        }});
  if (drawn)
    remedies.push_back(use_lines(say("Carve the lines as wide as they are drawn"), piece.id, Drawing::Lines::Wide));
  if (outlines.region.empty())
    out.push_back(
        {Grade::Stop, "only-lines", piece.id, outlines.lines.front().front(),
         say("“{0}” is made of single lines, which are no area to cut.", piece.name),
         drawn ? say("Take what they enclose, follow them with the bit, or carve them as wide as they are drawn.")
               : say("Let the bit follow them, or give them a width under Artwork."),
         remedies});
  else
    out.push_back({Grade::Mind, "lines-not-cut", piece.id, outlines.lines.front().front(),
                   say("{0} {0|line|lines} of “{1}” {0|is|are} not cut.", outlines.lines.size(), piece.name),
                   say("They are for the bit to follow, and this look is made of areas only."), remedies});
}

// Lines that should enclose something and do not.
void check_open_lines(const Piece& piece, const Outlines& outlines, std::vector<Verdict>& out) {
  const std::size_t n = outlines.open.size();
  out.push_back(
      {outlines.region.empty() ? Grade::Stop : Grade::Mind,
       "open-lines",
       piece.id,
       outlines.open.front().front(),
       say("{0} {0|line|lines} of “{1}” {0|is open and encloses|are open and enclose} nothing.", n, piece.name),
       say("Not cut. Clean up under Artwork joins ends that nearly meet."),
       {use_lines(say("Carve the lines as wide as they are drawn"), piece.id, Drawing::Lines::Wide)}});
}

// What the job's file says and this Doyen does not understand.
void check_known(const Job& job, std::vector<Verdict>& out) {
  const std::vector<std::string> names = not_known(job);
  if (names.empty()) return;
  std::string listed;
  constexpr std::size_t kShown = 5;
  for (std::size_t i = 0; i < std::min(kShown, names.size()); ++i)
    listed += (i > 0 ? ", “" : "“") + names[i].substr(0, 60) + "”";
  if (names.size() > kShown) listed += say(" and {0} more", names.size() - kShown);
  out.push_back({Grade::Note,
                 "not-known",
                 "",
                 job.blank.box().centre(),
                 say("The job's file says what this Doyen does not know: {0}.", listed),
                 say("It is kept, and changes nothing. A newer Doyen, or a slip of a hand, wrote it."),
                 {}});
}

// What nobody has said how it should look, or that it is not cut on purpose.
Verdict not_cut_yet(const Piece& piece, const Outlines& outlines) {
  return {Grade::Mind,
          "no-treatment",
          piece.id,
          outlines.region.empty() ? outlines.lines.front().front() : bounds(outlines.region).centre(),
          say("“{0}” is not cut yet.", piece.name),
          say("Say under Cuts how it should look."),
          {{say("Incise it"),
            [id = piece.id](Job& job) {
              if (Item* item = job.find(id)) item->cut.kind = Treatment::Kind::Incise;
            }},
           {say("Leave it uncut"),
            [id = piece.id](Job& job) {
              if (Item* item = job.find(id)) item->cut.left_uncut = true;
            },
            true}}};
}

// Characters that its face lacks, a face that is not there.
void check_face(const Piece& piece, const Outlines& outlines, std::vector<Verdict>& out) {
  if (!outlines.notice.empty()) {
    out.push_back({Grade::Mind,
                   "face-missing",
                   piece.id,
                   piece.at,
                   say("“{0}” uses outlines kept in the job.", piece.name),
                   outlines.notice,
                   {}});
  }
  if (outlines.missing.empty()) return;
  std::string which;
  for (const std::string& m : outlines.missing) which += (which.empty() ? "“" : ", “") + m + "”";
  out.push_back({Grade::Stop,
                 "missing-glyph",
                 piece.id,
                 piece.at,
                 say("The face of “{0}” has no {1}.", piece.name, which),
                 say("It would be left out of the wood. Choose a face that has it, or change the words."),
                 {}});
}

void check_piece(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Piece& piece = s.job.items[i].piece;
  if (!s.pieces[i].problem.empty()) {
    out.push_back({Grade::Stop,
                   "piece-cannot-be-set",
                   piece.id,
                   piece.at,
                   say("“{0}” cannot be set.", piece.name),
                   s.pieces[i].problem,
                   {}});
    return;
  }
  const Outlines& outlines = *s.pieces[i].outlines;
  check_face(piece, outlines, out);
  if (!outlines.open.empty()) check_open_lines(piece, outlines, out);
  if (outlines.region.empty() && outlines.lines.empty()) {
    if (!outlines.missing.empty() || !outlines.open.empty()) return;  // that says it all
    out.push_back({Grade::Mind,
                   "empty-piece",
                   piece.id,
                   piece.at,
                   say("“{0}” has nothing to carve.", piece.name),
                   say("Its words or outlines are empty."),
                   {}});
  } else if (!outlines.lines.empty() && look_of(s.job.items[i].cut.kind).needs_area) {
    check_lines(s.job.items[i], outlines, out);
  } else if (s.job.undecided(s.job.items[i])) {
    out.push_back(not_cut_yet(piece, outlines));
  }
}

}  // namespace

void check_pieces(const Situation& s, std::vector<Verdict>& out) {
  check_known(s.job, out);
  if (s.job.items.empty()) {
    out.push_back({Grade::Note,
                   "empty-job",
                   "",
                   s.job.blank.box().centre(),
                   say("Nothing lies on the board yet."),
                   say("Add lettering, a drawing or a shape under Artwork."),
                   {}});
  }
  for (std::size_t i = 0; i < s.job.items.size(); ++i) check_piece(s, i, out);
}

}  // namespace doyen
