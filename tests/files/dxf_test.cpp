// DXF in against ezdxf, an independent library: what it writes is read at the same place and size; hostile files.
#include "files/dxf/dxf_read.hpp"

#include <catch2/catch.hpp>
#include <cstdio>
#include <filesystem>
#include <fstream>

#include "files/outlines_out.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

using namespace doyen;
namespace fs = std::filesystem;

namespace {

// Runs a piece of Python with ezdxf (python3-ezdxf) that writes `out`; returns the file's text.
std::string ezdxf(const std::string& body) {
  const fs::path folder = fs::temp_directory_path() / ("doyen-dxf-" + std::to_string(getpid()));
  fs::create_directories(folder);
  std::ofstream((folder / "make.py")) << "import ezdxf, math\nout='" << (folder / "out.dxf").string() << "'\n" << body;
  const int status = std::system(("/usr/bin/python3 " + (folder / "make.py").string() + " 2>/dev/null").c_str());
  REQUIRE(status == 0);
  const std::string text = read_file((folder / "out.dxf").string());
  fs::remove_all(folder);
  return text;
}

std::string model(const std::string& lines, const std::string& version = "R2010", int units = 4) {
  return ezdxf("doc=ezdxf.new('" + version + "')\ndoc.header['$INSUNITS']=" + std::to_string(units) +
               "\nm=doc.modelspace()\n" + lines + "\ndoc.saveas(out)\n");
}

Region region_of(const Imported& d) { return drawing_region_as_drawn(d.drawing); }

}  // namespace

TEST_CASE("circles, arcs, ellipses, bulges and splines have the areas that mathematics gives") {  // ezdxf writes them
  CHECK(area(region_of(read_dxf(model("m.add_circle((50,40),20)"), "t.dxf"))) == Approx(M_PI * 400).epsilon(2e-3));
  CHECK(area(region_of(read_dxf(model("m.add_ellipse((0,0),(30,0,0),0.5)"), "t.dxf"))) ==
        Approx(M_PI * 30 * 15).epsilon(2e-3));
  // Half a circle by one bulge of 1 (tan of a quarter of 180°), closed by the chord.
  CHECK(area(region_of(read_dxf(model("m.add_lwpolyline([(0,0,1),(20,0,0)],format='xyb',close=True)"), "t.dxf"))) ==
        Approx(M_PI * 100 / 2).epsilon(2e-3));
  CHECK(area(region_of(read_dxf(model("m.add_polyline2d([(0,0),(30,0),(30,20),(0,20)],close=True)", "R12"),
                                "t.dxf"))) == Approx(600).epsilon(1e-4));
  // Two arcs and two lines that meet only at their ends become one outline.
  CHECK(area(region_of(read_dxf(model("m.add_line((0,0),(40,0))\nm.add_arc((40,10),10,-90,90)\nm.add_line((40,20),(0,"
                                      "20))\nm.add_arc((0,10),10,90,270)"),
                                "t.dxf"))) == Approx(800 + M_PI * 100).epsilon(2e-3));
  // A closed spline against ezdxf's own flattening of it.
  const std::string both =
      "s=m.add_spline()\ns.set_open_uniform([(0,0),(40,0),(60,40),(20,60),(0,0)],degree=3)\np=list(s.flattening(0.001))"
      "\n"
      "a=abs(sum(p[i][0]*p[(i+1)%len(p)][1]-p[(i+1)%len(p)][0]*p[i][1] for i in "
      "range(len(p))))/2\ndoc.header['$USERR1']=a";
  const std::string text = model(both);
  const auto at = text.find("$USERR1");
  const double theirs = std::stod(text.substr(text.find('\n', text.find('\n', at) + 1) + 1));
  CHECK(area(region_of(read_dxf(text, "t.dxf"))) == Approx(theirs).epsilon(2e-3));
}

