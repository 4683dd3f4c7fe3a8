#include "parts/readings_field.hpp"

#include "problem.hpp"

namespace doyen {
namespace {

// In mm. Throws Problem with what is wrong.
std::vector<double> readings_in(const QString& words, Unit unit) {
  std::vector<double> values;
  const QChar between = words.contains(QLatin1Char(';')) ? QLatin1Char(';') : QLatin1Char(',');
  for (const QString& one : words.split(between, Qt::SkipEmptyParts)) {
    const double mm = parse_length(one.trimmed().toStdString(), unit);
    if (mm < 0.2 || mm > 1000)
      throw bad_input(ReadingsField::tr("Thicknesses from 0.2 mm to 1 m were expected.").toStdString());
    values.push_back(mm);
  }
  if (values.empty()) throw bad_input(ReadingsField::tr("At least one reading is needed.").toStdString());
  return values;
}

}  // namespace

ReadingsField::ReadingsField(QWidget* parent) : EntryField(parent) {
  setToolTip(tr("Measure in several places and write every reading, with ; between them"));
}

void ReadingsField::show_readings(const std::vector<double>& mm, const LengthStyle& style) {
  mm_ = mm;
  style_ = style;
  QStringList words;
  for (const double r : mm) words << QString::fromStdString(format_length(r, style, false));
  show_text(words.join(QStringLiteral("; ")));
}

void ReadingsField::take(const QString& typed) {
  try {
    const std::vector<double> values = readings_in(typed, style_.unit);
    const bool fresh = values != mm_;
    show_readings(values, style_);
    if (fresh) Q_EMIT entered(values);
  } catch (const Problem& problem) {
    Q_EMIT refused(QString::fromUtf8(problem.what()));
    throw;
  }
}

}  // namespace doyen
