#include "arrange/forms.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "cancel.hpp"
#include "geometry/hull.hpp"
#include "wording/say.hpp"

namespace doyen::arranging {
namespace {

constexpr double kBetween = 0.55;  // white between lines, of their mean cap height
constexpr double kBeside = 0.8;    // white between a motif and the lines beside it, main cap heights
constexpr double kLeast = 0.5;     // how much smaller than its ratio a line may become so as not to be too wide
constexpr double kColumn = 0.12;   // main cap heights: how finely blocks are fitted over each other

using BlockPtr = std::shared_ptr<const Block>;

// Measures blocks once each.
class Blocks {
 public:
  Blocks(const Job& job, const Content& content) : job_(job), content_(content) {}
  BlockPtr words(std::size_t i, double radius = 0, double spacing = 0, bool left = false) {
    const auto key = std::tuple(i, std::round(radius * 20) / 20, spacing, left);
    BlockPtr& block = known_[key];
    if (!block) {
      Cancel::check_here();
      const Content::Words& one = content_.words[i];
      block = std::make_shared<Block>(words_block(job_, one.id, one.role, std::get<1>(key), spacing, left));
    }
    return block;
  }
  BlockPtr motif() {
    if (!motif_) motif_ = std::make_shared<Block>(motif_block(job_, content_.motif));
    return motif_;
  }
  BlockPtr motif_part(const std::string& id) { return std::make_shared<Block>(motif_block(job_, {id})); }

 private:
  const Job& job_;
  const Content& content_;
  std::map<std::tuple<std::size_t, double, double, bool>, BlockPtr> known_;
  BlockPtr motif_;
};

struct Sized {
  BlockPtr block;
  double size = 1;
};

// Lays blocks under each other, each as high as the white to what stands above allows: under an arch it comes up.
class Stack {
 public:
  explicit Stack(bool left = false) : left_(left) {}
  void add(const Sized& one) {
    const Box box = one.block->box;
    const double x = left_ ? -box.left * one.size : -(box.left + box.right) / 2 * one.size;
    const double gap = laid_.empty() ? 0 : kBetween * (white(laid_.back()) + one.size * part(*one.block)) / 2;
    std::map<int, std::pair<double, double>> own;  // by column: lowest and highest, about its origin
    const auto mark = [&](double at, double low, double high) {
      auto [it, first] = own.try_emplace(static_cast<int>(std::floor(at / kColumn)), low, high);
      if (!first) it->second = {std::min(it->second.first, low), std::max(it->second.second, high)};
    };
    if (one.block->radius == 0) {  // straight lines and motifs are kept clear as a whole
      for (double at = box.left; at < box.right + kColumn; at += kColumn / one.size)
        mark(x + std::min(at, box.right) * one.size, box.bottom * one.size, box.top * one.size);
    } else {
      for (const Box& letter : one.block->boxes) {
        for (double at = letter.left - 0.3; at < letter.right + 0.3; at += kColumn / one.size)
          mark(x + at * one.size, letter.bottom * one.size, letter.top * one.size);
      }
    }
    double y = laid_.empty() ? 0 : 1e300;
    if (!laid_.empty()) {
      for (const auto& [column, span] : own) {
        for (int near = column - 2; near <= column + 2; ++near) {
          const auto above = lowest_.find(near);
          if (above != lowest_.end()) y = std::min(y, above->second - gap - span.second);
        }
      }
      if (y > 1e299) y = bottom_ - gap - box.top * one.size;  // nothing of it lies under anything
    }
    for (const auto& [column, span] : own) {
      auto [it, first] = lowest_.try_emplace(column, y + span.first);
      if (!first) it->second = std::min(it->second, y + span.first);
    }
    bottom_ = std::min(bottom_, y + box.bottom * one.size);
    laid_.push_back({one.block, {x, y}, one.size});
  }
  [[nodiscard]] std::vector<Laid> take() { return std::move(laid_); }

