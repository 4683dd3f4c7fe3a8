// One list for each record that stands in a file: its keys, where each is kept, its range, when it is said. From the
// list come reading, writing, and keeping what a newer Doyen, or the user by hand, wrote beside it.
//
//   Record<Tabs> tabs;
//   tabs.flag("wanted", &Tabs::wanted).always();
//   tabs.number("length", &Tabs::length, {0.5, 500}).always();  // mm
//
// A field is said when it is not as usual (as in a fresh record), unless its line says otherwise. Where a member lies
// deeper, a generic lambda returning a reference takes its pointer's place.
#pragma once

#include <cmath>
#include <functional>
#include <initializer_list>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "fields/range.hpp"
#include "json_reading.hpp"
#include "measure/id.hpp"
#include "shared.hpp"
#include "wording/say.hpp"

namespace doyen {

inline constexpr double kFar = 50'000;  // mm, the farthest any length in a job may be
template <typename Enum>
using Words = std::vector<std::pair<const char*, Enum>>;

// A key as a file may hold it.
struct KnownKey {
  std::string path;              // such as pieces[].cut.tabs.length
  std::string takes;             // such as “0.5 to 500”, “one of face, bed”
  std::optional<Range> range{};  // of numbers
};

namespace fields {

std::string in_words(Range range, bool whole);  // such as “0.5 to 500”

// What stands beside a list's elements, by element: found again by its id, by what else it says, or by its place.
Json beside_list(const std::vector<std::pair<Json, Json>>& written_and_left);
// For each entry of `left` the element of `list` it belongs to, and what stands beside that.
void for_each_beside(Json& list, const Json& left, const std::function<void(Json& element, const Json& inner)>& act);

// What beside() found, as it is kept with a record: empty when there is nothing, and the same for the same things, in
// whatever order they stood.
std::string kept_text(const Json& beside);

// The id of the element that such an entry belongs to, or its number, from 1.
std::string element_name(const Json& entry);

// Plain values as JSON, made in one place: the library's own conversions cost a second each to compile.
Json json_of(double value);
Json json_of(int value);
Json json_of(bool value);
Json json_of(const std::string& value);
Json json_of(const char* value);
Json json_of(const std::vector<std::string>& value);
template <typename Of>
Json json_of(const std::vector<Id<Of>>& value) {
  return json_of(std::vector<std::string>(value.begin(), value.end()));
}

// What copies share is read as it is, and filled as its own.
template <typename T>
const T& plain(const T& value) {
  return value;
}
template <typename T>
const T& plain(const Shared<T>& value) {
  return value.get();
}
template <typename T>
T& to_fill(T& value) {
  return value;
}
template <typename T>
T& to_fill(Shared<T>& value) {
  return value.edit();
}

[[noreturn]] void no_such_word(const JsonView& v, const std::string& key, const std::string& word,
                               const std::string& known);

template <typename Enum>
Enum choice(const JsonView& v, const char* key, const Words<Enum>& words) {
  const std::string word = v.text(key);
  std::string known;
  for (const auto& [name, value] : words) {
    if (word == name) return value;
    known += (known.empty() ? "" : ", ") + std::string(name);
  }
  no_such_word(v, key, word, known);
}
template <typename Enum>
const char* word_of(Enum value, const Words<Enum>& words) {
  for (const auto& [name, known] : words) {
    if (known == value) return name;
  }
  return "";
}

}  // namespace fields

template <typename R>
class Record {
 public:
  using Test = std::function<bool(const R&)>;
  using RangeOf = std::function<Range(const R&)>;  // for ranges that hang on what was read before

