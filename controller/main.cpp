// doyen-controller: a simulated controller on a pseudo-terminal, to rehearse a run with. It says the terminal's path on
// its standard output, then speaks the protocol of docs/rehearsal.md there until the other side closes it, or its
// standard input ends.
#include <fcntl.h>
#include <poll.h>
#include <stdlib.h>
#include <termios.h>
#include <unistd.h>

#include <chrono>
#include <cstdio>
#include <cstring>
#include <string>

#include "controller.hpp"

namespace {

bool three(const char* text, std::array<double, 3>& out) {
  return std::sscanf(text, "%lf,%lf,%lf", &out[0], &out[1], &out[2]) == 3;
}

int usage() {
  std::fprintf(
      stderr,
      "Usage: doyen-controller [--travel X,Y,Z] [--rapid X,Y,Z] [--feed X,Y,Z] [--acceleration X,Y,Z] [--corner "
      "MM]\n                        [--ahead LINES] [--rate LINES] [--step MM] [--dwell s|ms] [--origin X,Y,Z]\n"
      "                        [--speed TIMES]\n"
      "mm, mm/min, mm/s2; --speed: how many times faster than a machine.\n");
  return 2;
}

struct Asked {
  controller::Figures figures;
  double speed = 1;
};

bool read_arguments(int count, char** given, Asked& asked) {
  controller::Figures& f = asked.figures;
  for (int i = 1; i + 1 < count; i += 2) {
    const std::string name = given[i];
    const char* value = given[i + 1];
    std::array<double, 3> origin{};
    bool fine = true;
    if (name == "--travel")
      fine = three(value, f.travel);
    else if (name == "--rapid")
      fine = three(value, f.rapid);
    else if (name == "--feed")
      fine = three(value, f.feed_most);
    else if (name == "--acceleration")
      fine = three(value, f.acceleration);
    else if (name == "--origin") {
      fine = three(value, origin);
      f.origin = {origin[0], origin[1], origin[2]};
    } else if (name == "--corner")
      f.corner = std::atof(value);
    else if (name == "--ahead")
      f.ahead = std::max(2, std::atoi(value));
    else if (name == "--rate")
      f.lines_a_second = std::atof(value);
    else if (name == "--step")
      f.step = std::max(0.0, std::atof(value));
    else if (name == "--dwell")
      f.dwell_in_ms = std::string(value) == "ms";
    else if (name == "--speed")
      asked.speed = std::atof(value);
    else
      fine = false;
    if (!fine) return false;
  }
  for (std::size_t i = 0; i < 3; ++i) {
    if (!(f.rapid[i] > 0 && f.feed_most[i] > 0 && f.acceleration[i] > 0)) return false;
  }
  return count % 2 == 1 && asked.speed > 0 && asked.speed <= 10'000 && f.corner > 0;
}

void write_all(int to, const std::string& text) {
  for (std::size_t done = 0; done < text.size();) {
    const ssize_t n = ::write(to, text.data() + done, text.size() - done);
    if (n > 0)
      done += static_cast<std::size_t>(n);
    else if (n < 0 && errno != EAGAIN && errno != EINTR)
      return;
    else
      ::usleep(500);
  }
}

int open_terminal() {
  const int master = ::posix_openpt(O_RDWR | O_NOCTTY);
  if (master < 0 || ::grantpt(master) != 0 || ::unlockpt(master) != 0) return -1;
  termios settings{};
  if (::tcgetattr(master, &settings) == 0) {
    ::cfmakeraw(&settings);
    ::tcsetattr(master, TCSANOW, &settings);
  }
  ::fcntl(master, F_SETFL, ::fcntl(master, F_GETFL) | O_NONBLOCK);
  return master;
}

// Until nobody is there any more.
void serve(int master, const Asked& asked) {
  using Clock = std::chrono::steady_clock;
  controller::Controller machine(asked.figures, asked.speed);
  Clock::time_point last = Clock::now(), heard = last;
  while (true) {
    pollfd ends[2] = {{master, POLLIN, 0}, {STDIN_FILENO, POLLIN, 0}};
    ::poll(ends, 2, 4);
    char bytes[4096];
    if ((ends[1].revents & (POLLIN | POLLHUP)) != 0 && ::read(STDIN_FILENO, bytes, sizeof bytes) <= 0) return;
    const ssize_t n = (ends[0].revents & POLLIN) != 0 ? ::read(master, bytes, sizeof bytes) : 0;
    const Clock::time_point now = Clock::now();
    if (n > 0) {
      machine.receive({bytes, static_cast<std::size_t>(n)});
      heard = now;
    }
    const double real = std::chrono::duration<double>(now - last).count();
    last = now;
    // A machine that runs many times faster than a real one must not starve for lines that are on their way.
    const bool waits = machine.hungry() && std::chrono::duration<double>(now - heard).count() < 0.1;
    if (!waits) machine.advance(std::min(real, 0.1) * machine.speed());
    if (const std::string said = machine.take_replies(); !said.empty()) write_all(master, said);
  }
}

}  // namespace

int main(int count, char** given) {
  Asked asked;
  if (!read_arguments(count, given, asked)) return usage();
  const int master = open_terminal();
  if (master < 0) {
    std::fprintf(stderr, "No pseudo-terminal can be had: %s.\n", std::strerror(errno));
    return 1;
  }
  const char* path = ::ptsname(master);
  // Held open from this side, too, so that the other may come and go.
  const int held = ::open(path, O_RDWR | O_NOCTTY);
  std::printf("%s\n", path);
  std::fflush(stdout);
  serve(master, asked);
  ::close(held);
  ::close(master);
  return 0;
}
