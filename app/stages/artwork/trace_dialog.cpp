#include "stages/artwork/trace_dialog.hpp"

#include <QHBoxLayout>
#include <QPainter>
#include <QSignalBlocker>
#include <QToolButton>

#include "parts/cards.hpp"
#include "parts/flow_layout.hpp"
#include "parts/theme.hpp"
#include "parts/ticket.hpp"
#include "problem.hpp"
#include "stages/artwork/trace_pictures.hpp"

namespace doyen {
struct TraceOutcome {
  Traced traced;
  Fitness fit;
  QImage ink, cleaned;
  QPainterPath lost;
  double mm_per_pixel = 0;
  QString problem;
};

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
  const auto slider = [&](const QString& label, int least, int most, double value) {
    auto* s = new QSlider(Qt::Horizontal);
    s->setRange(least, most);
    s->setValue(static_cast<int>(std::lround(value)));
    s->setToolTip(QString::number(s->value()));
    column->addWidget(make_row(label, s));
    connect(s, &QSlider::valueChanged, this, [this, s](int v) {
      s->setToolTip(QString::number(v));
      ask();
    });
    return s;
  };
  cut_ = slider(tr("Brightness cut"), 1, 254, settings_.cut);
  colours_ = slider(tr("Colours kept"), 2, 12, std::max(2, settings_.colours));
  palette_ = new QWidget;
  new FlowLayout(palette_, 4);
  column->addWidget(palette_);
  invert_ = new QCheckBox(tr("Carve the light parts"));
  invert_->setChecked(settings_.invert);
  column->addWidget(invert_);
  build_sizes(column);
  build_crop(column);
  column->addWidget(make_line());
  wanted_ = new LengthField({1, 20'000});
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
  column->addWidget(
      make_label(tr("Drag the frame to crop; the wheel zooms. Click a hole or a speck to have it the other "
                    "way round. Amber was dropped or filled."),
                 "faded"));
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
    if (mm_per_pixel_ > 0) mm_per_pixel_ *= *mm / width_;
    width_ = *mm;
    ask();
  });
  connect(larger_, &QPushButton::clicked, this, [this] {
    const double wide = larger_->property("width").toDouble();
    if (mm_per_pixel_ > 0) mm_per_pixel_ *= wide / width_;
    width_ = wide;
    wanted_->show_length(width_, lengths_);
    ask();
  });
}

void TraceDialog::add_size(QVBoxLayout* column, WoodSize& size, const QString& label, const char* name,
                           const QString& tip, int most) {
  size.slider = new QSlider(Qt::Horizontal);
  size.slider->setRange(0, most);
  const double now = settings_.*size.member;
  size.slider->setValue(static_cast<int>(std::lround(size.area ? std::sqrt(now) : now)));
  size.slider->setAccessibleName(label);
  size.field = new LengthField({0, 500}, true);
  size.field->setObjectName(QLatin1String(name));
  size.field->setFixedWidth(88);
  size.field->setPlaceholderText(tr("none"));
  size.field->setToolTip(tip);
  auto* holder = new QWidget;
  auto* row = new QHBoxLayout(holder);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(size.slider, 1);
  row->addWidget(size.field);
  column->addWidget(make_row(label, holder));
  size.field->setAccessibleName(label);
  connect(size.slider, &QSlider::valueChanged, this, [this, &size](int v) {
    size.typed.reset();
    settings_.*size.member = size.area ? v * v : v;
    show_sizes();
    ask();
  });
  connect(size.field, &LengthField::entered, this, [this, &size](std::optional<double> mm) {
    size.typed = mm.value_or(0);
    follow_typed();
    ask();
  });
}