 private:
  // A motif is kept as far away as words are: its own height says nothing of that.
  static double part(const Block& block) { return block.words ? 1 : 0.4; }
  static double white(const Laid& laid) { return laid.size * part(*laid.block); }
  bool left_;
  std::vector<Laid> laid_;
  std::map<int, double> lowest_;
  double bottom_ = 0;
};

// About the middle of its box.
Form centred(std::string name, std::vector<Laid> blocks) {
  Form form{std::move(name), std::move(blocks)};
  const Point middle = form.box().centre();
  for (Laid& laid : form.blocks) laid.at = laid.at - middle;
  return form;
}

void add_at(std::vector<Laid>& all, std::vector<Laid> more, Point by) {
  for (Laid& laid : more) {
    laid.at = laid.at + by;
    all.push_back(std::move(laid));
  }
}
Box box_of(const std::vector<Laid>& blocks) {
  Box box;
  for (const Laid& laid : blocks) box.add(laid.box());
  return box;
}

class FormMaker {
 public:
  FormMaker(const Job& job, const Content& content) : content_(content), blocks_(job, content) {}

  std::vector<Form> all() {
    if (content_.words.empty()) {
      out_.push_back(centred(say("In the middle"), {Laid{blocks_.motif(), {}, 1}}));
      return std::move(out_);
    }
    straight();
    one_width();
    arches();
    bowls();
    if (content_.words.size() > 1) arch_and_bowl();
    if (content_.words.size() > 1) ring();
    beside();
    if (content_.motif.size() == 2) between();
    return std::move(out_);
  }

 private:
  [[nodiscard]] std::size_t count() const { return content_.words.size(); }
  [[nodiscard]] bool has_motif() const { return !content_.motif.empty(); }

  // The lines, straight, lesser ones no wider than the widest of the main ones as far as that goes.
  std::vector<Sized> lines(std::size_t from, std::size_t to, double spacing = 0, bool left = false) {
    std::vector<Sized> sized;
    for (std::size_t i = 0; i < count(); ++i) {
      const BlockPtr block = blocks_.words(i, 0, spacing, left);
      sized.push_back({block, ratio_of(block->role)});
    }
    const double widest = width_of_main(sized);
    for (Sized& one : sized) {
      if (widest > 0 && one.block->role != ArrangeWish::Role::Main && one.block->box.width() * one.size > widest)
        one.size = std::max(one.size * kLeast, widest / one.block->box.width());
    }
    keep_order(sized);
    return {sized.begin() + static_cast<std::ptrdiff_t>(from), sized.begin() + static_cast<std::ptrdiff_t>(to)};
  }
  static double width_of_main(const std::vector<Sized>& sized) {
    double widest = 0;
    for (const Sized& one : sized) {
      if (one.block->role == ArrangeWish::Role::Main) widest = std::max(widest, one.block->box.width());
    }
    return widest;
  }
  // No line is higher than one that matters more.
  static void keep_order(std::vector<Sized>& sized) {
    double most = 1e300;
    for (const ArrangeWish::Role role :
         {ArrangeWish::Role::Main, ArrangeWish::Role::Second, ArrangeWish::Role::Small}) {
      double least = most;
      for (Sized& one : sized) {
        if (one.block->role != role) continue;
        one.size = std::min(one.size, most);
        least = std::min(least, one.size);
      }
      most = least;
    }
  }

  void stack(const std::string& name, const std::vector<Sized>& order, bool left = false) {
    Stack stack(left);
    for (const Sized& one : order) stack.add(one);
    out_.push_back(centred(name, stack.take()));
    out_.back().left = left;
  }

  // The same lines with the motif above, below or between them, in two sizes.
  void with_motif(const std::string& name, const std::vector<Sized>& order, bool left = false) {
    if (!has_motif()) return stack(name, order, left);
    for (const double size : {1.1, 1.8, 2.8}) {
      for (std::size_t at = 0; at <= order.size(); ++at) {
        std::vector<Sized> all = order;
        all.insert(all.begin() + static_cast<std::ptrdiff_t>(at), Sized{blocks_.motif(), size});
        stack(name + (at == 0              ? say(", the motif at the back")
                      : at == order.size() ? say(", the motif at the front")
                                           : say(", the motif between")),
              all, left);
      }
    }
  }

  void straight() {
    const std::string name = count() > 1 ? say("Lines one under another") : say("One straight line");
    with_motif(name, lines(0, count()));
    with_motif(count() > 1 ? say("Widely spaced lines") : say("One widely spaced line"), lines(0, count(), 20));
    with_motif(count() > 1 ? say("Lines set to the left") : say("One line set to the left"), lines(0, count(), 0, true),
               true);
  }

