#include "parts/ticket.hpp"

#include <QFrame>
#include <algorithm>
#include <set>

#include "parts/accept_dialog.hpp"
#include "parts/fold.hpp"
#include "parts/theme.hpp"
#include "verdicts/accepted.hpp"

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

VerdictCard* VerdictList::card_for(const Verdict& verdict) {
  auto* card = new VerdictCard(verdict, true);
  connect(card, &VerdictCard::remedy_taken, this, [this, remedies = verdict.remedies](const QString& label, int which) {
    const auto apply = remedies[static_cast<std::size_t>(which)].apply;
    if (apply) shop_.document.edit(label, apply);
  });
  connect(card, &VerdictCard::go_to, this, [this](const QString& where, double x, double y) {
    if (!where.isEmpty()) shop_.select(where);
    shop_.go_to({x, y});
  });
  connect(card, &VerdictCard::accept_wanted, this, [this, verdict] {
    AcceptDialog ask(verdict, window());
    if (ask.exec() != QDialog::Accepted) return;
    shop_.document.edit(tr("accept a warning, with its reason"),
                        [&](Job& job) { accept(job, acceptance_name(verdict), ask.reason().toStdString()); });
  });
  connect(card, &VerdictCard::take_back_wanted, this, [this, name = acceptance_name(verdict)] {
    shop_.document.edit(tr("accept it no longer"), [&](Job& job) { take_back_acceptance(job, name); });
  });
  return card;
}

// The first of them, and the others folded under it; a remedy that all offer in the same words is offered for all.
void VerdictList::add_folded(const std::vector<const Verdict*>& alike) {
  column_->addWidget(card_for(*alike.front()));
  for (const Remedy& remedy : alike.front()->remedies) {
    std::vector<std::function<void(Job&)>> each;
    std::set<std::string> pieces;
    for (const Verdict* v : alike) {
      const auto same = std::find_if(v->remedies.begin(), v->remedies.end(),
                                     [&](const Remedy& r) { return r.label == remedy.label && r.apply; });
      if (same == v->remedies.end()) break;
      each.push_back(same->apply);
      pieces.insert(v->piece);
    }
    if (each.size() < alike.size() || pieces.size() < 2) continue;
    const QString label = tr("All %1: %2").arg(pieces.size()).arg(QString::fromStdString(remedy.label));
    QPushButton* button = make_remedy_button(label);
    connect(button, &QPushButton::clicked, this, [this, each, label] {
      shop_.document.edit(label, [&](Job& job) {
        for (const auto& apply : each) apply(job);
      });
    });
    column_->addWidget(button, 0, Qt::AlignLeft);
  }
  auto* more = new Fold(tr("%1 more places like it").arg(alike.size() - 1), {});
  more->setObjectName(QStringLiteral("moreLikeIt"));
  for (std::size_t k = 1; k < alike.size(); ++k) more->body()->addWidget(card_for(*alike[k]));
  column_->addWidget(more);
}

// Those to be mended at one stage, where not all of them are.
void VerdictList::add_stages(QComboBox* box, const std::vector<Verdict>& all) {
  const std::pair<MendedIn, QString> stages[] = {{MendedIn::Blank, tr("to be mended under Blank")},
                                                 {MendedIn::Artwork, tr("to be mended under Artwork")},
                                                 {MendedIn::Cuts, tr("to be mended under Cuts")},
                                                 {MendedIn::Run, tr("to be mended under Run")}};
  for (const auto& [stage, words] : stages) {
    const auto count =
        std::count_if(all.begin(), all.end(), [&, in = stage](const Verdict& v) { return mended_in(v) == in; });
    if (count == 0 && only_in_ == stage) only_in_.reset();
    if (count == 0 || count == static_cast<std::ptrdiff_t>(all.size())) continue;
    box->addItem(tr("%1 (%2)").arg(words).arg(count), static_cast<int>(stage));
    if (only_in_ == stage) box->setCurrentIndex(box->count() - 1);
  }
}

