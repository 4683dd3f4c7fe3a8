// A fuzz target: any bytes may come, and only a Problem, which is a sentence, may come of them. Built twice: with
// libFuzzer (tools/fuzz), and into one program that runs all targets over their seeds (./check).
#pragma once

#include <cstddef>
#include <cstdint>
#include <map>
#include <string>

namespace fuzz {

using Target = void (*)(const std::string& bytes);
inline std::map<std::string, Target>& targets() {
  static std::map<std::string, Target> all;
  return all;
}
struct Registered {
  Registered(const char* name, Target target) { targets()[name] = target; }
};

// Ends the program loudly: what was promised did not hold.
[[noreturn]] void broken(const std::string& promise);

}  // namespace fuzz

#ifdef DOYEN_LIBFUZZER
#define FUZZ_ENTRY(name)                                                              \
  extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) { \
    fuzz_##name(std::string(reinterpret_cast<const char*>(data), size));              \
    return 0;                                                                         \
  }
#else
#define FUZZ_ENTRY(name) static const fuzz::Registered registered_##name(#name, fuzz_##name);
#endif

#define FUZZ_TARGET(name)                            \
  static void fuzz_##name(const std::string& bytes); \
  FUZZ_ENTRY(name)                                   \
  static void fuzz_##name(const std::string& bytes)
