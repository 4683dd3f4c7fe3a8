#include "parts/why.hpp"

#include <QCoreApplication>
#include <map>

#include "json_reading.hpp"
#include "parts/cards.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace doyen {
namespace {

std::map<std::string, QString> read_pages() {
  std::map<std::string, QString> pages;
  try {
    const std::string path = data_file("guide/why.json");
    const Json all = parse_json(read_file(path), path);
    const JsonView top(all, path);
    for (const auto& [page, codes] : top.object("pages").json().items()) {
      for (const Json& code : codes) pages[code.get<std::string>()] = QString::fromStdString(page);
    }
  } catch (const std::exception&) {  // not installed, or damaged: the page on warnings is opened
  }
  return pages;
}

}  // namespace

QString why_page(const std::string& code) {
  static const std::map<std::string, QString> pages = read_pages();
  const auto found = pages.find(code);
  return found == pages.end() ? QStringLiteral("warnings.md") : found->second;
}

QLabel* make_why_link(const QString& page, const QString& name) {
  auto* why =
      make_label(QStringLiteral("<a href=\"%1\">%2</a>")
                     .arg(guide_link(page), QCoreApplication::translate("doyen::Why", "Why, and when it matters")),
                 "faded");
  why->setObjectName(name);
  why->setTextFormat(Qt::RichText);
  why->setOpenExternalLinks(true);
  return why;
}

QString guide_link(const QString& page) { return QLatin1String(kGuideLinks) + QLatin1Char(':') + page; }

}  // namespace doyen
