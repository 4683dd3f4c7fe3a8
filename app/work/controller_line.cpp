#include "work/controller_line.hpp"

#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

#include <QCoreApplication>
#include <QFileInfo>

#include "problem.hpp"

namespace doyen {
namespace {

constexpr int kOpenAnswers = 16;  // lines on their way at once

Point3 point_of(const QString& text) {
  const QStringList parts = text.split(QLatin1Char(','));
  return parts.size() == 3 ? Point3{parts[0].toDouble(), parts[1].toDouble(), parts[2].toDouble()} : Point3{};
}

QString three(double x, double y, double z) {
  return QStringLiteral("%1,%2,%3").arg(x, 0, 'f', 3).arg(y, 0, 'f', 3).arg(z, 0, 'f', 3);
}
QString three(const std::array<double, 3>& of) { return three(of[0], of[1], of[2]); }

// “<run at x y z feed f line n seconds s [change n] way x,y,z …>”
MachineReport report_of(const QString& line) {
  const QStringList words = line.mid(1, line.size() - 2).split(QLatin1Char(' '), Qt::SkipEmptyParts);
  MachineReport report;
  report.state = words.value(0);
  for (int i = 1; i < words.size(); ++i) {
    const QString& word = words[i];
    if (word == QLatin1String("at")) {
      report.at = {words.value(i + 1).toDouble(), words.value(i + 2).toDouble(), words.value(i + 3).toDouble()};
      i += 3;
    } else if (word == QLatin1String("feed")) {
      report.feed = words.value(++i).toDouble();
    } else if (word == QLatin1String("line")) {
      report.line = words.value(++i).toInt();
    } else if (word == QLatin1String("seconds")) {
      report.seconds = words.value(++i).toDouble();
    } else if (word == QLatin1String("change")) {
      report.change = words.value(++i).toInt();
    } else if (word != QLatin1String("way")) {
      report.way.push_back(point_of(word));
    }
  }
  return report;
}

}  // namespace

QString controller_program() {
  const QString here = QCoreApplication::applicationDirPath();
  const QString said = qEnvironmentVariable("DOYEN_CONTROLLER");
  for (const QString& path :
       {said, here + QStringLiteral("/doyen-controller"), here + QStringLiteral("/../controller/doyen-controller")}) {
    if (!path.isEmpty() && QFileInfo(path).isExecutable()) return path;
  }
  return {};
}

ControllerLine::ControllerLine(QObject* parent) : QObject(parent) {
  ask_.setInterval(40);
  connect(&ask_, &QTimer::timeout, this, [this] { write("?"); });
  connect(&program_, &QProcess::finished, this, [this] {
    if (terminal_ < 0) return;
    close();
    Q_EMIT lost();
  });
}

ControllerLine::~ControllerLine() { close(); }

void ControllerLine::open(const MachineProfile& machine, const Point3& origin, double speed) {
  close();
  const QString program = controller_program();
  if (program.isEmpty())
    throw bad_input(tr("The simulated controller, doyen-controller, is not installed beside Doyen.").toStdString());
  program_.start(
      program, {QStringLiteral("--travel"),       three(machine.travel),
                QStringLiteral("--rapid"),        three(machine.rapid),
                QStringLiteral("--feed"),         three(machine.feed_most),
                QStringLiteral("--acceleration"), three(machine.acceleration),
                QStringLiteral("--corner"),       QString::number(machine.corner_deviation),
                QStringLiteral("--ahead"),        QString::number(machine.moves_ahead > 0 ? machine.moves_ahead : 250),
                QStringLiteral("--rate"),         QString::number(machine.moves_per_second),
                QStringLiteral("--step"),         QString::number(machine.least_step),
                QStringLiteral("--origin"),       three(origin.x, origin.y, origin.z),
                QStringLiteral("--speed"),        QString::number(speed)});
  if (!program_.waitForStarted(5000) || !program_.waitForReadyRead(5000)) {
    program_.kill();
    throw bad_input(tr("The simulated controller did not start: %1").arg(program_.errorString()).toStdString());
  }
  const QByteArray path = program_.readLine().trimmed();
  terminal_ = ::open(path.constData(), O_RDWR | O_NOCTTY | O_NONBLOCK);
  if (terminal_ < 0) {
    program_.kill();
    throw bad_input(
        tr("The simulated controller's line “%1” cannot be opened.").arg(QString::fromUtf8(path)).toStdString());
  }
  termios settings{};
  if (::tcgetattr(terminal_, &settings) == 0) {
    ::cfmakeraw(&settings);
    ::tcsetattr(terminal_, TCSANOW, &settings);
  }
  notifier_ = new QSocketNotifier(terminal_, QSocketNotifier::Read, this);
  connect(notifier_, &QSocketNotifier::activated, this, &ControllerLine::read);
  ask_.start();
}

void ControllerLine::close() {
  ask_.stop();
  if (notifier_ != nullptr) {  // whoever closes may have been told by it
    notifier_->setEnabled(false);
    notifier_->deleteLater();
    notifier_ = nullptr;
  }
  if (terminal_ >= 0) ::close(terminal_);
  terminal_ = -1;
  lines_.clear();
  incoming_.clear();
  open_answers_ = next_ = 0;
  if (program_.state() != QProcess::NotRunning) {
    program_.closeWriteChannel();  // it ends by itself
    if (!program_.waitForFinished(2000)) program_.kill();
    program_.waitForFinished(1000);
  }
}

void ControllerLine::place_bit(const Point3& at) {
  ++open_answers_;
  write(QStringLiteral("#place %1 %2 %3\n").arg(at.x, 0, 'f', 4).arg(at.y, 0, 'f', 4).arg(at.z, 0, 'f', 4).toUtf8());
}

void ControllerLine::send(const QString& file) {
  lines_ = file.split(QLatin1Char('\n'));
  while (!lines_.isEmpty() && lines_.last().isEmpty()) lines_.removeLast();
  next_ = 0;
  feed();
}

void ControllerLine::set_speed(double times) {
  ++open_answers_;
  write(QStringLiteral("#speed %1\n").arg(times).toUtf8());
}

void ControllerLine::set_override(int percent) {
  ++open_answers_;
  write(QStringLiteral("#override %1\n").arg(percent).toUtf8());
}

void ControllerLine::hold() { write("!"); }
void ControllerLine::go_on() { write("~"); }

void ControllerLine::stop() {
  lines_.clear();
  next_ = open_answers_ = 0;
  write("\x18");
}

void ControllerLine::feed() {
  while (next_ < lines_.size() && open_answers_ < kOpenAnswers) {
    ++open_answers_;
    write(lines_[next_++].toUtf8() + '\n');
  }
}

void ControllerLine::write(const QByteArray& bytes) {
  constexpr int kMostTries = 2000, kRest = 500;  // a second in all, µs
  int tries = 0;
  for (qsizetype done = 0; terminal_ >= 0 && done < bytes.size();) {
    const ssize_t n = ::write(terminal_, bytes.constData() + done, static_cast<std::size_t>(bytes.size() - done));
    if (n > 0) {
      done += n;
    } else if (n < 0 && errno == EAGAIN && ++tries < kMostTries) {
      ::usleep(kRest);
    } else {  // nobody reads there any more
      program_.kill();
      return;
    }
  }
}

void ControllerLine::read() {
  char bytes[16384];
  ssize_t n = 0;
  while ((n = ::read(terminal_, bytes, sizeof bytes)) > 0) incoming_.append(bytes, static_cast<qsizetype>(n));
  for (qsizetype end = incoming_.indexOf('\n'); end >= 0; end = incoming_.indexOf('\n')) {
    const QString line = QString::fromUtf8(incoming_.left(end));
    incoming_.remove(0, end + 1);
    take(line);
    if (terminal_ < 0) return;  // whoever listened has closed it
  }
  feed();
}

void ControllerLine::take(const QString& line) {
  if (line.startsWith(QLatin1Char('<'))) return Q_EMIT reported(report_of(line));
  if (line == QLatin1String("ok")) {
    open_answers_ = std::max(0, open_answers_ - 1);
  } else if (line == QLatin1String("end")) {
    Q_EMIT ended();
  } else if (line.startsWith(QLatin1String("alarm "))) {
    lines_.clear();
    Q_EMIT alarmed(line.mid(6));
  } else if (line.startsWith(QLatin1String("error "))) {
    open_answers_ = std::max(0, open_answers_ - 1);
    if (!lines_.isEmpty()) Q_EMIT refused(line.mid(6));
    lines_.clear();
  }
}

}  // namespace doyen
