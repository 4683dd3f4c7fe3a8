// Tracing a picture with what is cut shown over it as it changes, and what that means at the size it shall have.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QThreadPool>
#include <QTimer>
#include <memory>
#include <optional>

#include "artwork/drawing/trace.hpp"
#include "parts/length_field.hpp"
#include "planning/fitness.hpp"
#include "stages/artwork/trace_preview.hpp"

namespace doyen {

struct TraceOutcome;

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
  // A size in the wood: a slider that counts in the picture's pixels, and a field in wood's words. What was typed there
  // is kept when the wanted width changes, and the pixels follow.
  struct WoodSize {
    QSlider* slider = nullptr;
    LengthField* field = nullptr;
    double TraceSettings::*member = nullptr;
    bool area = true;             // the setting counts px² of a round spot, and the field says how wide that is
    std::optional<double> typed;  // mm
  };
  void build();
  void build_sizes(QVBoxLayout* column);
  void build_crop(QVBoxLayout* column);
  void add_size(QVBoxLayout* column, WoodSize& size, const QString& label, const char* name, const QString& tip,
                int most);
  void ask();  // soon: sliders move faster than tracing
  void run();
  void show_outcome(const TraceOutcome& outcome);
  [[nodiscard]] double in_wood(const WoodSize& size, double mm_per_pixel) const;
  void show_sizes();               // in mm, as wide as the picture is wanted
  void follow_typed();             // the settings, from what was typed in mm
  void settle_at(QPointF shares);  // a hole or speck was tapped
  void turn_settled(double by);    // degrees, with the picture under them
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
  QSlider *cut_, *corners_, *turn_, *colours_;
  WoodSize specks_, holes_, smooth_;
  QCheckBox* invert_;
  QDoubleSpinBox *corner_share_, *degrees_;
  LengthField* wanted_;
  QWidget* palette_;
  QLabel *say_, *cropped_;
  QPushButton *take_, *larger_, *whole_, *forget_;
  QTimer soon_;
  QThreadPool pool_;
  Cancel cancel_;
  quint64 generation_ = 0;
  double mm_per_pixel_ = 0;        // at the wanted width, by what was traced last; 0 before
  std::vector<std::uint8_t> ink_;  // of what was traced last
  int ink_width_ = 0, ink_height_ = 0;
  bool fine_ = false, busy_ = false;
};

}  // namespace doyen
