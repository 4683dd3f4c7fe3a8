// doyen-cli: the same planning with no window. Exit 0 fine, 1 a stop verdict stands, 2 usage, 3 bad input, 4 cannot
// write.
#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>
#include <string>
#include <vector>

#include "cli/command.hpp"
#include "problem.hpp"
#include "version.hpp"

using namespace doyen;
using namespace doyen::cli;

int main(int argc, char** argv) {
  CLI::App app{"Doyen without a window: plan a job, check it, carve it in the computer, read files back."};
  app.name("doyen-cli");
  app.require_subcommand(1);
  app.set_version_flag("--version", std::string("Doyen ") + version());
  int code = kFine;
  for (const Command& command :
       {plan_command(), check_command(), fit_command(), ladder_command(), testcut_command(), relief_command(),
        import_command(), text_command(), outlines_command(), readback_command(), keys_command(), ways_command(),
        customer_command(), again_command(), list_command(), finish_command(), log_command(), rescue_command(),
        offcuts_command()}) {
    CLI::App* sub = app.add_subcommand(command.name, command.about);
    Arguments arguments(*sub);
    sub->callback([&code, run = command.make(arguments)] { code = run(); });
  }

  // As it was called before.
  std::vector<std::string> words(argv + 1, argv + argc);
  if (!words.empty() && words.front() == "backplot") words.front() = "readback";
  std::reverse(words.begin(), words.end());
  try {
    app.parse(words);
    return code;
  } catch (const CLI::ParseError& error) {
    const int asked = app.exit(error);
    return asked == 0 ? kFine : kUsage;
  } catch (const Usage& error) {
    std::fprintf(stderr, "%s\n", error.what());
    return kUsage;
  } catch (const Problem& problem) {
    std::fprintf(stderr, "%s\n", problem.what());
    return problem.kind() == Problem::Kind::CannotWrite ? kCannotWrite : kBadInput;
  } catch (const std::bad_alloc&) {
    std::fprintf(stderr, "There is not enough memory for this job.\n");
    return kBadInput;
  } catch (const std::exception& error) {
    std::fprintf(stderr, "Something unexpected went wrong: %s\n", error.what());
    return kBadInput;
  }
}
