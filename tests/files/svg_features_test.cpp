// One feature of SVG at a time against librsvg's coverage of the same document.
#include <catch2/catch.hpp>
#include <filesystem>

#include "coverage.hpp"

using namespace doyen;

namespace {

double overlap_of(const std::string& body, const std::string& root) {
  const auto path = std::filesystem::temp_directory_path() / ("doyen-feature-" + std::to_string(getpid()) + ".svg");
  write_file_atomically(path.string(),
                        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' " + root +
                            ">" + body + "</svg>");
  const double overlap = coverage::overlap_with_librsvg(path.string());
  std::filesystem::remove(path);
  return overlap;
}

constexpr const char* kPage = "width='120mm' height='90mm' viewBox='0 0 120 90'";

}  // namespace

TEST_CASE("each feature of SVG covers what librsvg paints") {  // W3C SVG 1.1, chapters 7 to 14, as librsvg has them
  const struct {
    const char *name, *body;
  } features[] = {
      {"fill rules",
       "<path d='M10 10h60v60h-60z M20 20h30v30h-30z' fill-rule='evenodd'/><path d='M75 10h30v30h-30z M80 "
       "15h10v10h-10z'/>"},
      {"curves", "<path d='M10 40C20 0 50 0 60 40S100 80 110 40 Q60 120 10 40Z'/>"},
      {"smooth quadratics", "<path d='M10 45q15 -40 30 0t30 0t30 0V80H10Z'/>"},
      {"arcs", "<path d='M20 20a30 20 30 1 1 40 30a15 15 0 0 0 -20 10z'/>"},
      {"relative and packed numbers", "<path d='M10-5m0 15l30.5.5.5 30-31-.5z'/>"},
      {"butt ends and mitred joints",
       "<path d='M15 70L30 15L60 70L100 20' fill='none' stroke='#000' stroke-width='7'/>"},
      {"round ends and joints",
       "<path d='M15 70L30 15L60 70L100 20' fill='none' stroke='#000' stroke-width='7' stroke-linecap='round' "
       "stroke-linejoin='round'/>"},
      {"square ends",
       "<path d='M15 20H60M15 50H100' fill='none' stroke='#000' stroke-width='9' stroke-linecap='square'/>"},
      {"closed strokes",
       "<rect x='20' y='20' width='70' height='40' fill='none' stroke='#000' stroke-width='6'/><circle cx='55' cy='40' "
       "r='12' fill='none' stroke='#000' stroke-width='3'/>"},
      {"dashes",
       "<path d='M10 20H110M10 50H110' fill='none' stroke='#000' stroke-width='6' stroke-dasharray='12 5 3 5'/>"},
      {"a stroke stretched by its transform",
       "<g transform='translate(20,30) scale(3,1)'><circle cx='12' cy='10' r='8' fill='none' stroke='#000' "
       "stroke-width='3'/></g>"},
      {"rounded rectangles",
       "<rect x='10' y='10' width='90' height='60' rx='12'/><rect x='101' y='10' width='15' height='60' ry='6'/>"},
      {"transforms in a row",
       "<rect width='20' height='10' transform='translate(40,40) rotate(30) scale(2,1.5) skewX(20)'/>"},
      {"a matrix about a point", "<rect x='30' y='30' width='40' height='20' transform='rotate(25 50 40)'/>"},
      {"use and symbol",
       "<defs><symbol id='s' viewBox='0 0 10 10'><circle cx='5' cy='5' r='5'/></symbol></defs><use xlink:href='#s' "
       "x='10' y='10' width='40' height='40'/><use href='#s' x='60' y='30' width='30' height='50'/>"},
      {"nested drawings",
       "<svg x='20' y='10' width='60' height='60' viewBox='0 0 20 20'><rect width='20' height='20'/></svg>"},
      {"a clipping path",
       "<clipPath id='c'><circle cx='50' cy='45' r='30'/></clipPath><rect x='10' y='10' width='60' height='70' "
       "clip-path='url(#c)'/>"},
      {"a clipping path round a group, moved",
       "<clipPath id='c'><path d='M0 0H50V50H0Z'/></clipPath><g transform='translate(20,15)' "
       "clip-path='url(#c)'><circle cx='40' cy='40' r='35'/></g>"},
      {"clips within clips",
       "<clipPath id='a'><rect x='10' y='10' width='60' height='60'/></clipPath><clipPath id='b'><rect x='40' y='30' "
       "width='70' height='50'/></clipPath><g clip-path='url(#a)'><rect width='120' height='90' "
       "clip-path='url(#b)'/></g>"},
      {"styles by class, id and type",
       "<style>rect{fill:none} .on{fill:#123} #one{fill:red}</style><rect width='20' height='20'/><rect class='on' "
       "x='30' y='10' width='30' height='30'/><rect id='one' x='70' y='30' width='30' height='40'/>"},
      {"style beats attribute",
       "<rect x='10' y='10' width='50' height='50' fill='none' style='fill:#000'/><rect x='70' y='10' width='30' "
       "height='30' fill='#000' style='fill:none'/>"},
      {"inherited and reset",
       "<g fill='none' stroke='#000' stroke-width='4'><circle cx='40' cy='40' r='20'/><circle cx='80' cy='50' r='15' "
       "fill='#000' stroke='none'/></g>"},
      {"hidden things",
       "<g display='none'><rect width='50' height='50'/></g><g visibility='hidden'><rect width='20' height='20'/><rect "
       "visibility='visible' x='60' y='20' width='30' height='30'/></g>"},
      {"switch takes the first it knows",
       "<switch><g><rect x='20' y='20' width='40' height='40'/></g><rect width='100' height='80'/></switch>"},
      {"lines in other units",
       "<rect x='1cm' y='10mm' width='0.5in' height='36pt' transform='scale(0.264583)'/><rect x='50%' y='50%' "
       "width='25%' height='25%'/>"},
      {"polygons and polylines",
       "<polygon points='20,20 60 20 60,60 20,60'/><polyline points='70,20 110,20 90,60' fill='#000'/>"},
      {"markers and patterns as plain fills",
       "<defs><pattern id='p' width='4' height='4' patternUnits='userSpaceOnUse'><rect width='4' "
       "height='4'/></pattern></defs><rect x='20' y='20' width='60' height='40' fill='url(#p)'/>"},
      {"text", "<text x='10' y='60' font-family='Cabin' font-weight='bold' font-size='36'>Sage</text>"},
      {"text in the middle with parts",
       "<text x='60' y='40' font-family='Cabin' font-size='18' text-anchor='middle'>Rue</text><text y='75' "
       "font-family='Cabin' font-size='14'><tspan x='10'>one</tspan><tspan x='60' "
       "font-weight='bold'>two</tspan></text>"},
  };
  for (const auto& f : features) {
    INFO(f.name);
    CHECK(overlap_of(f.body, kPage) >= 0.98);
  }
}

TEST_CASE("pages of every kind place their drawing as librsvg does") {
  const std::string body = "<rect x='10' y='5' width='50' height='30'/><circle cx='80' cy='60' r='12'/>";
  for (const char* root : {"width='100' height='80'", "width='4in' height='3in' viewBox='0 0 120 90'",
                           "width='100mm' height='100mm' viewBox='0 0 120 60'",
                           "width='100mm' height='60mm' viewBox='0 0 100 100' preserveAspectRatio='xMinYMax meet'",
                           "width='100mm' height='60mm' viewBox='0 0 100 100' preserveAspectRatio='xMidYMid slice'",
                           "width='150mm' height='60mm' viewBox='0 0 100 100' preserveAspectRatio='none'",
                           "width='200pt' height='150pt' viewBox='-10 -10 140 105'"}) {
    INFO(root);
    CHECK(overlap_of(body, root) >= 0.98);
  }
}
