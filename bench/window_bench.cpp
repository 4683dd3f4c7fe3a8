// The window with the demo: from nothing to its first painted frame, against an empty window of Qt's.
#include <benchmark/benchmark.h>

#include <unistd.h>
#include <QApplication>
#include <QKeyEvent>
#include <QMainWindow>
#include <QMouseEvent>
#include <QPlainTextEdit>
#include <QWheelEvent>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <fstream>

#include "clock.hpp"
#include "jobs.hpp"
#include "shell/main_window.hpp"

namespace {

using namespace doyen;
void start_to_first_paint(benchmark::State& state) {
  double ours = 0, empty = 0;
  for (auto _ : state) {
    auto from = Clock::now();
    {
      QMainWindow window;
      window.resize(1280, 800);
      window.show();
      QApplication::processEvents();
    }
    empty += seconds_since(from);
    from = Clock::now();
    MainWindow window;
    window.open_demo();
    window.show();
    QApplication::processEvents();
    ours += seconds_since(from);
    state.PauseTiming();
    window.planner().cancel();
    state.ResumeTiming();
  }
  state.counters["ours_ms"] = ours * 1000 / static_cast<double>(state.iterations());
  state.counters["ours/empty"] = ours / empty;
}
BENCHMARK(start_to_first_paint)->Unit(benchmark::kMillisecond)->Iterations(5)->UseRealTime();

// Pieces of 500 points, as a drawing each.
Job crowded(int pieces) {
  Job job;
  job.blank.width = 1200;
  job.blank.height = 50 + 75 * std::ceil(pieces / 10.0);
  for (int i = 0; i < pieces; ++i) {
    Drawing d;
    d.name = "leaf";
    d.page_width = d.page_height = 80;
    d.parts.edit().push_back({"p", "", bench::leaf({40, 40}, 30, 6)});
    Item item;
    item.piece = {"leaf-" + std::to_string(i), "Leaf", d, {70.0 + 115 * (i % 10), 50.0 + 75 * (i / 10)}, 0};
    item.cut.kind = Treatment::Kind::Incise;
    item.cut.bit = "v60";
    job.items.push_back(std::move(item));
  }
  return job;
}

// One frame of panning, zooming and dragging, painted into the window's own buffer; sixty a second leave 16.7 ms.
void frames_of_a_crowded_board(benchmark::State& state) {
  Bench bench;
  bench.resize(950, 500);
  bench.show_stage(Stage::Artwork);
  const Job job = crowded(static_cast<int>(state.range(1)));
  bench.show_job(job);
  bench.show();
  QApplication::processEvents();
  const auto frame = [&](QEvent::Type type, QPointF at, Qt::MouseButton button) {
    QMouseEvent event(type, at, bench.mapToGlobal(at), button, button, Qt::NoModifier);
    QApplication::sendEvent(&bench, &event);
    bench.repaint();
  };
  double worst = 0;
  int step = 0;
  const bool drag = state.range(0) == 1, zoom = state.range(0) == 2;
  const QPointF from = drag ? bench.to_screen({70 + 30, 50}) : QPointF(40, 40);
  if (!zoom) frame(QEvent::MouseButtonPress, from, Qt::LeftButton);
  for (auto _ : state) {
    const auto t = Clock::now();
    ++step;
    if (zoom) {
      QWheelEvent wheel(QPointF(400, 250), bench.mapToGlobal(QPointF(400, 250)), {}, {0, step % 2 == 0 ? 30 : -30},
                        Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
      QApplication::sendEvent(&bench, &wheel);
      bench.repaint();
    } else {
      frame(QEvent::MouseMove, from + QPointF(step % 80, step % 50), Qt::LeftButton);
    }
    worst = std::max(worst, seconds_since(t));
  }
  state.counters["worst_ms"] = worst * 1000;
  state.counters["of_a_60th"] = worst * 60;
}
BENCHMARK(frames_of_a_crowded_board)
    ->ArgNames({"pan0_drag1_zoom2", "pieces"})
    ->ArgsProduct({{0, 1, 2}, {100, 200}})
    ->Unit(benchmark::kMillisecond)
    ->Iterations(200);

// Until the plan of the job as it stands is shown.
void settle(MainWindow& window) {
  while (window.plan() == nullptr || !(window.plan()->job == window.document().job()))
    QApplication::processEvents(QEventLoop::AllEvents, 5);
}

// The ticket of each stage, shown anew for a job of two hundred pieces; a frame at 240 Hz is 4 ms.
void tickets_of_two_hundred(benchmark::State& state) {
  MainWindow window;
  window.resize(1280, 800);
  window.show();
  const Job job = bench::many_words();
  window.document().replace(job, {});
  settle(window);
  window.select(QStringLiteral("bed-77"));
  const auto stage = static_cast<Stage>(state.range(0));
  window.go_to_stage(stage);
  QApplication::processEvents();
  double worst = 0;
  for (auto _ : state) {
    const auto t = Clock::now();
    window.go_to_stage(stage);
    worst = std::max(worst, seconds_since(t));
  }
  state.counters["worst_ms"] = worst * 1000;
  state.counters["of_4_ms"] = worst / 0.004;
}
BENCHMARK(tickets_of_two_hundred)
    ->ArgName("stage")
    ->DenseRange(0, 4)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(50)
    ->UseRealTime();

// One key in the window: until the first picture of the job as it is now is painted, which may be of what is wanted,
// until the coarse one of its plan, and its fine one. Against a cold plan of the same job.
struct KeyTimes {
  double first = 0, sharp = 0, planned = 0, coarse = 0, fine = 0, cold = 0;  // s
};
KeyTimes times_of_key(MainWindow& window, QWidget* to, QKeyEvent key) {
  KeyTimes times;
  bool fine = false, painted = false;
  const int sharp_width = window.bench().picture().width();
  const auto t = Clock::now();
  const auto watch = QObject::connect(&window.bench(), &Bench::picture_changed, &window, [&] {
    if (times.first == 0) {
      window.bench().repaint();
      times.first = seconds_since(t);
    }
    // As many pixels as it is seen with: as sharp as the last one will be.
    if (times.sharp == 0 && window.bench().picture().width() >= sharp_width) {
      window.bench().repaint();
      times.sharp = seconds_since(t);
    }
    if (!(window.plan()->job == window.document().job())) return;
    painted = true;
    fine = window.bench().picture_is_fine();
  });
  const auto wait_for = [](const auto& so) {
    while (!so()) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
  };
  QApplication::sendEvent(to, &key);
  wait_for([&] { return window.plan()->job == window.document().job(); });
  times.planned = seconds_since(t);
  wait_for([&] { return painted; });
  window.bench().repaint();
  times.coarse = seconds_since(t);
  wait_for([&] { return fine; });
  window.bench().repaint();
  times.fine = seconds_since(t);
  wait_for([&] { return !window.planner().busy() && !window.planner().judging(); });
  QObject::disconnect(watch);
  const auto from = Clock::now();
  (void)plan(window.document().job(), load_rack(), machine_for(window.document().job()));
  times.cold = seconds_since(from);
  return times;
}

double median_of(const std::vector<KeyTimes>& keys, double KeyTimes::*which) {
  std::vector<double> all;
  for (const KeyTimes& one : keys) all.push_back(one.*which);
  std::sort(all.begin(), all.end());
  return all[all.size() / 2];
}

// Letters typed into the words of a demo (`moved` 0: the first is a word never seen, `new_ms`), or the arrows that move
// them on the board (1).
void keystroke_in_the_window(benchmark::State& state) {
  MainWindow window;
  window.resize(1280, 800);
  window.show();
  window.open_demo(state.range(0) == 0 ? "gate-sign" : "gate-sign-raised");
  settle(window);
  while (window.planner().judging()) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
  window.go_to_stage(Stage::Artwork);
  window.select(QStringLiteral("name"));
  QApplication::processEvents();
  const bool moved = state.range(1) == 1;
  auto* words = window.findChild<QPlainTextEdit*>(QStringLiteral("words"));
  QWidget* to = moved ? static_cast<QWidget*>(&window.bench()) : words;
  to->setFocus();
  words->moveCursor(QTextCursor::End);
  while (!window.bench().picture_is_fine()) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
  std::vector<KeyTimes> all;
  bool longer = false;
  for (auto _ : state) {
    longer = !longer;
    const int key = moved ? Qt::Key_Up : longer ? Qt::Key_S : Qt::Key_Backspace;
    all.push_back(times_of_key(
        window, to, {QEvent::KeyPress, key, Qt::NoModifier, moved || !longer ? QString() : QStringLiteral("s")}));
  }
  state.counters["new_ms"] = 1000 * all.front().first;
  state.counters["first_ms"] = 1000 * median_of(all, &KeyTimes::first);
  state.counters["sharp_ms"] = 1000 * median_of(all, &KeyTimes::sharp);
  state.counters["planned_ms"] = 1000 * median_of(all, &KeyTimes::planned);
  state.counters["coarse_ms"] = 1000 * median_of(all, &KeyTimes::coarse);
  state.counters["fine_ms"] = 1000 * median_of(all, &KeyTimes::fine);
  state.counters["of_a_cold_plan"] = median_of(all, &KeyTimes::coarse) / median_of(all, &KeyTimes::cold);
}
BENCHMARK(keystroke_in_the_window)
    ->ArgNames({"raised", "moved"})
    ->ArgsProduct({{0, 1}, {0, 1}})
    ->Unit(benchmark::kMillisecond)
    ->Iterations(8)
    ->UseRealTime();

double resident_bytes() {
  std::ifstream statm("/proc/self/statm");
  double whole = 0, resident = 0;
  statm >> whole >> resident;
  return resident * static_cast<double>(sysconf(_SC_PAGESIZE));
}

// A drawing of 2 MB moved many times, each move planned and in the undo stack.
void many_moves(benchmark::State& state) {
  MainWindow window;
  window.resize(1280, 800);
  window.show();
  window.document().replace(bench::heavy_drawing(), {});
  settle(window);
  const auto move = [&](int i) {
    window.document().edit(QStringLiteral("move"), [&](Job& j) {
      j.items[0].piece.at = {400.0 + i % 40, 300.0 + i / 40};
    });
    settle(window);
  };
  // Judged and drawn to the last: what the window holds while nothing happens.
  const auto at_rest = [&] {
    while (window.planner().judging() || !window.bench().picture_is_fine())
      QApplication::processEvents(QEventLoop::AllEvents, 20);
  };
  const int moves = static_cast<int>(state.range(0));
  double first = 0, last = 0, one = 0, all = 0;
  for (auto _ : state) {
    auto t = Clock::now();
    move(1);
    one = seconds_since(t);
    at_rest();
    first = resident_bytes();
    t = Clock::now();
    for (int i = 2; i <= moves; ++i) move(i);
    all = seconds_since(t);
    at_rest();
    last = resident_bytes();
  }
  state.counters["MB_after_first"] = first / 1e6;
  state.counters["last/first"] = last / first;
  state.counters["first_move_ms"] = one * 1000;
  state.counters["move_ms"] = all * 1000 / (moves - 1);
}
BENCHMARK(many_moves)->Arg(40)->Arg(1000)->Unit(benchmark::kSecond)->Iterations(1)->UseRealTime();

}  // namespace
