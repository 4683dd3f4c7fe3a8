// No control does nothing: every field, list, box and spinner of every ticket is used as a person does, must change the
// job under a name, and is taken back whole by undo.
#include <QCheckBox>
#include <QComboBox>
#include <QPointer>
#include <QSpinBox>
#include <QStandardItemModel>
#include <QWheelEvent>
#include <set>

#include "window_probe.hpp"

using namespace probe;

namespace {

// What the row's label says, or the control's own words.
std::string called(const QWidget* control) {
  if (const auto* box = qobject_cast<const QAbstractButton*>(control)) return box->text().toStdString();
  if (const QWidget* row = control->parentWidget()) {
    for (const QLabel* label : row->findChildren<QLabel*>(QString(), Qt::FindDirectChildrenOnly))
      if (!label->text().isEmpty()) return label->text().toStdString();
  }
  return control->objectName().toStdString();
}

// These choose what is looked at, or say what the machine did: nothing of the job.
bool only_looks(const QWidget* control) {
  static const std::set<QString> kLooks{
      QStringLiteral("feedsOf"),     QStringLiteral("sanded"),       QStringLiteral("setting"),
      QStringLiteral("took"),        QStringLiteral("againRan"),     QStringLiteral("againFile"),
      QStringLiteral("deeperBy"),    QStringLiteral("outcome"),      QStringLiteral("mishap"),
      QStringLiteral("mishapBit"),   QStringLiteral("mishapBy"),     QStringLiteral("runWords"),
      QStringLiteral("changedWhy"),  QStringLiteral("rescuePart"),   QStringLiteral("planeOff"),
      QStringLiteral("offCutAlong"), QStringLiteral("offCutAcross"), QStringLiteral("offCutThick"),
      QStringLiteral("offCutPlace")};
  if (kLooks.contains(control->objectName()) || called(control) == "Extra space between")
    return true;  // which pair of letters
  for (const QWidget* up = control; up != nullptr; up = up->parentWidget()) {
    if (up->objectName().startsWith(QStringLiteral("try"))) return true;  // what if
  }
  return false;
}

void type_into(QLineEdit* field, const QString& text) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, text);
  QTest::keyClick(field, Qt::Key_Return);
}

// Each control gets another value; true when that was possible at all.
bool use(QWidget* control, const std::function<bool()>& changed) {
  if (auto* field = qobject_cast<LengthField*>(control)) {
    // A figure near the old one is sound almost everywhere; where it is not, others are tried.
    const double now = field->length().value_or(2);
    for (const double to : {now * 1.1 + 0.3, now * 0.8, 1.0, 3.0, 12.0, 120.0}) {
      type_into(field, QString::number(to, 'f', 3) + QStringLiteral(" mm"));
      if (changed()) return true;
    }
    return true;
  }
  if (auto* spin = qobject_cast<QAbstractSpinBox*>(control)) {
    spin->setFocus();
    for (int i = 0; i < 2 && !changed(); ++i) {
      i == 0 ? spin->stepUp() : spin->stepDown();
      QTest::keyClick(spin, Qt::Key_Return);
    }
    return true;
  }
  if (auto* box = qobject_cast<QComboBox*>(control)) {
    const auto* model = qobject_cast<QStandardItemModel*>(box->model());
    const int now = box->currentIndex();
    bool any = false;
    for (int i = 0; i < box->count() && !changed(); ++i) {
      const bool enabled = model == nullptr || model->item(i) == nullptr || model->item(i)->isEnabled();
      if (i == now || !enabled) continue;
      any = true;
      box->setCurrentIndex(i);
      Q_EMIT box->activated(i);
    }
    return any;
  }
  if (auto* box = qobject_cast<QCheckBox*>(control)) {
    box->click();
    return true;
  }
  return false;
}

void roll(QWidget* control, int by) {
  const QPointF at = QRectF(control->rect()).center();
  QWheelEvent wheel(at, control->mapToGlobal(at), {}, QPoint(0, by), Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                    false);
  QApplication::sendEvent(control, &wheel);
}

