// What a job's pieces look as if they were, and what they can be.
#include <algorithm>
#include <map>
#include <utility>

#include "arrange/arrangement.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

using Role = ArrangeWish::Role;

// What a piece looks as if it were, by its look, size and place alone.
class Guess {
 public:
  explicit Guess(const Job& job) : job_(job) {
    for (const Item& item : job.items) {
      try {
        boxes_[item.piece.id] = bounds(job.outlines(item));
      } catch (const Problem&) {
        boxes_[item.piece.id] = {};  // it stays
      }
      const auto* words = std::get_if<Lettering>(&item.piece.what);
      if (words != nullptr && !stays(item)) tallest_ = std::max(tallest_, cap(*words, box(item)));
    }
  }
  [[nodiscard]] const Box& box(const Item& item) const { return boxes_.at(item.piece.id); }
  [[nodiscard]] Role role(const Item& item) const {
    // A border may follow the outline.
    if (item.cut.kind == Treatment::Kind::CutOut && !item.cut.back && !box(item).empty()) return Role::Outline;
    if (stays(item)) return Role::Stays;
    if (const auto* l = std::get_if<Lettering>(&item.piece.what)) {
      const double share = tallest_ > 0 ? cap(*l, box(item)) / tallest_ : 1;
      return share > 0.8 ? Role::Main : share > 0.45 ? Role::Second : Role::Small;
    }
    const auto* shape = std::get_if<PlainShape>(&item.piece.what);
    const auto* made = std::get_if<Derived>(&item.piece.what);
    const bool wide = box(item).width() > 0.5 * job_.blank.width && box(item).height() > 0.5 * job_.blank.height;
    if (wide && ((shape != nullptr && shape->band > 0) || (made != nullptr && made->how == Derived::How::Grow)))
      return Role::Border;
    const bool small = shape != nullptr && !wide && shape->shares_of.empty();
    return small || std::holds_alternative<Drawing>(item.piece.what) ? Role::Motif : Role::Stays;
  }

 private:
  [[nodiscard]] bool stays(const Item& item) const {
    return box(item).empty() || job_.is_source(item.piece.id) || item.cut.back ||
           item.cut.kind == Treatment::Kind::Bevel || job_.bounds_a_panel(item.piece.id);
  }
  static double cap(const Lettering& words, const Box& box) {
    const auto lines = 1 + std::count(words.words.begin(), words.words.end(), '\n');
    return words.fit_width || !words.inside.empty() ? box.height() / static_cast<double>(lines) : words.cap_height;
  }

  const Job& job_;
  std::map<std::string, Box> boxes_;
  double tallest_ = 0;
};

}  // namespace

bool may_be(const Item& item, ArrangeWish::Role role) {
  const auto* shape = std::get_if<PlainShape>(&item.piece.what);
  switch (role) {
    case Role::Main:
    case Role::Second:
    case Role::Small:
      return std::holds_alternative<Lettering>(item.piece.what);
    case Role::Motif:
      return std::holds_alternative<Drawing>(item.piece.what) || (shape != nullptr && shape->shares_of.empty());
    case Role::Border:
    case Role::Outline:
      return !std::holds_alternative<Lettering>(item.piece.what);
    case Role::Stays:
      return true;
  }
  return false;
}

ArrangeWish usual_wish(const Job& job) {
  const Guess guess(job);
  ArrangeWish wish;
  std::vector<std::pair<double, ArrangeWish::Part>> words;
  bool outline = false;
  for (const Item& item : job.items) {
    Role role = guess.role(item);
    // One outline and one border: others stay.
    bool& had = role == Role::Outline ? outline : wish.border;
    if ((role == Role::Outline || role == Role::Border) && std::exchange(had, true)) role = Role::Stays;
    if (std::holds_alternative<Lettering>(item.piece.what))
      words.push_back({-guess.box(item).centre().y, {item.piece.id, role}});
    else
      wish.parts.push_back({item.piece.id, role});
  }
  std::stable_sort(words.begin(), words.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  for (const auto& [at, part] : words) wish.parts.push_back(part);
  return wish;
}

}  // namespace doyen