void TraceDialog::build_sizes(QVBoxLayout* column) {
  specks_.member = &TraceSettings::specks;
  holes_.member = &TraceSettings::holes;
  smooth_.member = &TraceSettings::smoothness;
  smooth_.area = false;
  add_size(column, specks_, tr("Smallest speck carved"), "smallestSpeck",
           tr("Ink that is less across is dropped, shown in amber"), 60);
  add_size(column, holes_, tr("Smallest hole kept"), "smallestHole",
           tr("Holes that are less across are filled, shown in amber"), 60);
  add_size(column, smooth_, tr("Smoothed by"), "smoothedBy", tr("How far ragged edges are evened out"), 10);
  // A slider and a figure of the same.
  const auto both = [&](const QString& label, int least, int most, double times, double value, const QString& suffix,
                        int decimals, QSlider*& slider, QDoubleSpinBox*& box) {
    slider = new QSlider(Qt::Horizontal);
    slider->setRange(least, most);
    slider->setValue(static_cast<int>(std::lround(value * times)));
    slider->setAccessibleName(label);
    box = new QDoubleSpinBox;
    box->setRange(least / times, most / times);
    box->setDecimals(decimals);
    box->setSuffix(suffix);
    box->setValue(value);
    box->setKeyboardTracking(false);
    box->setFixedWidth(88);
    auto* holder = new QWidget;
    auto* row = new QHBoxLayout(holder);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(slider, 1);
    row->addWidget(box);
    column->addWidget(make_row(label, holder));
    box->setAccessibleName(label);
    connect(slider, &QSlider::valueChanged, this, [box = box, times](int v) { box->setValue(v / times); });
    connect(box, &QDoubleSpinBox::valueChanged, this, [this, slider = slider, times](double v) {
      const QSignalBlocker quiet(slider);
      slider->setValue(static_cast<int>(std::lround(v * times)));
      ask();
    });
  };
  both(tr("Corners kept sharp"), 0, 100, 1, settings_.corners * 100, tr(" %"), 0, corners_, corner_share_);
  both(tr("Straighten by"), -300, 300, 10, settings_.straighten, QStringLiteral("°"), 1, turn_, degrees_);
  corner_share_->setObjectName(QStringLiteral("traceCorners"));
  degrees_->setObjectName(QStringLiteral("straighten"));
}

void TraceDialog::build_crop(QVBoxLayout* column) {
  auto* holder = new QWidget;
  auto* row = new QHBoxLayout(holder);
  row->setContentsMargins(0, 0, 0, 0);
  cropped_ = make_label({}, "faded");
  cropped_->setObjectName(QStringLiteral("croppedTo"));
  whole_ = new QPushButton(tr("Whole picture"));
  whole_->setObjectName(QStringLiteral("wholePicture"));
  row->addWidget(cropped_, 1);
  row->addWidget(whole_);
  column->addWidget(holder);
  forget_ = new QPushButton;
  forget_->setObjectName(QStringLiteral("forgetSettled"));
  column->addWidget(forget_, 0, Qt::AlignLeft);
  const auto crop = [this](const TracePreview::Crop& to) {
    settings_.crop_left = to.left;
    settings_.crop_right = to.right;
    settings_.crop_top = to.top;
    settings_.crop_bottom = to.bottom;
    preview_->show_crop(to);
    ask();
  };
  connect(preview_, &TracePreview::cropped, this, crop);
  connect(whole_, &QPushButton::clicked, this, [crop] { crop({}); });
  connect(preview_, &TracePreview::tapped, this, &TraceDialog::settle_at);
  connect(forget_, &QPushButton::clicked, this, [this] {
    settings_.settled.clear();
    ask();
  });
  preview_->show_crop({settings_.crop_left, settings_.crop_top, settings_.crop_right, settings_.crop_bottom});
}

// Wide as a round spot of so many px² is, in mm, to 0.01 mm.
double TraceDialog::in_wood(const WoodSize& size, double mm_per_pixel) const {
  const double now = settings_.*size.member;
  return std::round(100 * (size.area ? 2 * std::sqrt(now / M_PI) : now) * mm_per_pixel) / 100;
}

