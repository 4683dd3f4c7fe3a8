#include <QApplication>

#include "artwork/lettering/single_line_faces.hpp"
#include "stages/artwork/artwork_sections.hpp"
#include "stages/artwork/listed_section.hpp"

namespace doyen {

LetteringSection::LetteringSection(Workshop& shop) : ArtworkSection(shop) {
  words_ = new QPlainTextEdit;
  words_->setObjectName(QStringLiteral("words"));
  words_->setFixedHeight(56);
  words_->setTabChangesFocus(true);
  words_->setAccessibleName(tr("Words"));
  column_->addWidget(words_);
  listed_ = new ListedSection(shop_);
  column_->addWidget(listed_);
  family_ = new QComboBox;
  family_->setObjectName(QStringLiteral("family"));
  style_ = new QComboBox;
  QStringList good, others;
  for (const InstalledFace& face : installed_faces()) {
    if (!face.letters) continue;
    QStringList& list = face.carves_well ? good : others;
    const QString name = QString::fromStdString(face.name.family);
    if (!list.contains(name)) list << name;
  }
  family_->addItems(good);
  if (!good.isEmpty() && !others.isEmpty()) family_->insertSeparator(static_cast<int>(good.size()));
  family_->addItems(others);
  family_->insertSeparator(family_->count());
  for (const FaceName& face : single_line_faces()) family_->addItem(QString::fromStdString(face.family));
  // Each in its own letters.
  for (int i = 0; i < good.size() + others.size() + 1; ++i) {
    if (!family_->itemText(i).isEmpty()) family_->setItemData(i, QFont(family_->itemText(i), 12), Qt::FontRole);
  }
  family_->setToolTip(tr("The faces above the line carve well; below are all others on this machine"));
  column_->addWidget(make_row(tr("Face"), family_));
  auto* bench = new QPushButton(tr("Letter bench: these words in many faces…"));
  bench->setObjectName(QStringLiteral("letterBench"));
  connect(bench, &QPushButton::clicked, this, &LetteringSection::letter_bench_wanted);
  column_->addWidget(bench);
  column_->addWidget(make_row(tr("Style"), style_));
  cap_ = new LengthField(range_of("pieces[].lettering.capHeight"));
  cap_->setObjectName(QStringLiteral("cap"));
  fit_ = new LengthField(range_of("pieces[].lettering.fitWidth"), true);
  column_->addWidget(make_row(tr("Cap height"), cap_));
  column_->addWidget(make_row(tr("Fit to width"), fit_));
  more_ = new Fold(tr("Spacing and the line's shape"), QStringLiteral("letteringMore"));
  column_->addWidget(more_);
  align_ = new QComboBox;
  align_->addItems({tr("left"), tr("centre"), tr("right")});
  spacing_ = new QSpinBox;
  set_range(spacing_, "pieces[].lettering.letterSpacing");
  spacing_->setSuffix(tr(" % of cap height"));
  line_spacing_ = new QSpinBox;
  set_range(line_spacing_, "pieces[].lettering.lineSpacing");
  line_spacing_->setSuffix(tr(" %"));
  more_->body()->addWidget(make_row(tr("Align lines"), align_));
  letter_width_ = new QSpinBox;
  letter_width_->setObjectName(QStringLiteral("letterWidth"));
  set_range(letter_width_, "pieces[].lettering.letterWidth");
  letter_width_->setSuffix(tr(" % of the face's"));
  letter_width_->setToolTip(tr("Narrower or wider letters of the same height; strokes change with them"));
  more_->body()->addWidget(make_row(tr("Letter width"), letter_width_));
  more_->body()->addWidget(make_row(tr("Letter spacing"), spacing_));
  more_->body()->addWidget(make_row(tr("Line spacing"), line_spacing_));
  build_setting();

  const auto edit = [this](const QString& name, const std::function<void(Lettering&)>& change,
                           const QString& merge = {}) { edit_kind<Lettering>(name, change, merge); };
  connect(words_, &QPlainTextEdit::textChanged, this, [this] {
    if (filling_) return;
    shop_.document.edit(
        tr("change the words"),
        [this](Job& job) {
          Item* item = job.find(shop_.selected.toStdString());
          auto* l = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
          if (l == nullptr) return;
          // A piece that is called by its words goes on being called so.
          std::string& name = item->piece.name;
          const std::string was = name_of_words(l->words);
          l->words = words_->toPlainText().toStdString();
          const bool numbered =
              name.starts_with(was + " ") && name.find_first_not_of("0123456789", was.size() + 1) == std::string::npos;
          if (name != was && !numbered) return;
          name.clear();
          name = job.fresh_name(name_of_words(l->words));
        },
        QStringLiteral("words"));
  });
  connect(family_, &QComboBox::activated, this, [this, edit] {
    const std::string family = family_->currentText().toStdString();
    std::string style = style_->currentText().toStdString();
    if (is_single_line({family, style}) || !face_installed({family, style})) style = "Regular";
    edit(tr("change the face"), [&](Lettering& l) { l.face = {family, style}; });
  });
  connect(style_, &QComboBox::activated, this, [this, edit] {
    edit(tr("change the style"), [&](Lettering& l) { l.face.style = style_->currentText().toStdString(); });
  });
  connect(cap_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("change the cap height"), [&](Lettering& l) {
      l.cap_height = *mm;
      l.fit_width = false;
    });
  });
  connect(fit_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("fit the lettering to a width"), [&](Lettering& l) {
      l.fit_width = mm.has_value();
      if (mm) l.width = *mm;
    });
  });
  connect(align_, &QComboBox::activated, this,
          [edit](int i) { edit(tr("set the lines"), [&](Lettering& l) { l.align = static_cast<Align>(i); }); });
  connect(spacing_, &QSpinBox::valueChanged, this, [this, edit](int v) {
    edit(
        tr("change the letter spacing"), [&](Lettering& l) { l.letter_spacing = v; }, QStringLiteral("spacing"));
  });
  connect(letter_width_, &QSpinBox::valueChanged, this, [this, edit](int v) {
    edit(
        tr("change the letters' width"), [&](Lettering& l) { l.letter_width = v; }, QStringLiteral("letterWidth"));
  });
  connect(line_spacing_, &QSpinBox::valueChanged, this, [this, edit](int v) {
    edit(
        tr("change the line spacing"), [&](Lettering& l) { l.line_spacing = v; }, QStringLiteral("lines"));
  });
}

