// The bench: the board in its own wood, lit from the upper left, carved as it will be; pieces are moved here by hand.
#pragma once

#include <QImage>
#include <QPainterPath>
#include <QPixmap>
#include <QPushButton>
#include <QWidget>
#include <functional>
#include <map>
#include <memory>
#include <optional>

#include "shell/stage_rail.hpp"
#include "work/planner.hpp"

namespace doyen {

class BenchHand;
struct HandGrip;
struct WeakMap;
class PointHand;
class MeasureHand;
class DrawHand;

// How far an arrow key moves what is chosen, mm on the board: 1 mm or 1/16 in, with Shift ten times, with Alt a tenth
// of it; nothing for other keys.
Point nudge(int key, Qt::KeyboardModifiers keys, const LengthStyle& lengths);

class Bench : public QWidget {
  Q_OBJECT
 public:
  explicit Bench(QWidget* parent = nullptr);
  ~Bench() override;

  void show_job(const Job& job);             // at once, before the plan: outlines follow
  void show_expected(const SetJobPtr& set);  // until there is a plan
  void show_plan(const PlanPtr& plan);
  void show_judgement(const JudgementPtr& judgement);  // what no bit reaches, from what is really carved
  void show_stage(Stage stage);
  void select(const QString& piece);
  [[nodiscard]] QString selected() const { return selected_; }
  [[nodiscard]] QStringList chosen() const;  // the selected piece first, then those chosen along with it (Shift)
  void choose(const QStringList& pieces);    // these together, the first selected
  void choose_all();
  [[nodiscard]] const Job& job() const { return job_; }
  [[nodiscard]] Stage stage() const { return stage_; }
  [[nodiscard]] double pixels_per_mm() const { return scale_; }
  // Round what is chosen, px, and in mm on the board; null and empty without any.
  [[nodiscard]] QRectF selection_rect() const;
  [[nodiscard]] Box chosen_box() const;
  // The outline point of the selected piece nearest to a place on the screen, within so many px.
  [[nodiscard]] std::optional<Point> outline_point_near(QPointF px, double reach) const;
  PointHand& points() { return *points_; }
  MeasureHand& measure() { return *measure_; }
  DrawHand& draw() { return *draw_; }
  void show_marks(const std::vector<Point>& marks);            // small rings
  void show_weak(const std::shared_ptr<const WeakMap>& weak);  // in the proof only; null takes it away
  [[nodiscard]] const std::shared_ptr<const WeakMap>& weak() const { return weak_; }
  void show_highlight(const std::vector<Region>& regions);  // parts that are pointed out
  // A picture laid over a part of the front, such as the face of an inlay when it is level; null takes it away.
  // The box of a piece on the board, as its outlines lie; empty when there is none or it cannot be set.
  [[nodiscard]] Box box_of(const QString& id) const;
  void show_overlay(const QImage& picture, const Box& box);
  [[nodiscard]] const QImage& overlay() const { return overlay_; }
  // To a screen reader: what is chosen, and where it lies; or these words.
  void speak();
  void say(const QString& words);
  [[nodiscard]] std::vector<HandGrip> grips();  // all that can be taken hold of now, mouse or keys
  void set_section(const SectionLine& line);
  void fit();
  void show_side(Side side);  // turned over, the back is seen and the outlines lie mirrored
  [[nodiscard]] Side side() const { return side_; }
  void go_to(Point at);
  void come_closer(Point at, double times);  // to this place in the middle, larger than when all is shown
  void clear_mark();
  [[nodiscard]] const QImage& picture() const { return image_; }
  [[nodiscard]] bool picture_is_fine() const { return fine_; }
  [[nodiscard]] QPointF to_screen(Point p) const;
  [[nodiscard]] Point to_board(QPointF p) const;

 Q_SIGNALS:
  void selection_changed(const QString& piece);
  void moved(const QString& piece, doyen::Point by);
  void resized(const QString& piece, double factor_x, double factor_y, doyen::Point fixed);
  void turned(const QString& piece, double degrees);
  void tab_moved(const QString& piece, int tab, doyen::Point to);
  void section_moved(const doyen::SectionLine& line);
  void view_changed();  // nearer or farther, or moved along
  void picture_changed();
  void chosen_changed();
  void edit_wanted(const QString& name, const std::function<void(doyen::Job&)>& change, const QString& merge) const;
  void hand_changed();
  void measured(doyen::Point from, doyen::Point to);
  void drawn(const doyen::Path& path, bool closed);  // by hand, on the board
  void keep_out_chosen(int which);
  void clicked(const QString& piece, doyen::Point at);  // pressed and let go without a drag
  void words_wanted(const QString& piece);

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent* event) override;
  bool focusNextPrevChild(bool next) override;  // a hand may take Tab for itself