  // A length, share, angle …; whole numbers, too.
  template <typename Get>
  Record& number(const char* key, Get get, Range range) {
    return number_within(key, get, [range](const R&) { return range; });
  }
  template <typename Get>
  Record& number_within(const char* key, Get get, RangeOf range) {
    add(
        key, get,
        [key, get, range](R& r, const JsonView& v) {
          const Range in = range(r);
          auto& member = std::invoke(get, r);
          using Member = std::remove_reference_t<decltype(member)>;
          if (v.has(key)) member = static_cast<Member>(v.number(key, in.least, in.most));
        },
        [get](const R& r) { return fields::json_of(std::invoke(get, r)); });
    using Kept = std::remove_cvref_t<decltype(std::invoke(get, std::declval<R&>()))>;
    entries_.back().range = range(R{});
    return takes(fields::in_words(*entries_.back().range, std::is_integral_v<Kept>));
  }
  template <typename Get>
  Record& optional(const char* key, Get get, Range range) {
    add(
        key, get,
        [key, get, range](R& r, const JsonView& v) {
          if (v.has(key)) std::invoke(get, r) = v.number(key, range.least, range.most);
        },
        [get](const R& r) { return fields::json_of(*std::invoke(get, r)); });
    entries_.back().range = range;
    return takes(fields::in_words(range, false));
  }
  template <typename Get>
  Record& text(const char* key, Get get, std::size_t longest = std::string::npos) {
    add(
        key, get,
        [key, get, longest](R& r, const JsonView& v) {
          if (!v.has(key)) return;
          std::invoke(get, r) = v.text(key);
          if (std::invoke(get, r).size() > longest)
            throw v.wrong(key, say("at most {0} characters were expected", longest));
        },
        [get](const R& r) { return fields::json_of(fields::plain(std::invoke(get, r))); });
    return takes("text");
  }
  template <typename Get>
  Record& flag(const char* key, Get get) {
    add(
        key, get, [key, get](R& r, const JsonView& v) { std::invoke(get, r) = v.flag_or(key, std::invoke(get, r)); },
        [get](const R& r) { return fields::json_of(std::invoke(get, r)); });
    return takes("true or false");
  }
  template <typename Get, typename Enum>
  Record& choice(const char* key, Get get, const Words<Enum>& words) {
    add(
        key, get,
        [key, get, words](R& r, const JsonView& v) {
          if (v.has(key)) std::invoke(get, r) = fields::choice(v, key, words);
        },
        [get, words](const R& r) { return fields::json_of(fields::word_of(std::invoke(get, r), words)); });
    std::string known;
    for (const auto& [name, value] : words) known += (known.empty() ? "" : ", ") + std::string(name);
    return takes(known);
  }
  template <typename Get>
  Record& texts(const char* key, Get get, std::size_t most, const char* expected) {
    add(
        key, get,
        [key, get, most, expected](R& r, const JsonView& v) {
          for (const Json& each : v.array(key, most)) {
            if (!each.is_string()) throw v.wrong(key, say(expected));
            std::invoke(get, r).push_back(each.template get<std::string>());
          }
        },
        [get](const R& r) { return fields::json_of(std::invoke(get, r)); });
    return takes("a list of texts");
  }
  // A record within the record; `inner` must outlive this list, as static ones do.
  template <typename Get, typename N>
  Record& record(const char* key, Get get, const Record<N>& inner) {
    add(
        key, get,
        [key, get, &inner](R& r, const JsonView& v) {
          if (v.has(key)) inner.read_into(std::invoke(get, r), v.object(key));
        },
        [get, &inner](const R& r) { return inner.write(std::invoke(get, r)); });
    nest(inner);
    entries_.back().as_usual = [&inner] { return inner.write(N{}); };
    return *this;
  }
  // One that may not be there at all.
  template <typename Get, typename N>
  Record& optional_record(const char* key, Get get, const Record<N>& inner) {
    add(
        key, get,
        [key, get, &inner](R& r, const JsonView& v) {
          if (v.has(key)) std::invoke(get, r) = inner.read(v.object(key));
        },
        [get, &inner](const R& r) { return inner.write(*std::invoke(get, r)); });
    nest(inner);
    return *this;
  }
  template <typename Get, typename N>
  Record& records(const char* key, Get get, const Record<N>& inner, std::size_t most) {
    add(
        key, get,
        [key, get, &inner, most](R& r, const JsonView& v) {
          if (!v.has(key)) return;
          std::size_t i = 0;
          auto& list = fields::to_fill(std::invoke(get, r));
          for (const Json& each : v.array(key, most)) {
            const JsonView view(each, v.where() + "." + key + "[" + std::to_string(i++) + "]");
            list.push_back(inner.read(view));
          }
        },
        [get, &inner](const R& r) {
          Json list = Json::array();
          for (const auto& each : std::invoke(get, r)) list.push_back(inner.write(each));
          return list;
        });
    entries_.back().beside = [&inner](const Json& value) {
      std::vector<std::pair<Json, Json>> found;
      if (value.is_array()) {
        for (const Json& each : value) {
          if (!each.is_object()) continue;
          Json left = inner.beside(each);
          Json written = left.empty() ? Json() : inner.write(inner.read(JsonView(each, "")));
          found.emplace_back(std::move(written), std::move(left));
        }
      }
      return fields::beside_list(found);
    };
    entries_.back().put_beside = [&inner](Json& value, const Json& left) {
      fields::for_each_beside(value, left, [&](Json& element, const Json& one) { inner.put_beside(element, one); });
    };
    entries_.back().within = [&inner](const std::string& path, std::vector<KnownKey>& keys) {
      inner.add_known(path + "[].", keys);
    };
    entries_.back().name_beside = [&inner](const Json& left, const std::string& path, std::vector<std::string>& names) {
      for (const Json& one : left) inner.name_beside(one["left"], path + fields::element_name(one) + ".", names);
    };
    return *this;
  }
  // Records by a name of their own, such as feeds by wood class.
  template <typename Get, typename N>
  Record& records_by_name(const char* key, Get get, const Record<N>& inner, std::size_t most) {
    add(
        key, get,
        [key, get, &inner, most](R& r, const JsonView& v) {
          if (!v.has(key)) return;
          const JsonView all = v.object(key);
          if (all.json().size() > most) throw v.wrong(key, say("at most {0} entries were expected", most));
          for (const auto& [name, each] : all.json().items())
            std::invoke(get, r)[name] = inner.read(JsonView(each, all.where() + "." + name));
        },
        [get, &inner](const R& r) {
          Json all = Json::object();
          for (const auto& [name, each] : std::invoke(get, r)) all[name] = inner.write(each);
          return all;
        });
    entries_.back().beside = [&inner](const Json& value) {
      Json left = Json::object();
      if (!value.is_object()) return left;
      for (const auto& [name, each] : value.items()) {
        if (Json one = each.is_object() ? inner.beside(each) : Json::object(); !one.empty())
          left[name] = std::move(one);
      }
      return left;
    };
    entries_.back().put_beside = [&inner](Json& value, const Json& left) {
      for (const auto& [name, one] : left.items()) {
        if (value.contains(name)) inner.put_beside(value[name], one);
      }
    };
    entries_.back().within = [&inner](const std::string& path, std::vector<KnownKey>& keys) {
      inner.add_known(path + ".<name>.", keys);
    };
    entries_.back().name_beside = [&inner](const Json& left, const std::string& path, std::vector<std::string>& names) {
      for (const auto& [name, one] : left.items()) inner.name_beside(one, path + name + ".", names);
    };
    return *this;
  }
  // A part of the record whose keys stand among the record's own: they are used, and said as its list says, when `used`
  // holds; else only what is not as usual is said. `inner` must outlive this list.
  template <typename Get, typename N>
  Record& within(Get get, const Record<N>& inner, Test used) {
    for (const auto& e : inner.entries_) {
      Entry mine;
      mine.key = e.key;
      mine.read = [get, &e](R& r, const JsonView& v) { e.read(std::invoke(get, r), v); };
      if (e.write) mine.write = [get, &e](const R& r) { return e.write(std::invoke(get, r)); };
      mine.said = [get, &e, used](const R& r) {
        const N& part = std::invoke(get, r);
        return used(r) ? e.said(part) : e.differs && e.differs(part);
      };
      mine.differs = [get, &e](const R& r) { return e.differs && e.differs(std::invoke(get, r)); };
      mine.used = [get, &e, used](const R& r) { return used(r) && (!e.used || e.used(std::invoke(get, r))); };
      mine.beside = e.beside;
      mine.put_beside = e.put_beside;
      mine.as_usual = e.as_usual;
      mine.name_beside = e.name_beside;
      mine.takes = e.takes;
      mine.range = e.range;
      mine.within = e.within;
      entries_.push_back(std::move(mine));
    }
    return *this;
  }
  // What is like nothing else.
  Record& own(const char* key, std::function<void(R&, const JsonView&)> read, std::function<Json(const R&)> write,
              Test said) {
    Entry entry;
    entry.key = key;
    entry.read = std::move(read);
    entry.write = std::move(write);
    entry.said = std::move(said);
    entries_.push_back(std::move(entry));
    return *this;
  }
  // A key that is read from older files and not written any more.
  Record& formerly(const char* key, std::function<void(R&, const JsonView&)> read) {
    return own(key, std::move(read), {}, [](const R&) { return false; });
  }
  // After everything was read: what no single field can say of itself.
  Record& afterwards(std::function<void(R&, const JsonView&)> look) {
    looks_.push_back(std::move(look));
    return *this;
  }