TEST_CASE("units scale, holes nest, layers become groups, blocks are placed, mirrored ones too") {
  for (const auto& [units, mm] : {std::pair{1, 25.4}, {4, 1.0}, {5, 10.0}}) {
    const Imported d =
        read_dxf(model("m.add_lwpolyline([(0,0),(3,0),(3,2),(0,2)],close=True)", "R2010", units), "t.dxf");
    CHECK(d.sized);
    CHECK(bounds(region_of(d)).width() == Approx(3 * mm).epsilon(1e-6));
  }
  const Imported unsized = read_dxf(model("m.add_circle((0,0),5)", "R12", 0), "t.dxf");
  CHECK_FALSE(unsized.sized);
  CHECK_FALSE(unsized.assumed.empty());
  const Imported o = read_dxf(model("m.add_circle((0,0),10,dxfattribs={'layer':'ring'})\nm.add_circle((0,0),6,"
                                    "dxfattribs={'layer':'ring'})\nm.add_circle((0,0),2,dxfattribs={'layer':'ring'})"),
                              "t.dxf");
  CHECK(area(region_of(o)) == Approx(M_PI * (100 - 36 + 4)).epsilon(2e-3));
  REQUIRE(o.drawing.parts.size() == 2);
  CHECK(o.drawing.parts[0].group == "ring");
  const Imported b = read_dxf(model("b=doc.blocks.new('leaf')\nb.add_lwpolyline([(0,0),(10,0),(10,4)],close=True)\n"
                                    "m.add_blockref('leaf',(100,0))\nm.add_blockref('leaf',(0,50),dxfattribs={'xscale':"
                                    "-2,'yscale':2,'rotation':90})"),
                              "t.dxf");
  CHECK(area(region_of(b)) == Approx(20 + 80).epsilon(1e-4));
  CHECK(b.drawing.page_width == Approx(110 + 8).margin(9));
}

TEST_CASE("open lines stay lines to be followed or carved wide, text and hatchings are listed") {
  const Imported d = read_dxf(
      model("m.add_line((0,0),(50,0))\nm.add_line((50,0),(50,30))\nm.add_text('hi')\nm.add_point((1,1))"), "t.dxf");
  REQUIRE(d.drawing.parts.size() == 1);
  CHECK(d.drawing.parts[0].line);
  CHECK(d.left_out.size() == 2);
  Drawing followed = d.drawing;
  followed.lines = Drawing::Lines::Followed;
  const Outlines lines = outlines_of({"d", "d", followed, {0, 0}, 0});
  REQUIRE(lines.lines.size() == 1);
  CHECK(lines.lines[0].size() == 3);
  CHECK(lines.region.empty());
  CHECK(area(outlines_of({"d", "d", d.drawing, {0, 0}, 0}).region) == Approx(80 * 0.5).epsilon(0.01));
}

TEST_CASE("an extrusion from below mirrors") {  // published: DXF reference, object coordinate systems
  const Imported d = read_dxf(model("m.add_lwpolyline([(10,0),(20,0),(20,5)],close=True,dxfattribs={'extrusion':(0,0,-"
                                    "1)})\nm.add_circle((0,0),1)"),
                              "t.dxf");
  const Box box = bounds(region_of(d));
  CHECK(box.width() == Approx(21).margin(0.01));  // from −20 to 1
}

