#include "stages/finish/products_section.hpp"

#include <cmath>

#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kFeetAGallon = 40.7458;  // square feet a US gallon, of 1 m² a litre

}  // namespace

ProductsSection::ProductsSection(Workshop& shop)
    : Fold(tr("Your products"), QStringLiteral("productsOpen")), shop_(shop) {
  set_summary(tr("coats and waits"));
  body()->addWidget(make_label(tr("What stands on the can comes first. Kept for every job."), "faded"));
  kind_ = new QComboBox;
  kind_->setObjectName(QStringLiteral("productKind"));
  kind_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  body()->addWidget(make_row(tr("Product"), kind_));
  connect(kind_, &QComboBox::activated, this, [this] { choose(); });
  coats_ = figure(tr("Coats"), "coats", "productCoats", {}, 0,
                  [](Product& p, double value) { p.coats = static_cast<int>(std::lround(value)); });
  thinned_ = figure(tr("Thinned first"), "thinnedCoats", "productThinned", tr("coats"), 0,
                    [](Product& p, double value) { p.thinned_coats = static_cast<int>(std::lround(value)); });
  thinned_->setToolTip(tr("So many of them go on half and half with thinner"));
  recoat_ = figure(tr("Next coat after"), "recoatHours", "productRecoat", tr("hours"), 1,
                   [](Product& p, double value) { p.recoat_hours = value; });
  cure_ = figure(tr("Hard after"), "cureHours", "productCure", tr("hours"), 1,
                 [](Product& p, double value) { p.cure_hours = value; });
  cure_->setToolTip(tr("Until it may be sanded, taped or hung"));
  covers_ = figure(tr("A litre covers"), "metresPerLitre", "productCovers", tr("m² once"), 1,
                   [](Product& p, double value) { p.metres_per_litre = value; });
  covers_inch_ = figure(
      tr("A gallon covers"), "metresPerLitre", "productCoversGallon", tr("sq ft once"), 0,
      [](Product& p, double value) { p.metres_per_litre = value; }, 1 / kFeetAGallon);
  covers_inch_->setToolTip(tr("A US gallon"));
  pour_ = new LengthField(product_range("pour"));
  pour_->setObjectName(QStringLiteral("productPour"));
  pour_->setToolTip(tr("As deep as it may be poured in one go"));
  body()->addWidget(make_row(tr("Poured at once"), pour_));
  connect(pour_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shown_.pour = mm.value_or(0);
    keep();
  });
  outdoors_ = new QCheckBox(tr("It lasts outdoors"));
  outdoors_->setObjectName(QStringLiteral("productOutdoors"));
  body()->addWidget(outdoors_);
  connect(outdoors_, &QCheckBox::clicked, this, [this](bool on) {
    shown_.outdoors = on;
    keep();
  });
  again_ = new QPushButton(tr("Doyen's figures again"));
  again_->setObjectName(QStringLiteral("productAgain"));
  body()->addWidget(again_, 0, Qt::AlignLeft);
  connect(again_, &QPushButton::clicked, this, [this] {
    shown_ = shipped_product(shown_.id);
    keep();
  });
  problem_ = make_label({}, "error");
  problem_->setObjectName(QStringLiteral("productSays"));
  problem_->hide();
  body()->addWidget(problem_);
  connect(this, &Fold::opened, this, &ProductsSection::refresh);
  refresh();
}

FigureField* ProductsSection::figure(const QString& label, const char* key, const char* name, const QString& unit,
                                     int decimals, const std::function<void(Product&, double)>& set, double in_unit) {
  auto* field = new FigureField(product_range(key), decimals, in_unit);
  field->setObjectName(QLatin1String(name));
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(field, 1);
  if (!unit.isEmpty()) row->addWidget(make_label(unit, "faded"));
  body()->addWidget(make_row(label, box));
  connect(field, &FigureField::entered, this, [this, set](double value) {
    set(shown_, value);
    keep();
  });
  return field;
}

void ProductsSection::say(const QString& problem) {
  problem_->setText(problem);
  problem_->setVisible(!problem.isEmpty());
}

// The file as it is now: another window may have changed it.
void ProductsSection::refresh() {
  try {
    table_ = load_products();
    say({});
  } catch (const Problem& problem) {
    say(QString::fromUtf8(problem.what()));
  }
  const QString chosen = kind_->currentData().toString();
  kind_->clear();
  for (const Product& product : table_.products) {
    if (product.id != "film")  // it has no coats and dries at once
      kind_->addItem(QString::fromStdString(product.name), QString::fromStdString(product.id));
  }
  kind_->setCurrentIndex(std::max(0, kind_->findData(chosen)));
  choose();
}

void ProductsSection::show_units() {
  if (shop_.document.job().lengths.unit != unit_) choose();
}

void ProductsSection::choose() {
  shown_ = table_.of(kind_->currentData().toString().toStdString());
  const bool poured = shown_.pour > 0;
  coats_->show_figure(shown_.coats);
  thinned_->show_figure(shown_.thinned_coats);
  recoat_->show_figure(shown_.recoat_hours);
  cure_->show_figure(shown_.cure_hours);
  covers_->show_figure(shown_.metres_per_litre);
  covers_inch_->show_figure(shown_.metres_per_litre);
  pour_->show_length(shown_.pour, shop_.document.job().lengths);
  outdoors_->setChecked(shown_.outdoors);
  unit_ = shop_.document.job().lengths.unit;
  const bool inch = unit_ == Unit::Inch;
  for (FigureField* field : {coats_, thinned_}) show_row(field->parentWidget(), !poured);
  show_row(covers_->parentWidget(), !poured && !inch);
  show_row(covers_inch_->parentWidget(), !poured && inch);
  show_row(pour_, poured);
  Product shipped = shipped_product(shown_.id);
  shipped.name = shown_.name;  // in this language
  shipped.caution = shown_.caution;
  again_->setEnabled(!(shipped == shown_));
}

void ProductsSection::keep() {
  try {
    keep_product(shown_);
    refresh();
    Q_EMIT changed();
  } catch (const Problem& problem) {
    say(QString::fromUtf8(problem.what()));
  }
}

}  // namespace doyen