void LetteringSection::build_setting() {
  pair_ = new QComboBox;
  pair_by_ = spin(-200, 1000, tr(" %"));
  more_->body()->addWidget(make_row(tr("Extra space between"), pair_));
  more_->body()->addWidget(make_row(tr("by"), pair_by_));
  setting_ = new QComboBox;
  setting_->setObjectName(QStringLiteral("setting"));
  setting_->addItems(
      {tr("straight"), tr("curved upward"), tr("curved downward"), tr("along a piece"), tr("fitted inside a piece")});
  more_->body()->addWidget(make_row(tr("Shape of the line"), setting_));
  radius_ = new LengthField(from_least(1, "pieces[].lettering.arcRadius"));
  radius_->setObjectName(QStringLiteral("radius"));
  more_->body()->addWidget(make_row(tr("Radius"), radius_));
  way_ = new QComboBox;
  more_->body()->addWidget(make_row(tr("Piece"), way_));
  start_ = spin(0, 100, tr(" % of its way"));
  more_->body()->addWidget(make_row(tr("Middle at"), start_));
  margin_ = new LengthField(range_of("pieces[].lettering.insideMargin"));
  more_->body()->addWidget(make_row(tr("Margin"), margin_));
  margin_share_ = spin(0, 200, tr(" % of the words' height"));
  more_->body()->addWidget(make_row(tr("Margin"), margin_share_));
  by_share_ = new QCheckBox(tr("Margin as a share of the height"));
  more_->body()->addWidget(by_share_);
  thicken_ = new LengthField(range_of("pieces[].lettering.thicken"), true);
  thicken_->setPlaceholderText(tr("none"));
  thicken_->setToolTip(tr("Every stroke grows by this on each side, so that the bit reaches the thin ones"));
  thicken_->setObjectName(QStringLiteral("thicken"));
  more_->body()->addWidget(make_row(tr("Thickened by"), thicken_));
  stroke_ = new LengthField(range_of("pieces[].lettering.stroke"), true);
  stroke_->setPlaceholderText(tr("none: bit follows"));
  more_->body()->addWidget(make_row(tr("Line width"), stroke_));
  connect(pair_, &QComboBox::activated, this, [this] { refresh_again(); });
  connect(pair_by_, &QSpinBox::valueChanged, this, [this](int by) {
    const std::string pair = pair_->currentData().toString().toStdString();
    edit_kind<Lettering>(
        tr("space a pair of letters"),
        [&](Lettering& l) {
          if (by == 0)
            l.pairs.erase(pair);
          else
            l.pairs[pair] = by;
        },
        QStringLiteral("pair ") + pair_->currentText());
  });
  connect(setting_, &QComboBox::activated, this, [this](int how) {
    const doyen::Box b = box();
    const Item* own = shop_.item();
    std::string other;
    for (const Item& item : shop_.document.job().items) {
      if (own != nullptr && item.piece.id != own->piece.id && sources_of(item.piece).empty() && other.empty())
        other = item.piece.id;
    }
    if (how >= 3 && other.empty()) return refresh_again();
    shop_.edit_item(tr("set the words %1").arg(setting_->currentText()), [&](Item& item) {
      auto* l = std::get_if<Lettering>(&item.piece.what);
      if (l == nullptr) return;
      const bool was_elsewhere = !l->along.empty() || !l->inside.empty();
      l->along = how == 3 ? other : std::string();
      l->inside = how == 4 ? other : std::string();
      l->arc_below = how == 2;
      l->arc_radius = how == 1 || how == 2 ? std::max(20.0, b.width() * 0.8) : 0;
      // Along and inside another piece, its own place is only a shift.
      if (how >= 3) item.piece.at = {0, 0};
      if (how < 3 && was_elsewhere && !b.empty()) item.piece.at = b.centre();
    });
  });
  connect(radius_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the arc's radius"), [&](Lettering& l) { l.arc_radius = *mm; });
  });
  connect(way_, &QComboBox::activated, this, [this] {
    const std::string id = way_->currentData().toString().toStdString();
    edit_kind<Lettering>(tr("choose another piece"),
                         [&](Lettering& l) { (l.inside.empty() ? l.along : l.inside) = id; });
  });
  connect(start_, &QSpinBox::valueChanged, this, [this](int v) {
    edit_kind<Lettering>(
        tr("move along the piece"), [&](Lettering& l) { l.along_start = v / 100.0; }, QStringLiteral("start"));
  });
  connect(margin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the margin"), [&](Lettering& l) {
      l.inside_margin = *mm;
      l.inside_margin_share = false;
    });
  });
  connect(by_share_, &QCheckBox::clicked, this, [this](bool share) {
    const double height = box().height();
    edit_kind<Lettering>(tr("count the margin otherwise"), [&](Lettering& l) {
      if (l.inside_margin_share == share || height <= 0) return;
      l.inside_margin = share ? l.inside_margin / height * 100 : l.inside_margin / 100 * height;
      l.inside_margin_share = share;
    });
  });
  connect(margin_share_, &QSpinBox::valueChanged, this, [this](int v) {
    edit_kind<Lettering>(
        tr("change the margin"), [&](Lettering& l) { l.inside_margin = v; }, QStringLiteral("margin"));
  });
  connect(thicken_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("thicken the strokes"), [&](Lettering& l) { l.thicken = mm.value_or(0); });
  });
  connect(stroke_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_kind<Lettering>(tr("change the line width"), [&](Lettering& l) { l.stroke = mm.value_or(0); });
  });
}

