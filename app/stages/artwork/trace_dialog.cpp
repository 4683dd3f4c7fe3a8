#include "stages/artwork/trace_dialog.hpp"

#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>
#include <QToolButton>

#include "parts/cards.hpp"
#include "parts/flow_layout.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

QImage image_of(const std::vector<std::uint32_t>& pixels, int w, int h) {
  QImage image(w, h, QImage::Format_RGB32);
  for (int y = 0; y < h; ++y)
    std::memcpy(image.scanLine(y), &pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(w)],
                static_cast<std::size_t>(w) * 4);
  return image;
}

// Ink in plum, everything else clear.
QImage ink_image(const Traced& traced) {
  QImage image(traced.width, traced.height, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  const QRgb ink = qPremultiply(qRgba(91, 74, 111, 190));
  for (int y = 0; y < traced.height; ++y) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
    for (int x = 0; x < traced.width; ++x) {
      if (traced
              .ink[static_cast<std::size_t>(y) * static_cast<std::size_t>(traced.width) + static_cast<std::size_t>(x)])
        line[x] = ink;
    }
  }
  return image;
}

QImage straightened(const QImage& picture, const TraceSettings& s) {
  QImage image = picture;
  if (std::abs(s.straighten) > 0.01) {
    QImage turned(image.size(), QImage::Format_RGB32);
    turned.fill(Qt::white);
    QPainter p(&turned);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.translate(image.width() / 2.0, image.height() / 2.0);
    p.rotate(-s.straighten);
    p.translate(-image.width() / 2.0, -image.height() / 2.0);
    p.drawImage(0, 0, image);
    p.end();
    image = turned;
  }
  const int l = static_cast<int>(image.width() * s.crop_left), t = static_cast<int>(image.height() * s.crop_top);
  const int r = static_cast<int>(image.width() * s.crop_right), b = static_cast<int>(image.height() * s.crop_bottom);
  return image.copy(l, t, std::max(2, image.width() - l - r), std::max(2, image.height() - t - b));
}

struct Outcome {
  Traced traced;
  Fitness fit;
  QPainterPath lost;
  QString problem;
};

// The board's millimetres back to the picture's pixels.
QPainterPath on_picture(const Region& region, double mm_per_pixel) {
  QPainterPath path;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      QPolygonF polygon;
      for (const Point& p : ring) polygon.append(QPointF(p.x / mm_per_pixel, -p.y / mm_per_pixel));
      path.addPolygon(polygon);
      path.closeSubpath();
    }
  }
  return path;
}

}  // namespace

TracePreview::TracePreview(QWidget* parent) : QWidget(parent) {
  setMinimumSize(420, 320);
  setAccessibleName(tr("The picture, with what will be traced laid over it"));
}
void TracePreview::show_picture(const QImage& picture) {
  picture_ = picture;
  update();
}
void TracePreview::show_traced(const QImage& ink, const QPainterPath& lost) {
  ink_ = ink;
  lost_ = lost;
  update();
}
void TracePreview::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), theme::kBench);
  if (picture_.isNull()) return;
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  const QSizeF size = QSizeF(picture_.size()).scaled(rect().size() - QSize(24, 24), Qt::KeepAspectRatio);
  const QRectF where(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
  p.drawImage(where, picture_);
  p.fillRect(where, QColor(255, 255, 255, 110));  // the picture steps back behind what is traced
  if (!ink_.isNull()) p.drawImage(where, ink_);
  if (!lost_.isEmpty() && !ink_.isNull()) {
    const double k = where.width() / ink_.width();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(theme::kBrick, 1.6));
    p.setBrush(theme::kBrick);
    p.drawPath(QTransform(k, 0, 0, k, where.left(), where.top()).map(lost_));
  }
  p.setPen(theme::kHairline);
  p.drawRect(where);
}

