#include <algorithm>

#include "bench/hands/all.hpp"
#include "machine/motion.hpp"
#include "parts/flow_layout.hpp"
#include "problem.hpp"
#include "stages/artwork/artwork_sections.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen {

DrawingSection::DrawingSection(Workshop& shop) : ArtworkSection(shop) {
  lines_ = new QComboBox;
  lines_->setObjectName(QStringLiteral("linesAre"));
  lines_->addItems({tr("carved as wide as drawn"), tr("followed by the bit"), tr("outlines of areas")});
  column_->addWidget(make_row(tr("Its lines are"), lines_));
  hairline_ = new LengthField(range_of("pieces[].drawing.hairline"));
  column_->addWidget(make_row(tr("Hairlines"), hairline_));
  retrace_ = new QPushButton(tr("Trace the picture again…"));
  retrace_->setObjectName(QStringLiteral("traceAgain"));
  column_->addWidget(retrace_);
  thicken_ = new LengthField(range_of("pieces[].drawing.thicken"), true);
  thicken_->setPlaceholderText(tr("none"));
  thicken_->setToolTip(tr("Every filled part grows by this on each side, so that the bit reaches the thin ones"));
  column_->addWidget(make_row(tr("Thickened by"), thicken_));
  tall_ = new FigureField(range_of("pieces[].drawing.tall"), 1, 0.01);
  tall_->setObjectName(QStringLiteral("drawingTall"));
  tall_->setToolTip(tr("100 keeps the drawing's own proportions; its width stays"));
  column_->addWidget(make_row(tr("Its height, per cent"), tall_));
  points_ = new QPushButton(tr("Edit its points on the board"));
  points_->setObjectName(QStringLiteral("editPoints"));
  points_->setCheckable(true);
  column_->addWidget(points_);
  for (int i = 0; i < 2; ++i) {
    point_at_[i] = new LengthField({-20'000, 20'000});
    point_at_[i]->setObjectName(i == 0 ? QStringLiteral("pointX") : QStringLiteral("pointY"));
    column_->addWidget(make_row(i == 0 ? tr("Point from left") : tr("Point from front"), point_at_[i]));
    connect(point_at_[i], &LengthField::entered, this, [this, i](std::optional<double> mm) {
      const BoardPoint* chosen = shop_.bench->points().chosen();
      if (filling_ || !mm || chosen == nullptr) return;
      Point to = chosen->point.at;
      (i == 0 ? to.x : to.y) = *mm;
      shop_.bench->points().move_chosen(to);
    });
  }
  original_ = new QPushButton(tr("Back to the drawing as it came"));
  original_->setObjectName(QStringLiteral("original"));
  original_->setToolTip(tr("The job keeps the parts as they were before any mending or point editing"));
  column_->addWidget(original_);
  auto* clean = new QPushButton(tr("Check and clean up…"));
  clean->setObjectName(QStringLiteral("cleanUp"));
  clean->setCheckable(true);
  column_->addWidget(clean);
  findings_ = new QVBoxLayout;
  column_->addLayout(findings_);
  build_parts();
  connect(retrace_, &QPushButton::clicked, this, &DrawingSection::trace_again);
  connect(clean, &QPushButton::clicked, this, [this](bool on) {
    cleaning_ = on;
    if (!on) shop_.bench->show_marks({});
    ask_for_report();
  });
  connect(points_, &QPushButton::clicked, this, [this](bool on) {
    shop_.bench->points().set_active(on);
    shop_.bench->setFocus();
  });
  connect(shop_.bench, &Bench::hand_changed, this, &DrawingSection::show_point);
  connect(original_, &QPushButton::clicked, this, [this] {
    shop_.edit_item(tr("go back to the drawing as it came"), [](Item& item) {
      edit_parts(item.piece, [](Drawing& d) {
        if (!d.original.empty()) d.parts = d.original;
      });
      if (auto* d = std::get_if<Drawing>(&item.piece.what)) d->original.clear();
    });
  });
  connect(thicken_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Drawing>(tr("thicken the drawing"), [&](Drawing& d) { d.thicken = mm.value_or(0); });
  });
  connect(tall_, &FigureField::entered, this,
          [this](double share) { edit_kind<Drawing>(tr("stretch the drawing"), [&](Drawing& d) { d.tall = share; }); });
  connect(lines_, &QComboBox::activated, this, [this](int i) {
    const auto lines = static_cast<Drawing::Lines>(i);
    const bool follow = lines == Drawing::Lines::Followed;
    shop_.edit_item(follow                             ? tr("follow the lines")
                    : lines == Drawing::Lines::Enclose ? tr("take what the lines enclose")
                                                       : tr("carve the lines' width"),
                    [&](Item& item) {
                      if (auto* d = std::get_if<Drawing>(&item.piece.what)) d->lines = lines;
                      if (follow && item.cut.kind == Treatment::Kind::Incise) item.cut.kind = Treatment::Kind::Line;
                      if (lines == Drawing::Lines::Enclose && item.cut.kind == Treatment::Kind::Line)
                        item.cut.kind = Treatment::Kind::Incise;
                    });
  });
  connect(hairline_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Drawing>(tr("change the hairlines' width"), [&](Drawing& d) { d.hairline = *mm; });
  });
}

