#include "treatments/inlay/figures.hpp"
#include "wording/say.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

// Down to what people set: tenths of a millimetre, five thousandths of an inch.
double rounded(double mm, const LengthStyle& lengths) {
  const double step = lengths.unit == Unit::Inch ? 0.005 * kMmPerInch : 0.1;
  return std::max(step, std::floor(mm / step + 1e-6) * step);
}

std::string signed_length(double mm, const LengthStyle& lengths) {
  return (mm > 0 ? "+" : "−") + depth_in_words(std::abs(mm), lengths);
}

}  // namespace

InlayStart inlay_start(double widest_stroke, const Bit& v, const Blank& blank, const LengthStyle& lengths) {
  const auto show = [&](double mm) { return depth_in_words(mm, lengths); };
  InlayStart start;
  const double usual = lengths.unit == Unit::Inch ? 0.2 * kMmPerInch : 5;
  start.depth = usual;
  start.why.push_back(say("usual pocket: {0}", show(usual)));
  const double closes = std::max(0.0, widest_stroke - v.tip) / 2 / v.tan_half();
  start.why.push_back(say("widest stroke {0} closes at {1}", show(widest_stroke), show(closes)));
  if (widest_stroke > 0 && closes < start.depth) start.depth = std::max(1.0, closes);
  if (start.depth > blank.thinnest() / 2) {
    start.depth = blank.thinnest() / 2;
    start.why.push_back(say("half the board: {0}", show(start.depth)));
  }
  if (start.depth > v.body_depth()) {
    start.depth = v.body_depth();
    start.why.push_back(say("the {0} reaches {1}", v.name, show(v.body_depth())));
  }
  start.depth = rounded(start.depth, lengths);
  const double step = lengths.unit == Unit::Inch ? 0.005 * kMmPerInch : 0.1;
  double contact = std::round(start.depth * (lengths.unit == Unit::Inch ? 0.75 : 0.76) / step) * step;
  const double glue = std::max(step, start.depth - contact);
  if (v.ladder_contact) {
    contact = std::clamp(contact + *v.ladder_contact, step, start.depth - step);
    start.why.push_back(
        say("the test ladder showed {0} of contact for this bit", signed_length(*v.ladder_contact, lengths)));
  }
  start.contact = std::max(0.05, contact);
  start.saw_gap = std::max(glue, lengths.unit == Unit::Inch ? 0.04 * kMmPerInch : 1.0);
  // The plug's flank reaches no deeper than the bit's body.
  start.saw_gap = std::min(start.saw_gap, std::max(step, v.body_depth() - start.contact));
  start.why.push_back(say("contact: about three quarters of it, {0}", show(start.contact)));
  start.why.push_back(say("saw gap: room for the blade, {0}", show(start.saw_gap)));
  if (v.ladder_allowance) start.allowance = *v.ladder_allowance;
  return start;
}

std::vector<std::string> what_moved(const Treatment& before, const Treatment& after, const Bit* v,
                                    const LengthStyle& lengths) {
  const auto show = [&](double mm) { return depth_in_words(mm, lengths); };
  std::vector<std::string> moved;
  const auto tell = [&](const std::string& what, double was, double is) {
    if (std::abs(is - was) < 5e-4) return;
    moved.push_back(what + " " + show(was) + " → " + show(is) + " (" + signed_length(is - was, lengths) + ")");
  };
  const Inlay &a = before.inlay, &b = after.inlay;
  tell(say("glue gap"), before.depth - a.contact, after.depth - b.contact);
  if (a.sloped && b.sloped && v != nullptr)
    tell(say("plug smaller by, each side"), a.contact * v->tan_half(), b.contact * v->tan_half());
  if (!a.sloped && !b.sloped) tell(say("play from side to side"), 2 * a.allowance, 2 * b.allowance);
  tell(say("plug's board cut"), a.contact + a.saw_gap, b.contact + b.saw_gap);
  tell(say("saw line above the face"), a.saw_gap, b.saw_gap);
  tell(say("wood left in its board"), a.thickness - a.contact - a.saw_gap, b.thickness - b.contact - b.saw_gap);
  return moved;
}

}  // namespace doyen
