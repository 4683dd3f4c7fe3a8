// Tracing a picture with what is cut shown over it as it changes, and what that means at the size it shall have.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPainterPath>
#include <QPushButton>
#include <QSlider>
#include <QThreadPool>
#include <QTimer>
#include <memory>
#include <optional>

#include "artwork/trace.hpp"
#include "parts/length_field.hpp"
#include "planning/fitness.hpp"

namespace doyen {

// The picture with the ink that will be traced laid over it.
class TracePreview : public QWidget {
  Q_OBJECT
 public:
  explicit TracePreview(QWidget* parent = nullptr);
  void show_picture(const QImage& picture);
  [[nodiscard]] bool shows_lost() const { return !lost_.isEmpty(); }
  // `lost` in pixels of the picture: what no bit would reach at the wanted size.
  void show_traced(const QImage& ink, const QPainterPath& lost);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  QImage picture_, ink_;
  QPainterPath lost_;
};

class TraceDialog : public QDialog {
  Q_OBJECT
 public:
  // `width` in mm is the size the art shall have; `bit` is what it is judged for.
  TraceDialog(TracePicture picture, const TraceSettings& settings, double width, const Bit& bit, const Feeds& feeds,
              const MachineProfile& machine, const LengthStyle& lengths, QWidget* parent);
  ~TraceDialog() override;
  [[nodiscard]] const TraceSettings& settings() const { return settings_; }
  [[nodiscard]] double width_wanted() const { return width_; }
  [[nodiscard]] const TracePicture& picture() const { return *picture_; }
  [[nodiscard]] bool traced_fine() const { return fine_; }
  [[nodiscard]] bool busy() const { return busy_; }
  [[nodiscard]] bool shows_lost() const { return preview_->shows_lost(); }

 private:
  void build();
  void ask();  // soon: sliders move faster than tracing
  void run();
  void show_palette(const std::vector<std::uint32_t>& palette);

  std::shared_ptr<TracePicture> picture_;
  TraceSettings settings_;
  double width_;
  Bit bit_;
  Feeds feeds_;
  MachineProfile machine_;
  LengthStyle lengths_;
  TracePreview* preview_;
  QComboBox* cut_by_;
  QSlider *cut_, *specks_, *holes_, *smooth_, *corners_, *colours_;
  QCheckBox* invert_;
  QSlider *turn_, *crop_[4];
  LengthField* wanted_;
  QWidget* palette_;
  QLabel* say_;
  QPushButton *take_, *larger_;
  QTimer soon_;
  QThreadPool pool_;
  Cancel cancel_;
  quint64 generation_ = 0;
  bool fine_ = false, busy_ = false;
};

}  // namespace doyen
