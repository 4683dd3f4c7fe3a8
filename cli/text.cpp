// text: a job around lettering.
#include <algorithm>

#include "artwork/lettering/faces.hpp"
#include "artwork/lettering/single_line_faces.hpp"
#include "cli/command.hpp"
#include "cli/cut_options.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct TextOptions {
  std::string words, font, cap, out;
  CutOptions cut;
};

int run_text(const TextOptions& given) {
  const CutOptions& options = given.cut;
  const std::string& words = given.words;
  Lettering lettering;
  for (std::size_t i = 0; i < words.size(); ++i) {
    if (words.compare(i, 2, "\\n") == 0)
      lettering.words += '\n', ++i;
    else
      lettering.words += words[i];
  }
  std::string name = lettering.words.substr(0, 60);
  std::replace(name.begin(), name.end(), '\n', ' ');
  Job job = options.start(name);
  lettering.face = parse_face(given.font);
  if (!is_single_line(lettering.face) && !face_installed(lettering.face))
    throw bad_input("--font: the face “" + given.font +
                    "” is not installed; give family or family:style, such as “EB Garamond:Bold”.");
  lettering.cap_height = parse_length(given.cap, Unit::Millimetre);
  options.save_piece(std::move(job), {"lettering-1", words.substr(0, words.find("\\n")), lettering, {}, 0}, given.out);
  return kFine;
}

}  // namespace

Command text_command() {
  return {"text", "A job around lettering, centred on the blank", [](Arguments& a) {
            auto o = std::make_shared<TextOptions>();
            a.text("WORDS", o->words, "\\n begins a new line", Arguments::Needed);
            a.text("--font", o->font, "Family or family:style", Arguments::Needed);
            a.text("--cap", o->cap, "Cap height", Arguments::Needed);
            o->cut.add_to(a);
            a.text("--out", o->out, "The job file", Arguments::Needed);
            return [o] { return run_text(*o); };
          }};
}

}  // namespace doyen::cli
