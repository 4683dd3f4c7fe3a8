#include <benchmark/benchmark.h>

#include <QApplication>
#include <clocale>
#include <vector>

#include "parts/theme.hpp"

// One application for the window's benchmarks; it needs no display. Every figure is told with its median and its spread
// over three runs, unless another number is asked for (--benchmark_repetitions=1).
int main(int argc, char** argv) {
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  std::setlocale(LC_NUMERIC, "C");
  doyen::theme::apply(app);
  char runs[] = "--benchmark_repetitions=3", summed[] = "--benchmark_report_aggregates_only=true";
  std::vector<char*> asked{argv[0], runs, summed};
  asked.insert(asked.end(), argv + 1, argv + argc);
  auto count = static_cast<int>(asked.size());
  benchmark::Initialize(&count, asked.data());
  if (benchmark::ReportUnrecognizedArguments(count, asked.data())) return 1;
#ifdef NDEBUG
  benchmark::AddCustomContext("built", "optimised, as what is shipped");
#else
  benchmark::AddCustomContext("built", "NOT optimised: its ratios say nothing");
#endif
  benchmark::RunSpecifiedBenchmarks();
}
