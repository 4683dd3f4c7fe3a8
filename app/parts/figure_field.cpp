#include "parts/figure_field.hpp"

#include <cmath>

#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen {

FigureField::FigureField(Range range, int decimals, double unit, QWidget* parent)
    : EntryField(parent), range_(range), decimals_(decimals), unit_(unit) {
  setAlignment(Qt::AlignRight);
}

void FigureField::show_figure(double value) {
  value_ = value;
  show_text(QString::fromStdString(format_number(value / unit_, decimals_)));
}

void FigureField::take(const QString& typed) {
  bool fine = false;
  const double value = QString(typed).trimmed().replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&fine) * unit_;
  if (!fine || !std::isfinite(value) || value < range_.least - 1e-9 || value > range_.most + 1e-9)
    throw bad_input(tr("A figure from %1 to %2 was expected.")
                        .arg(QString::fromStdString(format_number(range_.least / unit_, decimals_)),
                             QString::fromStdString(format_number(range_.most / unit_, decimals_)))
                        .toStdString());
  const bool fresh = std::abs(value - value_) > 1e-9;
  show_figure(fresh ? value : value_);
  if (fresh) Q_EMIT entered(value);
}

}  // namespace doyen