void LetteringSection::focus_words() {
  words_->setFocus();
  words_->selectAll();
}

void LetteringSection::show_summary(const Lettering& l) {
  QStringList set{setting_->currentText()};
  if (l.thicken > 0) set << tr("thickened");
  if (l.letter_width < 100) set << tr("narrower");
  if (l.letter_width > 100) set << tr("wider");
  if (!l.pairs.empty()) set << tr("pairs spaced");
  more_->set_summary(set.join(QStringLiteral(", ")));
}

void LetteringSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const auto& l = std::get<Lettering>(item.piece.what);
  const LengthStyle& lengths = shop_.document.job().lengths;
  const QString text = QString::fromStdString(l.words);
  if (words_->toPlainText() != text) words_->setPlainText(text);
  listed_->refresh(item);
  const QString family = QString::fromStdString(l.face.family);
  if (family_->findText(family) < 0) family_->addItem(family);
  family_->setCurrentText(family);
  style_->clear();
  for (const InstalledFace& face : installed_faces()) {
    if (face.name.family == l.face.family) style_->addItem(QString::fromStdString(face.name.style));
  }
  if (style_->count() == 0) style_->addItem(QString::fromStdString(l.face.style));
  style_->setCurrentText(QString::fromStdString(l.face.style));
  cap_->show_length(l.cap_height, lengths);
  fit_->show_length(l.fit_width ? std::optional(l.width) : std::nullopt, lengths);
  align_->setCurrentIndex(static_cast<int>(l.align));
  spacing_->setValue(static_cast<int>(std::lround(l.letter_spacing)));
  letter_width_->setValue(static_cast<int>(std::lround(l.letter_width)));
  line_spacing_->setValue(static_cast<int>(std::lround(l.line_spacing)));
  const QString pair = pair_->currentData().toString();
  pair_->clear();
  for (qsizetype i = 0; i + 1 < text.size(); ++i) {
    const QString both = text.mid(i, 2);
    if (both.contains(QLatin1Char('\n')) || pair_->findData(both) >= 0) continue;
    const auto set = l.pairs.find(both.toStdString());
    pair_->addItem(tr("“%1” and “%2”").arg(both[0]).arg(both[1]) +
                       (set == l.pairs.end() ? QString() : QStringLiteral("  %1 %").arg(set->second)),
                   both);
  }
  pair_->setCurrentIndex(std::max(0, pair_->findData(pair)));
  const auto by = l.pairs.find(pair_->currentData().toString().toStdString());
  pair_by_->setValue(by == l.pairs.end() ? 0 : static_cast<int>(std::lround(by->second)));
  show_row(pair_, pair_->count() > 0);
  show_row(pair_by_, pair_->count() > 0);
  setting_->setCurrentIndex(!l.inside.empty() ? 4 : !l.along.empty() ? 3 : l.arc_radius <= 0 ? 0 : l.arc_below ? 2 : 1);
  radius_->show_length(l.arc_radius, lengths);
  fill_pieces(way_, l.inside.empty() ? l.along : l.inside);
  start_->setValue(static_cast<int>(std::lround(l.along_start * 100)));
  margin_->show_length(l.inside_margin, lengths);
  margin_share_->setValue(static_cast<int>(std::lround(l.inside_margin)));
  by_share_->setChecked(l.inside_margin_share);
  by_share_->setVisible(!l.inside.empty());
  show_row(margin_share_, !l.inside.empty() && l.inside_margin_share);
  thicken_->show_length(l.thicken > 0 ? std::optional(l.thicken) : std::nullopt, lengths);
  stroke_->show_length(l.stroke > 0 ? std::optional(l.stroke) : std::nullopt, lengths);
  show_row(radius_, setting_->currentIndex() == 1 || setting_->currentIndex() == 2);
  show_row(way_, setting_->currentIndex() >= 3);
  show_row(start_, setting_->currentIndex() == 3);
  show_row(margin_, setting_->currentIndex() == 4);
  show_row(stroke_, is_single_line(l.face));
  show_summary(l);
  cap_->setEnabled(l.inside.empty());
  fit_->setEnabled(l.inside.empty());
}

}  // namespace doyen
