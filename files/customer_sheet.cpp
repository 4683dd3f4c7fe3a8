#include "files/customer_sheet.hpp"

#include <algorithm>
#include <sstream>

#include "files/paper.hpp"
#include "plates/plates.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kSetting = 250, kSettingOfTwo = 176;  // pt, the coloured ground's height

void trace(cairo_t* cr, const Region& region) {
  cairo_new_path(cr);
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i)
        i == 0 ? cairo_move_to(cr, ring[i].x, ring[i].y) : cairo_line_to(cr, ring[i].x, ring[i].y);
      cairo_close_path(cr);
    }
  }
  cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
}

// The sign before a plain wall, with the shadow it throws.
void draw_setting(Paper& paper, const Plan& plan, const Picture& board, double high, const std::string& letter) {
  const Box box = finished_box(plan), whole = plan.job.blank.box();
  const double wide = kPageWidth - 2 * kEdge, left = kEdge, top = paper.y;
  cairo_t* cr = paper.cr();
  cairo_set_source_rgb(cr, 0.86, 0.84, 0.80);
  cairo_rectangle(cr, left, top, wide, high);
  cairo_fill(cr);
  const double scale = std::min((wide - 90) / box.width(), (high - 0.32 * high) / box.height());
  const double x0 = left + (wide - box.width() * scale) / 2, y0 = top + (high - box.height() * scale) / 2 - 6;
  Region shape = plan.finished_shape();
  if (shape.empty())
    shape = clean({{{box.left, box.bottom}, {box.right, box.bottom}, {box.right, box.top}, {box.left, box.top}}});
  const auto on_board = [&] {  // from here on in mm on the board, y up
    cairo_translate(cr, x0, y0 + box.height() * scale);
    cairo_scale(cr, scale, -scale);
    cairo_translate(cr, -box.left, -box.bottom);
  };
  for (int i = 6; i > 0; --i) {
    cairo_save(cr);
    cairo_translate(cr, 0.9 * i, 1.2 * i);
    on_board();
    trace(cr, shape);
    cairo_set_source_rgba(cr, 0.2, 0.17, 0.13, 0.07);
    cairo_fill(cr);
    cairo_restore(cr);
  }
  cairo_save(cr);
  cairo_save(cr);
  on_board();
  trace(cr, shape);
  cairo_restore(cr);
  cairo_clip(cr);
  draw_picture(cr, board, x0 - (box.left - whole.left) * scale, y0 - (whole.top - box.top) * scale,
               whole.width() * scale, whole.height() * scale);
  cairo_restore(cr);
  if (!letter.empty()) paper.text(letter, left + 10, top + 6, 40, 22, true);
  const auto show = [&](double mm) { return size_in_words(mm, plan.job.lengths); };
  paper.text(show(box.width()), x0 + box.width() * scale / 2 - 22, y0 + box.height() * scale + 12, 120, 10, true);
  paper.text(show(box.height()), std::max(left + 4, x0 - 46), y0 + box.height() * scale / 2 - 6, 60, 10, true);
  paper.y = top + high + 8;
}

// A ruler that is true to size when the page is printed at its own size.
void draw_ruler(Paper& paper, Unit unit) {
  cairo_t* cr = paper.cr();
  const bool inch = unit == Unit::Inch;
  const double step = (inch ? kMmPerInch / 4 : 5) * kPt;
  const int steps = inch ? 16 : 20, tall = inch ? 4 : 2;
  paper.need(34);
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.8);
  cairo_move_to(cr, kEdge, paper.y + 14);
  cairo_line_to(cr, kEdge + steps * step, paper.y + 14);
  for (int i = 0; i <= steps; ++i) {
    cairo_move_to(cr, kEdge + i * step, paper.y + 14);
    cairo_line_to(cr, kEdge + i * step, paper.y + (i % tall == 0 ? 4 : 9));
  }
  cairo_stroke(cr);
  paper.text(say("{0}: printed at its own size, this ruler is true", inch ? "4 in" : "100 mm"),
             kEdge + steps * step + 10, paper.y + 4, 220, 8.5, false, kFaded);
  paper.y += 26;
}

void draw_signature(Paper& paper, bool two) {
  paper.need(64);
  paper.y = std::max(paper.y, kPageHeight - kEdge - 60);
  paper.paragraph(two ? say("Of the two I want  A ☐   B ☐   as it is shown, with this wording and of this size.")
                      : say("The wording, the size and the picture are as I want them."),
                  11, true);
  paper.y += 26;
  paper.rule();
  paper.text(say("Name"), kEdge, paper.y, 120, 8.5, false, kFaded);
  paper.text(say("Date"), kEdge + 230, paper.y, 120, 8.5, false, kFaded);
  paper.text(say("Signature"), kEdge + 340, paper.y, 120, 8.5, false, kFaded);
}

}  // namespace

Box finished_box(const Plan& plan) {
  const Region shape = plan.finished_shape();
  return shape.empty() ? plan.job.blank.box() : bounds(shape);
}

