// Work behind the window for one part of it: the newest wins, and what an older one still says is not heard.
#pragma once

#include <QObject>
#include <functional>

#include "cancel.hpp"

namespace doyen {

// A member of whoever asks: it goes with it, and so does what it was told.
class Behind : public QObject {
  Q_OBJECT
 public:
  ~Behind() override { stop(); }
  // Says something on the window's thread, unless it was stopped or began anew meanwhile.
  using Tell = std::function<void(std::function<void()> what)>;
  // `done` is told last, unless it was stopped; not `well` where the work threw.
  void start(std::function<void(const Cancel&, const Tell&)> work, std::function<void(bool well)> done = {});
  void stop();

 private:
  Cancel cancel_;
  quint64 newest_ = 0;
};

}  // namespace doyen
