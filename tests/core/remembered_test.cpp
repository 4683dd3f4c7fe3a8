// What is remembered, shared or taken back: whatever was kept from before, the outcome is that of doing it anew.
#include <catch2/catch.hpp>

#include <random>

#include "job/job_change.hpp"
#include "planning/outputs.hpp"
#include "planning/plan.hpp"
#include "random_jobs.hpp"
#include "shared.hpp"
#include "stock/species.hpp"

using namespace doyen;
using workbench::JobMaker;
using workbench::load_rack;
using workbench::SignMaker;

namespace {

std::string files_of(const Plan& p) {
  std::string all;
  for (const OutputFile& f : gcode_files(p)) all += f.name + "\n" + f.text;
  return all;
}

std::string said_by(const Plan& p) {
  std::string all;
  for (const Verdict& v : p.verdicts) {
    all += v.code + " " + v.piece + ": " + v.text + " " + v.why;
    for (const Remedy& r : v.remedies) all += " [" + r.label + "]";
    all += "\n";
  }
  return all;
}

// Any edit that people make, and what they do with what another job has.
void edit(Job& job, const Job& other, std::mt19937& random) {
  const auto whole = [&](int most) { return std::uniform_int_distribution<int>(0, most)(random); };
  const auto some = [&](auto& list) -> auto& { return list[static_cast<std::size_t>(whole(int(list.size()) - 1))]; };
  Item& item = some(job.items);
  switch (whole(13)) {
    case 0:
    case 1:
      return job.shift(item.piece.id, {whole(40) - 20.0, whole(30) / 3.0});
    case 2:
      item.piece.turn += whole(90);
      return;
    case 3:
      item.cut.depth = 1 + whole(20) / 2.0;
      return;
    case 4:
      item.cut.kind = some(other.items).cut.kind;
      return;
    case 5:
      item.cut = some(other.items).cut;
      return;
    case 6:
      std::swap(item, some(job.items));
      return;
    case 7:
      job.blank = other.blank;
      return;
    case 8:
      item.piece.name += "'";
      job.name += "'";
      return;
    case 9:
    case 10: {  // another feed, or another depth a pass
      const std::string wood = wood_class_of(job.blank);
      const std::vector<Bit> bits = load_rack().bits;
      const Bit& bit = some(bits);
      Feeds feeds = bit.feeds_in(wood);
      if (!feeds.known()) return;
      feeds.feed *= 0.5 + whole(10) / 10.0;
      feeds.plunge *= 0.5 + whole(10) / 10.0;
      if (whole(2) == 0) feeds.depth_per_pass = 0.5 + whole(20) / 4.0;
      job.run.feeds[bit.id] = feeds;
      return;
    }
    case 11:  // only its thickness, and how even the bed is
      job.blank.readings = other.blank.readings;
      job.blank.bed_unevenness = other.blank.bed_unevenness + 0.05;
      return;
    case 12:
      job.run = other.run;
      job.lengths = other.lengths;
      return;
    default:
      job.items.push_back(some(other.items));
      job.items.back().piece.id = job.fresh_id("more");
      if (job.items.size() > 6) job.items.erase(job.items.begin() + whole(5));
  }
}

}  // namespace

TEST_CASE("copies share what is large until one of them is changed") {
  Shared<std::vector<int>> one(std::vector<int>{1, 2, 3});
  Shared<std::vector<int>> two = one;
  CHECK(&one.get() == &two.get());
  CHECK(one.mark() == two.mark());
  two.edit().push_back(4);
  CHECK(one.size() == 3);
  CHECK(two.size() == 4);
  CHECK(one.mark() != two.mark());
  CHECK_FALSE(one == two);
  const std::uint64_t before = two.mark();
  two.edit().pop_back();
  CHECK(one == two);
  CHECK(two.mark() != before);  // what was remembered by it is not taken for this
  Shared<std::vector<int>> none;
  CHECK(none.empty());
  none.edit().push_back(1);
  CHECK(Shared<std::vector<int>>().empty());
}

