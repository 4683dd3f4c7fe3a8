#include "files/outlines_out.hpp"

#include <algorithm>

#include "files/dxf/dxf_write.hpp"
#include "files/svg/svg_read.hpp"
#include "files/svg/svg_write.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen {

namespace {

std::vector<NamedOutlines> outlines_in(const Job& job, const std::vector<std::string>& only) {
  std::vector<NamedOutlines> pieces;
  for (const Item& item : job.items) {
    if (!only.empty() && std::find(only.begin(), only.end(), item.piece.id) == only.end()) continue;
    try {
      pieces.push_back({item.piece.id, outlines_of(item.piece, job.source())});
    } catch (const Problem&) {
      // Its verdict says why it has no outlines.
    }
  }
  return pieces;
}

}  // namespace

std::string outlines_as_svg(const Job& job, const std::vector<std::string>& only) {
  std::vector<NamedRegion> regions;
  for (const NamedOutlines& piece : outlines_in(job, only)) {
    Region region = piece.outlines.region;
    if (!piece.outlines.lines.empty()) region = unite(region, sweep(piece.outlines.lines, 0.1));
    regions.push_back({piece.name, std::move(region)});
  }
  return write_svg(regions, job.blank.width, job.blank.height, true);
}

void save_outlines_of(const Job& job, const std::string& path) {
  const std::vector<NamedOutlines> pieces = outlines_in(job, {});
  if (path.ends_with(".dxf") || path.ends_with(".DXF")) return write_dxf(pieces, path);
  if (!path.ends_with(".svg") && !path.ends_with(".SVG"))
    throw bad_input(say("“{0}” ends neither in .dxf nor in .svg.", path));
  write_file_atomically(path, outlines_as_svg(job));
}

}  // namespace doyen