// Where there are many of several pieces, those of one can be looked at alone.
void VerdictList::add_choice_of_piece(const std::vector<Verdict>& all) {
  constexpr std::size_t kMany = 5;
  std::vector<std::string> pieces;  // gravest first, as the verdicts stand
  for (const Verdict& v : all) {
    if (std::find(pieces.begin(), pieces.end(), v.piece) == pieces.end()) pieces.push_back(v.piece);
  }
  if (only_ && std::find(pieces.begin(), pieces.end(), *only_) == pieces.end()) only_.reset();
  if (pieces.size() < 2 || all.size() < kMany) {
    only_in_.reset();
    return only_.reset();
  }
  auto* box = new QComboBox;
  box->setObjectName(QStringLiteral("verdictsOf"));
  box->addItem(tr("all of them (%1)").arg(all.size()));
  for (const std::string& id : pieces) {
    const Item* item = shop_.seen()->job.find(id);
    const auto count = std::count_if(all.begin(), all.end(), [&](const Verdict& v) { return v.piece == id; });
    const QString name =
        item == nullptr ? tr("the whole job") : tr("“%1”").arg(QString::fromStdString(item->piece.name));
    box->addItem(tr("%1 (%2)").arg(name).arg(count), QString::fromStdString(id));
    if (only_ == id) box->setCurrentIndex(box->count() - 1);
  }
  add_stages(box, all);
  column_->addWidget(make_row(tr("Shown are"), box));
  connect(box, &QComboBox::activated, this, [this, box](int row) {
    const QVariant chosen = box->currentData();
    const bool stage = chosen.typeId() == QMetaType::Int;
    only_in_ = stage ? std::optional(static_cast<MendedIn>(chosen.toInt())) : std::nullopt;
    only_ = row == 0 || stage ? std::nullopt : std::optional(chosen.toString().toStdString());
    // The box itself is made anew by that.
    QMetaObject::invokeMethod(
        this, [this] { show_for({}, true); }, Qt::QueuedConnection);
  });
}

bool VerdictList::chosen(const Verdict& verdict) const {
  return (!only_ || verdict.piece == *only_) && (!only_in_ || mended_in(verdict) == *only_in_);
}

// Those that are wanted, and what they say: another key for anything else to be shown.
std::vector<const Verdict*> VerdictList::wanted(const std::string& piece, bool all, std::string& key) const {
  std::vector<const Verdict*> shown;
  key = (all ? "all" : piece) + (shop_.judged ? "" : "?");
  if (all && only_) key += "only " + *only_;
  if (all && only_in_) key += "only in " + std::to_string(static_cast<int>(*only_in_));
  for (const Verdict& v : shop_.seen()->verdicts) {
    if (!all && v.piece != piece) continue;
    if (all && !chosen(v)) {
      key += "|" + v.code + v.piece;  // it counts in the choice
      continue;
    }
    shown.push_back(&v);
    key += "|" + v.code + v.text + v.why;
    for (const Remedy& r : v.remedies) key += r.label;
  }
  return shown;
}

void VerdictList::show_for(const QString& piece, bool all) {
  if (!shop_.plan) return;
  std::string key;
  const std::vector<const Verdict*> shown = wanted(piece.toStdString(), all, key);
  if (key == shown_) return;  // nothing new: a button under the mouse stays where it is
  shown_ = key;
  clear_layout(column_);
  if (all) {
    const auto was = std::pair(only_, only_in_);
    add_choice_of_piece(shop_.seen()->verdicts);
    if (was != std::pair(only_, only_in_)) return show_for(piece, true);  // there are none of those any more
  }
  // Three and more of one kind are one with so many places.
  constexpr std::size_t kFolded = 3;
  std::vector<char> placed(shown.size(), 0);
  for (std::size_t i = 0; i < shown.size(); ++i) {
    if (placed[i] != 0) continue;
    std::vector<const Verdict*> alike;
    for (std::size_t k = i; k < shown.size(); ++k) {
      if (shown[k]->code == shown[i]->code && shown[k]->grade == shown[i]->grade) alike.push_back(shown[k]);
    }
    if (alike.size() < kFolded) {
      column_->addWidget(card_for(*shown[i]));
      continue;
    }
    for (std::size_t k = i; k < shown.size(); ++k) {
      if (shown[k]->code == alike.front()->code && shown[k]->grade == alike.front()->grade) placed[k] = 1;
    }
    add_folded(alike);
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
