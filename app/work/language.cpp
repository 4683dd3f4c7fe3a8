#include "work/language.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QPointer>
#include <QSettings>

#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const QString kKey = QStringLiteral("language");
const QString kEnglish = QStringLiteral("en");

QString& spoken_code() {
  static QString code = kEnglish;
  return code;
}

QString file_of(const QString& code) {
  return QString::fromStdString(data_file("words/" + code.toStdString() + ".json"));
}

using WordList = std::map<std::string, std::string, std::less<>>;

void take(const JsonView& top, const char* key, WordList& words) {
  const JsonView part = top.object(key);
  for (const auto& [english, other] : part.json().items()) words[english] = part.text(english.c_str());
}

}  // namespace

QList<Language> languages() {
  QList<Language> all{{kEnglish, QStringLiteral("English")}};
  QDir folder;
  try {
    folder = QFileInfo(file_of(QStringLiteral("de"))).dir();
  } catch (const Problem&) {
    return all;  // it was installed without any
  }
  for (const QFileInfo& file : folder.entryInfoList({QStringLiteral("*.json")}, QDir::Files, QDir::Name)) {
    try {
      const std::string path = file.filePath().toStdString();
      const Json words = parse_json(read_file(path), path);
      all.append({file.completeBaseName(), QString::fromStdString(JsonView(words, path).text("language"))});
    } catch (const Problem&) {
      // What cannot be read is not offered.
    }
  }
  return all;
}

QString chosen_language() {
  const auto there = [](const QString& code) {
    if (code == kEnglish) return true;
    try {
      return !code.isEmpty() && QFileInfo(file_of(code)).isFile();
    } catch (const Problem&) {
      return false;
    }
  };
  const QString chosen = QSettings().value(kKey).toString();
  if (there(chosen)) return chosen;
  const QString desktop = QLocale::system().name().section(QLatin1Char('_'), 0, 0);
  return there(desktop) ? desktop : kEnglish;
}

void choose_language(const QString& code) { QSettings().setValue(kKey, code); }

QString Words::translate(const char* context, const char* english, const char* disambiguation, int n) const {
  Q_UNUSED(context);
  Q_UNUSED(disambiguation);
  Q_UNUSED(n);
  const auto found = words_.find(std::string_view(english == nullptr ? "" : english));
  return found == words_.end() ? QString() : QString::fromStdString(found->second);
}

QString spoken_language() { return spoken_code(); }

void speak_language(const QString& code) {
  static QPointer<Words> spoken;
  WordList window, core;
  if (code != kEnglish) {
    const std::string path = file_of(code).toStdString();
    const Json words = parse_json(read_file(path), path);
    const JsonView top(words, path);
    take(top, "qt", window);
    take(top, "window", window);
    take(top, "core", core);
  }
  spoken_code() = code;
  delete spoken.data();  // taken out by that
  speak({});
  if (code == kEnglish) return;
  spoken = new Words(std::move(window), QCoreApplication::instance());
  QCoreApplication::installTranslator(spoken);
  speak([core = std::move(core)](std::string_view english) {
    const auto found = core.find(english);
    return found == core.end() ? std::string() : found->second;
  });
}

}  // namespace doyen
