#include "cli/arguments.hpp"

#include <CLI/CLI.hpp>

namespace doyen::cli {

void Arguments::text(const std::string& name, std::string& into, const std::string& help, Need need) {
  app_.add_option(name, into, help)->required(need == Needed);
}

void Arguments::texts(const std::string& name, std::vector<std::string>& into, const std::string& help, Need need) {
  app_.add_option(name, into, help)->required(need == Needed);
}

void Arguments::one_of(const std::string& name, std::string& into, const std::vector<std::string>& words,
                       const std::string& help) {
  app_.add_option(name, into, help)->check(CLI::IsMember(words));
}

void Arguments::number(const std::string& name, double& into, double least, double most, const std::string& help) {
  app_.add_option(name, into, help)->check(CLI::Range(least, most));
}

void Arguments::whole(const std::string& name, int& into, int least, int most, const std::string& help) {
  app_.add_option(name, into, help)->check(CLI::Range(least, most));
}

void Arguments::flag(const std::string& name, bool& into, const std::string& help) { app_.add_flag(name, into, help); }

}  // namespace doyen::cli
