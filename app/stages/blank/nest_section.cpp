#include "stages/blank/nest_section.hpp"

#include "nesting/nest.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

// The boards of such a job in words: how many parts lie on each, and how much of their wood that is.
QStringList laid_in_words(const Nested& laid) {
  QStringList lines;
  for (std::size_t i = 0; i < laid.boards.size(); ++i) lines << QString::fromStdString(board_in_words(laid, i));
  constexpr int kMostLines = 6;
  if (lines.size() > kMostLines) {
    const int more = static_cast<int>(lines.size()) - kMostLines;
    lines = lines.mid(0, kMostLines);
    lines << NestSection::tr("and %1 boards more").arg(more);
  }
  if (!laid.without.empty()) lines << NestSection::tr("Parts that no board has room for: %1").arg(laid.without.size());
  return lines;
}

}  // namespace

NestSection::NestSection(Workshop& shop) : Fold(tr("Parts on boards"), QStringLiteral("nestOpen")), shop_(shop) {
  about_ = make_label({}, "plain");
  about_->setObjectName(QStringLiteral("nestAbout"));
  body()->addWidget(about_);
  wanted_ = new QCheckBox(tr("Lay the parts close together"));
  wanted_->setObjectName(QStringLiteral("nestWanted"));
  wanted_->setToolTip(
      tr("Each outline that is cut out is a part, with all that lies in it. The drawing stays as it is."));
  body()->addWidget(wanted_);
  connect(wanted_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("lay the parts close together") : tr("cut the board as it is drawn"),
         [on](NestChoices& nest) { nest.wanted = on; });
  });
  inside_ = new QWidget;
  column_ = new QVBoxLayout(inside_);
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(7);
  body()->addWidget(inside_);
  build_boards();
  build_room();
  connect(this, &Fold::opened, this, &NestSection::refresh);
}

void NestSection::edit(const QString& name, const std::function<void(NestChoices&)>& change) {
  if (!filling_) shop_.document.edit(name, [&](Job& job) { change(job.nest); });
}

void NestSection::build_boards() {
  boards_ = new TextField([this](const QString& words) {
    (void)parse_nest_boards(words.toStdString(), shop_.document.job().lengths.unit);
  });
  boards_->setObjectName(QStringLiteral("nestBoards"));
  boards_->setPlaceholderText(tr("as many of this one as are needed"));
  boards_->setToolTip(
      tr("How many, left to right, front to back, with ; between them, such as 2 × 1200 × 600; 800 × 300. Their grain "
         "runs as this board's does. Left empty: this board again and again."));
  column_->addWidget(make_row(tr("Boards there are"), boards_));
  connect(boards_, &TextField::entered, this, [this](const QString& words) {
    edit(tr("say which boards there are"), [&](NestChoices& nest) {
      nest.boards = parse_nest_boards(words.toStdString(), shop_.document.job().lengths.unit);
    });
  });
  // What stands in the list already comes first.
  off_cuts_ = new OffCutsButton(
      shop_, "nestOffCuts", [] { return 0.0; },
      [this](const std::vector<OffCutsButton::Sides>& sides) {
        edit(tr("take the off-cuts"), [&](NestChoices& nest) {
          for (const OffCutsButton::Sides& one : sides) nest.boards.push_back({one.width, one.height});
        });
      });
  column_->addWidget(off_cuts_);
}

LengthField* NestSection::length(const QString& label, const char* key, const char* name, const QString& says,
                                 double NestChoices::*member) {
  auto* field = new LengthField(range_of(key));
  field->setObjectName(QLatin1String(name));
  column_->addWidget(make_row(label, field));
  connect(field, &LengthField::entered, this, [this, says, member](std::optional<double> mm) {
    if (mm) edit(says, [&](NestChoices& nest) { nest.*member = *mm; });
  });
  return field;
}

void NestSection::build_room() {
  gap_ = length(tr("Between slits"), "nest.gap", "nestGap", tr("change the wood between parts"), &NestChoices::gap);
  gap_->setToolTip(tr("Wood that stays between two parts' slits"));
  margin_ = length(tr("To the edge"), "nest.margin", "nestMargin", tr("change the wood at the boards' edges"),
                   &NestChoices::margin);
  margin_->setToolTip(tr("Wood that stays between a slit and the board's edge, a clamp or a fault"));
  turn_ = new QComboBox;
  turn_->setObjectName(QStringLiteral("nestTurn"));
  turn_->addItems({tr("not at all"), tr("by half a turn"), tr("any way")});
  turn_->setToolTip(
      tr("By half a turn the grain runs along each part as it is drawn; any way is for boards without grain"));
  turn_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  column_->addWidget(make_row(tr("Parts are turned"), turn_));
  connect(turn_, &QComboBox::activated, this, [this](int i) {
    edit(tr("turn parts otherwise"), [i](NestChoices& nest) { nest.turn = static_cast<NestChoices::Turn>(i); });
  });
  made_ = make_label({}, "plain");
  made_->setObjectName(QStringLiteral("nestMade"));
  column_->addWidget(made_);
  look_ = new QPushButton(tr("Look at the boards…"));
  look_->setObjectName(QStringLiteral("seeNest"));
  column_->addWidget(look_, 0, Qt::AlignLeft);
  connect(look_, &QPushButton::clicked, this, &NestSection::boards_wanted);
}

void NestSection::lay_out() {
  const Job& job = shop_.document.job();
  if (!job.made_as_parts() || !open()) return;
  if (job == laid_out_) return;
  laid_out_ = job;
  waiting_ = true;
  made_->setText(tr("The parts are being laid out…"));
  behind_.start(
      [this, job, rack = shop_.rack](const Cancel& cancel, const Behind::Tell& tell) {
        const Cancel::Scope stops(cancel);
        QString words;
        try {
          words = laid_in_words(nested(job, rack)).join(QLatin1Char('\n'));
        } catch (const Problem& problem) {
          words = QString::fromUtf8(problem.what());
        }
        tell([this, words] { made_->setText(words); });
      },
      [this](bool) { waiting_ = false; });
}

void NestSection::refresh() {
  filling_ = true;
  off_cuts_->forget();
  const Job& job = shop_.document.job();
  const NestChoices& nest = job.nest;
  const bool otherwise = job.plates.there() || job.panels.there();
  about_->setText(
      job.plates.there()   ? tr("A list makes plates of this board.")
      : job.panels.there() ? tr("Seams part this board into panels.")
      : nest.wanted
          ? tr("This is how the parts are drawn. The boards that they are laid on are cut.")
          : tr("Cut-out letters and shapes, laid on boards by their true outlines, so that little wood is lost."));
  wanted_->setVisible(!otherwise);
  wanted_->setChecked(nest.wanted);
  inside_->setVisible(nest.wanted && !otherwise);
  boards_->show_text(QString::fromStdString(nest_boards_in_words(nest.boards, job.lengths)));
  if (!boards_->hasFocus()) boards_->setCursorPosition(0);
  gap_->show_length(nest.gap, job.lengths);
  margin_->show_length(nest.margin, job.lengths);
  turn_->setCurrentIndex(static_cast<int>(nest.turn));
  set_summary(!nest.wanted || otherwise ? tr("none")
              : nest.boards.empty()     ? tr("on this board")
                                        : tr("boards: %1").arg(nest.boards.size()));
  filling_ = false;
  lay_out();
}

}  // namespace doyen
