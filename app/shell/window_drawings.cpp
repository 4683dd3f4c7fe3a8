// Drawings come and go: files read, pictures traced, outlines saved and made independent.
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

#include "artwork/drawing/strays.hpp"
#include "files/imported.hpp"
#include "files/outlines_out.hpp"
#include "job/room.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/suits.hpp"
#include "work/long_work.hpp"

namespace doyen {
namespace {

bool only_lines(const Drawing& drawing) {
  return std::all_of(drawing.parts.begin(), drawing.parts.end(), [](const Drawing::Part& p) { return p.line; });
}

}  // namespace

QString MainWindow::no_room() { return tr("There is no free place on the board for it; it lies over what is there."); }

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
                    bool edited = false;
                    document_.edit(tr("trace the picture again"), [&](Job& job) {
                      Item* it = job.find(id);
                      const auto* was = it == nullptr ? nullptr : std::get_if<Drawing>(&it->piece.what);
                      if (was == nullptr) return;
                      edited = !was->original.empty() ||
                               std::any_of(was->parts.begin(), was->parts.end(),
                                           [](const Drawing::Part& part) { return part.left_out; });
                      Drawing now = again;  // what was said of the drawing still holds
                      now.mirrored = was->mirrored;
                      now.thicken = was->thicken;
                      now.tall = was->tall;
                      it->piece.what = std::move(now);
                    });
                    if (edited)
                      note(
                          tr("Parts that were left out, filled or edited by hand are as they were traced. Ctrl+Z "
                             "takes it back."));
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
    shop_.edit_item(tr("make “%1” independent").arg(QString::fromStdString(item->piece.name)), [&](Item& it) {
      it.piece.what = drawing;
      it.piece.at = box.centre();
      it.piece.turn = 0;
    });
  } catch (const Problem& problem) {
    say(tr("It cannot be made independent"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::add_drawing(const QString& given) {
  go_to_stage(Stage::Artwork);
  const QString path = given.isEmpty() ? QFileDialog::getOpenFileName(
                                             this, tr("A drawing"), {},
                                             tr("Drawings and pictures (*.svg *.dxf *.png *.jpg *.jpeg *.bmp *.webp)"))
                                       : given;
  if (path.isEmpty()) return;
  const QString name = QFileInfo(path).completeBaseName();
  try {
    std::string picture;
    Imported art;
    work_off_thread(this, tr("Reading %1…").arg(QFileInfo(path).fileName()),
                    [&](const Cancel& cancel, const Told& told) {
                      const std::string file = path.toStdString();
                      if (is_picture(file))
                        picture = read_file(file, 256u << 20);
                      else
                        art = read_artwork(file, Reading(cancel, told));
                      cancel.check();
                    });
    if (!picture.empty()) return trace_new(picture, name);
    take_drawing(art, name);
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    say(tr("This drawing cannot be taken"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::trace_new(const std::string& bytes, const QString& name) {
  try {
    std::optional<TracePicture> picture;
    work_off_thread(this, tr("Opening the picture…"), [&](const Cancel& cancel, const Told&) {
      picture = TracePicture::read(bytes, name.toStdString());
      cancel.check();
    });
    const Blank& board = document_.job().blank;
    const double width = 0.5 * std::min(board.width, board.height * picture->width() / picture->height());
    trace_picture(std::move(*picture), {}, name, width, [this, name](const Drawing& traced) {
      Piece piece{{}, name.toStdString(), traced, document_.job().blank.box().centre(), 0};
      const bool free = make_room_for_drawing(piece);
      add_piece(tr("trace a picture"), std::move(piece), Treatment::Kind::None);
      if (!free) note(no_room());
    });
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    say(tr("This drawing cannot be taken"), QString::fromUtf8(problem.what()));
  }
}

// Drawings may be heavy: their outlines are made off the window's thread.
bool MainWindow::make_room_for_drawing(Piece& piece) {
  bool free = true;
  work_off_thread(this, tr("Looking for a free place…"),
                  [&](const Cancel&, const Told&) { free = make_room(document_.job(), piece, false); });
  return free;
}

void MainWindow::take_drawing(const Imported& art, const QString& name) {
  Drawing drawing = art.drawing;
  const Blank& blank = document_.job().blank;
  Box box;
  Strays strays;
  work_off_thread(this, tr("Looking at the drawing…"),
                  [&](const Cancel&, const Told&) { strays = strays_of(drawing); });
  if (!strays.parts.empty()) ask_about_strays(drawing, strays);
  Outlines enclosed;  // by its lines, where it is all lines
  work_off_thread(this, tr("Setting the drawing…"), [&](const Cancel& cancel, const Told&) {
    box = bounds(outlines_of({"art", "art", drawing, {0, 0}, 0}));
    if (only_lines(drawing)) {
      Drawing areas = drawing;
      areas.lines = Drawing::Lines::Enclose;
      enclosed = outlines_of({"art", "art", areas, {0, 0}, 0});
    }
    cancel.check();
  });
  QStringList notes;
  if (box.width() > blank.width || box.height() > blank.height) {
    drawing.scale = 0.8 * std::min(blank.width / box.width(), blank.height / box.height());
    notes << tr("It is %1 × %2, larger than the board, and was made smaller to fit: %3 % of its size.")
                 .arg(shop_.show(box.width()), shop_.show(box.height()))
                 .arg(100 * drawing.scale, 0, 'f', 0);
  }
  if (!art.sized) notes << QString::fromStdString(art.assumed);
  for (const std::string& left : art.left_out) notes << QString::fromStdString(left);
  const Treatment::Kind kind = ask_about_lines(drawing, enclosed);
  Piece piece{{}, name.toStdString(), drawing, blank.box().centre(), 0};
  if (!make_room_for_drawing(piece)) notes << no_room();
  add_piece(tr("add a drawing"), std::move(piece), kind);
  if (!notes.isEmpty()) say(tr("About this drawing"), notes.join(QLatin1Char('\n')));
}

// Something small that lies far from everything else was left behind by whoever drew it, most likely: it would make the
// drawing far larger than it looks.
void MainWindow::ask_about_strays(Drawing& drawing, const Strays& strays) {
  const auto count = static_cast<int>(strays.parts.size());
  QMessageBox ask(QMessageBox::NoIcon, tr("Something lies far away"),
                  count == 1
                      ? tr("A small part of this drawing, %1 across, lies %2 from all the rest. Is it meant?")
                            .arg(shop_.show(strays.largest), shop_.show(strays.nearest))
                      : tr("%1 small parts of this drawing, at most %2 across, lie %3 or more from all the rest. "
                           "Are they meant?")
                            .arg(count)
                            .arg(shop_.show(strays.largest), shop_.show(strays.nearest)),
                  QMessageBox::NoButton, this);
  ask.setObjectName(QStringLiteral("strays"));
  const QPushButton* out =
      ask.addButton(count == 1 ? tr("Leave it out") : tr("Leave them out"), QMessageBox::AcceptRole);
  ask.addButton(count == 1 ? tr("Keep it") : tr("Keep them"), QMessageBox::RejectRole);
  ask.exec();
  if (ask.clickedButton() != out) return;
  std::vector<Drawing::Part> parts = drawing.parts;
  for (const std::size_t i : strays.parts) parts[i].left_out = true;  // they stay in the file, to be taken back
  drawing.parts = std::move(parts);
}

// Art that is all lines is asked about once: each way is right for some drawing.
Treatment::Kind MainWindow::ask_about_lines(Drawing& drawing, const Outlines& areas) {
  if (!only_lines(drawing)) return Treatment::Kind::None;
  QMessageBox ask(QMessageBox::NoIcon, tr("A drawing of lines"),
                  tr("This drawing is all lines. What should be carved?") +
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
  if (ask.clickedButton() != follow) return Treatment::Kind::None;
  drawing.lines = Drawing::Lines::Followed;
  return Treatment::Kind::Line;
}

}  // namespace doyen