// What no hand means changes nothing: the wheel rolled over it in passing, nonsense left by Tab, typing given up by
// Esc, going through it by Tab.
void pass_over(Window& w, QWidget* control) {
  const Job before = w.job();
  w.window.bench().setFocus();
  roll(control, -120);
  roll(control, 240);
  CHECK(w.job() == before);
  auto* field = qobject_cast<QLineEdit*>(control);
  control->setFocus();
  if (field == nullptr) {
    QTest::keyClick(control, Qt::Key_Tab);
    CHECK(w.job() == before);
    return;
  }
  const QString shown = field->text();
  field->selectAll();
  QTest::keyClicks(field, QStringLiteral("rather much"));
  QTest::keyClick(field, Qt::Key_Escape);
  CHECK(field->text() == shown);
  if (qobject_cast<LengthField*>(control) != nullptr) {
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("rather much"));
    QTest::keyClick(field, Qt::Key_Tab);
    CHECK(field->property("wrong").toBool());
    field->setFocus();
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK(field->text() == shown);
    CHECK_FALSE(field->property("wrong").toBool());
  }
  QTest::keyClick(field, Qt::Key_Tab);
  CHECK(w.job() == before);
}

int use_every_control(Window& w, Stage stage, const char* piece) {
  w.choose(stage, piece);
  w.settle();
  QScrollArea* ticket = w.ticket();
  REQUIRE(ticket != nullptr);
  for (QToolButton* folder : ticket->findChildren<QToolButton*>()) {  // what is folded away counts, too
    if (folder->isVisible() && folder->isCheckable() && folder->objectName().endsWith(QStringLiteral("Open")))
      folder->setChecked(true);
  }
  QTest::qWait(10);
  QList<QPointer<QWidget>> controls;
  for (QWidget* control : ticket->findChildren<QWidget*>()) {
    const bool kind = qobject_cast<LengthField*>(control) != nullptr || qobject_cast<QComboBox*>(control) != nullptr ||
                      qobject_cast<QCheckBox*>(control) != nullptr || qobject_cast<QSpinBox*>(control) != nullptr ||
                      qobject_cast<QDoubleSpinBox*>(control) != nullptr;
    if (kind && control->isVisible() && control->isEnabled() && !only_looks(control)) controls.append(control);
  }
  int used = 0;
  for (const QPointer<QWidget>& control : controls) {
    if (control.isNull() || !control->isVisible()) continue;
    const std::string name = called(control);
    INFO("stage " << static_cast<int>(stage) << ", piece “" << piece << "”: " << name << " ("
                  << control->objectName().toStdString() << ")");
    pass_over(w, control);
    const Job before = w.job();
    const int steps = w.window.document().undo_stack().index();
    const auto changed = [&] { return !(w.job() == before); };
    if (!use(control, changed)) continue;
    ++used;
    CHECK(changed());
    CHECK_FALSE(w.window.document().undo_stack().undoText().isEmpty());
    // The key takes it back where the hand still is.
    for (int i = 0; i < 12 && !control.isNull() && w.window.document().undo_stack().index() > steps; ++i) {
      control->setFocus();
      QTest::keyClick(control, Qt::Key_Z, Qt::ControlModifier);
    }
    CHECK(w.window.document().undo_stack().index() == steps);
    while (w.window.document().undo_stack().index() > steps) w.window.document().undo_stack().undo();
    CHECK(w.job() == before);
    QApplication::processEvents();
  }
  return used;
}

}  // namespace

