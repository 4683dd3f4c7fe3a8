// Another language: the window speaks it throughout, in room enough, and the core with it.
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QListWidget>
#include <QRadioButton>
#include <QRegularExpression>
#include <QSettings>
#include <QTemporaryDir>
#include <mutex>
#include <set>

#include "clipped.hpp"
#include "json_reading.hpp"
#include "shell/display_dialog.hpp"
#include "shell/greeting.hpp"
#include "shell/guide.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"
#include "wording/say.hpp"
#include "work/language.hpp"

using namespace probe;

namespace {

const QChar kMark(0x200B);  // nothing is seen of it; whatever was said in the other language ends in it

// Speaks the language as a start would, marks what is said, and remembers what it had no words for.
class Listening : public QTranslator {
 public:
  explicit Listening(const char* code) {
    speak_language(QString::fromLatin1(code));
    const std::string path = data_file(std::string("words/") + code + ".json");
    words_ = parse_json(read_file(path), path);
    QCoreApplication::installTranslator(this);
    speak([this](std::string_view english) {
      const std::string other = words("core", std::string(english));
      return other.empty() ? std::string() : other + "\u200B";
    });
  }
  ~Listening() override {
    QCoreApplication::removeTranslator(this);
    speak_language(QStringLiteral("en"));
  }
  Listening(const Listening&) = delete;
  Listening& operator=(const Listening&) = delete;
  [[nodiscard]] QString translate(const char* context, const char* english, const char* /*apart*/,
                                  int /*n*/) const override {
    const bool ours = QByteArray(context).startsWith("doyen") || QByteArray(context) == "QObject";
    if (!ours) return {};
    const std::string other = words("window", english);
    return other.empty() ? QString() : QString::fromStdString(other) + kMark;
  }
  [[nodiscard]] bool isEmpty() const override { return false; }
  [[nodiscard]] std::set<std::string> lacking() const {
    const std::lock_guard hold(lock_);
    return lacking_;
  }

 private:
  std::string words(const char* part, const std::string& english) const {
    const auto found = words_[part].find(english);
    if (found != words_[part].end()) return found->get<std::string>();
    const std::lock_guard hold(lock_);
    if (QString::fromStdString(english).contains(QRegularExpression(QStringLiteral("[A-Za-z]{2}"))))
      lacking_.insert(std::string(part) + ": " + english);
    return {};
  }
  Json words_;
  mutable std::mutex lock_;
  mutable std::set<std::string> lacking_;
};

// What is data and the same in every language: names the user gave, of faces, of files.
QStringList names_in(Window& w) {
  QStringList names{QString::fromStdString(w.job().name), QString::fromStdString(w.job().run.holding)};
  for (const Item& item : w.job().items) {
    names << QString::fromStdString(item.piece.name);
    if (const auto* words = std::get_if<Lettering>(&item.piece.what))
      names << QString::fromStdString(words->words) << QString::fromStdString(words->face.family)
            << QString::fromStdString(words->face.style);
  }
  for (const InstalledFace& face : installed_faces())
    names << QString::fromStdString(face.name.family) << QString::fromStdString(face.name.style);
  for (const Species& s : species_table().species) names << QString::fromStdString(s.source);
  std::sort(names.begin(), names.end(), [](const QString& a, const QString& b) { return a.size() > b.size(); });
  return names;
}

QStringList texts_of(QWidget* top) {
  QStringList texts;
  QList<QWidget*> all = top->findChildren<QWidget*>();
  for (QWidget* widget : all) {
    if (!widget->isVisible()) continue;
    texts << widget->toolTip() << widget->accessibleName() << widget->accessibleDescription();
    // What is cut short shows the whole of it as its tip.
    if (const auto* label = qobject_cast<QLabel*>(widget); label != nullptr && !label->text().endsWith(QChar(0x2026)))
      texts << label->text();
    if (const auto* button = qobject_cast<QAbstractButton*>(widget)) texts << button->text();
    if (const auto* line = qobject_cast<QLineEdit*>(widget)) texts << line->placeholderText();
    if (const auto* spin = qobject_cast<QSpinBox*>(widget)) texts << spin->suffix();
    if (const auto* box = qobject_cast<QComboBox*>(widget); box != nullptr && box->count() < 40) {
      for (int i = 0; i < box->count(); ++i) texts << box->itemText(i);
    }
    if (const auto* list = qobject_cast<QListWidget*>(widget)) {
      for (int i = 0; i < list->count(); ++i) texts << list->item(i)->text();
    }
  }
  return texts;
}

// Those that were said without the other language's words.
QStringList unsaid(const QStringList& texts, const QStringList& names) {
  static const QRegularExpression word(QStringLiteral("[A-Za-z]{4}"));
  QStringList found;
  for (QString text : texts) {
    if (text.contains(kMark)) continue;
    for (const QString& name : names) {
      if (name.size() > 1) text.remove(name, Qt::CaseInsensitive);
    }
    text.remove(QRegularExpression(QStringLiteral(
        "\\S+\\.(nc|doyen|pdf|svg|ttf)\\b|trace-\\d+|Single line[^|]*|, (doubled|tripled)|mm/min|in/min|<[^>]*>")));
    if (text.contains(word)) found << text;
  }
  found.removeDuplicates();
  return found;
}

}  // namespace