DrawingSection::~DrawingSection() {
  cancel_.request();
  pool_.waitForDone();
}

void DrawingSection::build_parts() {
  parts_ = new QListWidget;
  parts_->setObjectName(QStringLiteral("parts"));
  parts_->setFixedHeight(92);
  parts_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  parts_->setAccessibleName(tr("Parts of the drawing; what is not ticked is left out"));
  apart_fold_ = new Fold(tr("Its parts"), QStringLiteral("partsOpen"), true);
  apart_fold_->body()->addWidget(parts_);
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  apart_ = add_button(flow, tr("Chosen parts as a piece"), QStringLiteral("partsApart"));
  apart_->setToolTip(tr("They stay where they are and can be cut in their own way"));
  each_ = add_button(flow, tr("A piece for each group"), QStringLiteral("pieceEach"));
  apart_fold_->body()->addWidget(holder);
  column_->addWidget(apart_fold_);
  column_->addWidget(holes_ = new HolesSection(shop_));
  connect(apart_, &QPushButton::clicked, this, [this] { split_off(false); });
  connect(each_, &QPushButton::clicked, this, [this] { split_off(true); });
  connect(parts_, &QListWidget::itemChanged, this, [this](QListWidgetItem* row) {
    const Item* item = shop_.item();
    if (filling_ || item == nullptr) return;
    const std::vector<std::size_t> changed = parts_of_row(*row, std::get<Drawing>(item->piece.what));
    const bool out = row->checkState() != Qt::Checked;
    edit_kind<Drawing>(out ? tr("leave out a part") : tr("take in a part"), [&](Drawing& d) {
      std::vector<Drawing::Part>& parts = d.parts.edit();
      for (const std::size_t i : changed) parts[i].left_out = out;
    });
  });
  connect(parts_, &QListWidget::itemSelectionChanged, this, [this] {
    const Item* item = shop_.item();
    if (filling_ || item == nullptr || !std::holds_alternative<Drawing>(item->piece.what)) return;
    Piece only = item->piece;
    auto& drawing = std::get<Drawing>(only.what);
    const std::vector<std::size_t> chosen = chosen_parts(drawing);
    apart_->setEnabled(!chosen.empty() && chosen.size() < drawing.parts.size());
    std::vector<Drawing::Part>& parts = drawing.parts.edit();
    for (Drawing::Part& p : parts) p.left_out = true;
    for (const std::size_t i : chosen) parts[i].left_out = false;
    try {
      const Outlines outlines = outlines_of(only);
      std::vector<Region> regions{outlines.region};
      if (!outlines.lines.empty()) regions.push_back(sweep(outlines.lines, 0.5));
      shop_.bench->show_highlight(chosen.empty() ? std::vector<Region>{} : regions);
    } catch (const Problem&) {
      shop_.bench->show_highlight({});
    }
  });
}

