// customer: the page that the customer signs.
#include <cstdio>

#include "cli/command.hpp"
#include "files/customer_sheet.hpp"
#include "files/outputs.hpp"
#include "finish/price.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {

Command customer_command() {
  return {"customer", "Writes the customer's sheet: picture, size, wording letter by letter, a line to sign",
          [](Arguments& a) {
            struct CustomerOptions {
              std::string job, beside, pdf, png;
              bool price = false;
            };
            auto o = std::make_shared<CustomerOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--beside", o->beside, "Another job, to choose from: the two stand there as A and B");
            a.flag("--price", o->price, "The price, too, by your rates");
            a.text("--pdf", o->pdf, "The file to write, to be printed and signed");
            a.text("--png", o->png, "The same as a picture, to be sent");
            return [o] {
              if (o->pdf.empty() && o->png.empty()) throw Usage("customer needs --pdf FILE or --png FILE.");
              const Plan plan = plan_of(load_job(o->job));
              const Picture board = finished_picture(plan, 1400);
              const auto price = [&](const Plan& of) { return o->price ? quote_in_words(of) : std::string(); };
              std::vector<ShownSign> signs{{plan, board, price(plan)}};
              std::optional<Plan> other;
              Picture other_board;
              if (!o->beside.empty()) {
                other = plan_of(load_job(o->beside));
                other_board = finished_picture(*other, 1400);
                signs.push_back({*other, other_board, price(*other)});
              }
              const auto write = [](const std::string& file, const std::string& bytes) {
                write_file_atomically(file, bytes);
                std::printf("Written: %s\n", file.c_str());
              };
              if (!o->pdf.empty()) write(o->pdf, customer_sheet_pdf(signs));
              if (!o->png.empty()) write(o->png, customer_sheet_png(signs));
              return kFine;
            };
          }};
}

}  // namespace doyen::cli
