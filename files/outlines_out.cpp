#include "files/outlines_out.hpp"

#include "files/dxf/dxf_write.hpp"
#include "files/svg/svg_read.hpp"
#include "files/svg/svg_write.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen {

void save_outlines_of(const Job& job, const std::string& path) {
  std::vector<NamedOutlines> pieces;
  for (const Item& item : job.items) {
    try {
      pieces.push_back({item.piece.id, outlines_of(item.piece, job.source())});
    } catch (const Problem&) {
      // Its verdict says why it has no outlines.
    }
  }
  if (path.ends_with(".dxf") || path.ends_with(".DXF")) return write_dxf(pieces, path);
  if (!path.ends_with(".svg") && !path.ends_with(".SVG"))
    throw bad_input("“" + path + "” ends neither in .dxf nor in .svg.");
  std::vector<NamedRegion> regions;
  for (const NamedOutlines& piece : pieces) {
    Region region = piece.outlines.region;
    if (!piece.outlines.lines.empty()) region = unite(region, sweep(piece.outlines.lines, 0.1));
    regions.push_back({piece.name, std::move(region)});
  }
  write_file_atomically(path, write_svg(regions, job.blank.width, job.blank.height, true));
}

}  // namespace doyen
