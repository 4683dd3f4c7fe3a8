#include "files/list/list_read.hpp"

#include <csv.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <memory>
#include <set>

#include "plates/plate_list_fields.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostBytes = 64u << 20;
constexpr std::size_t kLongestEntry = 2000;

void add_utf8(std::string& out, char32_t c) {
  if (c < 0x80) {
    out += static_cast<char>(c);
  } else if (c < 0x800) {
    out += static_cast<char>(0xC0 | (c >> 6));
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else if (c < 0x10000) {
    out += static_cast<char>(0xE0 | (c >> 12));
    out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else {
    out += static_cast<char>(0xF0 | (c >> 18));
    out += static_cast<char>(0x80 | ((c >> 12) & 0x3F));
    out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  }
}

// How many bytes a character takes that begins so; 0: none does (RFC 3629).
std::size_t utf8_length(unsigned first) {
  if (first < 0x80) return 1;
  if (first < 0xC2) return 0;
  return first < 0xE0 ? 2 : first < 0xF0 ? 3 : first < 0xF5 ? 4 : 0;
}

// Longer than need be, half of a pair, or past the last character.
bool is_amiss(unsigned first, unsigned second) {
  return (first == 0xE0 && second < 0xA0) || (first == 0xED && second > 0x9F) || (first == 0xF0 && second < 0x90) ||
         (first == 0xF4 && second > 0x8F);
}

// How many bytes the character takes that begins there; 0 where none does.
std::size_t utf8_length(const std::string& s, std::size_t i) {
  const auto byte = [&](std::size_t k) { return k < s.size() ? static_cast<unsigned char>(s[k]) : 0u; };
  const std::size_t length = utf8_length(byte(i));
  for (std::size_t k = 1; k < length; ++k) {
    if ((byte(i + k) & 0xC0) != 0x80) return 0;
  }
  return is_amiss(byte(i), byte(i + 1)) ? 0 : length;
}

bool is_utf8(const std::string& s) {
  for (std::size_t i = 0; i < s.size();) {
    const std::size_t length = utf8_length(s, i);
    if (length == 0) return false;
    i += length;
  }
  return true;
}

// 0x80 to 0x9F of windows-1252 (WHATWG Encoding Standard, index windows-1252).
constexpr std::array<char32_t, 32> kWestern{0x20AC, 0x81,   0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021,
                                            0x02C6, 0x2030, 0x0160, 0x2039, 0x0152, 0x8D,   0x017D, 0x8F,
                                            0x90,   0x2018, 0x2019, 0x201C, 0x201D, 0x2022, 0x2013, 0x2014,
                                            0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0x9D,   0x017E, 0x0178};

std::string from_western(const std::string& bytes) {
  std::string out;
  for (const char c : bytes) {
    const auto byte = static_cast<unsigned char>(c);
    add_utf8(out, byte >= 0x80 && byte < 0xA0 ? kWestern[byte - 0x80] : byte);
  }
  return out;
}

std::string from_utf16(const std::string& bytes, bool big, const std::string& where) {
  std::string out;
  if (bytes.size() % 2 != 0) throw bad_input(say("{0}: the text breaks off within a letter.", where));
  const auto unit = [&](std::size_t i) {
    const auto a = static_cast<unsigned char>(bytes[i]), b = static_cast<unsigned char>(bytes[i + 1]);
    return static_cast<char32_t>(big ? a << 8 | b : b << 8 | a);
  };
  for (std::size_t i = 2; i + 1 < bytes.size(); i += 2) {
    char32_t c = unit(i);
    if (c >= 0xD800 && c < 0xDC00 && i + 3 < bytes.size()) {
      const char32_t low = unit(i + 2);
      if (low >= 0xDC00 && low < 0xE000) {
        c = 0x10000 + ((c - 0xD800) << 10) + (low - 0xDC00);
        i += 2;
      }
    }
    if (c >= 0xD800 && c < 0xE000) throw bad_input(say("{0}: it holds half of a letter, as no text does.", where));
    add_utf8(out, c);
  }
  return out;
}

// The text in UTF-8, by its first bytes, or by what its bytes can be.
std::string text_of(const std::string& bytes, const std::string& where, std::vector<std::string>& notes) {
  if (bytes.starts_with("\xFF\xFE")) return from_utf16(bytes, false, where);
  if (bytes.starts_with("\xFE\xFF")) return from_utf16(bytes, true, where);
  const std::string rest = bytes.starts_with("\xEF\xBB\xBF") ? bytes.substr(3) : bytes;
  if (rest.find('\0') != std::string::npos)
    throw bad_input(say("{0}: this is not a list but something that only a program reads; save it as CSV.", where));
  if (is_utf8(rest)) return rest;
  notes.push_back(say("It is not in UTF-8; its letters were taken for Western European ones. Look at the accents."));
  return from_western(rest);
}

// What stands between columns: what the first lines have most alike outside of quotes.
char between_of(const std::string& text) {
  constexpr std::array<char, 4> kBetween{',', ';', '\t', '|'};
  constexpr int kLines = 20;
  char best = ',';
  double most = 0;
  for (const char c : kBetween) {
    std::vector<int> counts(1);
    bool quoted = false;
    for (const char each : text) {
      if (each == '"') quoted = !quoted;
      if (quoted) continue;
      if (each == c) ++counts.back();
      if (each == '\n') {
        if (counts.size() == kLines) break;
        counts.push_back(0);
      }
    }
    if (counts.size() > 1 && counts.back() == 0) counts.pop_back();
    const auto like_first = std::count(counts.begin(), counts.end(), counts.front());
    const double worth = counts.front() * (static_cast<double>(like_first) / static_cast<double>(counts.size()) + 0.01);
    if (worth > most) {
      most = worth;
      best = c;
    }
  }
  return best;
}

struct Taking {
  std::vector<ListRow> rows;
  ListRow row;
  std::size_t rows_seen = 0;
  std::string trouble;
  std::string where;
};

void take_entry(void* entry, std::size_t length, void* data) {
  auto& taking = *static_cast<Taking*>(data);
  std::string text(static_cast<const char*>(entry), length);
  std::erase(text, '\r');
  const auto first = text.find_first_not_of(" \t\n"), last = text.find_last_not_of(" \t\n");
  text = first == std::string::npos ? std::string() : text.substr(first, last - first + 1);
  if (text.size() > kLongestEntry && taking.trouble.empty())
    taking.trouble = say("{0}, row {1}: an entry of {2} letters does not go on a plate; is a quotation mark missing?",
                         taking.where, taking.rows_seen + 1, text.size());
  taking.row.push_back(std::move(text));
  if (taking.row.size() > kMostColumns && taking.trouble.empty())
    taking.trouble =
        say("{0}, row {1}: at most {2} columns were expected.", taking.where, taking.rows_seen + 1, kMostColumns);
}

void take_row(int, void* data) {
  auto& taking = *static_cast<Taking*>(data);
  ++taking.rows_seen;
  const bool says = std::any_of(taking.row.begin(), taking.row.end(), [](const std::string& e) { return !e.empty(); });
  if (says) taking.rows.push_back(std::move(taking.row));
  taking.row.clear();
  if (taking.rows.size() > kMostRows + 1 && taking.trouble.empty())
    taking.trouble = say("{0}: more than {1} rows; split the list.", taking.where, kMostRows);
}

struct FreeParser {
  void operator()(csv_parser* parser) const {
    csv_free(parser);
    delete parser;
  }
};

// All rows, by the reader of a package (libcsv), strict about quotes.
std::vector<ListRow> rows_of(const std::string& text, char between, const std::string& where, Reading reading) {
  std::unique_ptr<csv_parser, FreeParser> parser(new csv_parser);
  if (csv_init(parser.get(), CSV_STRICT | CSV_STRICT_FINI) != 0)
    throw bad_input(say("{0}: there is not enough memory for it.", where));
  csv_set_delim(parser.get(), static_cast<unsigned char>(between));
  Taking taking;
  taking.where = where;
  constexpr std::size_t kAtOnce = 1 << 16;
  const auto broken = [&] {
    return bad_input(
        say("{0}, row {1}: a quotation mark stands where none may: an entry in quotes ends with one, and "
            "one within it is doubled.",
            where, taking.rows_seen + 1));
  };
  for (std::size_t i = 0; i < text.size(); i += kAtOnce) {
    reading.look();
    const std::size_t length = std::min(kAtOnce, text.size() - i);
    if (csv_parse(parser.get(), text.data() + i, length, take_entry, take_row, &taking) != length) throw broken();
    if (!taking.trouble.empty()) throw bad_input(taking.trouble);
  }
  if (csv_fini(parser.get(), take_entry, take_row, &taking) != 0) throw broken();
  if (!taking.trouble.empty()) throw bad_input(taking.trouble);
  return std::move(taking.rows);
}

bool is_figure(const std::string& entry) {
  return !entry.empty() && entry.find_first_not_of("0123456789.,-+ ") == std::string::npos;
}

// A first row is of headings when each entry is there, another, none is a figure, and none comes again below it.
bool looks_like_headings(const std::vector<ListRow>& rows) {
  if (rows.size() < 2) return false;
  const ListRow& first = rows.front();
  const std::set<std::string> each(first.begin(), first.end());
  if (each.size() != first.size() || each.contains("") || std::any_of(first.begin(), first.end(), is_figure))
    return false;
  constexpr std::size_t kEnough = 1000;
  for (std::size_t i = 1; i < std::min(rows.size(), kEnough); ++i) {
    for (std::size_t c = 0; c < std::min(first.size(), rows[i].size()); ++c) {
      if (rows[i][c] == first[c]) return false;
    }
  }
  // Names of one column alone look like any heading: known words only.
  if (first.size() > 1) return true;
  std::string word = first.front();
  std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return std::tolower(c); });
  static const std::set<std::string> kWords{"name",   "names", "title", "text", "words", "label",  "labels", "no",
                                            "number", "plant", "line",  "row",  "item",  "nummer", "namen"};
  return kWords.contains(word);
}

