// Runs every target over its seeds and finds, and over the same with bytes changed by dice that fall the same each
// time.
#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <random>
#include <vector>

#include "fuzz_target.hpp"
#include "storage/atomic_file.hpp"

namespace fs = std::filesystem;

namespace {

std::string changed(std::string bytes, std::mt19937& dice) {
  const auto pick = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(dice); };
  static const std::vector<std::string> kWords{"-1", "0",  "1e308", "999999999", "null", "\"\"",
                                               "[]", "{}", "-",     "\n",        "1e-9"};
  const int times = static_cast<int>(1 + pick(4));
  for (int k = 0; k < times && !bytes.empty(); ++k) {
    const std::size_t at = pick(bytes.size()), n = 1 + pick(std::min<std::size_t>(40, bytes.size()));
    switch (pick(5)) {
      case 0:
        bytes[at] = static_cast<char>(pick(256));
        break;
      case 1:
        bytes.erase(at, n);
        break;
      case 2:
        bytes.insert(at, bytes.substr(pick(bytes.size()), n));
        break;
      case 3: {  // another figure in the place of one
        std::size_t from = bytes.find_first_of("0123456789", at);
        if (from == std::string::npos) break;
        const std::size_t to = std::min(bytes.find_first_not_of("0123456789.eE+-", from), bytes.size());
        bytes.replace(from, to - from, kWords[pick(kWords.size())]);
        break;
      }
      default:
        bytes.resize(at);
    }
  }
  return bytes;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 2) {
    std::fprintf(stderr, "fuzz_seeds FOLDER [TIMES [TARGET]]\n");
    return 2;
  }
  const int times = argc > 2 ? std::atoi(argv[2]) : 30;
  for (const auto& [name, target] : fuzz::targets()) {
    if (argc > 3 && name != argv[3]) continue;
    std::size_t ran = 0;
    std::mt19937 dice(7);
    std::vector<fs::path> seeds;
    for (const char* kind : {"seeds", "finds"}) {
      const fs::path folder = fs::path(argv[1]) / kind / name;
      if (!fs::is_directory(folder)) continue;
      for (const auto& entry : fs::directory_iterator(folder)) seeds.push_back(entry.path());
    }
    std::sort(seeds.begin(), seeds.end());
    for (const fs::path& seed : seeds) {
      const std::string bytes = doyen::read_file(seed.string());
      std::printf("%s %s\n", name.c_str(), seed.filename().c_str());
      std::fflush(stdout);
      target(bytes);
      ++ran;
      for (int k = 0; k < times; ++k, ++ran) target(changed(bytes, dice));
    }
    std::printf("%s: %zu inputs\n", name.c_str(), ran);
    if (seeds.empty()) {
      std::fprintf(stderr, "%s has no seeds\n", name.c_str());
      return 1;
    }
  }
  return 0;
}