  // Every line as wide as the main one, none higher than one that matters more.
  std::vector<Sized> of_one_width() {
    std::vector<Sized> sized = lines(0, count());
    const double widest = width_of_main(sized);
    if (widest <= 0) return {};
    for (Sized& one : sized) {
      if (one.block->role != ArrangeWish::Role::Main) one.size = std::min(0.9, widest / one.block->box.width());
    }
    keep_order(sized);
    return sized;
  }
  void one_width() {
    if (count() < 2) return;
    const std::vector<Sized> sized = of_one_width();
    if (!sized.empty()) with_motif(say("Lines of one width"), sized);
  }

  // `span`: degrees of the circle that the words take.
  BlockPtr bent(std::size_t i, double span, bool below) {
    const double wide = blocks_.words(i)->box.width();
    const double radius = std::max(2.2, wide / (span * std::numbers::pi / 180));
    return blocks_.words(i, below ? -radius : radius);
  }
  double size_of(std::size_t i) { return lines(i, i + 1).front().size; }

  void arches() {
    for (const double span : {60.0, 100.0, 140.0}) {
      std::vector<Sized> rest = lines(1, count());
      const Sized first{bent(0, span, false), size_of(0)};
      rest.insert(rest.begin(), first);
      if (!has_motif()) {
        stack(count() > 1 ? say("The first line in an arch") : say("One line in an arch"), rest);
        continue;
      }
      for (const double size : {1.6, 2.6, 4.0}) {
        std::vector<Sized> all = rest;
        all.insert(all.begin() + 1, {blocks_.motif(), size});
        stack(say("In an arch over the motif"), all);
      }
    }
  }
  void bowls() {
    for (const double span : {60.0, 100.0, 140.0}) {
      std::vector<Sized> all = lines(0, count() - 1);
      if (has_motif()) {
        for (const double size : {1.6, 2.6, 4.0}) {
          std::vector<Sized> with = all;
          with.push_back({blocks_.motif(), size});
          with.push_back({bent(count() - 1, span, true), size_of(count() - 1)});
          stack(say("In a bowl under the motif"), with);
        }
        continue;
      }
      all.push_back({bent(count() - 1, span, true), size_of(count() - 1)});
      stack(count() > 1 ? say("The last line in a bowl") : say("One line in a bowl"), all);
    }
  }
  void arch_and_bowl() {
    for (const double span : {50.0, 80.0}) {
      std::vector<Sized> middle = lines(1, count() - 1);
      for (const double size : has_motif() ? std::vector{1.6, 2.6} : std::vector{0.0}) {
        std::vector<Sized> all = middle;
        if (size > 0) all.insert(all.begin(), {blocks_.motif(), size});
        all.insert(all.begin(), {bent(0, span, false), size_of(0)});
        all.push_back({bent(count() - 1, span, true), size_of(count() - 1)});
        stack(say("Between an arch and a bowl"), all);
      }
    }
  }

  // The first line over the top of a circle, the last one under it, the rest within.
  void ring() {
    const double first = size_of(0), last = size_of(count() - 1);
    Stack inner;
    std::vector<Sized> middle = lines(1, count() - 1);
    if (has_motif()) middle.insert(middle.begin(), {blocks_.motif(), count() > 2 ? 1.6 : 3});
    for (const Sized& one : middle) inner.add(one);
    std::vector<Laid> within = inner.take();
    const Box box = box_of(within);
    double reach = 0;
    for (const Laid& laid : within) {
      for (const Point p : laid.block->points)
        reach = std::max(reach, distance(laid.at + p * laid.size, box.empty() ? Point{} : box.centre()));
    }
    constexpr double kSpan = 150 * std::numbers::pi / 180;
    const double upper = blocks_.words(0)->box.width() * first / kSpan;
    const double lower = blocks_.words(count() - 1)->box.width() * last / kSpan + last;
    // The band between both circles holds the taller of the two; the smaller one stands in its middle.
    const double band = std::max(first, last), radius = std::max({upper, lower, reach + 0.6 * band, 2.2 * band});
    const double over = radius + (band - first) / 2, under = radius + (band + last) / 2;
    const BlockPtr top = blocks_.words(0, over / first), bottom = blocks_.words(count() - 1, -under / last);
    std::vector<Laid> all{{top, {0, top->radius * first}, first}};
    add_at(all, std::move(within), box.empty() ? Point{} : box.centre() * -1);
    all.push_back({bottom, {0, bottom->radius * last}, last});
    Form form{say("In a ring"), std::move(all)};
    form.round = true;
    out_.push_back(std::move(form));
  }