TEST_CASE("what Doyen writes as DXF, ezdxf reads: layers, units, places and areas; and Doyen itself") {
  Job job;
  job.items.push_back({{"ring one", "Ring", PlainShape{PlainShape::Kind::Ellipse, 80, 80}, {100, 60}, 0}, {}});
  std::get<PlainShape>(job.items[0].piece.what).band = 10;
  job.items.push_back({{"line", "Line", PlainShape{PlainShape::Kind::Line, 50, 1}, {100, 120}, 0}, {}});
  const fs::path file = fs::temp_directory_path() / ("doyen-out-" + std::to_string(getpid()) + ".dxf");
  save_outlines_of(job, file.string());
  const std::string found =
      ezdxf("d=ezdxf.readfile('" + file.string() +
            "')\nm=d.modelspace()\nf=open(out,'w')\n"
            "a=d.audit()\nf.write('errors %d units %d\\n'%(len(a.errors), d.header['$INSUNITS']))\n"
            "for e in m:\n"
            "  p=[(v[0],v[1]) for v in e.get_points()]\n"
            "  s=abs(sum(p[i-1][0]*p[i][1]-p[i][0]*p[i-1][1] for i in range(len(p))))/2\n"
            "  f.write('%s %s %.1f %.1f\\n'%(e.dxf.layer,e.closed,s,max(x for x,y in p)))\nf.close()\n");
  CHECK(found.find("errors 0 units 4") != std::string::npos);
  CHECK(found.find("ring_one True 5026") != std::string::npos);  // π 40² = 5026.5, inscribed by chords
  CHECK(found.find("ring_one True 2827") != std::string::npos);  // π 30² = 2827.4
  CHECK(found.find("line False 0.0 125.0") != std::string::npos);
  // And back by Doyen's own reader: the same wood.
  const Imported back = read_dxf(read_file(file.string()), "out.dxf");
  CHECK(back.sized);
  CHECK(area(region_of(back)) - 0.5 * 50 == Approx(M_PI * (1600 - 900)).epsilon(1e-3));  // less the hairline
  CHECK_THROWS_AS(save_outlines_of(job, "/nowhere/at/all.dxf"), Problem);
  CHECK_THROWS_AS(save_outlines_of(job, file.string() + ".txt"), Problem);
  fs::remove(file);
}

TEST_CASE("hostile DXF files are refused with a sentence") {
  const auto refused = [](const std::string& text, const std::string& says) {
    CHECK_THROWS_WITH(read_dxf(text, "bad.dxf"), Catch::Contains("bad.dxf") && Catch::Contains(says));
  };
  refused("", "bad.dxf");
  refused("  0\nSECTION\n  2\nENTITIES\n  0\nENDSEC\n  0\nEOF\n", "no lines");
  refused(std::string("AC\0\x01\x02", 5) + "\n", "binary");
  refused("0\rSECTION\r2\rENTITIES\r", "lines end");
  const std::string head = "0\nSECTION\n2\nENTITIES\n";
  refused(head + "0\nLWPOLYLINE\n8\n0\n90\n2000000000\n70\n1\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n",
          "more than the file holds");
  refused(head + "0\nSPLINE\n8\n0\n71\n3\n72\n999999999\n73\n4\n0\nENDSEC\n0\nEOF\n", "more than the file holds");
  refused(head + "0\nCIRCLE\n8\n0\n10\n1e300\n20\n0\n40\n5\n0\nENDSEC\n0\nEOF\n", "bad.dxf");
  // A block that contains itself ends.
  const std::string text =
      model("b=doc.blocks.new('a')\nb.add_blockref('a',(1,0))\nb.add_circle((0,0),2)\nm.add_blockref('a',(0,0))");
  CHECK_FALSE(read_dxf(text, "t.dxf").left_out.empty());
  for (std::size_t n = 0; n < text.size(); n += text.size() / 150) {
    try {
      read_dxf(text.substr(0, n), "t.dxf");
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 10);
    }
  }
  unsigned seed = 5;
  const auto entities = text.find("ENTITIES");
  for (int round = 0; round < 200; ++round) {
    std::string broken = text;
    for (int k = 0; k < 5; ++k) {
      seed = seed * 1664525U + 1013904223U;
      broken[entities + (seed >> 8) % (broken.size() - entities)] = static_cast<char>('0' + seed % 10);
    }
    try {
      read_dxf(broken, "t.dxf");
    } catch (const Problem&) {
      continue;
    }
  }
}

