// A lettering whose words come from the job's list: which column, how much room they have, what is done with long ones.
#pragma once

#include "stages/artwork/artwork_sections.hpp"

namespace doyen {

class ListedSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit ListedSection(Workshop& shop);
  void refresh(const Item& item) override;  // a lettering

 private:
  void list_others(const Item& item);
  QComboBox* column_of_;
  QPushButton* swap_;
  LengthField *room_, *least_;
  QComboBox* narrow_;
  QCheckBox *two_lines_, *one_size_;
};

}  // namespace doyen
