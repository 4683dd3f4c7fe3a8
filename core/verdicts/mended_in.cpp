#include "verdicts/mended_in.hpp"

#include <map>
#include <string_view>

namespace doyen {

MendedIn mended_in(const Verdict& verdict) {
  using In = MendedIn;
  static const std::map<std::string_view, In> known{{"bed-marked", In::Blank},
                                                    {"smaller-blank", In::Blank},
                                                    {"unknown-species", In::Blank},
                                                    {"empty-job", In::Artwork},
                                                    {"empty-piece", In::Artwork},
                                                    {"face-missing", In::Artwork},
                                                    {"in-keep-out", In::Artwork},
                                                    {"nut-near-clamp", In::Artwork},
                                                    {"in-the-waste", In::Artwork},
                                                    {"inside-margin", In::Artwork},
                                                    {"loose-inside", In::Artwork},
                                                    {"missing-glyph", In::Artwork},
                                                    {"not-known", In::Artwork},
                                                    {"only-lines", In::Artwork},
                                                    {"open-lines", In::Artwork},
                                                    {"outside-board", In::Artwork},
                                                    {"piece-cannot-be-set", In::Artwork},
                                                    {"runs-into-rim", In::Artwork},
                                                    {"stands-thin", In::Artwork},
                                                    {"thin-neck", In::Artwork},
                                                    {"after-gluing", In::Run},
                                                    {"beyond-travel", In::Run},
                                                    {"controller-slow", In::Run},
                                                    {"held-too-little", In::Run},
                                                    {"finer-than-steps", In::Run},
                                                    {"into-fixture", In::Run},
                                                    {"off-the-holes", In::Run},
                                                    {"panel-dowel-cut", In::Blank},
                                                    {"panel-dowel-gap", In::Blank},
                                                    {"panel-dowel-thick", In::Blank},
                                                    {"panel-no-hole", In::Blank},
                                                    {"panel-too-large", In::Blank},
                                                    {"nest-no-parts", In::Blank},
                                                    {"nest-no-room", In::Blank},
                                                    {"nest-over-several", In::Artwork},
                                                    {"board-stops", In::Blank},
                                                    {"into-round-over", In::Artwork},
                                                    {"seam-lost", In::Blank},
                                                    {"seam-through-letters", In::Blank},
                                                    {"seam-through-whole", In::Blank},
                                                    {"past-travel", In::Run},
                                                    {"pins-do-not-meet", In::Run},
                                                    {"past-travel-down", In::Run},
                                                    {"plate-by-hand", In::Run},
                                                    {"plate-differs", In::Run},
                                                    {"plate-twice", In::Run},
                                                    {"not-in-changer", In::Run},
                                                    {"stop-beyond-board", In::Run},
                                                    {"through-waste-board", In::Run},
                                                    {"zero-floor-first", In::Run},
                                                    {"zero-floor-too-deep", In::Run},
                                                    {"zero-without-pin", In::Run},
                                                    {"second-run", In::Run},
                                                    {"unknown-machine", In::Run}};
  const auto found = known.find(verdict.code);
  return found == known.end() ? In::Cuts : found->second;
}

}  // namespace doyen
