#include "bench/hands/all.hpp"
#include "job/layout.hpp"
#include "job/size_sign.hpp"
#include "measure/length.hpp"
#include "parts/flow_layout.hpp"
#include "problem.hpp"
#include "stages/artwork/artwork_sections.hpp"

namespace doyen {

PlaceSection::PlaceSection(Workshop& shop) : ArtworkSection(shop) {
  column_->addWidget(make_line());
  build_several();
  single_ = new Fold(tr("Name, place and size"), QStringLiteral("placeMore"), true);
  QVBoxLayout* rows = single_->body();
  column_->addWidget(single_);
  name_ = new TextField(check_name);
  name_->setObjectName(QStringLiteral("pieceName"));
  rows->addWidget(make_row(tr("Called"), name_));
  fields_ = new PlaceFields(shop_, this);
  fields_->left->setObjectName(QStringLiteral("fromLeft"));
  rows->addWidget(make_row(tr("From left"), fields_->left));
  rows->addWidget(make_row(tr("From front"), fields_->front));
  rows->addWidget(make_row(tr("Over all width"), fields_->wide));
  rows->addWidget(make_row(tr("Over all height"), fields_->high));
  rows->addWidget(make_row(tr("Turned by"), fields_->turn));
  build_measure();
  round_margin_ = new LengthField({0, 5000});
  round_margin_->setObjectName(QStringLiteral("roundMargin"));
  round_margin_->setToolTip(tr("As large as leaves this on every side, in the middle of the board (Ctrl+Shift+M)"));
  rows->addWidget(make_row(tr("Equal margins of"), round_margin_));
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  struct Action {
    QString text, tip;
    int which;
  };
  const Action actions[] = {
      {tr("Centre across"), tr("Into the middle between left and right (Ctrl+Shift+C)"), 0},
      {tr("Centre front–back"), tr("Into the middle between front and back"), 1},
      {tr("Centre by eye"),
       tr("Its wood to remove lies evenly about the board's middle: what the eye takes for centred"), 6},
      {tr("To left margin"), {}, 2},
      {tr("To right margin"), {}, 3},
      {tr("To front margin"), {}, 4},
      {tr("To back margin"), {}, 5}};
  for (const Action& action : actions) {
    auto* button = add_button(flow, action.text, QStringLiteral("align%1").arg(action.which));
    button->setToolTip(action.tip);
    connect(button, &QPushButton::clicked, this, [this, action] {
      const doyen::Box b = box();
      if (b.empty()) return;
      const Blank& blank = shop_.document.job().blank;
      Point by;
      switch (action.which) {
        case 0:
          by.x = blank.width / 2 - b.centre().x;
          break;
        case 1:
          by.y = blank.height / 2 - b.centre().y;
          break;
        case 2:
          by.x = blank.margin - b.left;
          break;
        case 3:
          by.x = blank.width - blank.margin - b.right;
          break;
        case 4:
          by.y = blank.margin - b.bottom;
          break;
        case 6:
          by = blank.box().centre() - centroid(outlines_of(shop_.item()->piece, shop_.document.job().source()).region);
          break;
        default:
          by.y = blank.height - blank.margin - b.top;
          break;
      }
      shop_.document.edit(action.text, [&](Job& job) { job.shift(shop_.selected.toStdString(), by); });
    });
  }
  rows->addWidget(holder);
  auto* second = new QWidget;
  auto* row = new FlowLayout(second, 6);
  connect(add_button(row, tr("Duplicate"), QStringLiteral("copyPiece")), &QPushButton::clicked, this,
          &PlaceSection::copy_piece);
  connect(add_button(row, tr("Remove it"), QStringLiteral("removePiece")), &QPushButton::clicked, this,
          &PlaceSection::remove_piece);
  rows->addWidget(second);

  connect(round_margin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("equal margins"), [&](Job& job) { fill_board(job, shop_.selected.toStdString(), *mm); });
  });
  connect(name_, &TextField::entered, this, [this](const QString& words) {
    if (!filling_) shop_.edit_item(tr("name a piece"), [&](Item& item) { item.piece.name = words.toStdString(); });
  });
}

