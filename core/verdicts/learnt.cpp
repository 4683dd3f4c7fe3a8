// What the log says to this job: what went wrong in earlier runs that it would repeat.
#include "log/lessons.hpp"
#include "log/log_book.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {

void check_learnt(const Situation& s, std::vector<Verdict>& out) {
  for (Lesson& lesson : lessons_for(s.job, s.rack, *known_log())) {
    Verdict verdict;
    // What no figure of the job puts right is a note.
    verdict.grade = lesson.apply || lesson.code == "learnt-inlay" ? Grade::Mind : Grade::Note;
    verdict.code = lesson.code;
    verdict.piece = lesson.piece;
    verdict.at = {s.job.blank.width / 2, s.job.blank.height / 2};
    for (std::size_t i = 0; i < s.pieces.size(); ++i) {
      if (s.job.items[i].piece.id == lesson.piece && s.pieces[i].outlines != nullptr)
        verdict.at = s.pieces[i].box.centre();
    }
    verdict.text = lesson.text;
    verdict.why = lesson.sum;
    if (lesson.apply) verdict.remedies.push_back({lesson.label, lesson.apply});
    out.push_back(std::move(verdict));
  }
}

}  // namespace doyen
