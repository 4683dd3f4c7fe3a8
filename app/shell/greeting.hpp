// What is shown before anything is open: the starts, recent jobs and the demos, each with its board as it will look.
#pragma once

#include <QDialog>
#include <QListWidget>

#include "work/job_pictures.hpp"

namespace doyen {

// Jobs as cards with their boards on them; one is chosen by a click or Enter.
class JobCards : public QListWidget {
  Q_OBJECT
 public:
  explicit JobCards(QWidget* parent = nullptr);
  void add(const QString& path, const QString& title);

 Q_SIGNALS:
  void taken(const QString& path);

 private:
  JobPictures pictures_;
};

class Greeting : public QDialog {
  Q_OBJECT
 public:
  enum class Start { Nothing, Sign, Art, Plates, Open, Demos, Recent, Lesson };
  Greeting(const QStringList& recent, QWidget* parent);
  [[nodiscard]] Start start() const { return start_; }
  [[nodiscard]] QString path() const { return path_; }  // of Recent

 private:
  void take(Start start, const QString& path = {});
  Start start_ = Start::Nothing;
  QString path_;
};

struct Demo {
  QString name, title;  // of data/demo; what it shows
};
QList<Demo> demos();

class DemoGallery : public QDialog {
  Q_OBJECT
 public:
  explicit DemoGallery(QWidget* parent);
  [[nodiscard]] QString chosen() const { return chosen_; }  // a demo's name; empty when none was taken

 private:
  QString chosen_;
};

}  // namespace doyen
