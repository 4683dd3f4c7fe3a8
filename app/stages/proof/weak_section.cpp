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
  trying_ = make_label({}, "faded");
  trying_->setObjectName(QStringLiteral("weakTrying"));
  trying_->hide();
  body()->addWidget(trying_);
  remedies_ = new QVBoxLayout;
  remedies_->setSpacing(2);
  body()->addLayout(remedies_);
  set_summary(tr("necks, points, thin walls and skins"));
  connect(this, &Fold::opened, this, &WeakSection::refresh);
  connect(this, &Fold::closed, this, &WeakSection::refresh);
}

void WeakSection::refresh() {
  if (!open()) {
    behind_.stop();
    tries_.stop();
    waiting_ = is_trying_ = false;
    of_.reset();
    return shop_.bench->show_weak(nullptr);
  }
  if (!shop_.plan || shop_.seen() == of_ || shop_.bench->stage() != Stage::Proof) return;
  // The same plan with the judge's word added has the same wood.
  const bool same = of_ && of_->job == shop_.seen()->job && of_->seconds == shop_.seen()->seconds;
  of_ = shop_.seen();
  if (!same) begin();
}

void WeakSection::begin() {
  waiting_ = true;
  tries_.stop();
  is_trying_ = false;
  clear_layout(remedies_);
  trying_->hide();
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
    button->setToolTip(tr("Shows it on the board, and tries what would make it hold"));
    connect(button, &QPushButton::clicked, this, [this, i, at = place.at] {
      shop_.go_to(at);
      look_for_remedies(i);
    });
    places_->addWidget(button, 0, Qt::AlignLeft);
  }
  if (places.size() > kListed) places_->addWidget(make_label(tr("and %1 more").arg(places.size() - kListed), "faded"));
}

void WeakSection::look_for_remedies(std::size_t place) {
  if (waiting_ || !found_ || !of_) return;  // what is listed is of an earlier job
  clear_layout(remedies_);
  mending_ = 0;
  is_trying_ = true;
  trying_->setText(tr("What would make it hold is being tried…"));
  trying_->show();
  tries_.start(
      [this, plan = of_, found = found_, place](const Cancel& cancel, const Behind::Tell& tell) {
        for (const Remedy& remedy : weak_remedies(*plan, *found, place)) {
          const std::optional<Mended> mended = mends_weak(*plan, *found, place, remedy, cancel);
          if (mended) tell([this, remedy, mended = *mended] { show_remedy(remedy, mended); });
        }
      },
      [this](bool) {
        is_trying_ = false;
        trying_->setText(mending_ > 0 ? tr("Each was planned, carved and measured anew.")
                                      : tr("Nothing that Doyen tried makes it hold: make the art there wider, or the "
                                           "board thicker."));
      });
}

void WeakSection::show_remedy(const Remedy& remedy, const Mended& mended) {
  ++mending_;
  auto* row = new QWidget;
  auto* column = new QVBoxLayout(row);
  column->setContentsMargins(12, 0, 0, 2);
  column->setSpacing(0);
  auto* button = make_remedy_button(QString::fromStdString(remedy.label));
  button->setProperty("mends", true);
  column->addWidget(button, 0, Qt::AlignLeft);
  const auto left = static_cast<int>(mended.places);
  column->addWidget(make_label((left == 0   ? tr("then nothing is weak")
                                : left == 1 ? tr("then one place is weak")
                                            : tr("then %1 are weak").arg(left)) +
                                   QStringLiteral(" · ") + QString::fromStdString(format_duration(mended.seconds)),
                               "faded"));
  remedies_->addWidget(row);
  connect(button, &QPushButton::clicked, this, [this, remedy] {
    shop_.document.edit(QString::fromStdString(remedy.label), [&](Job& job) { remedy.apply(job); });
  });
}

}  // namespace doyen
