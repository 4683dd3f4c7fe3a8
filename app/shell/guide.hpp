// The user guide: plain pages that ship with the program (data/guide), with pictures, to be read and searched.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>

namespace doyen {

// Pages are Markdown beside each other; links name other pages, pictures stand in `pictures/`.
class GuidePage : public QTextBrowser {
  Q_OBJECT
 public:
  explicit GuidePage(QWidget* parent = nullptr);
  void open(const QString& page);  // such as “index.md”; what is not there is said on the page
  [[nodiscard]] QString page() const { return page_; }

 protected:
  QVariant loadResource(int type, const QUrl& name) override;

 private:
  QString page_;
};

class Guide : public QDialog {
  Q_OBJECT
 public:
  explicit Guide(QWidget* parent);
  void open_page(const QString& page) { page_->open(page); }
  struct Found {
    QString page, title;
  };
  // Pages that hold all of these words, those with them in their title first; all pages for no words.
  static QList<Found> search(const QString& words);

 private:
  void show_found(const QString& words);
  GuidePage* page_;
  QLineEdit* words_;
  QListWidget* found_;
};

}  // namespace doyen