TEST_CASE("every control of every ticket changes the job, and undo takes it back whole") {
  const struct {
    const char* demo;
    std::vector<std::pair<Stage, const char*>> places;
  } demos[] = {{"gate-sign",
                {{Stage::Blank, ""},
                 {Stage::Artwork, "name"},
                 {Stage::Artwork, "outline"},
                 {Stage::Artwork, "sprig"},
                 {Stage::Cuts, "name"},
                 {Stage::Cuts, "outline"},
                 {Stage::Run, ""}}},
               {"heron-plaque", {{Stage::Artwork, "arch"}, {Stage::Artwork, "heron"}, {Stage::Cuts, "heron"}}},
               {"gate-sign-raised", {{Stage::Cuts, "name"}}},
               {"seed-drawer", {{Stage::Cuts, "field"}}},
               {"fingerpost", {{Stage::Cuts, "slot-left"}, {Stage::Run, ""}}},
               {"sundial-plate", {{Stage::Cuts, "motto"}}},
               {"inlaid-lid", {{Stage::Cuts, "sprig"}, {Stage::Run, ""}}},
               {"test-ladder", {{Stage::Cuts, "rung-2"}, {Stage::Cuts, "rung-2-label"}}}};
  Window w;
  int used = 0;
  for (const auto& one : demos) {
    INFO(one.demo);
    w.window.open_demo(QString::fromLatin1(one.demo));
    w.settle();
    for (const auto& [stage, piece] : one.places) {
      if (*piece != 0) REQUIRE(w.job().find(piece) != nullptr);
      used += use_every_control(w, stage, piece);
    }
  }
  CHECK(used > 150);
}

TEST_CASE("every kind of shape and of made piece answers to each of its fields") {
  using K = PlainShape::Kind;
  Job job;
  job.name = "Kinds";
  job.blank.width = 400;
  job.blank.height = 300;
  int i = 0;
  for (const K kind : {K::Rectangle, K::Ellipse, K::ArchTop, K::Polygon, K::Star, K::Ribbon, K::Line, K::Shield,
                       K::Heart, K::Bow, K::Arc}) {
    Item item;
    item.piece.id = "shape" + std::to_string(i);
    item.piece.name = "Shape " + std::to_string(i);
    item.piece.what = PlainShape{kind, 50, 30};
    item.piece.at = {60 + 30.0 * (i % 6), 80 + 60.0 * (i / 6)};
    job.items.push_back(item);
    ++i;
  }
  using H = Derived::How;
  const std::pair<H, const char*> made[] = {{H::Grow, "grow"},    {H::Join, "join"},   {H::TakeAway, "take"},
                                            {H::Overlap, "over"}, {H::Split, "split"}, {H::Mirror, "mirror"},
                                            {H::Grid, "grid"},    {H::Round, "round"}, {H::Along, "along"}};
  for (const auto& [how, id] : made) {
    Derived d;
    d.how = how;
    d.from = {"shape0"};
    if (how == H::Join || how == H::TakeAway || how == H::Overlap || how == H::Along) d.from.push_back("shape1");
    d.count = how == H::Along ? 0 : 6;
    d.distance = how == H::Along ? 8 : 3;
    Item item;
    item.piece.id = id;
    item.piece.name = id;
    item.piece.what = d;
    item.piece.at = {0, 0};
    job.items.push_back(item);
  }
  Window w;
  w.window.document().replace(job, {});
  w.settle();
  for (const Item& item : job.items) {
    INFO(item.piece.id);
    CHECK(use_every_control(w, Stage::Artwork, item.piece.id.c_str()) > 2);
  }
}

TEST_CASE("every look of a piece answers to each of its fields") {
  Window w;
  Job job;
  job.name = "Looks";
  job.blank.width = 300;
  job.blank.height = 200;
  job.blank.readings = {18, 18.2, 18.1};
  Item item{{"bar", "Bar", PlainShape{PlainShape::Kind::Rectangle, 80, 40}, {150, 100}, 0}, {}};
  item.cut.kind = Treatment::Kind::Incise;
  item.cut.bit = "v60";
  job.items.push_back(item);
  w.window.document().replace(job, {});
  w.settle();
  for (const char* look :
       {"incise", "raise", "recess", "line", "bevel", "drill", "plane", "pierce", "cutout", "hangerSlot", "inlay"}) {
    INFO(look);
    w.choose(Stage::Cuts, "bar");
    w.look(look);
    CHECK(use_every_control(w, Stage::Cuts, "bar") >= 4);
  }
}
