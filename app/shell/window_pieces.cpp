// Pieces come and go: lettering, shapes, what is drawn by hand, pieces made from others.
#include <QDialogButtonBox>
#include <QListWidget>

#include "job/layout.hpp"
#include "job/room.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "stages/artwork/lay_out_bench.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "treatments/start.hpp"

namespace doyen {
namespace {

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
    if (!(document_.job() == bench->laid_out()))  // undone or edited while it was open
      return say(tr("The job has changed meanwhile"), tr("Lay it out again, for what is there now."));
    document_.edit(tr("lay it out: %1").arg(QString::fromStdString(bench->taken()->form)),
                   [&](Job& job) { job = bench->taken()->job; });
  });
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
