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
              std::string job, pdf, png;
            };
            auto o = std::make_shared<CustomerOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--pdf", o->pdf, "The file to write, to be printed and signed");
            a.text("--png", o->png, "The same as a picture, to be sent");
            return [o] {
              if (o->pdf.empty() && o->png.empty()) throw Usage("customer needs --pdf FILE or --png FILE.");
              const Plan plan = plan_of(load_job(o->job));
              const Picture board = board_picture(plan, 1400, Side::Front);
              const auto write = [](const std::string& file, const std::string& bytes) {
                write_file_atomically(file, bytes);
                std::printf("Written: %s\n", file.c_str());
              };
              if (!o->pdf.empty()) write(o->pdf, customer_sheet_pdf(plan, board));
              if (!o->png.empty()) write(o->png, customer_sheet_png(plan, board));
              return kFine;
            };
          }};
}

}  // namespace doyen::cli
