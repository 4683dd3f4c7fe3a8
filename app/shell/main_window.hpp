// The window: rail, bench, section strip, ticket and time beam round one job.
#pragma once

#include <QDateTime>
#include <QLabel>
#include <QMainWindow>
#include <QStackedWidget>
#include <optional>

#include "bench/bench.hpp"
#include "bench/section_strip.hpp"
#include "files/imported.hpp"
#include "rack/own_rack.hpp"
#include "shell/call_box.hpp"
#include "shell/commands.hpp"
#include "shell/greeting.hpp"
#include "shell/next_step.hpp"
#include "shell/time_beam.hpp"
#include "shell/way_ladder.hpp"
#include "stages/artwork/artwork_ticket.hpp"
#include "stages/blank/blank_ticket.hpp"
#include "stages/cuts/cuts_ticket.hpp"
#include "stages/finish/finish_ticket.hpp"
#include "stages/proof/proof_ticket.hpp"
#include "stages/run/run_ticket.hpp"

namespace doyen {

class LessonBar;
struct LessonSeen;
class WrittenSlip;

struct Strays;

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  MainWindow();
  ~MainWindow() override;

  JobDocument& document() { return document_; }
  Bench& bench() { return *bench_; }
  SectionStrip& strip() { return *strip_; }
  [[nodiscard]] const PlanPtr& plan() const { return shop_.plan; }
  [[nodiscard]] const PlanPtr& judged() const { return shop_.judged; }  // null until the files have been looked at
  [[nodiscard]] Planner& planner() { return planner_; }
  [[nodiscard]] StageRail& rail() { return *rail_; }
  [[nodiscard]] WayLadder& ways() { return *ways_; }
  [[nodiscard]] FitKeeper& fit() { return fit_; }

  void open_demo(const QString& name = QStringLiteral("gate-sign"));  // of data/demo
  bool open(const QString& path);                                     // says so when it cannot
  void greet();                                                       // the demo, recent jobs and the starts
  void begin_lesson();                                                // a first sign, step by step
  void offer_recovery();
  void go_to_stage(Stage stage);
  void come_back();  // where the window stood and as large as it was when it was closed last, if that is on a screen
  void select(const QString& piece);
  void open_sums();
  [[nodiscard]] bool sums_shown() const;  // none that is open is still being worked out
  void open_rehearsal();                  // the front's files through a simulated controller
  void open_bed();                        // the board on the machine's bed
  void open_tilted();                     // the carved board, tilted and turned by hand
  void open_letter_bench();
  void lay_out();
  void open_boards();  // the further boards that inlays and inserts ask for
  void trace_file(const QString& path) { add_drawing(path); }
  // Plans anew if need be and writes everything; returns what was said about it.
  QString write_files(const QString& folder, bool anyway = false, bool replace = false);
  // One page for the customer to sign, as PDF; returns what was said about it.
  QString write_customer_sheet(const QString& path, const QString& beside = {}, bool priced = false);
  // Looks whether someone else saved the job's file meanwhile, and asks what shall be done.
  void look_at_disk();

 Q_SIGNALS:
  void looked_at();  // the judge has spoken, the remedies have been tried
  void settled();    // a plan has been taken over by every part of the window

