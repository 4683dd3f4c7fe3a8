#include "work/job_pictures.hpp"

#include <QBuffer>
#include <QCoreApplication>
#include <QFileInfo>
#include <QPointer>
#include <QStandardPaths>

#include "files/outputs.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "version.hpp"
#include "work/planner.hpp"

namespace doyen {
namespace {

QString kept_as(const std::string& bytes) {
  return QStandardPaths::writableLocation(QStandardPaths::CacheLocation) + QStringLiteral("/boards/") +
         QString::fromStdString(mark_of(bytes)) + QLatin1Char('-') + QString::fromUtf8(version()) +
         QStringLiteral(".png");
}

QImage carved(const std::string& path, const Cancel& cancel) {
  const Job job = load_job(path);
  const Plan planned = plan(job, load_rack(), machine_for(job), nullptr, cancel);
  return to_image(board_picture(planned, 2.0 * JobPictures::kWide, Side::Front, cancel))
      .scaled(JobPictures::kWide, JobPictures::kHigh, Qt::KeepAspectRatio, Qt::SmoothTransformation);
}

void keep(const QImage& picture, const QString& file) {
  try {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    picture.save(&buffer, "PNG");
    make_folder(QFileInfo(file).path().toStdString());
    write_file_atomically(file.toStdString(), bytes.toStdString());
  } catch (const Problem&) {
    return;
  }
}

}  // namespace

JobPictures::JobPictures(QObject* parent) : QObject(parent) { pool_.setMaxThreadCount(1); }

JobPictures::~JobPictures() {
  cancel_.request();
  pool_.clear();
  pool_.waitForDone();
}

void JobPictures::request(const QString& path) {
  pool_.start([self = QPointer<JobPictures>(this), path, cancel = cancel_] {
    try {
      const Cancel::Scope stops(cancel);
      cancel.check();
      const QString kept = kept_as(read_file(path.toStdString()));
      QImage picture(kept);
      if (picture.isNull()) {
        picture = carved(path.toStdString(), cancel);
        // Only a help for the next time: where it cannot be kept it is worked out again.
        keep(picture, kept);
      }
      QMetaObject::invokeMethod(
          qApp,
          [self, path, picture] {
            if (self) Q_EMIT self->ready(path, picture);
          },
          Qt::QueuedConnection);
    } catch (const Cancelled&) {
      return;
    } catch (const std::exception&) {
      return;  // opening it says why
    }
  });
}

}  // namespace doyen
