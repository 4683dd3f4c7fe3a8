#include "stages/artwork/listed_section.hpp"

#include <QMenu>

#include "plates/plates.hpp"

namespace doyen {

ListedSection::ListedSection(Workshop& shop) : ArtworkSection(shop) {
  const auto edit = [this](const QString& name, const std::function<void(Lettering&)>& change) {
    edit_kind<Lettering>(name, change);
  };
  column_of_ = new QComboBox;
  column_of_->setObjectName(QStringLiteral("fromColumn"));
  column_of_->setToolTip(tr("Where the words on each plate come from; what stands above is an example then"));
  column_->addWidget(make_row(tr("Words come"), column_of_));
  swap_ = new QPushButton(tr("Swap columns with"));
  swap_->setObjectName(QStringLiteral("swapColumns"));
  swap_->setToolTip(tr("Where two columns were taken for each other: all plates are made anew in one step"));
  swap_->setMenu(new QMenu(swap_));
  column_->addWidget(swap_, 0, Qt::AlignLeft);
  room_ = new LengthField(from_least(1, "pieces[].lettering.list.room"), true);
  room_->setObjectName(QStringLiteral("listRoom"));
  room_->setPlaceholderText(tr("the plate within its margin"));
  column_->addWidget(make_row(tr("Room for them"), room_));
  least_ = new LengthField(from_least(0.1, "pieces[].lettering.list.leastCapHeight"), true);
  least_->setObjectName(QStringLiteral("listLeast"));
  least_->setPlaceholderText(tr("never smaller"));
  least_->setToolTip(tr("The least cap height that long entries may be set at"));
  column_->addWidget(make_row(tr("Long ones down to"), least_));
  narrow_ = new QComboBox;
  narrow_->setObjectName(QStringLiteral("listNarrow"));
  narrow_->setToolTip(tr("How narrow, of the face's own width, the letters of what is too long even so are set"));
  column_->addWidget(make_row(tr("Then narrower"), narrow_));
  connect(narrow_, &QComboBox::activated, this, [this, edit] {
    const double narrowest = narrow_->currentData().toDouble();
    edit(tr("change how narrow long entries are set"), [&](Lettering& l) { l.list.narrowest = narrowest; });
  });
  two_lines_ = new QCheckBox(tr("Then in two lines"));
  two_lines_->setObjectName(QStringLiteral("listTwoLines"));
  column_->addWidget(two_lines_);
  one_size_ = new QCheckBox(tr("All as small as the longest needs"));
  one_size_->setObjectName(QStringLiteral("listOneSize"));
  column_->addWidget(one_size_);
  connect(column_of_, &QComboBox::activated, this, [this, edit] {
    const std::string heading = column_of_->currentData().toString().toStdString();
    edit(heading.empty() ? tr("take the words as typed") : tr("take the words from the list"),
         [&](Lettering& l) { l.list.column = heading; });
  });
  connect(room_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("change the room for the words"), [&](Lettering& l) { l.list.room = mm.value_or(0); });
  });
  connect(least_, &LengthField::entered, this, [edit](std::optional<double> mm) {
    edit(tr("change how small long entries are set"), [&](Lettering& l) { l.list.least = mm.value_or(0); });
  });
  connect(two_lines_, &QCheckBox::clicked, this, [edit](bool on) {
    edit(on ? tr("break long entries into two lines") : tr("keep entries in one line"),
         [on](Lettering& l) { l.list.two_lines = on; });
  });
  connect(one_size_, &QCheckBox::clicked, this, [edit](bool on) {
    edit(on ? tr("set all entries in one size") : tr("set only long entries smaller"),
         [on](Lettering& l) { l.list.one_size = on; });
  });
}

// Letterings that take their words from another column.
void ListedSection::list_others(const Item& item) {
  swap_->menu()->clear();
  const std::string& own = std::get<Lettering>(item.piece.what).list.column;
  for (const Item& other : shop_.document.job().items) {
    const auto* words = std::get_if<Lettering>(&other.piece.what);
    if (words == nullptr || own.empty() || words->list.column.empty() || words->list.column == own) continue;
    const QString name = QString::fromStdString(other.piece.name);
    connect(swap_->menu()->addAction(tr("“%1”, from “%2”").arg(name, QString::fromStdString(words->list.column))),
            &QAction::triggered, this, [this, one = item.piece.id, two = other.piece.id] {
              shop_.document.edit(tr("swap two columns"), [&](Job& job) { swap_columns(job, one, two); });
            });
  }
  swap_->setVisible(!swap_->menu()->isEmpty());
}

void ListedSection::refresh(const Item& item) {
  const Filling guard(filling_);
  const Job& job = shop_.document.job();
  const auto& l = std::get<Lettering>(item.piece.what);
  const FromList& list = l.list;
  setVisible(job.plates.there() || !list.column.empty());
  column_of_->clear();
  column_of_->addItem(tr("as typed"), QString());
  for (const std::string& heading : job.plates.columns)
    column_of_->addItem(tr("from “%1”").arg(QString::fromStdString(heading)), QString::fromStdString(heading));
  const QString own = QString::fromStdString(list.column);
  if (column_of_->findData(own) < 0) column_of_->addItem(tr("from “%1”, which is not there").arg(own), own);
  column_of_->setCurrentIndex(column_of_->findData(own));
  list_others(item);
  room_->show_length(list.room > 0 ? std::optional(list.room) : std::nullopt, job.lengths);
  least_->show_length(list.least > 0 ? std::optional(list.least) : std::nullopt, job.lengths);
  narrow_->clear();
  narrow_->addItem(tr("never"), 0.0);
  for (const double share : {90.0, 80.0, 70.0, 60.0, 50.0}) narrow_->addItem(tr("down to %1 %").arg(share), share);
  if (narrow_->findData(list.narrowest) < 0) narrow_->addItem(tr("down to %1 %").arg(list.narrowest), list.narrowest);
  narrow_->setCurrentIndex(narrow_->findData(list.narrowest));
  two_lines_->setChecked(list.two_lines);
  one_size_->setChecked(list.one_size);
  const bool ruled = !list.column.empty() && l.along.empty() && l.inside.empty() && !l.fit_width;
  for (LengthField* field : {room_, least_}) show_row(field, ruled);
  show_row(narrow_, ruled);
  two_lines_->setVisible(ruled);
  one_size_->setVisible(ruled);
}

}  // namespace doyen
