// A field for thickness readings: lengths with ; or , between them.
#pragma once

#include <vector>

#include "measure/length.hpp"
#include "parts/entry_field.hpp"

namespace doyen {

class ReadingsField : public EntryField {
  Q_OBJECT
 public:
  explicit ReadingsField(QWidget* parent = nullptr);
  void show_readings(const std::vector<double>& mm, const LengthStyle& style);

 Q_SIGNALS:
  void entered(const std::vector<double>& mm);
  void refused(const QString& why);

 protected:
  void take(const QString& typed) override;

 private:
  LengthStyle style_;
  std::vector<double> mm_;
};

}  // namespace doyen
