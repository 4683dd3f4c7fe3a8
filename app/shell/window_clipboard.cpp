// Copy, cut, paste, duplicate: within the job, between two windows, and as SVG from and to other programs.
#include <QBuffer>
#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>

#include "files/outlines_out.hpp"
#include "files/svg/svg_read.hpp"
#include "job/clip.hpp"
#include "job/layout.hpp"
#include "job/room.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "work/long_work.hpp"

namespace doyen {
namespace {

const QString kPieces = QStringLiteral("application/x-doyen-pieces");
const QString kSvg = QStringLiteral("image/svg+xml");

// How far the carried pieces have to go to lie where there is room, nearest to where they come from.
Point shift_for(const Job& job, const std::string& clip) {
  Job trial = job;
  Box box;
  for (const std::string& id : put_clip(trial, clip, {})) {
    try {
      const Box its = bounds(trial.outlines(*trial.find(id)));
      if (its.empty()) continue;
      box.add(Point{its.left, its.bottom});
      box.add(Point{its.right, its.top});
    } catch (const Problem&) {
      continue;  // its verdict says why it cannot be set
    }
  }
  if (box.empty()) return {};
  const std::optional<Point> free = Room(job).nearest(box.width(), box.height(), box.centre());
  return free ? *free - box.centre() : Point{10, -10};
}

}  // namespace

void MainWindow::copy_chosen() {
  const std::vector<std::string> ids = chosen_ids();
  const std::string clip = clip_of(document_.job(), ids);
  if (clip.empty()) return;
  auto* carried = new QMimeData;
  carried->setData(kPieces, QByteArray::fromStdString(clip));
  carried->setData(kSvg, QByteArray::fromStdString(outlines_as_svg(document_.job(), ids)));
  QGuiApplication::clipboard()->setMimeData(carried);
}

void MainWindow::cut_chosen() {
  copy_chosen();
  remove_piece();
}

void MainWindow::put_pieces(const QString& name, const std::string& clip) {
  try {
    const Point shift = shift_for(document_.job(), clip);
    std::vector<std::string> put;
    document_.edit(name, [&](Job& job) { put = put_clip(job, clip, shift); });
    // An edit that is refused says so itself, and leaves nothing to choose.
    if (put.empty() || document_.job().find(put.front()) == nullptr) return;
    QStringList all;
    for (const std::string& id : put) all << QString::fromStdString(id);
    bench_->choose(all);
  } catch (const Problem& problem) {
    say(tr("This cannot be pasted"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::duplicate_chosen() {
  const std::string clip = clip_of(document_.job(), chosen_ids());
  if (!clip.empty()) put_pieces(tr("duplicate what is chosen"), clip);
}

void MainWindow::group_chosen() {
  const std::vector<std::string> ids = chosen_ids();
  const bool apart = is_group(document_.job(), ids);
  document_.edit(apart ? tr("take a group apart") : tr("group %1 pieces").arg(ids.size()),
                 [&](Job& job) { apart ? ungroup(job, ids) : group(job, ids); });
  bench_->select(shop_.selected);
}

void MainWindow::paste() {
  const QMimeData* there = QGuiApplication::clipboard()->mimeData();
  if (there == nullptr) return;
  if (there->hasFormat(kPieces)) return put_pieces(tr("paste pieces"), there->data(kPieces).toStdString());
  const QString text = there->text();
  const std::string svg = there->hasFormat(kSvg) ? there->data(kSvg).toStdString()
                          : text.trimmed().startsWith(QLatin1Char('<')) && text.contains(QStringLiteral("<svg"))
                              ? text.toStdString()
                              : std::string();
  if (!svg.empty()) return paste_svg(svg);
  if (there->hasUrls()) {
    for (const QUrl& url : there->urls()) {
      if (url.isLocalFile()) add_drawing(url.toLocalFile());
    }
    return;
  }
  if (there->hasImage()) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    qvariant_cast<QImage>(there->imageData()).save(&buffer, "PNG");
    return trace_new(bytes.toStdString(), tr("Pasted picture"));
  }
  if (!text.trimmed().isEmpty()) {
    go_to_stage(Stage::Artwork);
    add_lettering(text.trimmed());
    return;
  }
  note(tr("There is nothing to paste that can be carved: pieces, an SVG drawing, a picture or words."));
}

void MainWindow::paste_svg(const std::string& svg) {
  go_to_stage(Stage::Artwork);
  try {
    Imported read;
    work_off_thread(this, tr("Reading the pasted drawing…"), [&](const Cancel& cancel, const Told& told) {
      read = read_svg(svg, tr("The pasted drawing").toStdString(), Reading(cancel, told));
    });
    take_drawing(read, tr("Pasted drawing"));
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    say(tr("This drawing cannot be taken"), QString::fromUtf8(problem.what()));
  }
}

}  // namespace doyen
