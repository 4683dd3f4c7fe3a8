#include "files/dxf/dxf_records.hpp"

#include <algorithm>
#include <charconv>
#include <optional>
#include <set>
#include <vector>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kLongest = 1000;  // characters that a line is cut to: only words and names are ever longer

struct Pair {
  int code;
  std::string value;
};
using Entry = std::vector<Pair>;  // begins with code 0

std::optional<double> number_of(const std::string& text) {
  double v = 0;
  const char* begin = text.data();
  if (!text.empty() && *begin == '+') ++begin;
  const auto [end, error] = std::from_chars(begin, text.data() + text.size(), v);
  if (error != std::errc() || end == begin) return {};
  return v;
}

const std::string* value_of(const Entry& record, int code) {
  for (const Pair& p : record) {
    if (p.code == code) return &p.value;
  }
  return nullptr;
}

bool is(const Entry& record, int code, double wanted) {
  const std::string* value = value_of(record, code);
  return value != nullptr && number_of(*value) == wanted;
}

// What is not carved, in words.
std::string in_words(const std::string& entity) {
  static const std::map<std::string, std::string> kWords{
      {"TEXT", "text"},           {"MTEXT", "text"},       {"ATTDEF", "text"},           {"ATTRIB", "text"},
      {"HATCH", "a hatching"},    {"IMAGE", "a picture"},  {"POINT", "a point"},         {"XLINE", "an endless line"},
      {"RAY", "an endless line"}, {"3DFACE", "a 3D face"}, {"DIMENSION", "a dimension"}, {"LEADER", "a leader"}};
  const auto it = kWords.find(entity);
  return it != kWords.end() ? it->second : "something called " + entity.substr(0, 30);
}

class Sifter {
 public:
  Sifter(const std::string& text, Reading& reading) : text_(text), reading_(reading) {}

  DxfRecords run() {
    if (text_.find('\0') != std::string::npos) throw bad_input(say("this is a binary DXF; save it as an ASCII one."));
    if (text_.find('\n') == std::string::npos)
      throw bad_input(say("the lines end in a way that no DXF reader expects, or it is no DXF at all."));
    out_.text.reserve(text_.size() / 2);
    Entry record;
    std::string code, value;
    while (next(code)) {
      const std::optional<double> n = number_of(code);
      if (!n || *n != static_cast<int>(std::clamp(*n, -1e5, 1e5)))
        throw bad_input(say("line {0}: a group code was expected, not “{1}”.", line_, code.substr(0, 30)));
      if (!next(value)) break;  // a code without its value: the file is cut off there
      const int c = static_cast<int>(*n);
      if (c == 999) continue;  // a remark
      if (c == 0) {
        reading_.step();
        reading_.done(0.3 * static_cast<double>(at_) / static_cast<double>(text_.size()));
        take(record);
        record.clear();
      }
      record.push_back({c, value});
      if (record.size() > 20'000'000) throw bad_input(say("one of its records has no end."));
    }
    // A last record that is not the end mark may be half of one: it is not taken.
    if (!record.empty() && record.front().value == "EOF") {
      out_.ended = true;
      take(record);
    }
    if (!out_.ended) out_.text += "  0\nENDSEC\n  0\nEOF\n";
    return std::move(out_);
  }

 private:
  bool next(std::string& into) {
    if (at_ >= text_.size()) return false;
    const std::size_t end = std::min(text_.find('\n', at_), text_.size());
    into.assign(text_, at_, std::min(end - at_, 4 * kLongest));
    at_ = end + 1;
    ++line_;
    while (!into.empty() && (into.back() == '\r' || into.back() == ' ' || into.back() == '\t')) into.pop_back();
    into.erase(0, std::min(into.find_first_not_of(" \t"), into.size()));
    if (into.size() > kLongest) into.resize(kLongest);
    return true;
  }

  void keep(const Entry& record) {
    for (const Pair& p : record) {
      out_.text += std::to_string(p.code);
      out_.text += '\n';
      out_.text += p.value;
      out_.text += '\n';
    }
  }

  void leave(const std::string& what) {
    constexpr std::size_t kMostKinds = 200;
    ++out_.left_out[out_.left_out.size() < kMostKinds || out_.left_out.contains(what) ? what
                                                                                      : "something of other kinds"];
  }

