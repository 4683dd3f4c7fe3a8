#include "files/dxf/dxf_write.hpp"

#include <dxflib/dl_dxf.h>
#include <unistd.h>

#include <cstdlib>
#include <filesystem>
#include <memory>
#include <set>

#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// Layer names keep letters, digits, - and _ (and what is not ASCII); two pieces never share one.
std::vector<std::string> layer_names(const std::vector<NamedOutlines>& pieces) {
  std::vector<std::string> names;
  std::set<std::string> taken{"0"};
  for (const NamedOutlines& piece : pieces) {
    std::string name;
    for (const char c : piece.name.substr(0, 200)) {
      const auto u = static_cast<unsigned char>(c);
      name += std::isalnum(u) != 0 || c == '-' || c == '_' || u >= 0x80 ? c : '_';
    }
    if (name.empty()) name = "piece";
    std::string own = name;
    for (int i = 2; !taken.insert(own).second; ++i) own = name + "_" + std::to_string(i);
    names.push_back(own);
  }
  return names;
}

class Writer {
 public:
  Writer(const std::string& path) : out_(dxf_.out(path.c_str(), DL_Codes::AC1015)) {
    if (!out_) throw Problem(Problem::Kind::CannotWrite, say("“{0}” cannot be written.", path));
  }

  void write(const std::vector<NamedOutlines>& pieces) {
    const std::vector<std::string> layers = layer_names(pieces);
    head(layers);
    for (std::size_t i = 0; i < pieces.size(); ++i) {
      for (const Island& island : pieces[i].outlines.region.islands) {
        for (const Ring& ring : island.rings) polyline(ring, true, layers[i]);
      }
      for (const Line2& line : pieces[i].outlines.lines) polyline(line, false, layers[i]);
    }
    out_->sectionEnd();
    dxf_.writeObjects(*out_);
    dxf_.writeObjectsEnd(*out_);
    out_->dxfEOF();
    out_->close();
  }

 private:
  // The sections that dxflib's documentation asks for before the entities.
  void head(const std::vector<std::string>& layers) {
    DL_WriterA& out = *out_;
    const DL_Attributes plain("", 7, -1, "CONTINUOUS", 1.0);
    dxf_.writeHeader(out);
    out.dxfString(9, "$INSUNITS");
    out.dxfInt(70, 4);  // millimetres
    out.sectionEnd();
    out.sectionTables();
    dxf_.writeVPort(out);
    out.tableLinetypes(3);
    for (const char* name : {"BYBLOCK", "BYLAYER", "CONTINUOUS"})
      dxf_.writeLinetype(out, DL_LinetypeData(name, "", 0, 0, 0.0));
    out.tableEnd();
    out.tableLayers(static_cast<int>(layers.size()) + 1);
    dxf_.writeLayer(out, DL_LayerData("0", 0), plain);
    for (const std::string& layer : layers) dxf_.writeLayer(out, DL_LayerData(layer, 0), plain);
    out.tableEnd();
    out.tableStyle(1);
    dxf_.writeStyle(out, DL_StyleData("Standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    out.tableEnd();
    dxf_.writeView(out);
    dxf_.writeUcs(out);
    out.tableAppid(1);
    dxf_.writeAppid(out, "ACAD");
    out.tableEnd();
    dxf_.writeDimStyle(out, 1, 1, 1, 1, 1);
    dxf_.writeBlockRecord(out);
    out.tableEnd();
    out.sectionEnd();
    out.sectionBlocks();
    for (const char* name : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
      dxf_.writeBlock(out, DL_BlockData(name, 0, 0.0, 0.0, 0.0));
      dxf_.writeEndBlock(out, name);
    }
    out.sectionEnd();
    out.sectionEntities();
  }

  void polyline(const std::vector<Point>& points, bool closed, const std::string& layer) {
    const bool repeats = points.size() > 3 && points.front() == points.back();
    const std::size_t n = repeats ? points.size() - 1 : points.size();
    dxf_.writePolyline(*out_, DL_PolylineData(static_cast<int>(n), 0, 0, closed || repeats ? 1 : 0),
                       DL_Attributes(layer, 256, -1, "BYLAYER", 1.0));
    for (std::size_t i = 0; i < n; ++i) dxf_.writeVertex(*out_, DL_VertexData(points[i].x, points[i].y, 0.0, 0.0));
    dxf_.writePolylineEnd(*out_);
  }

  DL_Dxf dxf_;
  std::unique_ptr<DL_WriterA> out_;
};

}  // namespace

void write_dxf(const std::vector<NamedOutlines>& pieces, const std::string& path) {
  // dxflib writes a file of its own; only when that is whole does it take the place of what stood there.
  std::string draft = path + ".XXXXXX";
  const int file = mkstemp(draft.data());
  if (file < 0) throw Problem(Problem::Kind::CannotWrite, say("“{0}” cannot be written.", path));
  close(file);
  try {
    Writer(draft).write(pieces);
    write_file_atomically(path, read_file(draft));
  } catch (...) {
    std::filesystem::remove(draft);
    throw;
  }
  std::filesystem::remove(draft);
}

}  // namespace doyen
