#include "shell/new_board.hpp"

#include <QDialogButtonBox>
#include <QLocale>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "machine/profile.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

constexpr double kLongest = 50'000;  // mm, as long as anything in a job may be

// Round sizes in either unit.
Job usual_job(bool inch) {
  Job job;
  const double k = inch ? kMmPerInch : 1;
  job.lengths.unit = inch ? Unit::Inch : Unit::Millimetre;
  job.lengths.fractions = inch;
  job.blank.width = (inch ? 24 : 600) * k;
  job.blank.height = (inch ? 9 : 225) * k;
  job.blank.readings.assign(1, (inch ? 0.75 : 19) * k);
  job.blank.margin = (inch ? 0.5 : 12) * k;
  return job;
}

Job last_job() {
  const QSettings settings;
  const auto number = [&](const char* key, double usual) {
    const double value = settings.value(QLatin1String("newBoard/") + QLatin1String(key), usual).toDouble();
    return value > 0 && value < kLongest ? value : usual;
  };
  const bool inch =
      settings.value(QStringLiteral("newBoard/inch"), QLocale::system().measurementSystem() != QLocale::MetricSystem)
          .toBool();
  Job job = usual_job(inch);
  job.lengths.fractions = settings.value(QStringLiteral("newBoard/fractions"), job.lengths.fractions).toBool();
  job.blank.width = number("width", job.blank.width);
  job.blank.height = number("height", job.blank.height);
  job.blank.readings.assign(1, number("thick", job.blank.readings.front()));
  job.blank.margin = number("margin", job.blank.margin);
  const std::string wood = settings.value(QStringLiteral("newBoard/wood"), QString::fromStdString(job.blank.species))
                               .toString()
                               .toStdString();
  if (species_table().find(wood) != nullptr) job.blank.species = wood;
  return job;
}

}  // namespace

NewBoard::NewBoard(QWidget* parent) : QDialog(parent), asked_(last_job()) {
  setObjectName(QStringLiteral("newBoard"));
  setWindowTitle(tr("New job"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 18);
  column->setSpacing(8);
  column->addWidget(make_label(tr("Which board will it be cut from?"), "title"));
  column->addWidget(make_label(tr("All of it can be changed later, under Blank."), "faded"));
  name_ = new QLineEdit(tr("New sign"));
  name_->setObjectName(QStringLiteral("jobName"));
  unit_ = new QComboBox;
  unit_->setObjectName(QStringLiteral("units"));
  unit_->addItems({tr("millimetres"), tr("inches, as fractions"), tr("inches, as decimals")});
  unit_->setCurrentIndex(asked_.lengths.unit == Unit::Millimetre ? 0 : asked_.lengths.fractions ? 1 : 2);
  wood_ = new QComboBox;
  wood_->setObjectName(QStringLiteral("wood"));
  for (const Species& s : species_table().species)
    wood_->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
  wood_->setCurrentIndex(std::max(0, wood_->findData(QString::fromStdString(asked_.blank.species))));
  width_ = new LengthField(range_of("blank.width"));
  width_->setObjectName(QStringLiteral("boardWidth"));
  height_ = new LengthField(range_of("blank.height"));
  height_->setObjectName(QStringLiteral("boardHeight"));
  thick_ = new LengthField({0.2, 1000});
  thick_->setObjectName(QStringLiteral("boardThick"));
  margin_ = new LengthField(range_of("blank.margin"));
  margin_->setObjectName(QStringLiteral("boardMargin"));
  column->addWidget(make_row(tr("Name"), name_));
  column->addWidget(make_row(tr("Measured in"), unit_));
  column->addWidget(make_row(tr("Left to right"), width_));
  column->addWidget(make_row(tr("Front to back"), height_));
  column->addWidget(make_row(tr("Thickness"), thick_));
  column->addWidget(make_row(tr("Margin kept"), margin_));
  column->addWidget(make_row(tr("Wood"), wood_));
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
  QPushButton* begin = buttons->addButton(tr("Begin"), QDialogButtonBox::AcceptRole);
  begin->setDefault(true);
  connect(buttons, &QDialogButtonBox::accepted, this, &NewBoard::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &NewBoard::reject);
  column->addSpacing(8);
  column->addWidget(buttons);
  // Another unit brings its own round sizes, where none were typed.
  connect(unit_, &QComboBox::activated, this, [this] {
    const bool inch = style().unit == Unit::Inch;
    const Blank other = usual_job(!inch).blank;
    const Blank own = usual_job(inch).blank;
    for (double Blank::*size : {&Blank::width, &Blank::height, &Blank::margin}) {
      if (asked_.blank.*size == other.*size) asked_.blank.*size = own.*size;
    }
    if (asked_.blank.readings == other.readings) asked_.blank.readings = own.readings;
    asked_.lengths = style();
    show_lengths();
  });
  const auto keep = [this](LengthField* field, const std::function<void(double)>& take) {
    connect(field, &LengthField::entered, this, [take](std::optional<double> mm) { take(*mm); });
  };
  keep(width_, [this](double mm) { asked_.blank.width = mm; });
  keep(height_, [this](double mm) { asked_.blank.height = mm; });
  keep(thick_, [this](double mm) { asked_.blank.readings.assign(1, mm); });
  keep(margin_, [this](double mm) { asked_.blank.margin = mm; });
  show_lengths();
  setFixedWidth(420);
  width_->setFocus();
}

LengthStyle NewBoard::style() const {
  LengthStyle style = asked_.lengths;
  style.unit = unit_->currentIndex() == 0 ? Unit::Millimetre : Unit::Inch;
  style.fractions = unit_->currentIndex() == 1;
  return style;
}

void NewBoard::show_lengths() {
  width_->show_length(asked_.blank.width, asked_.lengths);
  height_->show_length(asked_.blank.height, asked_.lengths);
  thick_->show_length(asked_.blank.readings.front(), asked_.lengths);
  margin_->show_length(asked_.blank.margin, asked_.lengths);
}

Job NewBoard::job() const {
  Job job = asked_;
  const QString name = name_->text().trimmed();
  if (!name.isEmpty()) job.name = name.toStdString();
  job.lengths = style();
  job.blank.species = wood_->currentData().toString().toStdString();
  job.run.least_wood = usual_least_wood(job.blank);
  const std::string machine = QSettings().value(QStringLiteral("machine")).toString().toStdString();
  if (machine_table().find(machine) != nullptr) job.run.machine = machine;
  return job;
}

void NewBoard::accept() {
  for (LengthField* field : {width_, height_, thick_, margin_}) {
    if (!field->property("wrong").toBool()) continue;
    field->setFocus();  // its tool tip says what is wrong with it
    return;
  }
  const Job made = job();
  QSettings settings;
  const auto keep = [&](const char* key, const QVariant& value) {
    settings.setValue(QLatin1String("newBoard/") + QLatin1String(key), value);
  };
  keep("inch", made.lengths.unit == Unit::Inch);
  keep("fractions", made.lengths.fractions);
  keep("width", made.blank.width);
  keep("height", made.blank.height);
  keep("thick", made.blank.readings.front());
  keep("margin", made.blank.margin);
  keep("wood", QString::fromStdString(made.blank.species));
  QDialog::accept();
}

}  // namespace doyen