  // Every key that is written, records within included, such as “cut.tabs.length”.
  void add_known(const std::string& before, std::vector<KnownKey>& keys) const {
    for (const Entry& e : entries_) {
      if (!e.write) continue;
      if (e.within)
        e.within(before + e.key, keys);
      else
        keys.push_back({before + e.key, e.takes, e.range});
    }
  }

  // Of the field that was listed last:
  Record& takes(const std::string& words) {  // what may stand there
    entries_.back().takes = words;
    return *this;
  }
  Record& takes(Range range) {
    entries_.back().range = range;
    return takes(fields::in_words(range, false));
  }
  Record& always() {  // it is said, whatever it is
    entries_.back().said = [](const R&) { return true; };
    return *this;
  }
  Record& needed() {  // and must be there
    entries_.back().read = [key = entries_.back().key, read = entries_.back().read](R& r, const JsonView& v) {
      if (!v.has(key.c_str())) throw v.wrong(key, say("this is missing"));
      read(r, v);
    };
    return always();
  }
  Record& also_when(Test test) {  // it is said then, too
    entries_.back().said = [said = entries_.back().said, test](const R& r) { return said(r) || test(r); };
    return *this;
  }
  Record& only_when(Test test) {  // it is said then, and at no other time
    entries_.back().said = std::move(test);
    entries_.back().as_usual = {};
    return *this;
  }
  Record& used_when(Test test) {  // whether it changes anything in such a record; else it is kept for another time
    entries_.back().used = std::move(test);
    return *this;
  }

