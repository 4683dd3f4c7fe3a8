// Each thing that is written for a board has one line here: what it makes, by name. Another output is another line.
#pragma once

#include <optional>
#include <vector>

#include "planning/judged.hpp"
#include "relief/picture.hpp"
#include "storage/file_set.hpp"

namespace doyen {

// What outputs are made from. Pictures are made once, when the first output asks for them.
class OutputSource {
 public:
  // `plan` with what the judge found among its verdicts.
  OutputSource(const Plan& of, const std::vector<OutputFile>& its_gcode, const Judgement& its_judgement,
               const Cancel& stop)
      : plan(of), gcode(its_gcode), judgement(its_judgement), cancel(stop) {}
  const Plan& plan;
  const std::vector<OutputFile>& gcode;
  const Judgement& judgement;
  const Cancel& cancel;
  const Picture& picture(Side side);

 private:
  std::optional<Picture> pictures_[2];
};

using Output = std::vector<SetFile> (*)(OutputSource& of);  // none when this plan has no such thing
const std::vector<Output>& outputs();

// The whole board at most this many pixels wide.
Picture board_picture(const Plan& plan, double pixels_wide, Side side = Side::Front, const Cancel& cancel = {});
// The front with paint, resin, plugs and inserts as its finish says, for who buys it.
Picture finished_picture(const Plan& plan, double pixels_wide, const Cancel& cancel = {});

}  // namespace doyen