 private:
  struct PieceShape {
    QString id, name;
    QPainterPath path;   // board coordinates
    QPainterPath lines;  // stroke lines to be followed
    QPainterPath lost;   // what no chosen bit reaches, by the newest plan, until the judge says it better
    Box box;
    Treatment::Kind kind;
    bool back = false;
    std::vector<PlacedTab> tabs;
    void move(Point by);
  };
  enum class Hand { None, Pan, Move, Size, Turn, Section, Tab, Other };

  void ask_for_picture();
  [[nodiscard]] QTransform board_to_px() const;
  [[nodiscard]] Point flipped(Point p) const;  // of the front, on the side that lies up; and back again
  [[nodiscard]] QStringList group_of(const QString& piece) const;  // those grouped with it
  [[nodiscard]] QRectF px_rect(const Box& box) const;
  [[nodiscard]] const PieceShape* shape(const QString& id) const;
  [[nodiscard]] QString piece_at(QPointF p) const;
  [[nodiscard]] int handle_at(QPointF p) const;
  [[nodiscard]] QTransform drag_transform() const;
  struct Snap {
    QString why;                             // what it snaps to and how far that was away; empty for nothing
    std::optional<double> guide_x, guide_y;  // mm, the lines snapped to
  };
  [[nodiscard]] Point snapped(Point by, Snap* to) const;
  void hands_look();
  void paint_hint(QPainter& p, const QString& text);
  void paint_board(QPainter& p);
  void paint_rulers(QPainter& p);
  void paint_keep_outs(QPainter& p);
  [[nodiscard]] bool layer_stays(const QStringList& key, bool moves) const;
  void paint_outlines(QPainter& p);
  void paint_unreached(QPainter& p);
  void paint_selection(QPainter& p);
  void paint_section_line(QPainter& p);
  void paint_tabs(QPainter& p);
  void paint_zero(QPainter& p);
  [[nodiscard]] QPointF section_handle() const;

  Job job_;
  JudgementPtr judgement_;
  std::shared_ptr<const WeakMap> weak_;
  PlanPtr plan_;
  std::vector<PieceShape> shapes_;
  std::map<std::string, std::pair<std::vector<Piece>, PieceShape>> known_;  // with what each is made of
  QString selected_;
  QStringList also_;
  QPainterPath board_, waste_, highlight_;  // board coordinates
  std::vector<Point> marks_;
  QPixmap layer_;  // the outlines that stand still, as last painted: of which pieces, and where the board lay
  QStringList layer_key_;
  double layer_scale_ = 0;
  QPointF layer_origin_;
  std::vector<std::unique_ptr<BenchHand>> hands_;
  BenchHand* held_ = nullptr;
  PointHand* points_ = nullptr;
  MeasureHand* measure_ = nullptr;
  DrawHand* draw_ = nullptr;
  Stage stage_ = Stage::Cuts;
  SectionLine section_;
  Side side_ = Side::Front;
  QPushButton* turn_;
  double scale_ = 1;  // pixels a mm
  QPointF origin_;    // screen place of the board's left front corner
  bool fitted_ = true;
  std::tuple<double, QPointF, Side> seen_{};  // the scale, the place and the side that were last told

  ReliefPainter painter_;
  QImage image_;
  Box image_area_;
  QImage overlay_, overlay_scaled_;
  Box overlay_box_;
  bool fine_ = false;
  SetJobPtr expected_;  // what is shown instead of the plan, which is of an earlier job

  Hand hand_ = Hand::None;
  int handle_ = -1;
  QPointF pressed_, now_;
  Qt::KeyboardModifiers modifiers_;
  int dragged_tab_ = -1;
  bool by_keys_ = false;  // the focus came by a key, and is shown
  bool marked_ = false;
  Point mark_;
};

}  // namespace doyen
