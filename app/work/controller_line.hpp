// The line to a simulated controller, which Doyen starts itself: lines go out as they are taken in, reports come back.
// No real machine is ever spoken to.
#pragma once

#include <QObject>
#include <QProcess>
#include <QSocketNotifier>
#include <QStringList>
#include <QTimer>
#include <vector>

#include "cutting/pass.hpp"
#include "machine/profile.hpp"

namespace doyen {

// What the controller says of itself. In the file's coordinates, mm.
struct MachineReport {
  QString state;  // idle, run, hold, wait, alarm
  Point3 at;
  double feed = 0;          // mm/min
  double seconds = 0;       // that it moved
  int line = 0;             // of the file, from 1; 0: none runs
  int change = 0;           // the number of the bit that it waits for
  std::vector<Point3> way;  // gone since the last report, corner by corner
};

class ControllerLine : public QObject {
  Q_OBJECT
 public:
  explicit ControllerLine(QObject* parent = nullptr);
  ~ControllerLine() override;
  // Starts one with this machine's figures; `origin`: where zero lies in the machine. Throws Problem when none can be.
  void open(const MachineProfile& machine, const Point3& origin, double speed);
  void close();
  [[nodiscard]] bool is_open() const { return terminal_ >= 0; }
  void place_bit(const Point3& at);  // before a file
  void send(const QString& file);
  void set_speed(double times);
  void set_override(int percent);
  void hold();
  void go_on();
  void stop();  // everything is forgotten

 Q_SIGNALS:
  void reported(const MachineReport& report);
  void ended();                        // the file's end was reached
  void refused(const QString& words);  // a line that it did not take
  void alarmed(const QString& words);
  void lost();  // the controller is gone

 private:
  void read();
  void take(const QString& line);
  void feed();
  void write(const QByteArray& bytes);
  QProcess program_;
  int terminal_ = -1;
  QSocketNotifier* notifier_ = nullptr;
  QTimer ask_;
  QByteArray incoming_;
  QStringList lines_;
  int next_ = 0, open_answers_ = 0;
};

// Where the program stands: beside Doyen, in the build tree, or where DOYEN_CONTROLLER says. Empty when nowhere.
QString controller_program();

}  // namespace doyen
