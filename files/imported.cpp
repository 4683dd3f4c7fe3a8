#include "files/imported.hpp"

#include <fstream>

#include "files/dxf/dxf_read.hpp"
#include "files/svg/svg_read.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostBytes = 256u << 20;

std::string file_name(const std::string& path) {
  const auto slash = path.rfind('/');
  return slash == std::string::npos ? path : path.substr(slash + 1);
}

bool ends_with(const std::string& path, const char* ending) {
  std::string lower;
  for (const char c : path) lower += static_cast<char>(c >= 'A' && c <= 'Z' ? c + 32 : c);
  return lower.ends_with(ending);
}

bool looks_like_picture(const std::string& b) {
  return b.starts_with("\x89PNG") || b.starts_with("\xFF\xD8\xFF") || b.starts_with("BM") ||
         (b.starts_with("RIFF") && b.size() > 12 && b.compare(8, 4, "WEBP") == 0);
}

}  // namespace

Imported traced_drawing(const TracePicture& picture, const TraceSettings& settings, const std::string& name,
                        const Cancel& cancel) {
  const Traced traced = trace(picture, settings, cancel);
  Imported out;
  const double dpi = picture.dots_per_inch();
  out.sized = dpi > 20 && dpi < 10'000;
  const double mm = kMmPerInch / (out.sized ? dpi : 96 * picture.shrunk());
  if (!out.sized) out.assumed = "The picture states no size: 96 dots to the inch were taken. Give the width you want.";
  out.drawing.name = name;
  out.drawing.page_width = traced.width * mm;
  out.drawing.page_height = traced.height * mm;
  std::vector<Drawing::Part> parts;
  int number = 1;
  for (const Path& part : traced.parts) {
    Drawing::Part p;
    p.id = "trace-" + std::to_string(number++);
    p.data = path_data(transformed(part, Transform::scale(mm, mm)), 4);
    p.even_odd = true;
    parts.push_back(std::move(p));
  }
  out.drawing.parts = std::move(parts);
  out.drawing.traced = TracedFrom{Shared(to_base64(picture.png())), settings};
  if (picture.shrunk() < 1)
    out.left_out.push_back("The picture is very large and was scaled to " + format_number(picture.shrunk() * 100, 0) +
                           " % before tracing.");
  return out;
}

bool is_picture(const std::string& path) {
  std::ifstream file(path, std::ios::binary);
  std::string begin(16, '\0');
  file.read(begin.data(), static_cast<std::streamsize>(begin.size()));
  begin.resize(static_cast<std::size_t>(file.gcount()));
  return looks_like_picture(begin);
}

Imported read_artwork(const std::string& path, Reading reading) {
  const std::string bytes = read_file(path, kMostBytes);
  if (bytes.empty()) throw bad_input(say("{0}: the file is empty.", path));
  if (looks_like_picture(bytes))
    return traced_drawing(TracePicture::read(bytes, path), {}, file_name(path), reading.cancel());
  const auto text = bytes.find_first_not_of(" \t\r\n");
  const bool marked_up = text != std::string::npos && (bytes[text] == '<' || bytes.starts_with("\xEF\xBB\xBF<"));
  if (ends_with(path, ".dxf") || (!marked_up && bytes.find("SECTION") < 4096))
    return read_dxf(bytes, path, std::move(reading));
  if (marked_up || ends_with(path, ".svg")) return read_svg(bytes, path, std::move(reading));
  throw bad_input(say("{0}: neither an SVG nor a DXF drawing nor a PNG, JPEG, BMP or WebP picture.", path));
}

}  // namespace doyen
