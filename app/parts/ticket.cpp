#include "parts/ticket.hpp"

#include <QFrame>

#include "parts/theme.hpp"

namespace doyen {

void Workshop::edit_item(const QString& name, const std::function<void(Item&)>& change, const QString& merge) const {
  const std::string id = selected.toStdString();
  document.edit(
      name,
      [&](Job& job) {
        if (Item* it = job.find(id)) change(*it);
      },
      merge);
}

std::vector<std::string> Workshop::chosen_ids() const {
  std::vector<std::string> ids;
  for (const QString& id : chosen()) ids.push_back(id.toStdString());
  return ids;
}

QStringList Workshop::chosen_alike() const {
  QStringList alike;
  const Item* own = item();
  for (const QString& id : chosen()) {
    const Item* other = document.job().find(id.toStdString());
    if (own != nullptr && other != nullptr && other->cut.kind == own->cut.kind) alike << id;
  }
  return alike;
}

void Workshop::edit_cuts(const QString& name, const std::function<void(Item&)>& change, Of which,
                         const QString& merge) const {
  const QStringList ids = which == Of::All ? chosen() : chosen_alike();
  document.edit(
      ids.size() > 1 ? Ticket::tr("%1, for %2 pieces").arg(name).arg(ids.size()) : name,
      [&](Job& job) {
        for (const QString& id : ids) {
          if (Item* it = job.find(id.toStdString())) change(*it);
        }
      },
      merge);
}

void show_row(QWidget* field, bool shown) { field->parentWidget()->setVisible(shown); }

Ticket::Ticket(Workshop& shop, QWidget* parent) : QScrollArea(parent), shop_(shop) {
  setWidgetResizable(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFocusPolicy(Qt::NoFocus);
  auto* inner = new QWidget;
  column_ = new QVBoxLayout(inner);
  column_->setContentsMargins(18, 14, 16, 16);
  column_->setSpacing(7);
  setWidget(inner);
}

// Long words (a folder's path) wrap where they must; they never push the sheet wider than its place.
void Ticket::resizeEvent(QResizeEvent* event) {
  QScrollArea::resizeEvent(event);
  widget()->setMaximumWidth(viewport()->width());
}

QLabel* Ticket::add_title(const QString& text) {
  auto* label = make_label(text, "title");
  column_->addWidget(label);
  return label;
}

QLabel* Ticket::add_heading(const QString& text) {
  auto* label = make_label(text, "heading");
  column_->addSpacing(4);
  column_->addWidget(label);
  return label;
}

QWidget* Ticket::add_row(const QString& label, QWidget* field) {
  QWidget* row = make_row(label, field);
  column_->addWidget(row);
  return row;
}

void Ticket::add_rule() {
  column_->addSpacing(3);
  column_->addWidget(make_line());
  column_->addSpacing(3);
}

void Ticket::show_pending() {
  const bool current = shop_.current(), known = shop_.known();
  for (NumberCard* card : findChildren<NumberCard*>()) show_faded(card, !current);
  for (VerdictList* list : findChildren<VerdictList*>()) show_faded(list, !known);
  for (QWidget* words : judged_words_) show_faded(words, !known);
}

VerdictList::VerdictList(Workshop& shop, QWidget* parent) : QWidget(parent), shop_(shop) {
  column_ = new QVBoxLayout(this);
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(2);
}

void VerdictList::show_for(const QString& piece, bool all) {
  if (!shop_.plan) return;
  const std::string id = piece.toStdString();
  std::vector<std::pair<std::size_t, const Verdict*>> shown;
  std::string key = (all ? "all" : id) + (shop_.judged ? "" : "?");
  for (std::size_t i = 0; i < shop_.seen()->verdicts.size(); ++i) {
    const Verdict& v = shop_.seen()->verdicts[i];
    if (!all && v.piece != id) continue;
    shown.emplace_back(i, &v);
    key += "|" + v.code + v.text + v.why;
    for (const Remedy& r : v.remedies) key += r.label;
  }
  if (key == shown_) return;  // nothing new: a button under the mouse stays where it is
  shown_ = key;
  clear_layout(column_);
  for (const auto& [index, verdict] : shown) {
    auto* card = new VerdictCard(*verdict);
    const auto remedies = verdict->remedies;
    connect(card, &VerdictCard::remedy_taken, this, [this, remedies](const QString& label, int which) {
      const auto apply = remedies[static_cast<std::size_t>(which)].apply;
      if (apply) shop_.document.edit(label, apply);
    });
    connect(card, &VerdictCard::go_to, this, [this](const QString& where, double x, double y) {
      if (!where.isEmpty()) shop_.select(where);
      shop_.go_to({x, y});
    });
    column_->addWidget(card);
  }
  if (shown.empty() && !shop_.judged) {
    column_->addWidget(make_label(tr("The files are being looked at…"), "faded"));
  } else if (shown.empty()) {
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 2, 0, 2);
    auto* lamp = new QLabel;
    lamp->setPixmap(lamp_picture(Lamp::Fine, 15, devicePixelRatioF()));
    layout->addWidget(lamp);
    layout->addWidget(make_label(tr("No problems found."), "plain"), 1);
    column_->addWidget(row);
  }
}

}  // namespace doyen