void PlaceSection::build_measure() {
  QVBoxLayout* rows = single_->body();
  measure_ = new QPushButton(tr("Size it by a length you know…"));
  measure_->setObjectName(QStringLiteral("measure"));
  rows->addWidget(measure_, 0, Qt::AlignLeft);
  measured_row_ = new QWidget;
  auto* column = new QVBoxLayout(measured_row_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  measured_ = make_label({}, "faded");
  column->addWidget(measured_);
  sized_ = new QComboBox;
  sized_->setObjectName(QStringLiteral("sizedWithIt"));
  sized_->addItems({tr("what is chosen"), tr("the whole sign"), tr("the whole sign and its depths")});
  sized_->setToolTip(
      tr("The whole sign: board, artwork, margins and seams in shares of this length. Wood, bits and "
         "screws stay as they are."));
  sized_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  column->addWidget(make_row(tr("Sized with it"), sized_));
  real_ = new LengthField({0.1, 20'000});
  real_->setObjectName(QStringLiteral("realLength"));
  column->addWidget(make_row(tr("It should be"), real_));
  measured_row_->hide();
  rows->addWidget(measured_row_);
  connect(measure_, &QPushButton::clicked, this, [this] {
    shop_.bench->measure().set_active(true);
    shop_.bench->setFocus();
  });
  connect(real_, &LengthField::entered, this, [this](std::optional<double> mm) {
    const double k = *mm / distance(from_, to_);
    const Point fixed = from_;
    std::vector<std::string> ids;
    for (const QString& id : shop_.chosen()) ids.push_back(id.toStdString());
    shop_.bench->measure().set_active(false);
    measured_row_->hide();
    const int what = sized_->currentIndex();
    shop_.document.edit(what == 0 ? tr("size by a known length") : tr("size the whole sign"),
                        [&](Job& job) { what == 0 ? scale_layout(job, ids, k, fixed) : size_sign(job, k, what == 2); });
  });
}

void PlaceSection::show_measured(Point from, Point to) {
  if (shop_.item() == nullptr) return;
  from_ = from;
  to_ = to;
  measured_->setText(tr("From one point to the other it measures %1 now.").arg(shop_.show(distance(from, to))));
  real_->show_length(distance(from, to), shop_.document.job().lengths);
  sized_->setCurrentIndex(0);
  measured_row_->show();
  real_->setFocus();
  real_->selectAll();
}

void PlaceSection::build_several() {
  several_ = new QWidget;
  auto* column = new QVBoxLayout(several_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  several_say_ = make_label({}, "faded");
  column->addWidget(several_say_);
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  const auto ids = [this] { return shop_.chosen_ids(); };
  const std::pair<QString, LineUp> ways[] = {
      {tr("Left edges"), LineUp::Left},   {tr("Middles ↕"), LineUp::Middle},       {tr("Right edges"), LineUp::Right},
      {tr("Front edges"), LineUp::Front}, {tr("Middles ↔"), LineUp::MiddleAcross}, {tr("Back edges"), LineUp::Back}};
  for (const auto& [text, way] : ways) {
    connect(add_button(flow, text, QStringLiteral("lineUp%1").arg(static_cast<int>(way))), &QPushButton::clicked, this,
            [this, ids, text = text, way = way] {
              shop_.document.edit(tr("line up: %1").arg(text), [&](Job& job) { line_up(job, ids(), way); });
            });
  }
  for (const bool across : {true, false}) {
    auto* button = add_button(flow, across ? tr("Equal gaps →") : tr("Equal gaps ↑"),
                              across ? QStringLiteral("gapsAcross") : QStringLiteral("gapsBack"));
    button->setToolTip(across ? tr("Left to right (Ctrl+Shift+G); three pieces or more, or a gap by number")
                              : tr("Front to back (Ctrl+Shift+V); three pieces or more, or a gap by number"));
    connect(button, &QPushButton::clicked, this, [this, ids, across] {
      const std::optional<double> gap = gap_->length();
      shop_.document.edit(tr("equal gaps"), [&](Job& job) { space_out(job, ids(), across, gap); });
    });
  }
  column->addWidget(holder);
  gap_ = new LengthField({0, 5000}, true);
  gap_->setObjectName(QStringLiteral("gap"));
  gap_->setPlaceholderText(tr("shared out evenly"));
  column->addWidget(make_row(tr("Gap"), gap_));
  all_wide_ = new LengthField({0.5, 20'000});
  all_wide_->setObjectName(QStringLiteral("allWide"));
  all_high_ = new LengthField({0.5, 20'000});
  column->addWidget(make_row(tr("All, width"), all_wide_));
  column->addWidget(make_row(tr("All, height"), all_high_));
  column_->addWidget(several_);
  connect(all_wide_, &LengthField::entered, this, [this](std::optional<double> mm) { fields_->make_wide(*mm); });
  connect(all_high_, &LengthField::entered, this, [this](std::optional<double> mm) { fields_->make_high(*mm); });
}

void PlaceSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const Job& job = shop_.document.job();
  const QStringList chosen = shop_.chosen();
  several_->setVisible(chosen.size() > 1);
  single_->setVisible(chosen.size() <= 1);
  if (chosen.size() > 1) {
    several_say_->setText(tr("%1 pieces chosen (Shift and click adds). Lined up with “%2”; all move together.")
                              .arg(chosen.size())
                              .arg(QString::fromStdString(item.piece.name)));
    const doyen::Box all = shop_.bench->chosen_box();
    all_wide_->show_length(all.width(), job.lengths);
    all_high_->show_length(all.height(), job.lengths);
  }
  name_->show_text(QString::fromStdString(item.piece.name));
  const doyen::Box b = box();
  fields_->show(item);
  const bool own_size = fields_->sized_as_a_whole(item);
  show_row(fields_->wide, own_size);
  show_row(fields_->high, own_size);
  const auto* shape = std::get_if<PlainShape>(&item.piece.what);
  measure_->setVisible(own_size || (shape != nullptr && shape->shares_of.empty()));
  if (!shop_.bench->measure().active()) measured_row_->hide();
  const Blank& board = job.blank;
  round_margin_->show_length(
      b.empty() ? 0 : std::max(0.0, std::min({b.left, b.bottom, board.width - b.right, board.height - b.top})),
      job.lengths);
}

}  // namespace doyen