void TraceDialog::show_sizes() {
  if (mm_per_pixel_ <= 0) return;
  for (WoodSize* size : {&specks_, &holes_, &smooth_}) {
    const double mm = size->typed.value_or(in_wood(*size, mm_per_pixel_));
    size->field->show_length(mm > 0 ? std::optional(mm) : std::nullopt, lengths_);
  }
}

void TraceDialog::follow_typed() {
  if (mm_per_pixel_ <= 0) return;
  for (WoodSize* size : {&specks_, &holes_, &smooth_}) {
    if (!size->typed) continue;
    const double pixels = *size->typed / mm_per_pixel_;
    settings_.*size->member = size->area ? std::min(1e6, M_PI / 4 * pixels * pixels) : std::min(20.0, pixels);
    const QSignalBlocker quiet(size->slider);
    const double now = settings_.*size->member;
    size->slider->setValue(static_cast<int>(std::lround(size->area ? std::sqrt(now) : now)));
  }
}

// What lies there becomes the other: ink that is there goes, what was dropped or is a hole becomes ink.
void TraceDialog::settle_at(QPointF shares) {
  if (ink_.empty() || busy_) return;
  const double across = 1 - settings_.crop_left - settings_.crop_right,
               down = 1 - settings_.crop_top - settings_.crop_bottom;
  const int x = static_cast<int>((shares.x() - settings_.crop_left) / across * ink_width_),
            y = static_cast<int>((shares.y() - settings_.crop_top) / down * ink_height_);
  if (x < 0 || y < 0 || x >= ink_width_ || y >= ink_height_) return;
  const std::size_t at =
      static_cast<std::size_t>(y) * static_cast<std::size_t>(ink_width_) + static_cast<std::size_t>(x);
  const bool ink = ink_[at] == 0;
  // An earlier word for the same place is taken back by the other.
  std::erase_if(settings_.settled, [&](const TraceSettings::Settled& s) {
    return std::abs(s.x - shares.x()) * ink_width_ < 2 && std::abs(s.y - shares.y()) * ink_height_ < 2;
  });
  settings_.settled.push_back({std::clamp(shares.x(), 0.0, 1.0), std::clamp(shares.y(), 0.0, 1.0), ink});
  ask();
}