 protected:
  void closeEvent(QCloseEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void make_commands();
  QList<Command> job_commands();
  QList<Command> piece_commands();
  QList<Command> view_commands();
  QList<Command> help_commands();
  void job_changed();
  void take_plan(const PlanPtr& plan);
  void take_judgement(const PlanPtr& plan, const JudgementPtr& judgement);
  void take_first_remedy();  // of the gravest verdict of the chosen piece, or of the job
  void refresh_tickets();
  void refresh_rail();
  void show_run_state(bool stopped);
  void refresh_next_step();
  void take_next_step(const NextStep& step);
  void show_call_box();
  void open_guide(const QString& page);
  Q_INVOKABLE void open_guide_link(const QUrl& link);  // parts/why.hpp
  void show_job_menu(const QPoint& at);
  bool save(bool as);
  bool save_to(const QString& path);
  bool save_as();
  void finish_typing();  // what is typed and not confirmed is taken over, or refused with its sentence
  void print_sheets(const QString& folder, const QStringList& sheets);
  void open_on_desktop(const QString& path);
  void note(const QString& words);  // over the bench, until the next edit
  [[nodiscard]] LessonSeen seen_by_lesson() const;
  void lesson_looks();
  bool may_leave();
  void choose_and_write();
  bool new_board();
  void new_job(Greeting::Start first);
  void plates_from_list();
  void choose_job();
  void choose_demo();
  // `instead_of`: ids of pieces that are only sources from now on, in the same step.
  void add_piece(const QString& name, Piece piece, Treatment::Kind kind,
                 const std::vector<std::string>& instead_of = {});
  std::string ask_for_another(const Item& item, Derived::How how);  // a piece's id; empty when none was taken
  [[nodiscard]] Region region_of_piece(const QString& id) const;
  void save_outlines();
  void save_customer_sheet(bool priced = false);
  void save_sheet_of_two();
  void add_lettering(const QString& words = {});
  void add_shape(PlainShape::Kind kind);
  void add_border();
  void add_drawn(const Path& path, bool closed);
  void make_from(Derived::How how);
  void freeze_piece();
  void trace_again();
  // Shows the picture with its trace; `take` gets the drawing when it is taken.
  void trace_picture(TracePicture picture, const TraceSettings& settings, const QString& name, double width,
                     const std::function<void(Drawing)>& take);
  void show_in_place(QDialog* guest, const std::function<void()>& accepted);
  void leave_guest();
  void add_drawing(const QString& path = {});
  void take_drawing(const Imported& art, const QString& name);
  static QString no_room();
  void ask_about_strays(Drawing& drawing, const Strays& strays);
  bool make_room_for_drawing(Piece& piece);                       // false: there is none, and it stays where it is
  void trace_new(const std::string& bytes, const QString& name);  // of a picture's file
  // `areas`: what its lines enclose. Returns how it is cut then.
  Treatment::Kind ask_about_lines(Drawing& drawing, const Outlines& areas);
  void remove_piece();
  [[nodiscard]] std::vector<std::string> chosen_ids() const { return shop_.chosen_ids(); }
  void copy_chosen();
  void cut_chosen();
  void paste();
  void paste_svg(const std::string& svg);
  void put_pieces(const QString& name, const std::string& clip);
  void duplicate_chosen();
  void group_chosen();
  void edit_rack();
  void edit_machines();
  void open_log();
  void open_mended(const Job& job);
  [[nodiscard]] QString folder_for_files() const;
  void save_further_file(const QString& name, const QString& text);
  void save_finish_file(const QString& name, const QString& kinds, const QByteArray& bytes);
  void show_finish_state();
  void show_fit();
  void make_last_tickets();
  void make_test_cut();
  void make_ladder(const Treatment& cut);
  void keep_rung(const Treatment& rung);
  void keep_rack(const Rack& rack);  // as the user's own, in every job
  void remember(const QString& path);
  static QStringList recent_jobs();  // that are still there, newest first
  void say(const QString& title, const QString& words);

  JobDocument document_;
  Rack rack_;
  Planner planner_;
  Workshop shop_;
  FitKeeper fit_;
  StageRail* rail_;
  Bench* bench_;
  SectionStrip* strip_;
  TimeBeam* beam_;
  WayLadder* ways_;
  QStackedWidget* pages_;  // the bench with its ticket, or a guest such as the letter bench
  QStackedWidget* tickets_;
  NextStepBar* next_;
  BlankTicket* blank_;
  ArtworkTicket* artwork_;
  CutsTicket* cuts_;
  ProofTicket* proof_;
  RunTicket* run_;
  FinishTicket* finish_;
  SectionLine section_;
  bool remedy_wanted_ = false;
  QLabel* notice_;
  WrittenSlip* slip_;
  LessonBar* lesson_;
  int written_ = 0;              // how often files were written
  bool asking_ = false;          // about the job's file, which was changed
  QDateTime asked_of_;           // the change that was asked about last
  bool in_the_way_ = false;      // the last writing touched nothing, since something else stands there
  QString ticket_shown_;         // which ticket, for which kind of piece
  QMap<QString, int> scrolled_;  // how far each of them was scrolled when it was left
  QString trouble_;              // why the newest job could not be planned; empty when it could
  std::string fit_seen_;         // the inlay whose fit the section was brought to
  std::optional<Commands> commands_;
};

}  // namespace doyen
