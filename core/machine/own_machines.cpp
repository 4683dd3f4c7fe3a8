#include "machine/own_machines.hpp"

#include <algorithm>
#include <deque>
#include <functional>
#include <mutex>

#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const MachineTable& shipped() {
  // Said in the user's language, which stands when Doyen starts.
  static const MachineTable table = [] {
    MachineTable read = read_data("machines.json", read_machines);
    for (MachineProfile& m : read.machines) m.name = say(m.name);
    return read;
  }();
  return table;
}

// All tables that were ever told: plans hold on to them. There are as many as there were changes by hand.
struct Told {
  std::mutex mutex;
  std::deque<MachineTable> tables;
  std::string problem;
};
Told& told() {
  static Told all;
  return all;
}

// Shipped ones first; one of the user's that took a shipped one's id is left out.
void look_again(Told& all) {
  all.problem.clear();
  MachineTable table = shipped();
  const std::string path = own_machines_path();
  try {
    if (file_stands(path)) {
      for (MachineProfile& m : read_machines(read_file(path), path).machines) {
        if (table.find(m.id) == nullptr) table.machines.push_back(std::move(m));
      }
    }
  } catch (const Problem& problem) {
    all.problem = problem.what();
  }
  if (all.tables.empty() || !(all.tables.back().machines == table.machines)) all.tables.push_back(std::move(table));
}

std::string change(const std::function<void(MachineTable&)>& act) {
  const std::string path = own_machines_path();
  make_folder(path.substr(0, path.rfind('/')));
  MachineTable own;
  bool damaged = false;
  if (file_stands(path)) {
    try {
      own = read_machines(read_file(path), path);
    } catch (const Problem&) {
      damaged = true;
    }
  }
  act(own);
  std::string text = write_machines(own);
  if (own.machines.empty()) {  // as if there had never been any
    if (!damaged && file_stands(path)) remove_file(path);
    text.clear();
  } else {
    (void)read_machines(text, say("The machines"));
  }
  std::string aside;
  if (!text.empty()) aside = write_putting_aside(path, text, damaged);
  const std::lock_guard lock(told().mutex);
  look_again(told());
  return aside;
}

}  // namespace

std::string own_machines_path() { return user_file("machines.json"); }

const MachineTable& machine_table() {
  Told& all = told();
  const std::lock_guard lock(all.mutex);
  if (all.tables.empty()) look_again(all);
  return all.tables.back();
}

const std::string& own_machines_problem() {
  (void)machine_table();
  return told().problem;
}

bool comes_with_doyen(const std::string& machine) { return shipped().find(machine) != nullptr; }

std::string keep_machine(const MachineProfile& machine) {
  return change([&](MachineTable& own) {
    const auto at = std::find_if(own.machines.begin(), own.machines.end(),
                                 [&](const MachineProfile& m) { return m.id == machine.id; });
    if (at == own.machines.end())
      own.machines.push_back(machine);
    else
      *at = machine;
  });
}

std::string drop_machine(const std::string& id) {
  return change(
      [&](MachineTable& own) { std::erase_if(own.machines, [&](const MachineProfile& m) { return m.id == id; }); });
}

std::string fresh_machine_id(const std::string& name) {
  std::string stem;
  for (const char c : name) {
    if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9')) stem += c;
    if (c >= 'A' && c <= 'Z') stem += static_cast<char>(c - 'A' + 'a');
    if (c == ' ' && !stem.empty() && stem.back() != '-') stem += '-';
  }
  while (stem.ends_with('-')) stem.pop_back();
  stem = stem.empty() ? "machine" : stem.substr(0, 60);
  std::string id = stem;
  for (int k = 2; machine_table().find(id) != nullptr; ++k) id = stem + "-" + std::to_string(k);
  return id;
}

}  // namespace doyen