TEST_CASE("what is frozen, switched off, invisible or on paper is no art") {  // ezdxf writes it
  const Imported all = read_dxf(ezdxf(R"(
doc = ezdxf.new('R2010'); doc.units = 4
m = doc.modelspace()
doc.layers.add('frozen').freeze()
doc.layers.add('off').off()
doc.layers.add('locked').lock()
m.add_circle((0,0), 10)
m.add_circle((100,0), 10, dxfattribs={'layer':'frozen'})
m.add_lwpolyline([(0,50),(9,50),(9,59)], close=True, dxfattribs={'layer':'off'})
m.add_polyline2d([(0,70),(9,70),(9,79)], close=True, dxfattribs={'layer':'off'})
m.add_circle((200,0), 10, dxfattribs={'layer':'locked'})
m.add_circle((300,0), 10, dxfattribs={'layer':'seen'})
doc.layout('Layout1').add_circle((500,0), 10)
doc.saveas(out)
t = open(out).read()
open(out, 'w').write(t.replace('  8\nseen\n', '  8\nseen\n 60\n     1\n'))  # ezdxf writes none itself
)"),
                                "a.dxf");
  CHECK(all.drawing.parts.size() == 2);
  CHECK(all.drawing.page_width == Approx(220).margin(0.01));
  std::string said;
  for (const std::string& line : all.left_out) said += line + "\n";
  INFO(said);
  CHECK(said.find("frozen") != std::string::npos);
  CHECK(said.find("“off”") != std::string::npos);
  CHECK(said.find("invisible") != std::string::npos);
  CHECK(said.find("paper") != std::string::npos);
}

TEST_CASE("a drawing that is cut off says so, wherever it ends") {
  const std::string whole = model("for k in range(40): m.add_line((k, 0), (k, 10 + k))");
  const Imported all = read_dxf(whole, "a.dxf");
  CHECK(all.left_out.empty());
  const std::size_t from = whole.find("ENTITIES");
  int cut_off = 0;
  for (std::size_t end = from + 600; end + 200 < whole.size(); end += 997) {
    try {
      const Imported part = read_dxf(whole.substr(0, end), "a.dxf");
      REQUIRE_FALSE(part.left_out.empty());
      CHECK(part.left_out.front().find("cut off") != std::string::npos);
      CHECK(part.drawing.parts.size() <= all.drawing.parts.size());
      ++cut_off;
    } catch (const Problem&) {
      // Too little was left to be a drawing.
    }
  }
  CHECK(cut_off > 3);
}

TEST_CASE("lines and counts that no reader should believe neither hang nor fill the memory") {
  const std::string head = "0\nSECTION\n2\nENTITIES\n", tail = "0\nENDSEC\n0\nEOF\n";
  const std::string line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n50\n21\n5\n";
  // A name of thousands of characters; a remark as long; an entity nobody knows.
  for (const std::size_t n : {1022U, 1023U, 1024U, 1025U, 5000U, 200'000U}) {
    const Imported one = read_dxf(
        head + "999\n" + std::string(n, 'r') + "\n0\nTEXT\n1\n" + std::string(n, 'x') + "\n" + line + tail, "a.dxf");
    CHECK(one.drawing.parts.size() == 1);
  }
  // Group codes are numbers however they are written.
  for (const char* code : {"72", "072", " 72", "+72"}) {
    INFO(code);
    CHECK_THROWS_AS(read_dxf(head + "0\nSPLINE\n8\n0\n71\n3\n" + code + "\n900000000\n73\n4\n" + line + tail, "a.dxf"),
                    Problem);
  }
  CHECK_THROWS_AS(read_dxf(head + "0\nLWPOLYLINE\n90\n1e300\n10\n1\n20\n1\n" + tail, "a.dxf"), Problem);
  // Arcs over many turns are one turn.
  const Imported round =
      read_dxf(head + "0\nELLIPSE\n10\n0\n20\n0\n11\n20\n21\n0\n40\n0.5\n41\n0\n42\n999999\n" + tail, "a.dxf");
  CHECK(round.drawing.parts[0].data.size() < 20'000);
  // Blocks that hold nothing, in blocks, ten thousand times each.
  std::string blocks = "0\nSECTION\n2\nBLOCKS\n";
  for (int k = 0; k < 8; ++k) {
    blocks += "0\nBLOCK\n2\nB" + std::to_string(k) + "\n10\n0\n20\n0\n";
    if (k > 0) blocks += "0\nINSERT\n2\nB" + std::to_string(k - 1) + "\n10\n0\n20\n0\n70\n100\n71\n100\n44\n1\n45\n1\n";
    blocks += "0\nENDBLK\n";
  }
  CHECK_THROWS_AS(read_dxf(blocks + "0\nENDSEC\n" + head + "0\nINSERT\n2\nB7\n10\n0\n20\n0\n" + line + tail, "a.dxf"),
                  Problem);
}