std::vector<std::size_t> DrawingSection::parts_of_row(const QListWidgetItem& row, const Drawing& drawing) const {
  const std::string group = row.data(Qt::UserRole).toString().toStdString();
  const int index = row.data(Qt::UserRole + 1).toInt();
  std::vector<std::size_t> found;
  for (std::size_t i = 0; i < drawing.parts.size(); ++i) {
    if (index >= 0 ? static_cast<int>(i) == index : drawing.parts[i].group == group) found.push_back(i);
  }
  return found;
}

std::vector<std::size_t> DrawingSection::chosen_parts(const Drawing& drawing) const {
  std::vector<std::size_t> all;
  for (const QListWidgetItem* row : parts_->selectedItems()) {
    for (const std::size_t i : parts_of_row(*row, drawing)) all.push_back(i);
  }
  std::sort(all.begin(), all.end());
  return all;
}

void DrawingSection::choose_part_at(Point at) {
  const Item* item = shop_.item();
  if (item == nullptr || shop_.bench->points().active()) return;
  const auto& drawing = std::get<Drawing>(item->piece.what);
  const Transform place = drawing_place(item->piece);
  for (std::size_t i = drawing.parts.size(); i-- > 0;) {
    const Drawing::Part& part = drawing.parts[i];
    if (part.left_out) continue;
    const Flat flat = flatten(transformed(parse_path(part.data), place), 0.05, !part.line);
    // A line is hit on its way, what it encloses too where that is what is cut.
    std::vector<Line2> lines = flat.open;
    if (part.line) {
      for (Line2 ring : flat.closed) {
        ring.push_back(ring.front());
        lines.push_back(std::move(ring));
      }
    }
    const bool area = !part.line || drawing.lines == Drawing::Lines::Enclose;
    const bool hit = (area && contains(clean(flat.closed, part.even_odd ? Fill::EvenOdd : Fill::NonZero), at)) ||
                     (part.line && contains(sweep(lines, 5 / shop_.bench->pixels_per_mm()), at));
    if (!hit) continue;
    for (int r = 0; r < parts_->count(); ++r) {
      const std::vector<std::size_t> own = parts_of_row(*parts_->item(r), drawing);
      if (std::find(own.begin(), own.end(), i) == own.end()) continue;
      parts_->clearSelection();
      parts_->setCurrentRow(r);
      parts_->item(r)->setSelected(true);
      return;
    }
  }
  (void)holes_->choose_at(at);
}

// Parts become pieces of their own by leaving the others out: a drawing's place does not depend on what is left out.
void DrawingSection::split_off(bool each_group) {
  const Item* item = shop_.item();
  if (item == nullptr) return;
  const auto& drawing = std::get<Drawing>(item->piece.what);
  std::vector<std::pair<std::string, std::vector<std::size_t>>> wanted;
  if (each_group) {
    for (std::size_t i = 0; i < drawing.parts.size(); ++i) {
      if (drawing.parts[i].left_out) continue;
      const std::string& group = drawing.parts[i].group;
      auto it = std::find_if(wanted.begin(), wanted.end(), [&](const auto& w) { return w.first == group; });
      if (it == wanted.end()) it = wanted.insert(wanted.end(), {group, {}});
      it->second.push_back(i);
    }
    if (wanted.size() < 2) return;
    wanted.erase(wanted.begin());  // the first group stays with this piece
  } else {
    wanted.push_back({{}, chosen_parts(drawing)});
    if (wanted.front().second.empty()) return;
  }
  const std::string id = item->piece.id;
  shop_.document.edit(each_group ? tr("make a piece of each group") : tr("make a piece of the chosen parts"),
                      [&](Job& job) {
                        for (const auto& [group, parts] : wanted) {
                          Item made = *job.find(id);
                          auto& own = std::get<Drawing>(made.piece.what);
                          auto& rest = std::get<Drawing>(job.find(id)->piece.what);
                          std::vector<Drawing::Part>&here = own.parts.edit(), &there = rest.parts.edit();
                          for (Drawing::Part& p : here) p.left_out = true;
                          for (const std::size_t i : parts) {
                            here[i].left_out = false;
                            there[i].left_out = true;
                          }
                          own.traced.reset();  // only the piece that stays can be traced again
                          made.piece.id = job.fresh_id("drawing");
                          made.piece.name += ", " + (group.empty() ? tr("parts").toStdString() : group);
                          job.items.push_back(std::move(made));
                        }
                      });
}

