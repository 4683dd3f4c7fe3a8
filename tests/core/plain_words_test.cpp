// What goes into files for machines: words that every controller shows and none obeys.
#include <catch2/catch.hpp>

#include "rack/own_rack.hpp"
#include "run/gcode.hpp"
#include "run/plain_words.hpp"
#include "workbench.hpp"

using namespace workbench;

TEST_CASE("names are reduced to letters, digits, spaces, dashes and points") {
  CHECK(plain_for_machine("Gate sign") == "Gate sign");
  CHECK(plain_for_machine("Café Müller, Straße 5") == "Cafe Muller Strasse 5");
  CHECK(plain_for_machine("60° V (1/2\")") == "60 deg V 1 2");
  CHECK(plain_for_machine("!reset ~ ? $X % ; (MSG, stop)\n\rM3") == "reset X MSG stop M3");
  CHECK(plain_for_machine("Žluťoučký kůň – Øre") == "Zlutoucky kun - Ore");
  CHECK(plain_for_machine("花と\xFF\xC3").empty());
  CHECK(plain_for_machine(std::string(500, 'x')).size() <= 121);
  CHECK(plain_for_file("flat-1/8in") == "flat-1-8in");
  CHECK(plain_for_file("../../etc/passwd") == "etc-passwd");
  CHECK(plain_for_file("a\nb") == "a-b");
  CHECK(plain_for_file("\n") == "bit");
}

TEST_CASE("no name reaches a file as anything but words, and none begins a comment") {
  Job job = board();
  job.name = "MSG, hold! ~?$ (LOGOPEN, x) % ;\n M30";
  add(job, "evil", {kBox, 40, 6}, {100, 80}, cut(Kind::Incise, 1));
  Rack rack = load_rack();
  for (Bit& bit : rack.bits) bit.name = "DEBUG, $X ~ " + bit.name;
  const Plan p = plan(job, rack, machine_for(job));
  REQUIRE_FALSE(p.runs.empty());
  for (const OutputFile& file : gcode_files(p)) {
    for (const char c : file.text) {
      const bool fine = (c >= '0' && c <= '9') || (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') ||
                        std::string(" -.()\n%").find(c) != std::string::npos;
      if (!fine) FAIL("“" << c << "” in a file");
    }
    for (std::size_t at = file.text.find('('); at != std::string::npos; at = file.text.find('(', at + 1)) {
      const std::string word = file.text.substr(at + 1, file.text.find_first_of(" )", at) - at - 1);
      INFO(word);
      CHECK((word == "job" || word == "zero" || word == "bit" || word == "work" || word == "change" || word == "end"));
    }
  }
}
