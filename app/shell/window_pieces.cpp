// Pieces come and go: lettering, shapes, drawings, traced pictures, pieces made from others.
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>

#include "files/imported.hpp"
#include "files/outlines_out.hpp"
#include "job/layout.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/suits.hpp"
#include "work/long_work.hpp"

namespace doyen {
namespace {

bool only_lines(const Drawing& drawing) {
  return std::all_of(drawing.parts.begin(), drawing.parts.end(), [](const Drawing::Part& p) { return p.line; });
}

QString shape_name(PlainShape::Kind kind) {
  using K = PlainShape::Kind;
  switch (kind) {
    case K::Rectangle:
      return MainWindow::tr("Rectangle");
    case K::Ellipse:
      return MainWindow::tr("Oval");
    case K::ArchTop:
      return MainWindow::tr("Arch top");
    case K::Polygon:
      return MainWindow::tr("Polygon");
    case K::Star:
      return MainWindow::tr("Star");
    case K::Ribbon:
      return MainWindow::tr("Ribbon");
    case K::Line:
      return MainWindow::tr("Line");
  }
  return {};
}

QString made_name(Derived::How how) {
  using H = Derived::How;
  switch (how) {
    case H::Grow:
      return MainWindow::tr("%1, grown");
    case H::Join:
      return MainWindow::tr("%1, joined");
    case H::TakeAway:
      return MainWindow::tr("%1, cut away");
    case H::Overlap:
      return MainWindow::tr("%1, overlap");
    case H::Split:
      return MainWindow::tr("%1, part");
    case H::Mirror:
      return MainWindow::tr("%1, mirrored");
    case H::Grid:
      return MainWindow::tr("%1, in rows");
    case H::Round:
      return MainWindow::tr("%1, in a ring");
    case H::Along:
      return MainWindow::tr("%1, along");
    case H::Link:
      return MainWindow::tr("%1, linked");
  }
  return {};
}

}  // namespace

void MainWindow::add_piece(const QString& name, Piece piece, Treatment::Kind kind, const std::string& instead_of) {
  const std::string id = document_.job().fresh_id(kind_word(piece));
  piece.id = id;
  document_.edit(name, [&](Job& job) {
    Item item;
    item.piece = std::move(piece);
    item.cut.kind = kind;
    job.items.push_back(std::move(item));
    if (Item* source = job.find(instead_of)) source->cut.kind = Treatment::Kind::None;
  });
  select(QString::fromStdString(id));
}

void MainWindow::add_lettering() {
  const Job& job = document_.job();
  Lettering l;
  l.words = tr("Your words").toStdString();
  l.cap_height = std::clamp(job.blank.height / 5, 5.0, 80.0);
  if (!face_installed(l.face) && !installed_faces().empty()) l.face = installed_faces().front().name;
  add_piece(tr("add lettering"), {{}, tr("Lettering").toStdString(), l, job.blank.box().centre(), 0},
            Treatment::Kind::Incise);
  artwork_->focus_words();
}

void MainWindow::add_shape(PlainShape::Kind kind) {
  using K = PlainShape::Kind;
  const Job& job = document_.job();
  go_to_stage(Stage::Artwork);
  const double inset = 2 * job.blank.margin;
  PlainShape s;
  s.kind = kind;
  s.width = std::max(5.0, job.blank.width - inset);
  s.height = std::max(5.0, job.blank.height - inset);
  const double least = std::min(s.width, s.height);
  if (kind == K::Rectangle) s.corner_radius = least / 8;
  if (kind == K::Polygon || kind == K::Star) s.width = s.height = least / 2;
  if (kind == K::Star) s.points = 5;
  if (kind == K::Ribbon) s.height = least / 4;
  if (kind == K::ArchTop) s.rise = s.height / 4;
  if (kind == K::Line) s.width *= 0.6;
  add_piece(tr("add a shape"), {{}, shape_name(kind).toStdString(), s, job.blank.box().centre(), 0},
            kind == K::Line ? Treatment::Kind::Line : Treatment::Kind::None);
}

// Something new from the chosen piece; its second source, where one is needed, is the next piece on the list.
void MainWindow::make_from(Derived::How how) {
  using H = Derived::How;
  const Item* item = shop_.item();
  if (item == nullptr) return;
  const Job& job = document_.job();
  Derived d;
  d.how = how;
  d.from = {item->piece.id};
  const Box box = bench_->box_of(shop_.selected);
  if (how == H::Join || how == H::TakeAway || how == H::Overlap || how == H::Along) {
    for (const Item& other : job.items) {
      if (other.piece.id != item->piece.id && d.from.size() < 2) d.from.push_back(other.piece.id);
    }
    if (d.from.size() < 2) return say(tr("Made from two pieces"), tr("That takes a second piece; add it first."));
  }
  if (!box.empty()) {
    d.step_x = box.width() * 1.2;
    d.step_y = box.height() * 1.2;
    d.radius = std::max(box.width(), box.height()) * 1.2;
  }
  d.distance = job.lengths.unit == Unit::Inch ? kMmPerInch / 8 : 3;
  const QString name = made_name(how).arg(QString::fromStdString(item->piece.name));
  const Treatment cut = item->cut;
  // What it was made from makes way, unless both are wanted: an outline grown stands beside its source.
  const bool both = how == H::Grow || how == H::Mirror;
  add_piece(tr("make “%1”").arg(name), {{}, name.toStdString(), d, {0, 0}, 0}, cut.kind,
            both ? std::string() : d.from.front());
}

void MainWindow::save_outlines() {
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Save the outlines"), QString::fromStdString(document_.job().name) + QStringLiteral(".dxf"),
      tr("DXF (*.dxf);;SVG (*.svg)"));
  if (path.isEmpty()) return;
  try {
    save_outlines_of(document_.job(), path.toStdString());
  } catch (const Problem& problem) {
    say(tr("The outlines were not saved"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::open_letter_bench() {
  const Item* item = shop_.item();
  if (item == nullptr || !std::holds_alternative<Lettering>(item->piece.what)) return;
  auto* bench = new LetterBench(document_.job(), *item, rack_, this);
  show_in_place(bench, [this, bench, id = item->piece.id] {
    if (!bench->taken()) return;
    const FaceName face = *bench->taken();
    document_.edit(tr("take the face %1").arg(QString::fromStdString(face.family)), [&](Job& job) {
      Item* it = job.find(id);
      auto* l = it == nullptr ? nullptr : std::get_if<Lettering>(&it->piece.what);
      if (l == nullptr) return;
      l->face = face;
      if (bench->spacing()) l->letter_spacing = *bench->spacing();
      if (bench->thickened()) l->thicken = *bench->thickened();
    });
  });
}

void MainWindow::trace_picture(TracePicture picture, const TraceSettings& settings, const QString& name, double width,
                               const std::function<void(Drawing)>& take) {
  const Item* item = shop_.item();
  const Bit* bit = item == nullptr ? nullptr : rack_.find(item->cut.bit);
  if (bit == nullptr) bit = usual_v(rack_);
  if (bit == nullptr && !rack_.bits.empty()) bit = &rack_.bits.front();
  if (bit == nullptr) return say(tr("Nothing to trace for"), tr("The rack has no bit; put one in first."));
  auto* dialog =
      new TraceDialog(std::move(picture), settings, width, *bit, bit->feeds_in(wood_class_of(document_.job().blank)),
                      machine_for(document_.job()), document_.job().lengths, this);
  show_in_place(dialog, [this, dialog, name, take] {
    if (!dialog->traced_fine()) return;
    try {
      Drawing drawing;
      work_off_thread(this, tr("Taking the outlines…"), [&](const Cancel& cancel, const Told&) {
        drawing = traced_drawing(dialog->picture(), dialog->settings(), name.toStdString(), cancel).drawing;
        const double now = bounds(drawing_region(drawing)).width();
        if (now > 0) drawing.scale = dialog->width_wanted() / now;
      });
      take(std::move(drawing));
    } catch (const Cancelled&) {
      return;
    } catch (const Problem& problem) {
      say(tr("The picture cannot be traced"), QString::fromUtf8(problem.what()));
    }
  });
}

void MainWindow::trace_again() {
  const Item* item = shop_.item();
  const auto* d = item == nullptr ? nullptr : std::get_if<Drawing>(&item->piece.what);
  if (d == nullptr || !d->traced) return;
  try {
    double width = 0;
    std::optional<TracePicture> picture;
    work_off_thread(this, tr("Opening the picture…"), [&](const Cancel& cancel, const Told&) {
      width = bounds(drawing_region(*d)).width();
      picture = TracePicture::read(from_base64(d->traced->png), d->name);
      cancel.check();
    });
    trace_picture(std::move(*picture), d->traced->settings, QString::fromStdString(d->name), width,
                  [this, id = item->piece.id](const Drawing& again) {
                    document_.edit(tr("trace the picture again"), [&](Job& job) {
                      if (Item* it = job.find(id)) it->piece.what = again;
                    });
                  });
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    say(tr("The picture cannot be traced again"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::freeze_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  try {
    const Outlines outlines = outlines_of(item->piece, document_.job().source());
    const Drawing drawing = frozen(outlines, item->piece.name);
    const Box box = bounds(outlines);
    shop_.edit_item(tr("freeze “%1”").arg(QString::fromStdString(item->piece.name)), [&](Item& it) {
      it.piece.what = drawing;
      it.piece.at = box.centre();
      it.piece.turn = 0;
    });
  } catch (const Problem& problem) {
    say(tr("It cannot be frozen"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::add_drawing(const QString& given) {
  go_to_stage(Stage::Artwork);
  const QString path = given.isEmpty() ? QFileDialog::getOpenFileName(
                                             this, tr("A drawing"), {},
                                             tr("Drawings and pictures (*.svg *.dxf *.png *.jpg *.jpeg *.bmp *.webp)"))
                                       : given;
  if (path.isEmpty()) return;
  try {
    const Blank& board = document_.job().blank;
    std::optional<TracePicture> picture;
    Imported svg;
    Box box;
    Outlines enclosed;  // by its lines, where it is all lines
    work_off_thread(this, tr("Reading %1…").arg(QFileInfo(path).fileName()),
                    [&](const Cancel& cancel, const Told& told) {
                      const std::string file = path.toStdString();
                      if (is_picture(file)) {
                        picture = TracePicture::read(read_file(file, 256u << 20), file);
                      } else {
                        svg = read_artwork(file, Reading(cancel, told));
                        box = bounds(outlines_of({"art", "art", svg.drawing, {0, 0}, 0}));
                        if (only_lines(svg.drawing)) {
                          Drawing areas = svg.drawing;
                          areas.lines = Drawing::Lines::Enclose;
                          enclosed = outlines_of({"art", "art", areas, {0, 0}, 0});
                        }
                      }
                      cancel.check();
                    });
    if (picture) {
      const double width = 0.5 * std::min(board.width, board.height * picture->width() / picture->height());
      const QString name = QFileInfo(path).completeBaseName();
      trace_picture(std::move(*picture), {}, name, width, [this, name](const Drawing& traced) {
        add_piece(tr("trace a picture"), {{}, name.toStdString(), traced, document_.job().blank.box().centre(), 0},
                  Treatment::Kind::Incise);
      });
      return;
    }
    Drawing drawing = svg.drawing;
    const Blank& blank = document_.job().blank;
    QStringList notes;
    if (box.width() > blank.width || box.height() > blank.height) {
      drawing.scale = 0.8 * std::min(blank.width / box.width(), blank.height / box.height());
      notes << tr("It is larger than the board and was made smaller to fit.");
    }
    if (!svg.sized) notes << QString::fromStdString(svg.assumed);
    for (const std::string& left : svg.left_out) notes << QString::fromStdString(left);
    const Treatment::Kind kind = ask_about_lines(drawing, enclosed);
    add_piece(tr("add a drawing"),
              {{}, QFileInfo(path).completeBaseName().toStdString(), drawing, blank.box().centre(), 0}, kind);
    if (!notes.isEmpty()) say(tr("About this drawing"), notes.join(QLatin1Char('\n')));
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    say(tr("This drawing cannot be taken"), QString::fromUtf8(problem.what()));
  }
}

// Art that is all lines is asked about once: each way is right for some drawing.
Treatment::Kind MainWindow::ask_about_lines(Drawing& drawing, const Outlines& areas) {
  if (!only_lines(drawing)) return Treatment::Kind::Incise;
  QMessageBox ask(QMessageBox::NoIcon, tr("A drawing of lines"),
                  tr("This drawing is all lines. What shall be carved?") +
                      (!areas.region.empty() && !areas.open.empty()
                           ? QLatin1Char(' ') + tr("Some of its lines are open and enclose nothing.")
                           : QString()),
                  QMessageBox::NoButton, this);
  ask.setObjectName(QStringLiteral("linesAre"));
  QPushButton* enclose =
      areas.region.empty() ? nullptr : ask.addButton(tr("What the lines enclose"), QMessageBox::AcceptRole);
  QPushButton* follow = ask.addButton(tr("The lines, followed by the bit"), QMessageBox::AcceptRole);
  ask.addButton(tr("The lines, as wide as drawn"), QMessageBox::AcceptRole);
  // Outlines that all close are meant as areas.
  if (enclose != nullptr && areas.open.empty()) ask.setDefaultButton(enclose);
  ask.exec();
  if (enclose != nullptr && ask.clickedButton() == enclose) drawing.lines = Drawing::Lines::Enclose;
  if (ask.clickedButton() != follow) return Treatment::Kind::Incise;
  drawing.lines = Drawing::Lines::Followed;
  return Treatment::Kind::Line;
}

void MainWindow::remove_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  const std::string id = item->piece.id;
  document_.edit(tr("remove “%1”").arg(QString::fromStdString(item->piece.name)),
                 [&](Job& job) { std::erase_if(job.items, [&](const Item& i) { return i.piece.id == id; }); });
}

void MainWindow::copy_piece() {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  Item copy = *item;
  copy.piece.id = document_.job().fresh_id(kind_word(copy.piece));
  copy.piece.at = copy.piece.at + Point{10, -10};
  document_.edit(tr("copy “%1”").arg(QString::fromStdString(copy.piece.name)),
                 [&](Job& job) { job.items.push_back(copy); });
  select(QString::fromStdString(copy.piece.id));
}

}  // namespace doyen
