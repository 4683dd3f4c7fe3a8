// Remembers what checks found out of things that have not changed since.
#pragma once

#include <any>
#include <cstdint>
#include <initializer_list>
#include <list>
#include <mutex>
#include <string>
#include <unordered_map>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// May be shared between threads.
class VerdictMemory {
 public:
  // What a check asked about, and the marks of all that the answer hangs on.
  struct Question {
    const char* what;
    std::vector<std::uint64_t> of;
    friend bool operator==(const Question&, const Question&) = default;
  };
  // The answer as it is remembered, or as `make` gives it now.
  template <typename Make>
  auto answer(const Question& question, Make make) {
    using Answer = decltype(make());
    if (const std::any known = find(question); known.has_value()) return std::any_cast<Answer>(known);
    Answer fresh = make();
    keep(question, fresh);
    return fresh;
  }

  // Another number for whatever is not equal to what was asked about of late.
  std::uint64_t mark(const Item& item, std::uint64_t plan);
  struct Shop {
    LengthStyle lengths;
    Blank blank;
    RunSettings run;
    Rack rack;
    MachineProfile machine;
    friend bool operator==(const Shop&, const Shop&) = default;
  };
  std::uint64_t mark(const Shop& shop);

 private:
  std::any find(const Question& question);
  void keep(const Question& question, std::any answer);

  struct Hashed {
    std::size_t operator()(const Question& question) const;
  };
  struct Kept {
    Question question;
    std::any answer;
  };
  struct Known {
    Item item;
    std::uint64_t plan, mark;
  };
  std::mutex lock_;
  std::list<Kept> kept_;  // the last asked first
  std::unordered_map<Question, std::list<Kept>::iterator, Hashed> by_question_;
  std::unordered_map<std::string, std::list<Known>> items_;  // by id, a few of each
  std::list<std::pair<Shop, std::uint64_t>> shops_;
  std::uint64_t last_ = 0;
};

}  // namespace doyen
