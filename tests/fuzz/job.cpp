#include "job/job.hpp"

#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(job) {
  try {
    const Job job = read_job(bytes, "job");
    // Whatever is read can be written, and is then read as itself.
    const std::string text = write_job(job);
    Job again;
    try {
      again = read_job(text, "job");
    } catch (const Problem& problem) {
      fuzz::broken(std::string("what was read can be written and read: ") + problem.what());
    }
    if (write_job(again) != text) fuzz::broken("a job is written as it was read");
  } catch (const Problem&) {
  }
}