TraceDialog::TraceDialog(TracePicture picture, const TraceSettings& settings, double width, const Bit& bit,
                         const Feeds& feeds, const MachineProfile& machine, const LengthStyle& lengths, QWidget* parent)
    : QDialog(parent),
      picture_(std::make_shared<TracePicture>(std::move(picture))),
      settings_(settings),
      width_(width),
      bit_(bit),
      feeds_(feeds),
      machine_(machine),
      lengths_(lengths) {
  setWindowTitle(tr("Trace a picture"));
  setObjectName(QStringLiteral("traceDialog"));
  build();
  pool_.setMaxThreadCount(1);
  soon_.setSingleShot(true);
  soon_.setInterval(60);
  connect(&soon_, &QTimer::timeout, this, &TraceDialog::run);
  run();
}

TraceDialog::~TraceDialog() {
  cancel_.request();
  pool_.waitForDone();
}

void TraceDialog::build() {
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  preview_ = new TracePreview;
  whole->addWidget(preview_, 1);
  auto* sheet = new QFrame;
  sheet->setProperty("role", QStringLiteral("ticket"));
  sheet->setFixedWidth(theme::kTicketWidth + 20);
  auto* column = new QVBoxLayout(sheet);
  column->setContentsMargins(18, 14, 16, 16);
  column->setSpacing(6);
  column->addWidget(make_label(tr("Trace a picture"), "title"));
  cut_by_ = new QComboBox;
  cut_by_->setObjectName(QStringLiteral("cutBy"));
  cut_by_->addItems(
      {tr("brightness, found by Doyen"), tr("brightness, uneven light"), tr("brightness, set by hand"), tr("colours")});
  cut_by_->setCurrentIndex(settings_.colours > 1 ? 3 : settings_.uneven ? 1 : settings_.automatic ? 0 : 2);
  column->addWidget(make_row(tr("Find the ink by"), cut_by_));
  // A slider with its figure and unit beside it; the tool tip says what its two ends mean.
  const auto slider = [&](const QString& label, int least, int most, double value, const QString& left,
                          const QString& right, const std::function<QString(int)>& words) {
    auto* s = new QSlider(Qt::Horizontal);
    s->setRange(least, most);
    s->setValue(static_cast<int>(std::lround(value)));
    s->setToolTip(left + QStringLiteral(" … ") + right);
    auto* figure = new QLabel(words(s->value()));
    figure->setFixedWidth(58);
    figure->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    auto* holder = new QWidget;
    auto* row = new QHBoxLayout(holder);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(s, 1);
    row->addWidget(figure);
    column->addWidget(make_row(label, holder));
    s->setAccessibleName(label);
    connect(s, &QSlider::valueChanged, this, [this, figure, words](int v) {
      figure->setText(words(v));
      ask();
    });
    return s;
  };
  const auto plain = [](int v) { return QString::number(v); };
  const auto square = [](int v) { return tr("%1 px²").arg(v * v); };
  const auto pixels = [](int v) { return tr("%1 px").arg(v); };
  const auto percent = [](int v) { return tr("%1 %").arg(v); };
  const auto degrees = [](int v) { return tr("%1°").arg(v / 10.0, 0, 'f', 1); };
  cut_ = slider(tr("Brightness cut"), 1, 254, settings_.cut, tr("only the darkest"), tr("nearly everything"), plain);
  colours_ = slider(tr("Colours kept"), 2, 12, std::max(2, settings_.colours), tr("few"), tr("many"), plain);
  palette_ = new QWidget;
  new FlowLayout(palette_, 4);
  column->addWidget(palette_);
  invert_ = new QCheckBox(tr("Carve the light parts"));
  invert_->setChecked(settings_.invert);
  column->addWidget(invert_);
  specks_ = slider(tr("Specks dropped"), 0, 60, std::sqrt(settings_.specks), tr("none"), tr("large ones too"), square);
  holes_ = slider(tr("Holes filled"), 0, 60, std::sqrt(settings_.holes), tr("none"), tr("large ones too"), square);
  smooth_ = slider(tr("Smoothness"), 0, 10, settings_.smoothness, tr("as it is"), tr("very smooth"), pixels);
  corners_ = slider(tr("Corners"), 0, 100, settings_.corners * 100, tr("rounded"), tr("sharp"), percent);
  turn_ = slider(tr("Straighten"), -300, 300, settings_.straighten * 10, tr("turn right"), tr("turn left"), degrees);
  crop_[0] = slider(tr("Crop left"), 0, 90, settings_.crop_left * 100, tr("nothing"), tr("nearly all"), percent);
  crop_[1] = slider(tr("Crop right"), 0, 90, settings_.crop_right * 100, tr("nothing"), tr("nearly all"), percent);
  crop_[2] = slider(tr("Crop top"), 0, 90, settings_.crop_top * 100, tr("nothing"), tr("nearly all"), percent);
  crop_[3] = slider(tr("Crop bottom"), 0, 90, settings_.crop_bottom * 100, tr("nothing"), tr("nearly all"), percent);
  column->addWidget(make_line());
  wanted_ = new LengthField(1, 20'000);
  wanted_->setObjectName(QStringLiteral("traceWidth"));
  wanted_->show_length(width_, lengths_);
  column->addWidget(make_row(tr("Wanted width"), wanted_));
  say_ = make_label({}, "plain");
  say_->setObjectName(QStringLiteral("traceSays"));
  column->addWidget(say_);
  larger_ = new QPushButton;
  larger_->setProperty("role", QStringLiteral("remedy"));
  larger_->hide();
  column->addWidget(larger_, 0, Qt::AlignLeft);
  column->addStretch();
  auto* buttons = new QHBoxLayout;
  auto* no = new QPushButton(tr("Cancel"));
  take_ = new QPushButton(tr("Take the outlines"));
  take_->setObjectName(QStringLiteral("takeTrace"));
  take_->setProperty("role", QStringLiteral("main"));
  buttons->addWidget(no);
  buttons->addStretch();
  buttons->addWidget(take_);
  column->addLayout(buttons);
  whole->addWidget(sheet);
  connect(no, &QPushButton::clicked, this, &QDialog::reject);
  connect(take_, &QPushButton::clicked, this, &QDialog::accept);
  connect(cut_by_, &QComboBox::activated, this, &TraceDialog::ask);
  connect(invert_, &QCheckBox::clicked, this, &TraceDialog::ask);
  connect(wanted_, &LengthField::entered, this, [this](std::optional<double> mm) {
    width_ = *mm;
    ask();
  });
  connect(larger_, &QPushButton::clicked, this, [this] {
    width_ = larger_->property("width").toDouble();
    wanted_->show_length(width_, lengths_);
    ask();
  });
}

void TraceDialog::ask() {
  const int by = cut_by_->currentIndex();
  settings_.automatic = by == 0;
  settings_.uneven = by == 1;
  settings_.colours = by == 3 ? colours_->value() : 0;
  if (by != 3) settings_.picked.clear();
  settings_.cut = cut_->value();
  settings_.invert = invert_->isChecked();
  settings_.specks = specks_->value() * specks_->value();
  settings_.holes = holes_->value() * holes_->value();
  settings_.smoothness = smooth_->value();
  settings_.corners = corners_->value() / 100.0;
  settings_.straighten = turn_->value() / 10.0;
  settings_.crop_left = crop_[0]->value() / 100.0;
  settings_.crop_right = crop_[1]->value() / 100.0;
  settings_.crop_top = crop_[2]->value() / 100.0;
  settings_.crop_bottom = crop_[3]->value() / 100.0;
  soon_.start();
}

void TraceDialog::show_palette(const std::vector<std::uint32_t>& palette) {
  clear_layout(palette_->layout());
  for (std::size_t i = 0; i < palette.size(); ++i) {
    auto* chip = new QToolButton;
    const int index = static_cast<int>(i);
    const bool on = settings_.picked.empty()
                        ? i == 0
                        : std::find(settings_.picked.begin(), settings_.picked.end(), index) != settings_.picked.end();
    chip->setCheckable(true);
    chip->setChecked(on);
    chip->setFixedSize(28, 28);
    chip->setToolTip(tr("Ink when it is framed"));
    chip->setAccessibleName(tr("Colour %1").arg(i + 1));
    chip->setStyleSheet(QStringLiteral("QToolButton { background: %1; border: 1px solid #D8CFBF; border-radius: 5px; } "
                                       "QToolButton:checked { border: 3px solid #5B4A6F; }")
                            .arg(QColor::fromRgb(palette[i]).name()));
    connect(chip, &QToolButton::clicked, this, [this, index, chip] {
      if (settings_.picked.empty()) settings_.picked.push_back(0);
      std::erase(settings_.picked, index);
      if (chip->isChecked()) settings_.picked.push_back(index);
      if (settings_.picked.empty()) settings_.picked.push_back(index);
      ask();
    });
    palette_->layout()->addWidget(chip);
  }
  palette_->setVisible(!palette.empty());
}

void TraceDialog::run() {
  cut_->parentWidget()->parentWidget()->setVisible(cut_by_->currentIndex() == 2);
  colours_->parentWidget()->parentWidget()->setVisible(cut_by_->currentIndex() == 3);
  cancel_.request();
  cancel_ = Cancel();
  const quint64 mine = ++generation_;
  busy_ = true;
  preview_->show_picture(straightened(image_of(picture_->pixels(), picture_->width(), picture_->height()), settings_));
  pool_.start([this, mine, picture = picture_, settings = settings_, width = width_, bit = bit_, feeds = feeds_,
               machine = machine_, cancel = cancel_] {
    auto outcome = std::make_shared<Outcome>();
    try {
      const Cancel::Scope stops(cancel);
      outcome->traced = trace(*picture, settings, cancel);
      std::vector<Ring> rings;
      Box box;
      for (const Path& part : outcome->traced.parts) {
        for (const Ring& ring : flatten(part, 0.5, true).closed) box.add(bounds(ring));
      }
      const double k = box.width() > 0 ? width / box.width() : 1;
      for (const Path& part : outcome->traced.parts) {
        for (Island& island :
             clean(flatten(transformed(part, Transform::scale(k, -k)), kFlatness, true).closed, Fill::EvenOdd).islands)
          rings.insert(rings.end(), island.rings.begin(), island.rings.end());
      }
      outcome->fit = fitness_of(clean(rings), bit, feeds, machine, cancel);
      outcome->lost = on_picture(outcome->fit.lost, k);
    } catch (const Cancelled&) {
      return;
    } catch (const Problem& problem) {
      outcome->problem = QString::fromUtf8(problem.what());
    } catch (const std::exception&) {
      outcome->problem = tr("There is not enough memory for this picture.");
    }
    QMetaObject::invokeMethod(
        this,
        [this, mine, outcome] {
          if (mine != generation_) return;
          busy_ = false;
          fine_ = outcome->problem.isEmpty();
          take_->setEnabled(fine_);
          larger_->hide();
          show_palette(outcome->traced.palette);
          preview_->show_traced(outcome->traced.ink.empty() ? QImage() : ink_image(outcome->traced), outcome->lost);
          if (!fine_) return say_->setText(outcome->problem);
          const Fitness& f = outcome->fit;
          const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, lengths_)); };
          say_->setText(tr("At this size: thinnest stroke %1, narrowest gap %2. %3 points, %4 per cm; expected "
                           "speed %5. %6")
                            .arg(show(f.thinnest), show(f.gap))
                            .arg(f.points)
                            .arg(f.points_per_cm, 0, 'f', 0)
                            .arg(speed_of_asked(f.feed, f.feed_asked, lengths_))
                            .arg(f.needed_scale <= 1.0001
                                     ? tr("The %1 reaches all of it.").arg(QString::fromStdString(bit_.name))
                                     : tr("The %1 leaves %2 unreached, red in the picture.")
                                           .arg(QString::fromStdString(bit_.name),
                                                QString::fromStdString(format_area(f.unreached, lengths_)))));
          if (f.needed_scale > 1.0001) {
            larger_->setText(
                tr("Make it %1 wide: all is reached").arg(show(std::ceil(width_ * f.needed_scale * 10) / 10)));
            larger_->setProperty("width", std::ceil(width_ * f.needed_scale * 10) / 10);
            larger_->show();
          }
        },
        Qt::QueuedConnection);
  });
}

}  // namespace doyen