std::vector<std::string> headings_of(const ListRow* first, std::size_t columns) {
  std::vector<std::string> headings;
  std::set<std::string> taken;
  for (std::size_t i = 0; i < columns; ++i) {
    std::string heading = first != nullptr && i < first->size() ? (*first)[i] : std::string();
    if (heading.empty()) heading = say("Column {0}", i + 1);
    std::string own = heading;
    for (int k = 2; !taken.insert(own).second; ++k) own = heading + " " + std::to_string(k);
    headings.push_back(own);
  }
  return headings;
}

}  // namespace

ListRead read_list(const std::string& bytes, const std::string& where, Headings headings, const Reading& reading) {
  if (bytes.size() > kMostBytes)
    throw bad_input(say("{0}: a list of {1} MB is too large; at most {2} MB are read.", where, bytes.size() >> 20,
                        kMostBytes >> 20));
  ListRead out;
  const std::string text = text_of(bytes, where, out.notes);
  out.between = between_of(text);
  out.rows = rows_of(text, out.between, where, reading);
  if (out.rows.empty()) throw bad_input(say("{0}: there is nothing in this list.", where));
  std::size_t columns = 0;
  for (const ListRow& row : out.rows) columns = std::max(columns, row.size());
  out.headings = headings == Headings::First || (headings == Headings::Found && looks_like_headings(out.rows));
  out.columns = headings_of(out.headings ? &out.rows.front() : nullptr, columns);
  if (out.headings) out.rows.erase(out.rows.begin());
  if (out.rows.empty()) throw bad_input(say("{0}: under its headings there is nothing in this list.", where));
  if (out.rows.size() > kMostRows) throw bad_input(say("{0}: more than {1} rows; split the list.", where, kMostRows));
  std::size_t short_rows = 0;
  for (ListRow& row : out.rows) {
    short_rows += row.size() < columns ? 1 : 0;
    row.resize(columns);
  }
  if (short_rows > 0)
    out.notes.push_back(say("{0} {0|row has|rows have} fewer entries than there are columns.", short_rows));
  return out;
}

}  // namespace doyen
