#include "figure/legend.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

namespace chalcedony {
namespace {

constexpr double kLegendRow = 34, kLegendFoot = 10;  // of the page, in pixels
constexpr double kSwatchHeight = 20;
constexpr std::size_t kMostLegendColumns = 6;
constexpr double kPageWidth = 0.96;
constexpr double kLegendSwatch = 0.026;  // with the gap before the text
constexpr double kLegendLetter = 0.006, kLegendGap = 0.012;

std::string text_of(const LegendLine& line) {
  return line.name + (line.percent ? fmt::format("   {:.1f} %", *line.percent) : "");
}

/// As many columns as the longest text has room in, of a share of the page's width.
std::size_t legend_columns(const std::vector<LegendLine>& legend, double width) {
  std::size_t longest = 0;
  for (const LegendLine& line : legend) longest = std::max(longest, text_of(line).size());
  const double column = kLegendSwatch + kLegendLetter * static_cast<double>(longest) + kLegendGap;
  return std::clamp(static_cast<std::size_t>(width / column), std::size_t{1}, kMostLegendColumns);
}

/// So many lines, those with the largest shares, in their order.
std::vector<LegendLine> lines_in(const std::vector<LegendLine>& legend, std::size_t shown) {
  std::vector<std::size_t> order(legend.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return legend[a].percent.value_or(0) > legend[b].percent.value_or(0);
  });
  order.resize(shown);
  std::sort(order.begin(), order.end());
  std::vector<LegendLine> lines;
  for (const std::size_t i : order) lines.push_back(legend[i]);
  return lines;
}

}  // namespace

double legend_height(const std::vector<LegendLine>& legend) {
  const std::size_t columns = legend_columns(legend, kPageWidth);
  const std::size_t rows = (legend.size() + columns - 1) / columns;
  return static_cast<double>(rows) * kLegendRow + kLegendFoot;
}

void draw_legend(Plot& plot, const std::vector<LegendLine>& legend, const Frame& frame) {
  const double width = frame.right - frame.left, page = plot.height();
  const std::size_t columns = legend_columns(legend, width);
  const double step = width / static_cast<double>(columns);
  const double row = kLegendRow / page, half = kSwatchHeight / 2 / page;
  const double room = (frame.top - frame.bottom) * page - kLegendFoot + 0.5;
  const std::size_t places = columns * static_cast<std::size_t>(std::max(1.0, room / kLegendRow));
  const std::size_t shown = shown_lines(legend.size(), places);
  const std::vector<LegendLine> lines = lines_in(legend, shown);
  const auto x_of = [&](std::size_t i) {
    return frame.left + step * static_cast<double>(i % columns);
  };
  const auto y_of = [&](std::size_t i) {
    return frame.top - row * (static_cast<double>(i / columns) + 0.5);
  };
  for (std::size_t i = 0; i < shown; ++i) {
    const double x = x_of(i), y = y_of(i);
    plot.swatch({x, x + 0.018, y - half, y + half}, lines[i].color);
    plot.label(x + kLegendSwatch, y, text_of(lines[i]), 11);
  }
  if (shown < legend.size())
    plot.label(x_of(shown), y_of(shown), and_more(legend.size() - shown), 11, Ink::kFaint);
}

void draw_share_bar(Plot& plot, const Frame& frame, const std::vector<LegendLine>& colors) {
  double left = frame.left;
  for (const LegendLine& color : colors) {
    const double width = (frame.right - frame.left) * color.percent.value_or(0) / 100;
    if (width > 0) plot.swatch({left, left + width, frame.bottom, frame.top}, color.color);
    left += width;
  }
}

}  // namespace chalcedony