namespace {

// Of every plate that a list makes, and then what stands on all of them.
std::vector<std::string> listed_words(const Job& job) {
  std::vector<std::string> lines;
  for (const std::size_t row : plate_rows(job.plates)) {
    for (const std::string& words : words_of_row(job, row)) lines.push_back(words);
  }
  Job common = job;
  common.plates = {};
  std::erase_if(common.items, [](const Item& item) {
    const auto* lettering = std::get_if<Lettering>(&item.piece.what);
    return lettering != nullptr && !lettering->list.column.empty();
  });
  for (std::string& words : carved_words(common)) lines.push_back(std::move(words));
  return lines;
}

}  // namespace

std::vector<std::string> carved_words(const Job& job) {
  if (job.plates.there()) return listed_words(job);
  std::vector<std::string> lines;
  for (const Item& item : job.items) {
    const auto* lettering = std::get_if<Lettering>(&item.piece.what);
    if (lettering == nullptr || (item.cut.kind == Treatment::Kind::None && !job.is_source(item.piece.id))) continue;
    std::istringstream words(lettering->words);
    for (std::string line; std::getline(words, line);) {
      if (line.find_first_not_of(" \t\r") != std::string::npos) lines.push_back(line);
    }
  }
  return lines;
}

std::string spelled(const std::string& words) {
  std::string out;
  std::size_t letters = 0;
  for (std::size_t i = 0; i < words.size();) {
    std::size_t end = i + 1;
    while (end < words.size() && (static_cast<unsigned char>(words[end]) & 0xC0U) == 0x80U) ++end;  // UTF-8
    if (!out.empty()) out += ' ';
    if (words[i] == ' ') {
      out += ' ';
    } else {
      out += words.substr(i, end - i);
      ++letters;
    }
    i = end;
  }
  return out + "   (" + say("{0} {0|character|characters}", letters) + ")";
}

namespace {

// What it is: size and wood, in the job's unit.
std::string facts_of(const Plan& plan) {
  const Box box = finished_box(plan);
  const auto show = [&](double mm) { return size_in_words(mm, plan.job.lengths); };
  const Species* wood = species_table().find(plan.job.blank.species);
  return say("{0} wide, {1} high, {2} thick; {3}.", show(box.width()), show(box.height()),
             show(plan.job.blank.thickest()), wood == nullptr ? std::string(plan.job.blank.species) : wood->name);
}

void spell_out(Paper& paper, const std::string& title, const std::vector<std::string>& lines) {
  if (lines.empty()) return;
  paper.paragraph(title, 12, true);
  for (const std::string& line : lines) {
    paper.paragraph("“" + line + "”", 13, false, kInk, 1);
    paper.paragraph(spelled(line), 10, false, kFaded, 5);
  }
}

std::string drawn(const std::vector<ShownSign>& signs, Paper::Form form) {
  Paper paper(form);
  const Job& job = signs.front().plan.job;
  const bool two = signs.size() > 1;
  paper.paragraph(job.name, 20, true);
  paper.paragraph(two ? say("For your approval, before anything is cut: one of two")
                      : say("For your approval, before anything is cut"),
                  11, false, kFaded, 6);
  for (std::size_t i = 0; i < std::min<std::size_t>(2, signs.size()); ++i) {
    const std::string letter = two ? std::string(1, static_cast<char>('A' + i)) : std::string();
    draw_setting(paper, signs[i].plan, signs[i].board, two ? kSettingOfTwo : kSetting, letter);
    if (!two) draw_ruler(paper, job.lengths.unit);
    const std::string& name = signs[i].plan.job.name;
    paper.paragraph((two ? letter + ".  " : "") + (name == job.name ? "" : name + ": ") + facts_of(signs[i].plan), 12,
                    true);
    if (!signs[i].price.empty()) paper.paragraph(say("Price: {0}", signs[i].price), 12, true);
  }
  if (two) draw_ruler(paper, job.lengths.unit);
  paper.paragraph(
      say("Wood grows: its grain and colour will differ from the picture. Carved depths and edges are as shown."), 9.5,
      false, kFaded, two ? 4 : 8);
  const std::vector<std::string> lines = carved_words(job);
  const std::vector<std::string> others = two ? carved_words(signs[1].plan.job) : lines;
  if (lines == others) {
    spell_out(paper, say("The wording, letter by letter"), lines);
  } else {
    spell_out(paper, say("The wording of {0}, letter by letter", "A"), lines);
    spell_out(paper, say("The wording of {0}, letter by letter", "B"), others);
  }
  draw_signature(paper, two);
  return paper.finish();
}

}  // namespace

std::string customer_sheet_pdf(const std::vector<ShownSign>& signs) { return drawn(signs, Paper::Form::Pdf); }

std::string customer_sheet_png(const std::vector<ShownSign>& signs) { return drawn(signs, Paper::Form::Picture); }

}  // namespace doyen
