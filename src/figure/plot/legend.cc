#include "figure/plot/legend.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/largest_places.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostLegendColumns = 6;
// Of the page, in pixels.
constexpr double kLegendRow = 34, kSwatchWide = 23, kSwatchHigh = 20;
constexpr double kLegendSwatch = 33;  // with the gap before the text
constexpr double kLegendGap = 15;
constexpr int kLegendPoints = 11;

/// What stands behind the name.
std::string told_of(const LegendLine& line) {
  return (line.percent ? fmt::format("   {:.1f} %", *line.percent) : "") +
         (line.count.empty() ? "" : "   " + line.count);
}

/// The texts of lines in so many pixels each.
std::vector<std::string> texts_of(const std::vector<LegendLine>& lines, double width) {
  double behind = 0;
  std::vector<std::string> texts;
  for (const LegendLine& line : lines) {
    behind = std::max(behind, text_width(told_of(line), kLegendPoints));
    texts.push_back(line.name);
  }
  texts = fitted_names(texts, width - behind, kLegendPoints);
  for (std::size_t i = 0; i < lines.size(); ++i) texts[i] += told_of(lines[i]);
  return texts;
}

/// As many columns as the widest text has room in.
std::size_t legend_columns(const std::vector<LegendLine>& legend, double width) {
  const double column = legend_width(legend) + kLegendGap;
  return std::clamp(static_cast<std::size_t>(width / column), std::size_t{1}, kMostLegendColumns);
}

/// So many lines, those with the largest shares, in their order.
std::vector<LegendLine> lines_in(const std::vector<LegendLine>& legend, std::size_t shown) {
  std::vector<double> shares;
  for (const LegendLine& line : legend) shares.push_back(line.percent.value_or(0));
  std::vector<LegendLine> lines;
  for (const std::size_t i : largest_places(shares, shown)) lines.push_back(legend[i]);
  return lines;
}

}  // namespace

std::string and_more(std::size_t left_out) {
  return "and " + grouped(static_cast<double>(left_out)) + " more";
}

double legend_width(const std::vector<LegendLine>& legend) {
  double widest = 0;
  for (const LegendLine& line : legend)
    widest = std::max(widest, text_width(line.name + told_of(line), kLegendPoints));
  return kLegendSwatch + widest;
}

double legend_height(const std::vector<LegendLine>& legend, double width) {
  const std::size_t columns = legend_columns(legend, width);
  const std::size_t rows = (legend.size() + columns - 1) / columns;
  return static_cast<double>(rows) * kLegendRow;
}

void draw_legend(Plot& plot, const std::vector<LegendLine>& legend, const Box& box) {
  const std::size_t columns = legend_columns(legend, box.width());
  const auto rows = static_cast<std::size_t>(std::max(1.0, (box.height() + 0.5) / kLegendRow));
  const std::size_t shown = shown_lines(legend.size(), columns * rows);
  const std::vector<LegendLine> lines = lines_in(legend, shown);
  const double step = box.width() / static_cast<double>(columns);
  const auto place = [&](std::size_t i) {
    const double left = box.left + step * static_cast<double>(i % columns);
    const double top = box.top + kLegendRow * static_cast<double>(i / columns);
    return Box{left, top, left + step, top + kLegendRow};
  };
  const std::vector<std::string> texts = texts_of(lines, step - kLegendSwatch);
  constexpr double kAbove = (kLegendRow - kSwatchHigh) / 2;
  for (std::size_t i = 0; i < shown; ++i) {
    Box line = place(i);
    plot.label(line.left + kLegendSwatch, line.middle(), texts[i], kLegendPoints);
    plot.swatch(line.cut_left(kSwatchWide).inside({.top = kAbove, .bottom = kAbove}),
                lines[i].color);
  }
  if (shown < legend.size())
    plot.label(place(shown).left, place(shown).middle(), and_more(legend.size() - shown),
               kLegendPoints, Ink::kFaint);
}

void draw_share_bar(Plot& plot, Box box, const std::vector<LegendLine>& colors) {
  const double whole = box.width();
  for (const LegendLine& color : colors) {
    const Box part = box.cut_left(whole * color.percent.value_or(0) / 100);
    if (part.width() > 0) plot.swatch(part, color.color);
  }
}

}  // namespace chalcedony
