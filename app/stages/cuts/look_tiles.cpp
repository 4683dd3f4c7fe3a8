#include "stages/cuts/look_tiles.hpp"

#include <QGridLayout>
#include <QPainter>
#include <QToolButton>

#include "treatments/all.hpp"

namespace doyen {
namespace {

void not_cut(QPainter& p) { p.drawRect(QRectF(6, 5, 40, 20)); }

void incised(QPainter& p) { p.drawPolygon(QPolygonF{{6, 5}, {17, 5}, {26, 20}, {35, 5}, {46, 5}, {46, 25}, {6, 25}}); }

void line(QPainter& p) { p.drawPolygon(QPolygonF{{6, 5}, {22, 5}, {26, 11}, {30, 5}, {46, 5}, {46, 25}, {6, 25}}); }

void raised(QPainter& p) {
  p.drawPolygon(QPolygonF{{6, 14}, {17, 14}, {21, 5}, {31, 5}, {35, 14}, {46, 14}, {46, 25}, {6, 25}});
}

void recessed(QPainter& p) {
  p.drawPolygon(QPolygonF{{6, 5}, {15, 5}, {15, 16}, {37, 16}, {37, 5}, {46, 5}, {46, 25}, {6, 25}});
}

void pierced(QPainter& p) {
  p.drawRect(QRectF(6, 5, 13, 20));
  p.drawRect(QRectF(33, 5, 13, 20));
}

void bevelled(QPainter& p) { p.drawPolygon(QPolygonF{{14, 5}, {38, 5}, {46, 14}, {46, 25}, {6, 25}, {6, 14}}); }

void drilled(QPainter& p) {
  p.drawPolygon(QPolygonF{{6, 5}, {23, 5}, {23, 19}, {29, 19}, {29, 5}, {46, 5}, {46, 25}, {6, 25}});
}

void planed(QPainter& p) {
  p.drawRect(QRectF(6, 11, 40, 14));
  p.setPen(QPen(QColor(0xB8, 0xA9, 0x93), 1, Qt::DashLine));
  p.drawLine(QPointF(6, 5), QPointF(46, 5));
}

void inlaid(QPainter& p) {
  p.drawPolygon(QPolygonF{{6, 8}, {13, 8}, {19, 19}, {33, 19}, {39, 8}, {46, 8}, {46, 25}, {6, 25}});
  p.setBrush(QColor(0xF3, 0xE7, 0xCC));
  p.drawPolygon(QPolygonF{{14, 8}, {19.5, 17}, {32.5, 17}, {38, 8}, {46, 5}, {46, 1}, {6, 1}, {6, 5}});
}

// seen from behind: the head's hole and the slot above it
void hanger(QPainter& p) {
  p.drawRect(QRectF(6, 5, 40, 20));
  p.setBrush(QColor(0x7A, 0x50, 0x32));
  p.setPen(Qt::NoPen);
  p.drawEllipse(QRectF(21.5, 14, 9, 9));
  p.drawRoundedRect(QRectF(23.8, 7, 4.4, 12), 2.2, 2.2);
}

void cut_out(QPainter& p) {
  p.drawRect(QRectF(15, 5, 22, 20));
  p.setPen(QPen(QColor(0xB8, 0xA9, 0x93), 1, Qt::DashLine));
  p.setBrush(Qt::NoBrush);
  p.drawLine(QPointF(2, 5), QPointF(8, 5));
  p.drawLine(QPointF(44, 5), QPointF(50, 5));
  p.drawLine(QPointF(8, 5), QPointF(8, 25));
  p.drawLine(QPointF(44, 5), QPointF(44, 25));
}

struct Tile {
  Treatment::Kind kind;
  const char *word, *about;  // on the tile; what is said of it where its figures are set
  void (*draw)(QPainter&);
};
constexpr Tile kTiles[] = {
    {Treatment::Kind::Incise, QT_TRANSLATE_NOOP("doyen::LookTiles", "incised"), "", incised},
    {Treatment::Kind::Raise, QT_TRANSLATE_NOOP("doyen::LookTiles", "raised"),
     QT_TRANSLATE_NOOP("doyen::LookTiles", "It stays standing; the ground round it is sunk."), raised},
    {Treatment::Kind::Recess, QT_TRANSLATE_NOOP("doyen::LookTiles", "recessed"),
     QT_TRANSLATE_NOOP("doyen::LookTiles", "A flat floor inside its outline."), recessed},
    {Treatment::Kind::Line, QT_TRANSLATE_NOOP("doyen::LookTiles", "line"),
     QT_TRANSLATE_NOOP("doyen::LookTiles",
                       "The bit follows the line, or the outline where there is no line, at one depth."),
     line},
    {Treatment::Kind::Bevel, QT_TRANSLATE_NOOP("doyen::LookTiles", "bevelled"),
     QT_TRANSLATE_NOOP("doyen::LookTiles", "A slope along its outline; a cut on the same outline makes room."),
     bevelled},
    {Treatment::Kind::Drill, QT_TRANSLATE_NOOP("doyen::LookTiles", "drilled"),
     QT_TRANSLATE_NOOP("doyen::LookTiles", "Holes as wide as the bit."), drilled},
    {Treatment::Kind::Plane, QT_TRANSLATE_NOOP("doyen::LookTiles", "planed"),
     QT_TRANSLATE_NOOP("doyen::LookTiles", "An area taken down evenly; the rest of the job lies on it."), planed},
    {Treatment::Kind::Pierce, QT_TRANSLATE_NOOP("doyen::LookTiles", "pierced"), "", pierced},
    {Treatment::Kind::CutOut, QT_TRANSLATE_NOOP("doyen::LookTiles", "cut out"), "", cut_out},
    {Treatment::Kind::HangerSlot, QT_TRANSLATE_NOOP("doyen::LookTiles", "hanger"),
     QT_TRANSLATE_NOOP("doyen::LookTiles",
                       "A hole for a screw's head, and a slot upwards from it that the head slides along."),
     hanger},
    {Treatment::Kind::Inlay, QT_TRANSLATE_NOOP("doyen::LookTiles", "inlaid"), "", inlaid},
    {Treatment::Kind::None, QT_TRANSLATE_NOOP("doyen::LookTiles", "not cut"), "", not_cut},
};

static_assert(std::size(kTiles) == kLooks.size() - 1, "each look has a tile, but for the plug, which is made");

QIcon profile_of(void (*draw)(QPainter&), qreal ratio) {
  QPixmap pixmap(QSize(52, 30) * ratio);
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  QPainter p(&pixmap);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(QColor(0x9A, 0x6B, 0x45), 1));
  p.setBrush(QColor(0xDB, 0xBE, 0x98));
  draw(p);
  return QIcon(pixmap);
}

}  // namespace

