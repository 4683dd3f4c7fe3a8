#include "files/svg/svg_write.hpp"

#include "measure/length.hpp"

namespace doyen {

std::string write_svg(const std::vector<NamedRegion>& regions, double page_width, double page_height, bool y_up) {
  const auto n = [](double v) { return format_number(v, 4); };
  std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" +
                    n(page_width) + "mm\" height=\"" + n(page_height) + "mm\" viewBox=\"0 0 " + n(page_width) + " " +
                    n(page_height) + "\">\n";
  for (const NamedRegion& named : regions) {
    std::string id;
    // Control characters stand in no XML, however they are written (XML 1.0, 2.2).
    for (const char c : named.id) {
      const bool control = static_cast<unsigned char>(c) < 0x20 || c == 0x7F;
      id += control || c == '"' || c == '<' || c == '&' || c == '>' ? '_' : c;
    }
    out += "<path id=\"" + id + "\" fill=\"#000\" fill-rule=\"evenodd\" d=\"";
    for (const Island& island : named.region.islands) {
      for (const Ring& ring : island.rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
          out += (i == 0 ? "M" : "L") + n(ring[i].x) + " " + n(y_up ? page_height - ring[i].y : ring[i].y);
        }
        out += "Z";
      }
    }
    out += "\"/>\n";
  }
  return out + "</svg>\n";
}

}  // namespace doyen