TEST_CASE("in German no English is left in the window, and nothing is cut off at 1280 by 800") {
  const Listening german("de");
  Window w;
  const int bench = w.window.bench().width();
  for (const Demo& demo : demos()) {
    w.window.open_demo(demo.name);
    w.settle();
    std::vector<std::string> ids{""};
    for (const Item& item : w.job().items) {
      // One of each look and kind says it all.
      bool seen = false;
      for (const Item& other : w.job().items) {
        if (&other == &item) break;
        seen = seen || (other.cut.kind == item.cut.kind && other.piece.what.index() == item.piece.what.index());
      }
      if (!seen) ids.push_back(item.piece.id);
    }
    for (Fold* fold : w.window.findChildren<Fold*>()) fold->set_open(true);
    const QStringList names = names_in(w);
    for (const Stage stage : {Stage::Blank, Stage::Artwork, Stage::Cuts, Stage::Proof, Stage::Run}) {
      const bool of_pieces = stage == Stage::Artwork || stage == Stage::Cuts;
      for (std::size_t i = 0; i < (of_pieces ? ids.size() : 1); ++i) {
        w.choose(stage, ids[i].c_str());
        INFO(demo.name.toStdString() << ", stage " << static_cast<int>(stage) << ", piece “" << ids[i] << "”");
        CHECK(clipped(w.ticket()) == "");
        CHECK(w.window.bench().width() == bench);  // no word pushes the ticket wider
        CHECK(unsaid(texts_of(&w.window), names).join(QStringLiteral(" | ")).toStdString() == "");
      }
    }
  }
  std::string lacking;
  for (const std::string& words : german.lacking()) lacking += words + "\n";
  CHECK(lacking == "");
}

TEST_CASE("the language is chosen for the next start; one that is not there, or is damaged, leaves English") {
  QSettings().remove("language");
  CHECK(chosen_language() == QLocale::system().name().left(2).replace(QStringLiteral("C"), QStringLiteral("en")));
  const QList<Language> all = languages();
  REQUIRE(all.size() >= 2);
  CHECK(all.front().code == QLatin1String("en"));
  CHECK(all[1].name == QLatin1String("Deutsch"));
  Window w;
  on_next_dialog([](QDialog* d) {
    auto* box = d->findChild<QComboBox*>("language");
    box->setCurrentIndex(box->findData("de"));
    d->findChild<QPushButton*>("keepSize")->click();
  });
  DisplayDialog(QSize(1080, 680), &w.window).exec();
  CHECK(chosen_language() == QLatin1String("de"));
  QSettings().setValue("language", "xx");
  CHECK(chosen_language() != QLatin1String("xx"));
  QSettings().remove("language");
  CHECK_THROWS_AS(speak_language(QStringLiteral("xx")), Problem);
  CHECK(say("Take that back") == "Take that back");
}

TEST_CASE("the guide has every page in German, with the same pictures and links, and is searched in it") {
  const QString folder = QFileInfo(QString::fromStdString(data_file("guide/index.md"))).path();
  const auto marks = [](const QString& text) {
    QStringList found;
    QRegularExpressionMatchIterator each = QRegularExpression(QStringLiteral("\\]\\(([^)]*)\\)")).globalMatch(text);
    while (each.hasNext()) found << each.next().captured(1);
    return found;
  };
  const auto read = [](const QString& path) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadOnly));
    return QString::fromUtf8(file.readAll());
  };
  const QStringList pages = QDir(folder).entryList({QStringLiteral("*.md")});
  CHECK(pages.size() >= 12);
  for (const QString& page : pages) {
    INFO(page.toStdString());
    REQUIRE(QFileInfo::exists(folder + QStringLiteral("/de/") + page));
    const QString english = read(folder + QLatin1Char('/') + page),
                  german = read(folder + QStringLiteral("/de/") + page);
    CHECK(marks(german).join(QLatin1Char(' ')).toStdString() == marks(english).join(QLatin1Char(' ')).toStdString());
    CHECK(german.section(QLatin1Char('\n'), 0, 0) != english.section(QLatin1Char('\n'), 0, 0));
    // As long, within half: nothing is left out.
    CHECK(10 * german.size() > 7 * english.size());
    CHECK(10 * german.size() < 16 * english.size());
  }
  speak_language(QStringLiteral("de"));
  CHECK_FALSE(Guide::search(QStringLiteral("Verschnitt")).isEmpty());
  CHECK(Guide::search(QStringLiteral("waste")).isEmpty());
  speak_language(QStringLiteral("en"));
  CHECK_FALSE(Guide::search(QStringLiteral("waste")).isEmpty());
}
