// Which page of the guide says why: what a verdict or a sum is about, when it matters, what schools there are.
#pragma once

#include <QLabel>
#include <QString>
#include <string>

namespace doyen {

inline constexpr const char* kGuideLinks = "doyen-guide";  // the scheme of links that open a page of the guide

// By a verdict's code, from data/guide/why.json; the page on warnings where none is named.
QString why_page(const std::string& code);

QString guide_link(const QString& page);  // such as “doyen-guide:why-depth.md”

// A line under figures that opens the page on them.
QLabel* make_why_link(const QString& page, const QString& name);

}  // namespace doyen
