#include "artwork/lettering/measure.hpp"

#include <algorithm>
#include <list>
#include <mutex>
#include <unordered_map>

#include "artwork/lettering/single_line_faces.hpp"
#include "artwork/making.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostKept = 100'000;

class Memory {
 public:
  template <typename Make>
  MeasuredWords answer(const std::string& key, Make make) {
    {
      const std::lock_guard lock(lock_);
      if (const auto found = kept_.find(key); found != kept_.end()) return found->second;
    }
    MeasuredWords made = make();
    const std::lock_guard lock(lock_);
    if (kept_.size() >= kMostKept) kept_.clear();
    kept_.emplace(key, made);
    return made;
  }

 private:
  std::mutex lock_;
  std::unordered_map<std::string, MeasuredWords> kept_;
};

}  // namespace

MeasuredWords measured(const Lettering& lettering, const std::string& words) {
  static Memory memory;
  std::string key = lettering.face.family + '\n' + lettering.face.style + '\n' +
                    std::to_string(lettering.letter_spacing) + '\n' + std::to_string(lettering.letter_width) + '\n';
  for (const auto& [pair, by] : lettering.pairs) key += pair + '\t' + std::to_string(by) + '\t';
  key += '\n' + words;
  return memory.answer(key, [&] {
    MeasuredWords out;
    if (!is_single_line(lettering.face) && !face_installed(lettering.face)) return out;
    Lettering plain = lettering;
    plain.words = words;
    for (const making::LineMeasure& line : making::measure_lines(plain)) {
      out.width = std::max(out.width, line.width);
      for (const std::string& each : line.missing) {
        if (std::find(out.missing.begin(), out.missing.end(), each) == out.missing.end()) out.missing.push_back(each);
      }
    }
    return out;
  });
}

}  // namespace doyen