void DrawingSection::show_point() {
  const Filling guard(filling_);
  points_->setChecked(shop_.bench->points().active());
  const BoardPoint* chosen = shop_.bench->points().active() ? shop_.bench->points().chosen() : nullptr;
  for (int i = 0; i < 2; ++i) {
    show_row(point_at_[i], chosen != nullptr);
    if (chosen != nullptr)
      point_at_[i]->show_length(i == 0 ? chosen->point.at.x : chosen->point.at.y, shop_.document.job().lengths);
  }
}

void DrawingSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const auto& d = std::get<Drawing>(item.piece.what);
  const bool has_lines = std::any_of(d.parts.begin(), d.parts.end(), [](const Drawing::Part& p) { return p.line; });
  lines_->setCurrentIndex(static_cast<int>(d.lines));
  hairline_->show_length(d.hairline, shop_.document.job().lengths);
  show_row(lines_, has_lines);
  show_row(hairline_, has_lines && d.lines == Drawing::Lines::Wide);
  retrace_->setVisible(d.traced.has_value());
  thicken_->show_length(d.thicken > 0 ? std::optional(d.thicken) : std::nullopt, shop_.document.job().lengths);
  tall_->show_figure(d.tall);
  show_point();
  original_->setVisible(!d.original.empty());
  const QList<QListWidgetItem*> were = parts_->selectedItems();
  QStringList chosen;
  for (const QListWidgetItem* row : were) chosen << row->text();
  parts_->clear();
  QStringList groups;
  for (const Drawing::Part& p : d.parts) {
    if (!groups.contains(QString::fromStdString(p.group))) groups << QString::fromStdString(p.group);
  }
  const auto add = [&](const QString& words, const QString& group, int index, bool in) {
    auto* row = new QListWidgetItem(words);
    row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    row->setCheckState(in ? Qt::Checked : Qt::Unchecked);
    row->setData(Qt::UserRole, group);
    row->setData(Qt::UserRole + 1, index);
    parts_->addItem(row);
  };
  if (groups.size() > 1 || d.parts.size() > 200) {
    for (const QString& group : groups) {
      int n = 0, out = 0;
      for (const Drawing::Part& p : d.parts) {
        if (QString::fromStdString(p.group) != group) continue;
        ++n;
        out += p.left_out;
      }
      add((group.isEmpty() ? tr("without a group") : group) + (n == 1 ? tr("  ·  1 part") : tr("  ·  %1 parts").arg(n)),
          group, -1, out < n);
    }
  } else {
    for (std::size_t i = 0; i < d.parts.size(); ++i)
      add(d.parts[i].id.empty() ? tr("part %1").arg(i + 1) : QString::fromStdString(d.parts[i].id), {},
          static_cast<int>(i), !d.parts[i].left_out);
  }
  for (int r = 0; r < parts_->count(); ++r) parts_->item(r)->setSelected(chosen.contains(parts_->item(r)->text()));
  apart_fold_->setVisible(parts_->count() > 1);
  apart_fold_->set_summary(tr("%1 parts").arg(d.parts.size()));
  apart_->setVisible(parts_->count() > 1);
  apart_->setEnabled(!chosen.isEmpty());
  each_->setVisible(groups.size() > 1);
  holes_->refresh(item);
  ask_for_report();
}

