#include <algorithm>

#include "judge/judge.hpp"

namespace doyen {
namespace {

using Kind = Fault::Kind;

}  // namespace

const char* to_word(Fault::Kind kind) {
  switch (kind) {
    case Kind::Gouge:
      return "gouge";
    case Kind::Missed:
      return "missed";
    case Kind::Bite:
      return "bite";
    case Kind::Plunge:
      return "plunge";
    case Kind::Rub:
      return "rub";
    case Kind::Air:
      return "air";
    case Kind::Rapid:
      return "rapid";
  }
  return "";
}

bool Judgement::has(Fault::Kind kind) const {
  return std::any_of(faults.begin(), faults.end(), [&](const Fault& f) { return f.kind == kind; });
}

double Judgement::worst(Fault::Kind kind) const {
  double mm = 0;
  for (const Fault& f : faults) {
    if (f.kind == kind) mm = std::max(mm, f.mm);
  }
  return mm;
}

double Judgement::area(Fault::Kind kind) const {
  double mm2 = 0;
  for (const Fault& f : faults) {
    if (f.kind == kind) mm2 += f.mm2;
  }
  return mm2;
}

bool Judgement::cut_as_wanted() const {
  return !has(Kind::Gouge) && !has(Kind::Missed) && !has(Kind::Bite) && !has(Kind::Plunge) && !has(Kind::Rub) &&
         !has(Kind::Rapid);
}

}  // namespace doyen