void TraceDialog::turn_settled(double by) {
  const double w = picture_->width(), h = picture_->height();
  const QTransform turn = QTransform().rotate(-by);
  for (TraceSettings::Settled& spot : settings_.settled) {
    const QPointF at = turn.map(QPointF((spot.x - 0.5) * w, (spot.y - 0.5) * h));
    spot.x = at.x() / w + 0.5;
    spot.y = at.y() / h + 0.5;
  }
  std::erase_if(settings_.settled, [](const TraceSettings::Settled& spot) {  // turned out of the picture
    return spot.x < 0 || spot.x > 1 || spot.y < 0 || spot.y > 1;
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
  settings_.corners = corner_share_->value() / 100;
  if (const double by = degrees_->value() - settings_.straighten; by != 0) {
    turn_settled(by);
    settings_.straighten = degrees_->value();
  }
  follow_typed();
  busy_ = true;
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
  show_row(cut_, cut_by_->currentIndex() == 2);
  show_row(colours_, cut_by_->currentIndex() == 3);
  cancel_.request();
  cancel_ = Cancel();
  const quint64 mine = ++generation_;
  busy_ = true;
  preview_->show_picture(
      straightened(image_of(picture_->pixels(), picture_->width(), picture_->height()), settings_.straighten));
  pool_.start([this, mine, picture = picture_, settings = settings_, width = width_, bit = bit_, feeds = feeds_,
               machine = machine_, cancel = cancel_] {
    auto outcome = std::make_shared<TraceOutcome>();
    try {
      const Cancel::Scope stops(cancel);
      outcome->traced = trace(*picture, settings, cancel);
      outcome->ink = ink_image(outcome->traced);
      outcome->cleaned = cleaned_image(outcome->traced);
      std::vector<Ring> rings;
      Box box;
      for (const Path& part : outcome->traced.parts) {
        for (const Ring& ring : flatten(part, 0.5, true).closed) box.add(bounds(ring));
      }
      const double k = box.width() > 0 ? width / box.width() : 1;
      outcome->mm_per_pixel = k;
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
          if (mine == generation_) show_outcome(*outcome);
        },
        Qt::QueuedConnection);
  });
}

void TraceDialog::show_outcome(const TraceOutcome& outcome) {
  busy_ = soon_.isActive();
  fine_ = outcome.problem.isEmpty();
  take_->setEnabled(fine_);
  larger_->hide();
  show_palette(outcome.traced.palette);
  preview_->show_traced(outcome.ink, outcome.cleaned, outcome.lost);
  forget_->setVisible(!settings_.settled.empty());
  forget_->setText(settings_.settled.size() == 1 ? tr("Forget the one settled by hand")
                                                 : tr("Forget the %1 settled by hand").arg(settings_.settled.size()));
  const bool cropped = settings_.crop_left + settings_.crop_right + settings_.crop_top + settings_.crop_bottom > 0;
  whole_->setVisible(cropped);
  if (!fine_) {
    ink_.clear();
    return say_->setText(outcome.problem);
  }
  ink_ = outcome.traced.ink;
  ink_width_ = outcome.traced.width;
  ink_height_ = outcome.traced.height;
  // What was typed in millimetres is meant in the wood: where the ink turned out narrower or wider, pixels follow.
  const bool other = mm_per_pixel_ <= 0 || std::abs(outcome.mm_per_pixel / mm_per_pixel_ - 1) > 0.01;
  const bool typed = specks_.typed || holes_.typed || smooth_.typed;
  // Opened again: what was set last time is meant in the wood, too.
  for (WoodSize* size : {&specks_, &holes_, &smooth_}) {
    if (mm_per_pixel_ <= 0 && settings_.*size->member != TraceSettings{}.*size->member)
      size->typed = in_wood(*size, outcome.mm_per_pixel);
  }
  mm_per_pixel_ = outcome.mm_per_pixel;
  if (other && typed) ask();
  show_sizes();
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, lengths_)); };
  const auto size = [&](double mm) { return QString::fromStdString(size_in_words(mm, lengths_)); };
  cropped_->setText((cropped ? tr("Cropped to %1 × %2") : tr("The whole picture, %1 × %2"))
                        .arg(size(ink_width_ * mm_per_pixel_), size(ink_height_ * mm_per_pixel_)));
  const Fitness& f = outcome.fit;
  QString words =
      tr("At this size: thinnest stroke %1, narrowest gap %2. %3 points, %4 per cm; expected speed %5. %6")
          .arg(show(f.thinnest), show(f.gap))
          .arg(f.points)
          .arg(f.points_per_cm, 0, 'f', 0)
          .arg(speed_of_asked(f.feed, f.feed_asked, lengths_))
          .arg(f.needed_scale <= 1.0001 ? tr("The %1 reaches all of it.").arg(QString::fromStdString(bit_.name))
                                        : tr("The %1 leaves %2 unreached, red in the picture.")
                                              .arg(QString::fromStdString(bit_.name),
                                                   QString::fromStdString(format_area(f.unreached, lengths_))));
  if (outcome.traced.uneven && cut_by_->currentIndex() == 0)
    words += QLatin1Char(' ') + tr("The light is uneven: each place is cut by its own brightness.");
  say_->setText(words);
  if (f.needed_scale <= 1.0001) return;
  const double wide = std::ceil(width_ * f.needed_scale * 10) / 10;
  larger_->setText(tr("Make it %1 wide: all is reached").arg(show(wide)));
  larger_->setProperty("width", wide);
  larger_->show();
}

}  // namespace doyen
