// The language that the window and the core speak. English stands in the code; data/words/ holds the others, a file
// each, by the English sentence.
#pragma once

#include <QList>
#include <QString>
#include <QTranslator>
#include <map>

namespace doyen {

struct Language {
  QString code, name;  // “de”, “Deutsch”
};
QList<Language> languages();  // English first, then those that there are words for
QString chosen_language();    // as it was chosen; else the desktop's where there are words for it, else English
void choose_language(const QString& code);  // from the next start

// The window's words in another language; what it has no words for stays English.
class Words : public QTranslator {
  Q_OBJECT
 public:
  explicit Words(std::map<std::string, std::string, std::less<>> words, QObject* parent = nullptr)
      : QTranslator(parent), words_(std::move(words)) {}
  [[nodiscard]] QString translate(const char* context, const char* english, const char* disambiguation,
                                  int n) const override;
  [[nodiscard]] bool isEmpty() const override { return words_.empty(); }

 private:
  std::map<std::string, std::string, std::less<>> words_;
};

QString spoken_language();  // the code of the one that is spoken now

// From now on, for what is made from now on. Throws Problem where its words cannot be read; English stays then.
void speak_language(const QString& code);

}  // namespace doyen
