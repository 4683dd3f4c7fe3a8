// The fit of the inlay that is looked at: proved off the interface thread, with what-ifs, pictures and other ways.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>

#include "inlay/fit.hpp"
#include "inlay/schools.hpp"
#include "work/planner.hpp"

namespace doyen {

class FitKeeper : public QObject {
  Q_OBJECT
 public:
  // What lies on the bench: the board as carved, the plug's own relief as it will lie, the gap between both, or the
  // face when it is level.
  enum class Show { Carved, Plug, Gaps, Levelled };

  explicit FitKeeper(QObject* parent = nullptr);
  ~FitKeeper() override;

  void look_at(const PlanPtr& plan, const std::string& piece, const Rack& rack);  // proves when it is another
  void leave();                                                                   // nothing is looked at any longer
  void try_it(const WhatIf& what_if);
  void show(Show what);
  void sand(double mm);
  void find_ease();

  [[nodiscard]] bool busy() const { return waiting_ > 0; }
  [[nodiscard]] bool active() const { return !piece_.empty(); }
  [[nodiscard]] const std::string& piece() const { return piece_; }
  [[nodiscard]] const QString& problem() const { return problem_; }
  [[nodiscard]] const std::shared_ptr<const Fit>& fit() const { return fit_; }
  [[nodiscard]] const std::shared_ptr<const Halves>& halves() const { return halves_; }
  [[nodiscard]] const std::shared_ptr<const Face>& face() const { return face_; }  // as levelled, not sanded
  [[nodiscard]] const std::vector<FitPlace>& binds() const { return binds_; }
  [[nodiscard]] const std::vector<Forgiven>& forgiven() const { return forgiven_; }
  [[nodiscard]] const std::vector<InlayWay>& ways() const { return ways_; }
  [[nodiscard]] int forgiven_of() const { return forgiven_of_; }  // another number for every new list
  [[nodiscard]] int ways_of() const { return ways_of_; }
  [[nodiscard]] const WhatIf& what_if() const { return what_if_; }
  [[nodiscard]] Show shown() const { return show_; }
  [[nodiscard]] double sanded() const { return sanded_; }
  [[nodiscard]] const QImage& picture() const { return picture_; }  // null: the board as it is
  [[nodiscard]] Box picture_box() const { return picture_box_; }
  [[nodiscard]] std::optional<double> ease() const { return ease_; }  // found by find_ease(); negative: none is enough
  [[nodiscard]] const PlanPtr& plan() const { return plan_; }

 Q_SIGNALS:
  void changed();

 private:
  // Runs `work` on the one thread and, when nothing newer was asked of its kind, `take` back here.
  void start(const std::function<std::function<void()>(const Cancel&)>& work);
  void prove();
  void paint();
  void compare();
  void clear();
  void forget();

  QThreadPool pool_;
  Cancel cancel_;
  quint64 generation_ = 0;
  int waiting_ = 0;
  PlanPtr plan_;
  std::string piece_;
  Rack rack_;
  WhatIf what_if_;
  Show show_ = Show::Levelled;
  double sanded_ = 0;
  QString problem_;
  std::shared_ptr<const Halves> halves_;
  std::shared_ptr<const Fit> fit_;
  std::shared_ptr<const Face> face_;
  std::vector<FitPlace> binds_;
  std::vector<Forgiven> forgiven_;
  std::vector<InlayWay> ways_;
  int forgiven_of_ = 0, ways_of_ = 0;
  std::optional<double> ease_;
  QImage picture_;
  Box picture_box_;
};

// The picture of one view of a fit, one pixel a cell; transparent where the board itself is to be seen.
QImage fit_picture(const Fit& fit, const Halves& halves, const Job& job, FitKeeper::Show what, double sanded,
                   const Cancel& cancel = {});
// The colour of a gap of so many mm in the picture of gaps.
QColor gap_colour(double mm);

}  // namespace doyen
