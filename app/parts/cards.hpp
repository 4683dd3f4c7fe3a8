// Small parts of tickets: a labelled row, a number with its sum, a verdict with its remedies.
#pragma once

#include <QFrame>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>
#include <functional>

#include "planning/sums.hpp"
#include "verdicts/verdict.hpp"
#include "work/behind.hpp"

namespace doyen {

QLabel* make_label(const QString& text, const char* role, QWidget* parent = nullptr);
QFrame* make_line(QWidget* parent = nullptr);
// “51 in/min (90 asked)”, of mm/min: what was worked out is rounded to 1 in/min or 10 mm/min, what was asked is not.
QString speed_of_asked(double reached, double asked, const LengthStyle& lengths);
// A row with a label of fixed width on the left and the field on the right.
QWidget* make_row(const QString& label, QWidget* field);
// Pictures to choose from with a few words under each: a picture's size, and the room beside and under it, px.
QListWidget* make_picture_list(const QString& name, QSize picture, QSize beside);
// The column of a sheet as wide as a ticket, put at the end of a row: beside what a guest in the window's place shows.
QVBoxLayout* add_sheet(QHBoxLayout* row);
void clear_layout(QLayout* layout);
// What belongs to an earlier state is shown faded until it is worked out anew.
void show_faded(QWidget* widget, bool faded);
inline constexpr qreal kFadedAway = 0.38;

// A grade's shape in its colour: a diamond for stop, a triangle for mind, a disc for note and fine.
enum class Lamp { Off, Fine, Note, Mind, Stop };
QPixmap lamp_picture(Lamp lamp, int size, qreal ratio);
Lamp lamp_of(Grade grade);

// A number larger than its label; opens to its sum, which is worked out then, off the window's thread.
class NumberCard : public QWidget {
  Q_OBJECT
 public:
  // What works out a sum; it may tell it in several stages, each time all that is known.
  using SumWork = std::function<void(const Cancel&, const std::function<void(Sum)>& tell)>;

  explicit NumberCard(const QString& label, QWidget* parent = nullptr);
  void show_number(const QString& number, const QString& beside, SumWork sum);
  void show_number(const QString& number, const QString& beside, std::function<Sum()> sum);
  void show_number(const QString& number, const QString& beside, const Sum& sum);  // none: it does not open
  void set_open(bool open);
  [[nodiscard]] bool waiting() const { return waiting_; }  // it is open, and its sum not yet known
  [[nodiscard]] QString number() const { return number_->text(); }
  [[nodiscard]] QString sum_text() const { return sum_->text(); }  // as it is open

 private:
  void look();
  void show_sum(const Sum& sum);

  QHBoxLayout* row_;
  QLabel *number_, *beside_, *sum_;
  QToolButton* opener_;
  QFrame* frame_;
  SumWork asked_;
  Behind behind_;
  bool waiting_ = false;
};

// Its words break into lines where the ticket would be too narrow for them.
QPushButton* make_remedy_button(const QString& words);

class VerdictCard : public QWidget {
  Q_OBJECT
 public:
  // `can_accept`: whoever shows it takes accept_wanted and take_back_wanted.
  explicit VerdictCard(const Verdict& verdict, bool can_accept = false, QWidget* parent = nullptr);
  static QString grade_name(Grade grade);

 Q_SIGNALS:
  void go_to(const QString& piece, double x, double y);
  void remedy_taken(const QString& label, int which);
  void accept_wanted();     // for a reason that is to be asked
  void take_back_wanted();  // what was accepted

 protected:
  void mousePressEvent(QMouseEvent* event) override;

 private:
  void add_buttons(QVBoxLayout* column, bool can_accept);
  Verdict verdict_;
};

}  // namespace doyen