  void read_into(R& r, const JsonView& v) const {
    for (const Entry& e : entries_) e.read(r, v);
    for (const auto& look : looks_) look(r, v);
  }
  [[nodiscard]] R read(const JsonView& v) const {
    R r;
    read_into(r, v);
    return r;
  }
  [[nodiscard]] Json write(const R& r) const {
    Json j = Json::object();
    for (const Entry& e : entries_) {
      if (e.write && e.said(r)) j[e.key] = e.write(r);
    }
    return j;
  }
  // What stands in such a record and is not known here, at every level.
  [[nodiscard]] Json beside(const Json& source) const {
    Json left = Json::object();
    for (const auto& [key, value] : source.items()) {
      const Entry* e = find(key);
      if (e == nullptr)
        left[key] = value;
      else if (e->beside) {
        if (Json inner = e->beside(value); !inner.empty()) left[key] = std::move(inner);
      }
    }
    return left;
  }
  // Where in the record that stands, such as “pieces.name-1.cut.tabz”; `left` is what beside() found.
  void name_beside(const Json& left, const std::string& path, std::vector<std::string>& names) const {
    for (const auto& [key, value] : left.items()) {
      const Entry* e = find(key);
      if (e == nullptr)
        names.push_back(path + key);
      else if (e->name_beside)
        e->name_beside(value, path + key + ".", names);
    }
  }
  void put_beside(Json& target, const Json& left) const {
    for (const auto& [key, value] : left.items()) {
      const Entry* e = find(key);
      if (e == nullptr)
        target[key] = value;
      else if (e->put_beside) {
        // A record that says nothing of its own is written for what stands beside it.
        if (!target.contains(key) && e->as_usual) target[key] = e->as_usual();
        if (target.contains(key)) e->put_beside(target[key], value);
      }
    }
  }
  // The keys of `source` that say something which such a record does not use.
  [[nodiscard]] std::vector<std::string> unused(const Json& source, const R& r) const {
    std::vector<std::string> keys;
    for (const auto& [key, value] : source.items()) {
      const Entry* e = find(key);
      if (e != nullptr && e->used && !e->used(r)) keys.push_back(key);
    }
    return keys;
  }

 private:
  template <typename>
  friend class Record;
  struct Entry {
    std::string key;
    std::function<void(R&, const JsonView&)> read;
    std::function<Json(const R&)> write;
    Test differs, said, used;  // from a fresh record's; whether it is written; whether it changes anything
    std::function<Json(const Json&)> beside;
    std::function<void(Json&, const Json&)> put_beside;
    std::function<Json()> as_usual;  // of a record within the record that may be written at any time
    std::function<void(const Json&, const std::string&, std::vector<std::string>&)> name_beside;
    std::string takes;  // in words
    std::optional<Range> range;
    std::function<void(const std::string& path, std::vector<KnownKey>&)> within;  // the keys of a record within
  };
  template <typename Get>
  Record& add(const char* key, Get get, std::function<void(R&, const JsonView&)> read,
              std::function<Json(const R&)> write) {
    static const R kUsual{};
    own(key, std::move(read), std::move(write),
        [get](const R& r) { return !(std::invoke(get, r) == std::invoke(get, kUsual)); });
    entries_.back().differs = entries_.back().said;
    return *this;
  }
  // Of the field that was listed last: what stands beside is looked for in the record within it.
  template <typename N>
  void nest(const Record<N>& inner) {
    entries_.back().beside = [&inner](const Json& value) {
      return value.is_object() ? inner.beside(value) : Json::object();
    };
    entries_.back().put_beside = [&inner](Json& value, const Json& left) { inner.put_beside(value, left); };
    entries_.back().within = [&inner](const std::string& path, std::vector<KnownKey>& keys) {
      inner.add_known(path + ".", keys);
    };
    entries_.back().name_beside = [&inner](const Json& left, const std::string& path, std::vector<std::string>& names) {
      inner.name_beside(left, path, names);
    };
  }
  [[nodiscard]] const Entry* find(const std::string& key) const {
    for (const Entry& e : entries_) {
      if (e.key == key) return &e;
    }
    return nullptr;
  }
  std::vector<Entry> entries_;
  std::vector<std::function<void(R&, const JsonView&)>> looks_;
};

}  // namespace doyen
