// Pictures of jobs for lists: each board as it will look carved, worked out off the window's thread and kept by what
// the file holds, so that it is shown at once the next time.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>

#include "cancel.hpp"

namespace doyen {

class JobPictures : public QObject {
  Q_OBJECT
 public:
  explicit JobPictures(QObject* parent = nullptr);
  ~JobPictures() override;  // what is still being worked out is stopped
  // Told by ready(), at once or later; nothing comes for a job that cannot be read or planned.
  void request(const QString& path);

  static constexpr int kWide = 200, kHigh = 110;  // px that a picture fits into

 Q_SIGNALS:
  void ready(const QString& path, const QImage& picture);

 private:
  QThreadPool pool_;
  Cancel cancel_;
};

}  // namespace doyen
