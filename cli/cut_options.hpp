// What import and text share: the board, and how the piece is cut.
#pragma once

#include "cli/command.hpp"

namespace doyen::cli {

struct CutOptions {
  std::string treatment = "incise", depth, limit, bits, blank, species;
  std::vector<std::string> set;  // key=value

  void add_to(Arguments& arguments);
  [[nodiscard]] Job start(const std::string& name) const;  // a job with the board that was asked for
  // The job with this piece in the middle of its board, cut as was asked, into a file.
  void save_piece(Job job, Piece piece, const std::string& out) const;

 private:
  [[nodiscard]] Treatment read(const Job& job, const Piece& piece, const Rack& rack) const;
  // The first piece's treatment with every --cut put into it, checked as a job file is.
  void finish(Job& job) const;
  [[nodiscard]] Treatment::Kind look() const;
};

}  // namespace doyen::cli
