#include "stages/proof/weak_section.hpp"

#include <QPushButton>
#include <algorithm>

#include "bench/bench.hpp"
#include "parts/cards.hpp"

namespace doyen {
namespace {

constexpr std::size_t kListed = 8;

}  // namespace

WeakSection::WeakSection(Workshop& shop) : Fold(tr("Where it is weak"), QStringLiteral("weakOpen")), shop_(shop) {
  body()->setSpacing(4);
  about_ = make_label({}, "faded");
  about_->setObjectName(QStringLiteral("weakAbout"));
  body()->addWidget(about_);
  places_ = new QVBoxLayout;
  places_->setSpacing(2);
  body()->addLayout(places_);
  set_summary(tr("necks, points, thin walls and skins"));
  connect(this, &Fold::opened, this, &WeakSection::refresh);
  connect(this, &Fold::closed, this, &WeakSection::refresh);
}

void WeakSection::refresh() {
  if (!open()) {
    behind_.stop();
    waiting_ = false;
    of_.reset();
    return shop_.bench->show_weak(nullptr);
  }
  if (!shop_.plan || shop_.seen() == of_ || shop_.bench->stage() != Stage::Proof) return;
  of_ = shop_.seen();
  begin();
}

void WeakSection::begin() {
  waiting_ = true;
  about_->setText(tr("The wood that stays is being measured…"));
  behind_.start(
      [this, plan = of_](const Cancel& cancel, const Behind::Tell& tell) {
        auto found = std::make_shared<const WeakMap>(weak_places(*plan, cancel));
        tell([this, found] { found_ = found; });
      },
      [this](bool well) {
        waiting_ = false;
        if (!well) found_.reset();
        show_found();
      });
}

void WeakSection::show_found() {
  shop_.bench->show_weak(found_);
  clear_layout(places_);
  if (!found_) return about_->setText(tr("It could not be measured."));
  const auto& places = found_->places;
  const auto breaking = std::count_if(places.begin(), places.end(), [](const WeakPlace& p) { return p.breaks; });
  if (places.empty())
    return about_->setText(tr("Nothing that stays is narrower or thinner than this wood holds (common practice)."));
  about_->setText(
      (places.size() == 1 ? tr("One place is weak") : tr("%1 places are weak").arg(places.size())) +
      (breaking == 0 ? QString() : tr(", of which %1 would break (hatched crosswise)").arg(breaking)) +
      tr(". Measured on the carved wood, to about %1; what holds is common practice.").arg(shop_.show(found_->cell)));
  for (std::size_t i = 0; i < std::min(kListed, places.size()); ++i) {
    const WeakPlace& place = places[i];
    auto* button = new QPushButton((place.breaks ? QStringLiteral("▩  ") : QStringLiteral("▨  ")) +
                                   QString::fromStdString(weak_in_words(place, shop_.document.job().lengths)));
    button->setProperty("role", QStringLiteral("remedy"));
    button->setObjectName(QStringLiteral("weakPlace%1").arg(i));
    button->setToolTip(tr("Shows it on the board"));
    connect(button, &QPushButton::clicked, this, [this, at = place.at] { shop_.go_to(at); });
    places_->addWidget(button, 0, Qt::AlignLeft);
  }
  if (places.size() > kListed) places_->addWidget(make_label(tr("and %1 more").arg(places.size() - kListed), "faded"));
}

}  // namespace doyen
