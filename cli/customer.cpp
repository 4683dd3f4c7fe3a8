// customer: the page that the customer signs.
#include <cstdio>

#include "cli/command.hpp"
#include "files/customer_sheet.hpp"
#include "files/outputs.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {

Command customer_command() {
  return {"customer", "Writes the customer's sheet: picture, size, wording letter by letter, a line to sign",
          [](Arguments& a) {
            struct CustomerOptions {
              std::string job, pdf;
            };
            auto o = std::make_shared<CustomerOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--pdf", o->pdf, "The file to write", Arguments::Needed);
            return [o] {
              const Plan plan = plan_of(load_job(o->job));
              write_file_atomically(o->pdf, customer_sheet_pdf(plan, board_picture(plan, 1400, Side::Front)));
              std::printf("Written: %s\n", o->pdf.c_str());
              return kFine;
            };
          }};
}

}  // namespace doyen::cli