LookTiles::LookTiles() {
  auto* tiles = new QGridLayout(this);
  tiles->setContentsMargins(0, 0, 0, 0);
  tiles->setSpacing(1);
  for (const auto& [kind, word, about, draw] : kTiles) {
    auto* tile = new QToolButton;
    tile->setIcon(profile_of(draw, devicePixelRatioF()));
    tile->setIconSize(QSize(36, 22));
    tile->setText(tr(word));
    tile->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    tile->setCheckable(true);
    tile->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    tile->setMinimumHeight(52);
    tile->setMinimumWidth(40);
    tile->setStyleSheet(QStringLiteral(
        "QToolButton { background: white; border: 1px solid #D8CFBF; border-radius: 6px; color: #2B2A28; font-size: "
        "8.5pt; }"
        "QToolButton:checked { background: #ECE7EF; border: 1.5px solid #5B4A6F; color: #4B3C5D; font-weight: 600; }"
        "QToolButton:focus { border: 1.5px solid #5B4A6F; }"));
    group_.addButton(tile, static_cast<int>(kind));
    tile->setObjectName(QStringLiteral("look-%1").arg(QLatin1String(to_word(kind))));
    tiles->addWidget(tile, tiles->count() / 4, tiles->count() % 4);
  }
  connect(&group_, &QButtonGroup::idClicked, this,
          [this](int kind) { Q_EMIT chosen(static_cast<Treatment::Kind>(kind)); });
}

QString LookTiles::about(Treatment::Kind kind) {
  for (const Tile& tile : kTiles) {
    if (tile.kind == kind && *tile.about != '\0') return tr(tile.about);
  }
  return {};
}

void LookTiles::show_chosen(Treatment::Kind kind) {
  if (auto* tile = group_.button(static_cast<int>(kind))) tile->setChecked(true);
}

}  // namespace doyen
