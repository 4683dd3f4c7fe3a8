// A ticket: the right-hand sheet with what belongs to the stage and to what is selected.
#pragma once

#include <QComboBox>
#include <QScrollArea>
#include <functional>

#include "bench/bench.hpp"
#include "parts/cards.hpp"
#include "verdicts/mended_in.hpp"
#include "work/job_document.hpp"
#include "work/planner.hpp"

namespace doyen {

// What every ticket works with. Tickets change the job only through the document.
struct Workshop {
  JobDocument& document;
  Rack& rack;
  PlanPtr plan;  // the newest one; may be null, and may be older than the job
  Bench* bench = nullptr;
  QString selected;  // id of the selected piece; empty when none is
  std::function<void(const QString&)> select;
  std::function<void(Point)> go_to;

  // The same with what the judge says of its files and with remedies that were tried; null until that is known.
  PlanPtr judged{};
  JudgementPtr judgement{};
  // Whichever of the two knows most: whose verdicts are shown.
  [[nodiscard]] const PlanPtr& seen() const { return judged ? judged : plan; }

  // Whether the plan is of the job as it stands; and whether the judge has spoken of it, too.
  [[nodiscard]] bool current() const { return plan && plan->job == document.job(); }
  [[nodiscard]] bool known() const { return judged && current(); }

  [[nodiscard]] QStringList chosen() const { return bench->chosen(); }  // the selected one and those with it
  [[nodiscard]] std::vector<std::string> chosen_ids() const;
  [[nodiscard]] const Item* item() const { return document.job().find(selected.toStdString()); }
  [[nodiscard]] const PiecePlan* piece_plan() const { return plan ? plan->piece(selected.toStdString()) : nullptr; }
  [[nodiscard]] QString show(double mm) const {
    return QString::fromStdString(depth_in_words(mm, document.job().lengths));
  }
  // An edit of how all that is chosen is cut: of those that look like the selected one, or, for a look itself, of all.
  enum class Of { SameLook, All };
  void edit_cuts(const QString& name, const std::function<void(Item&)>& change, Of which = Of::SameLook,
                 const QString& merge = {}) const;
  [[nodiscard]] QStringList chosen_alike() const;  // those of the chosen that look like the selected one
  // An edit of the selected piece.
  void edit_item(const QString& name, const std::function<void(Item&)>& change, const QString& merge = {}) const;
};

void show_row(QWidget* field, bool shown);  // a field together with its row

class Ticket : public QScrollArea {
  Q_OBJECT
 public:
  explicit Ticket(Workshop& shop, QWidget* parent = nullptr);
  virtual void refresh() = 0;  // after an edit, a new plan or another selection
  void show_pending();         // figures and verdicts of an earlier state fade

 protected:
  QLabel* add_title(const QString& text);
  QLabel* add_heading(const QString& text);
  QWidget* add_row(const QString& label, QWidget* field);
  void add_rule();
  void resizeEvent(QResizeEvent* event) override;
  Workshop& shop_;
  QVBoxLayout* column_;
  QList<QWidget*> judged_words_;  // words that hold only once the judge has spoken
};

// The verdicts about one piece (or all), each with its remedies.
class VerdictList : public QWidget {
  Q_OBJECT
 public:
  explicit VerdictList(Workshop& shop, QWidget* parent = nullptr);
  void show_for(const QString& piece, bool all);

 private:
  VerdictCard* card_for(const Verdict& verdict);
  std::vector<const Verdict*> wanted(const std::string& piece, bool all, std::string& key) const;
  void add_folded(const std::vector<const Verdict*>& alike);
  [[nodiscard]] bool chosen(const Verdict& verdict) const;
  void add_stages(QComboBox* box, const std::vector<Verdict>& all);
  void add_choice_of_piece(const std::vector<Verdict>& all);
  Workshop& shop_;
  QVBoxLayout* column_;
  std::string shown_;
  std::optional<MendedIn> only_in_;  // the one stage at which those that are shown are mended
  std::optional<std::string> only_;  // the one piece whose verdicts are shown; empty id: those of the whole job
};

}  // namespace doyen