// The report is worked out beside the window; the newest question wins.
void DrawingSection::ask_for_report() {
  cancel_.request();
  cancel_ = Cancel();
  ++generation_;
  const Item* item = shop_.item();
  const bool wanted = cleaning_ && item != nullptr && std::holds_alternative<Drawing>(item->piece.what);
  reporting_ = wanted;
  if (!wanted || reported_ != item->piece.id) clear_layout(findings_);
  if (!wanted) return;
  if (reported_ != item->piece.id) findings_->addWidget(make_label(tr("Looking it over…"), "faded"));
  reported_ = item->piece.id;
  const Job& job = shop_.document.job();
  const Bit* bit = shop_.rack.find(item->cut.bit);
  const Feeds feeds = bit == nullptr ? Feeds{} : bit->feeds_in(wood_class_of(job.blank));
  FeedAlong along;
  if (feeds.known())
    along = [feeds, machine = machine_for(job)](const Region& region) {
      std::vector<Pass> passes;
      for (const Island& island : region.islands) {
        for (const Ring& ring : island.rings) {
          Pass& pass = passes.emplace_back();
          for (const Point& p : ring) pass.points.push_back({p.x, p.y, -1});
          pass.points.push_back(pass.points.front());
        }
      }
      return ReachedFeed{run_time(passes, feeds, machine, {}).reached_feed(), feeds.feed};
    };
  pool_.setMaxThreadCount(1);
  pool_.start([this, piece = item->piece, board = job.blank.box(), style = job.lengths, along, cancel = cancel_,
               generation = generation_] {
    std::vector<Finding> found;
    QString problem;
    try {
      const Cancel::Scope stops(cancel);
      found = clean_up_report(
          piece, board, {}, [style](double mm) { return depth_in_words(mm, style); }, along, cancel);
    } catch (const Cancelled&) {
      return;
    } catch (const Problem& p) {
      problem = QString::fromUtf8(p.what());
    }
    QMetaObject::invokeMethod(this, [this, found = std::move(found), problem, generation] {
      if (generation != generation_) return;
      reporting_ = false;
      clear_layout(findings_);
      if (problem.isEmpty())
        show_report(found);
      else
        findings_->addWidget(make_label(problem, "error"));
    });
  });
}

// The report as verdict cards: a click rings every place on the board, a button mends it.
void DrawingSection::show_report(const std::vector<Finding>& found) {
  if (found.empty()) findings_->addWidget(make_label(tr("Nothing is wrong with it."), "faded"));
  std::vector<Point> all;
  for (const Finding& f : found) {
    all.insert(all.end(), f.at.begin(), f.at.end());
    Verdict v;
    v.grade = Grade::Mind;
    v.code = f.code;
    v.piece = shop_.selected.toStdString();
    v.at = f.at.empty() ? shop_.item()->piece.at : f.at.front();
    v.text = f.text;
    for (const Mend& mend : f.mends) v.remedies.push_back({mend.label, {}});
    auto* card = new VerdictCard(v);
    connect(card, &VerdictCard::go_to, this, [this, at = f.at](const QString&, double x, double y) {
      shop_.go_to({x, y});
      shop_.bench->show_marks(at);
    });
    connect(card, &VerdictCard::remedy_taken, this, [this, mends = f.mends](const QString& label, int which) {
      shop_.edit_item(label, [&](Item& item) { edit_parts(item.piece, mends[static_cast<std::size_t>(which)].apply); });
    });
    findings_->addWidget(card);
  }
  shop_.bench->show_marks(all);
}

}  // namespace doyen