  // The motif at one side, all lines at the other.
  void beside() {
    if (!has_motif()) return;
    for (const bool at_left : {true, false}) {
      beside(lines(0, count(), 0, at_left), at_left, at_left, say("Beside the motif"));
      if (count() > 1) {
        beside(of_one_width(), at_left, false, say("Of one width beside the motif"));
        std::vector<Sized> arched = lines(1, count());
        arched.insert(arched.begin(), {bent(0, 60, false), size_of(0)});
        beside(arched, at_left, false, say("In an arch beside the motif"));
      }
    }
    if (count() > 1) on_both_sides();
  }
  void beside(const std::vector<Sized>& order, bool at_left, bool aligned, const std::string& name) {
    if (order.empty()) return;
    for (const double share : {1.0, 1.4}) {
      Stack stack(aligned);
      for (const Sized& one : order) stack.add(one);
      std::vector<Laid> words = stack.take();
      const Box box = box_of(words);
      const double high = std::max(1.8, box.height() * share);
      const Box motif = blocks_.motif()->box;
      const Laid beside{blocks_.motif(),
                        {at_left ? box.left - kBeside - motif.right * high : box.right + kBeside - motif.left * high,
                         box.centre().y - motif.centre().y * high},
                        high};
      words.insert(at_left ? words.begin() : words.end(), beside);
      out_.push_back(
          centred(name + (at_left ? say(", which stands left") : say(", which stands right")), std::move(words)));
    }
  }
  // The first line left of the motif, all others right of it.
  void on_both_sides() {
    Stack left, right;
    for (const Sized& one : lines(0, 1)) left.add(one);
    for (const Sized& one : lines(1, count())) right.add(one);
    std::vector<Laid> all = left.take(), others = right.take();
    const Box first = box_of(all), second = box_of(others);
    const double high = std::max({2.2, first.height() * 1.5, second.height() * 1.2});
    const Box motif = blocks_.motif()->box;
    const Point middle{first.right + kBeside - motif.left * high, first.centre().y - motif.centre().y * high};
    all.push_back({blocks_.motif(), middle, high});
    add_at(all, std::move(others),
           {middle.x + motif.right * high + kBeside - second.left, first.centre().y - second.centre().y});
    out_.push_back(centred(say("On both sides of the motif"), std::move(all)));
  }
  // One of two motifs at either side.
  void between() {
    Stack stack;
    for (const Sized& one : lines(0, count())) stack.add(one);
    std::vector<Laid> words = stack.take();
    const Box box = box_of(words);
    const double high = std::max(1.6, box.height());
    const BlockPtr left = blocks_.motif_part(content_.motif[0]), right = blocks_.motif_part(content_.motif[1]);
    std::vector<Laid> all{{left, {box.left - kBeside - left->box.right * high, box.centre().y}, high}};
    add_at(all, std::move(words), {});
    all.push_back({right, {box.right + kBeside - right->box.left * high, box.centre().y}, high});
    out_.push_back(centred(say("Between both motifs"), std::move(all)));
  }

  const Content& content_;
  Blocks blocks_;
  std::vector<Form> out_;
};

}  // namespace

Box Laid::box() const {
  const Box& b = block->box;
  return {at.x + b.left * size, at.y + b.bottom * size, at.x + b.right * size, at.y + b.top * size};
}
Box Form::box() const { return box_of(blocks); }

std::vector<Form> forms_for(const Job& job, const Content& content) {
  std::vector<Form> forms = FormMaker(job, content).all();
  for (Form& form : forms) {
    Ring points;
    for (const Laid& laid : form.blocks) {
      for (const Point& p : laid.block->points) points.push_back(laid.at + p * laid.size);
    }
    form.hull = convex_hull(std::move(points));
  }
  return forms;
}

}  // namespace doyen::arranging
