// What a command takes, said in one place: it hides the library that reads the words of a shell.
#pragma once

#include <memory>
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace doyen::cli {

class Arguments {
 public:
  explicit Arguments(CLI::App& app) : app_(app) {}
  enum Need { Optional, Needed };
  // `name`: such as "--out", or "JOB" for one that is told by its place. `help` is one line of the help.
  void text(const std::string& name, std::string& into, const std::string& help = {}, Need need = Optional);
  void texts(const std::string& name, std::vector<std::string>& into, const std::string& help = {},
             Need need = Optional);
  void one_of(const std::string& name, std::string& into, const std::vector<std::string>& words,
              const std::string& help);
  void number(const std::string& name, double& into, double least, double most, const std::string& help);
  void whole(const std::string& name, int& into, int least, int most, const std::string& help);
  void flag(const std::string& name, bool& into, const std::string& help = {});

 private:
  CLI::App& app_;
};

}  // namespace doyen::cli
