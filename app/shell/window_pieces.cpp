// Pieces come and go: lettering, shapes, drawings, traced pictures, pieces made from others.
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>

#include "files/imported.hpp"
#include "files/outlines_out.hpp"
#include "job/layout.hpp"
#include "job/room.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "stages/artwork/lay_out_bench.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/start.hpp"
#include "treatments/suits.hpp"
#include "work/long_work.hpp"

namespace doyen {
namespace {

QString no_room() { return MainWindow::tr("There is no free place on the board for it; it lies over what is there."); }

bool only_lines(const Drawing& drawing) {
  return std::all_of(drawing.parts.begin(), drawing.parts.end(), [](const Drawing::Part& p) { return p.line; });
}

QString shape_name(PlainShape::Kind kind) {
  for (const auto& [known, name] : ArtworkTicket::shape_names()) {
    if (known == kind) return name;
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

// Moves it to where there is room, nearest to where it lies, made smaller for that if it may be. False: there is none.
bool make_room(const Job& job, Piece& piece, bool may_shrink) {
  try {
    const Room room(job);
    for (int tries = may_shrink ? 6 : 1; tries > 0; --tries) {
      const Box box = bounds(outlines_of(piece, job.source()));
      if (box.empty()) return true;
      if (const std::optional<Point> free = room.nearest(box.width(), box.height(), box.centre())) {
        piece.at = piece.at + (*free - box.centre());
        return true;
      }
      if (tries > 1) size_piece(piece, 0.75, 0.75);
    }
  } catch (const Problem&) {
    return true;  // what cannot be made says so itself
  }
  return false;
}

}  // namespace

void MainWindow::add_piece(const QString& name, Piece piece, Treatment::Kind kind,
                           const std::vector<std::string>& instead_of) {
  const std::string id = document_.job().fresh_id(kind_word(piece));
  piece.id = id;
  piece.name = document_.job().fresh_name(piece.name);
  document_.edit(name, [&](Job& job) {
    Item item;
    item.piece = std::move(piece);
    item.cut = start_look(kind, {}, {job.blank, job.lengths, rack_, [](const Bit&) { return 0.0; }});
    item.cut.left_uncut = false;
    job.items.push_back(std::move(item));
    for (const std::string& source : instead_of) {
      if (Item* it = job.find(source)) it->cut.kind = Treatment::Kind::None;
    }
  });
  select(QString::fromStdString(id));
}

void MainWindow::add_lettering(const QString& words) {
  const Job& job = document_.job();
  Lettering l;
  l.words = (words.isEmpty() ? tr("Your words") : words).toStdString();
  l.cap_height = std::clamp(job.blank.height / 5, 5.0, 80.0);
  // A round height: eighths of an inch, or whole millimetres.
  const double round = job.lengths.unit == Unit::Inch ? kMmPerInch / 8 : 1;
  l.cap_height = std::max(round, std::round(l.cap_height / round) * round);
  if (!face_installed(l.face) && !installed_faces().empty()) l.face = installed_faces().front().name;
  Piece piece{{}, name_of_words(l.words), l, job.blank.box().centre(), 0};
  const bool free = make_room(document_.job(), piece, true);
  add_piece(tr("add lettering"), std::move(piece), Treatment::Kind::Incise);
  if (!free) note(no_room());
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
  if (kind == K::Shield || kind == K::Heart) s.width = std::min(s.width, 0.85 * s.height);
  if (kind == K::Bow) s.width = least;
  if (kind == K::Bow) s.height = least / 2;
  if (kind == K::Arc) s.width *= 0.6;
  if (kind == K::Arc) s.height = std::min(s.height, s.width / 6);
  Piece piece{{}, shape_name(kind).toStdString(), s, job.blank.box().centre(), 0};
  // As large as the board when it goes round all that is there; else where there is room.
  const Box box = bounds(outlines_of(piece));
  bool free = true;
  if (!Room(job).clear(box)) {
    const bool round_all = std::all_of(job.items.begin(), job.items.end(), [&](const Item& item) {
      const Box its = bench_->box_of(QString::fromStdString(item.piece.id));
      return its.empty() ||
             (its.left > box.left && its.right < box.right && its.bottom > box.bottom && its.top < box.top);
    });
    if (!round_all) {
      size_piece(piece, 0.5, 0.5);
      free = make_room(document_.job(), piece, true);
    }
  }
  add_piece(tr("add a shape"), std::move(piece),
            kind == K::Line || kind == K::Arc ? Treatment::Kind::Line : Treatment::Kind::None);
  if (!free) note(no_room());
}

// A band round the board, and round everything on it, so far inside the edge as nothing is cut anyway.
void MainWindow::add_border() {
  const Blank& blank = document_.job().blank;
  go_to_stage(Stage::Artwork);
  const double least = std::min(blank.width, blank.height);
  const double unit = document_.job().lengths.unit == Unit::Inch ? kMmPerInch / 16 : 1;
  PlainShape s;
  s.kind = blank.form == BlankForm::Oval ? PlainShape::Kind::Ellipse : PlainShape::Kind::Rectangle;
  s.from_edge = std::max(blank.margin, unit * std::round(least / 30 / unit));
  s.band = std::max(unit, unit * std::round(least / 60 / unit));
  s.corner_radius = unit * std::round(least / 12 / unit);
  s.width = std::max(1.0, blank.width - 2 * *s.from_edge);
  s.height = std::max(1.0, blank.height - 2 * *s.from_edge);
  add_piece(tr("add a border"), {{}, tr("Border").toStdString(), s, blank.box().centre(), 0}, Treatment::Kind::Incise);
}

void MainWindow::add_drawn(const Path& path, bool closed) {
  const double high = document_.job().blank.height;
  Drawing d;
  d.name = tr("drawn by hand").toStdString();
  d.page_width = document_.job().blank.width;
  d.page_height = high;
  d.lines = Drawing::Lines::Followed;
  Drawing::Part part;
  part.id = "by-hand";
  part.data = path_data(transformed(path, {1, 0, 0, -1, 0, high}));
  part.line = !closed;
  d.parts = std::vector<Drawing::Part>{std::move(part)};
  Piece piece{{}, (closed ? tr("Drawn shape") : tr("Drawn line")).toStdString(), d, {}, 0};
  try {
    // It lies where it was drawn: the drawing's origin is the middle of its own box.
    Flat flat = flatten(path, kFlatness, closed);
    Box box;
    for (const auto& lines : {flat.closed, flat.open}) {
      for (const Ring& ring : lines) box.add(bounds(ring));
    }
    piece.at = box.centre();
    piece.at = piece.at + (box.centre() - bounds(outlines_of(piece)).centre());
  } catch (const Problem& problem) {
    return say(tr("This cannot be drawn"), QString::fromUtf8(problem.what()));
  }
  add_piece(tr("draw by hand"), std::move(piece), closed ? Treatment::Kind::None : Treatment::Kind::Line);
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
    const std::string other = ask_for_another(*item, how);
    if (other.empty()) return;
    d.from.push_back(other);
  }
  if (!box.empty()) {
    d.step_x = box.width() * 1.2;
    d.step_y = box.height() * 1.2;
    d.radius = std::max(box.width(), box.height()) * 1.2;
  }
  d.distance = job.lengths.unit == Unit::Inch ? kMmPerInch / 8 : 3;
  const QString name = made_name(how).arg(QString::fromStdString(item->piece.name));
  // What it was made from becomes only a source, unless both are wanted: an outline grown stands beside its source.
  const bool both = how == H::Grow || how == H::Mirror;
  std::vector<std::string> sources;
  if (!both) sources.push_back(d.from.front());
  if (how == H::Join || how == H::Overlap) sources.push_back(d.from.back());
  Piece piece{{}, name.toStdString(), d, {0, 0}, 0};
  if (how == H::Mirror) make_room(document_.job(), piece, false);
  add_piece(tr("make “%1”").arg(name), std::move(piece), Treatment::Kind::None, sources);
}

// Which of the other pieces: the only one there is, the other chosen one, or the one that the user picks.
std::string MainWindow::ask_for_another(const Item& item, Derived::How how) {
  std::vector<const Item*> others;
  for (const Item& other : document_.job().items) {
    if (other.piece.id != item.piece.id) others.push_back(&other);
  }
  if (others.empty()) {
    say(tr("Made from two pieces"), tr("That takes a second piece; add it first."));
    return {};
  }
  if (others.size() == 1) return others.front()->piece.id;
  if (bench_->chosen().size() == 2) {
    for (const QString& id : bench_->chosen()) {
      if (id.toStdString() != item.piece.id) return id.toStdString();
    }
  }
  QDialog ask(this);
  ask.setObjectName(QStringLiteral("whichPiece"));
  ask.setWindowTitle(tr("Which other piece?"));
  auto* column = new QVBoxLayout(&ask);
  column->addWidget(
      make_label(how == Derived::How::TakeAway
                     ? tr("Which piece is cut away from “%1”?").arg(QString::fromStdString(item.piece.name))
                 : how == Derived::How::Along ? tr("Along which piece?")
                                              : tr("With which piece?"),
                 "heading"));
  auto* list = new QListWidget;
  for (const Item* other : others) {
    auto* row = new QListWidgetItem(QString::fromStdString(other->piece.name), list);
    row->setData(Qt::UserRole, QString::fromStdString(other->piece.id));
  }
  list->setCurrentRow(0);
  connect(list, &QListWidget::itemActivated, &ask, &QDialog::accept);
  connect(list, &QListWidget::currentItemChanged, &ask, [this](const QListWidgetItem* row) {
    if (row == nullptr) return;
    bench_->show_highlight({region_of_piece(row->data(Qt::UserRole).toString())});
  });
  column->addWidget(list);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::accepted, &ask, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, &ask, &QDialog::reject);
  column->addWidget(buttons);
  const bool taken = ask.exec() == QDialog::Accepted;
  bench_->show_highlight({});
  return taken && list->currentItem() != nullptr ? list->currentItem()->data(Qt::UserRole).toString().toStdString()
                                                 : std::string();
}

Region MainWindow::region_of_piece(const QString& id) const {
  const PiecePlan* piece = shop_.plan ? shop_.plan->piece(id.toStdString()) : nullptr;
  return piece == nullptr ? Region{} : piece->outlines.region;
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

void MainWindow::lay_out() {
  if (document_.job().items.empty()) return say(tr("Nothing to lay out yet"), tr("Add lettering or a drawing first."));
  auto* bench = new LayOutBench(document_.job(), rack_, this);
  show_in_place(bench, [this, bench] {
    if (bench->taken() == nullptr) return;
    document_.edit(tr("lay it out: %1").arg(QString::fromStdString(bench->taken()->form).toLower()),
                   [&](Job& job) { job = bench->taken()->job; });
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

void MainWindow::remove_piece() {
  const std::vector<std::string> ids = chosen_ids();
  const Item* item = shop_.item();
  if (ids.empty() || item == nullptr) return;
  const QString name = ids.size() == 1 ? tr("remove “%1”").arg(QString::fromStdString(item->piece.name))
                                       : tr("remove %1 pieces").arg(ids.size());
  document_.edit(name, [&](Job& job) {
    std::erase_if(job.items, [&](const Item& i) { return std::find(ids.begin(), ids.end(), i.piece.id) != ids.end(); });
  });
}

}  // namespace doyen