TEST_CASE("edits are taken back and made again in any order, and the job is each time what it was") {
  for (unsigned seed = 1; seed <= 40; ++seed) {
    std::mt19937 random(seed);
    Job job = JobMaker(seed).job();
    const Job other = SignMaker(seed + 1000).job();
    std::vector<Job> states{job};
    std::vector<JobChange> changes;
    for (int i = 0; i < 12; ++i) {
      edit(job, other, random);
      changes.emplace_back(states.back(), job);
      states.push_back(job);
    }
    std::size_t at = changes.size();
    for (int i = 0; i < 60; ++i) {
      const bool back = at > 0 && (at == changes.size() || std::uniform_int_distribution<int>(0, 1)(random) == 0);
      if (back)
        changes[--at].undo(job);
      else
        changes[at++].redo(job);
      INFO("seed " << seed);
      REQUIRE(job == states[at]);
      REQUIRE(write_job(job) == write_job(states[at]));
    }
  }
}

TEST_CASE("after any edits a remembered plan is the plan made anew", "[heavy]") {
  const Rack rack = load_rack();
  for (unsigned seed = 1; seed <= 10; ++seed) {
    std::mt19937 random(seed);
    Job job = seed % 2 == 0 ? JobMaker(seed).job() : SignMaker(seed).job();
    const Job other = seed % 2 == 0 ? SignMaker(seed + 77).job() : JobMaker(seed + 77).job();
    PlanCache cache;
    Job first = job;
    for (int i = 0; i < 8; ++i) {
      const Plan warm = plan(job, rack, machine_for(job), &cache), cold = plan(job, rack, machine_for(job));
      INFO("seed " << seed << ", edit " << i);
      CHECK(said_by(warm) == said_by(cold));
      CHECK((files_of(warm) == files_of(cold)));
      CHECK(warm.seconds == cold.seconds);
      edit(job, other, random);
      if (i == 5) job = first;  // taken back
    }
  }
}

TEST_CASE("what is remembered of plans keeps the job in hand, and not much more", "[heavy]") {
  Job job = workbench::board(1200, 800, 12);
  for (int i = 0; i < 250; ++i) {
    Item item;
    item.piece = {"p" + std::to_string(i),
                  "p",
                  PlainShape{.width = 10.0 + i % 7, .height = 12.0 + i % 5},
                  {40.0 + 45 * (i % 25), 40.0 + 70 * (i / 25)},
                  0};
    item.cut.kind = Treatment::Kind::Incise;
    item.cut.bit = "v60";
    job.items.push_back(item);
  }
  const Rack rack = load_rack();
  PlanCache cache;
  const Plan first = plan(job, rack, machine_for(job), &cache);
  job.items[100].piece.at.x += 3;
  const Plan second = plan(job, rack, machine_for(job), &cache);
  for (std::size_t i = 0; i < job.items.size(); ++i) CHECK((first.pieces[i] == second.pieces[i]) == (i != 100));
  // A tangle of points, moved again and again: each plan of it is large.
  Drawing d;
  std::string data;
  for (int k = 0; k < 40'000; ++k)
    data += (k == 0 ? "M" : "L") + format_number(150 + (100 + (k % 2)) * std::cos(k * 1.5707e-4), 4) + " " +
            format_number(150 + (100 + (k % 2)) * std::sin(k * 1.5707e-4), 4);
  d.page_width = d.page_height = 300;
  d.parts.edit().push_back({"a", "", data + "Z"});
  Job large = workbench::board(900, 400, 12);
  large.items.push_back({{"d", "d", d, {200, 200}, 0}, {}});
  std::size_t most = 0;
  PlanCache few;
  for (int i = 0; i < 60; ++i) {
    large.items[0].piece.at.x = 200 + i;
    plan(large, rack, machine_for(large), &few);
    most = std::max(most, few.bytes());
  }
  CHECK(most > (3u << 20));
  CHECK(most < (64u << 20));
}