  void take(const Entry& record) {
    if (record.empty() || record.front().code != 0) return;
    const std::string& name = record.front().value;
    if (name == "SECTION") {
      const std::string* section = value_of(record, 2);
      section_ = section == nullptr ? "" : *section;
      in_polyline_ = false;
      if (section_ == "HEADER") return header(record);
      if (wanted_section()) keep(record);
      return;
    }
    if (name == "ENDSEC" || name == "EOF") {
      if (name == "EOF" || wanted_section() || section_ == "HEADER") keep(record);
      if (name == "ENDSEC") section_.clear();
      return;
    }
    if (section_ == "TABLES") return table(record);
    if (section_ == "ENTITIES" || section_ == "BLOCKS") return entity(record, name);
  }

  [[nodiscard]] bool wanted_section() const {
    return section_ == "TABLES" || section_ == "ENTITIES" || section_ == "BLOCKS";
  }

  // Of the header only what states the unit.
  void header(const Entry& record) {
    Entry kept;
    bool wanted = true;  // the section's own name
    for (const Pair& p : record) {
      if (p.code == 9) wanted = p.value == "$INSUNITS" || p.value == "$MEASUREMENT" || p.value == "$ACADVER";
      if (wanted) kept.push_back(p);
    }
    keep(kept);
  }

  void table(const Entry& record) {
    const std::string& name = record.front().value;
    if (name == "TABLE") {
      const std::string* which = value_of(record, 2);
      in_layers_ = which != nullptr && *which == "LAYER";
    }
    if (!in_layers_) return;
    if (name == "LAYER") {
      const std::string* layer = value_of(record, 2);
      const std::string *flags = value_of(record, 70), *colour = value_of(record, 62);
      const double bits = flags == nullptr ? 0 : number_of(*flags).value_or(0);
      const bool frozen = bits >= 0 && bits < 1e6 && (static_cast<long>(bits) & 1) != 0;
      const bool off = colour != nullptr && number_of(*colour).value_or(0) < 0;
      if (layer != nullptr && (frozen || off)) hidden_.insert(*layer);
    }
    keep(record);
    if (name == "ENDTAB") in_layers_ = false;
  }

  void entity(const Entry& record, const std::string& name) {
    if (name == "BLOCK" || name == "ENDBLK") return keep(record);
    if (name == "VERTEX" || name == "SEQEND") {  // they go with the polyline before them
      if (in_polyline_) keep(record);
      if (name == "SEQEND") in_polyline_ = false;
      return;
    }
    in_polyline_ = false;
    static const std::set<std::string> kTaken{"LINE",     "ARC",    "CIRCLE", "ELLIPSE", "LWPOLYLINE",
                                              "POLYLINE", "SPLINE", "INSERT", "SOLID",   "TRACE"};
    if (!kTaken.contains(name)) return leave(in_words(name));
    if (is(record, 67, 1)) return leave("something on the paper beside the drawing");
    if (is(record, 60, 1)) return leave("something invisible");
    const std::string* layer = value_of(record, 8);
    if (layer != nullptr && hidden_.contains(*layer))
      return leave("something on “" + layer->substr(0, 40) + "”, a layer that is frozen or switched off");
    if (name == "LWPOLYLINE") declared(record, name, 90, 10);
    if (name == "SPLINE") {
      declared(record, name, 72, 40);
      declared(record, name, 73, 10);
      declared(record, name, 74, 11);
    }
    in_polyline_ = name == "POLYLINE";
    keep(record);
  }

  // Readers believe the counts that they read.
  void declared(const Entry& record, const std::string& name, int count_code, int point_code) {
    const auto held = static_cast<double>(
        std::count_if(record.begin(), record.end(), [&](const Pair& p) { return p.code == point_code; }));
    for (const Pair& p : record) {
      if (p.code != count_code) continue;
      const std::optional<double> n = number_of(p.value);
      if (!n || *n < 0 || *n > held)
        throw bad_input(say("before line {0}: a {1} declares “{2}” points, more than the file holds.", line_, name,
                            p.value.substr(0, 30)));
    }
  }

  const std::string& text_;
  Reading& reading_;
  std::size_t at_ = 0, line_ = 0;
  std::string section_;
  bool in_layers_ = false, in_polyline_ = false;
  std::set<std::string> hidden_;
  DxfRecords out_;
};

}  // namespace

DxfRecords sound_records(const std::string& text, Reading& reading) { return Sifter(text, reading).run(); }

}  // namespace doyen
