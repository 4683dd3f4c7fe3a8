// The machines: those that come with Doyen, to look at and to copy, and the user's own, described by what they do.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QListWidget>
#include <functional>

#include "fields/range.hpp"
#include "machine/profile.hpp"
#include "measure/length.hpp"

class QFormLayout;

namespace doyen {

class MachinesDialog : public QDialog {
  Q_OBJECT
 public:
  // `chosen`: id of the machine that is shown first, the job's.
  MachinesDialog(const std::string& chosen, const LengthStyle& lengths, QWidget* parent);
  void accept() override;  // keeps what was changed
  // Of what was kept: the one that the job is to run on; empty when none was chosen for it.
  [[nodiscard]] std::string wanted() const { return wanted_; }
  [[nodiscard]] QString aside() const { return aside_; }  // where a damaged file was put

 private:
  using Get = std::function<double&(MachineProfile&)>;
  void build_form(class QVBoxLayout* column);
  void add_understanding(QFormLayout* form);
  void add_motion(QFormLayout* form);
  void add_bench(QFormLayout* form);
  QWidget* figure(const QString& name, const QString& unit, Range range, int decimals, double factor, const Get& get);
  QWidget* axes(const QString& name, const QString& unit, double most, double factor,
                std::array<double, 3> MachineProfile::*member);
  QComboBox* way(const QString& name, const QStringList& words, bool MachineProfile::*other);
  QCheckBox* tick(const QString& name, const QString& words, bool MachineProfile::*member);
  void list();
  void show_chosen();
  void changed();  // the chosen one was
  void add_copy();
  void remove();
  void read_from_file();
  void save_to_file();
  [[nodiscard]] MachineProfile* chosen();

  std::vector<MachineProfile> machines_, before_;
  LengthStyle lengths_;
  QListWidget* list_;
  QWidget* form_;
  QLabel *note_, *says_;
  class TextField* name_;
  QComboBox *unit_, *change_, *home_;
  class TextField* pause_;
  class TextField* ending_;
  QCheckBox* use_;
  QPushButton *remove_, *save_;
  std::vector<std::function<void(const MachineProfile&)>> shows_;
  std::string wanted_;
  QString aside_;
  bool filling_ = false;
};

}  // namespace doyen
