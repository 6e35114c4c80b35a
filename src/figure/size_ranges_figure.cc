#include "figure/size_ranges_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstddef>

#include "figure/plot/axis.h"
#include "figure/plot/picture_rows.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostSizeRows = 400;
// Of the page, in pixels.
constexpr double kSizeRowsHigh = 560, kMostRowsHigh = 1500, kSizeBarHigh = 9, kNamedRowHigh = 22;
constexpr double kRowShare = 0.8;  // of a row, that its bars take

/// The diameters of all that is shown, with some room at both ends.
SizeRange limits_of(const SizeRanges& ranges, std::size_t rows) {
  SizeRange limits{1e300, 1, 0};
  for (std::size_t r = 0; r < rows; ++r)
    for (const std::optional<SizeRange>& one : ranges.of[r]) {
      if (!one) continue;
      limits.low = std::min(limits.low, one->low);
      limits.high = std::max(limits.high, one->high);
    }
  return {limits.low / 1.1, 1, limits.high * 1.1};
}

/// The bars and the dots of a class, as lines of data.
struct ClassMarks {
  std::string bars, dots;
};

ClassMarks marks_of(const SizeRanges& ranges, std::size_t c, std::size_t rows) {
  const double share = kRowShare / static_cast<double>(ranges.classes.size());
  ClassMarks marks;
  for (std::size_t r = 0; r < rows; ++r) {
    if (!ranges.of[r][c]) continue;
    const auto& [low, middle, high] = *ranges.of[r][c];
    const double top =
        static_cast<double>(r) + (1 - kRowShare) / 2 + static_cast<double>(c) * share;
    // One size only has a bar too.
    marks.bars += bar_data({low / 1.003, high * 1.003, top, top + share});
    marks.dots += fmt::format("{:.7g} {:.7g}\n", middle, top + share / 2);
  }
  return marks;
}

void draw_ranges(Plot& plot, const SizeRanges& ranges, std::size_t rows) {
  std::string bars, dots;
  for (std::size_t c = 0; c < ranges.classes.size(); ++c) {
    const ClassMarks marks = marks_of(ranges, c, rows);
    if (marks.bars.empty()) continue;
    bars +=
        (bars.empty() ? "plot " : ", ") + plot_of_bars(plot, marks.bars, ranges.classes[c].color);
    const std::string stored = plot.store(marks.dots);
    for (const auto& [size, ink] : {std::pair{0.9, Ink::kText}, std::pair{0.55, Ink::kPaper}})
      dots += fmt::format(", {} using 1:2 with points pt 7 ps {} lc rgb '{}' notitle", stored, size,
                          ink);
  }
  plot.line(bars + dots);
}

}  // namespace

void add_size_ranges_figure(Plot& plot, const std::filesystem::path& path,
                            const SizeRanges& ranges) {
  const std::size_t all = ranges.pictures.size(), rows = std::min(all, kMostSizeRows);
  const std::vector<std::string> shown(ranges.pictures.begin(),
                                       ranges.pictures.begin() + static_cast<std::ptrdiff_t>(rows));
  const double least = std::max(
      kNamedRowHigh, kSizeBarHigh * static_cast<double>(ranges.classes.size()) / kRowShare);
  const double rows_high = std::clamp(least * static_cast<double>(std::min(rows, kMostNamedRows)),
                                      kSizeRowsHigh, kMostRowsHigh);
  const double legend = legend_height(ranges.classes, Plot::kBodyWidth);
  std::string subtitle =
      "bars: diameters from that of 10 to that of 90 % of the regions; dots: the median";
  if (rows < all) subtitle += fmt::format("; the first {} of {} pictures", rows, all);
  Box body = plot.begin(path, fmt::format("Sizes of the regions in {} pictures", all), subtitle,
                        Plot::page_height(rows_high + kAxisBelow + Plot::kGap + legend));
  draw_legend(plot, ranges.classes, body.cut_bottom(legend, Plot::kGap));
  const double names_wide = row_names_wide(shown, body.width());
  plot.panel(body, "", {.left = names_wide, .bottom = kAxisBelow});
  const SizeRange limits = limits_of(ranges, rows);
  plot.line(logarithmic_axis("x", limits.low, limits.high, 12));
  plot.line(fmt::format("set yrange [{}:0]; set border 1; set grid noytics", rows));
  plot.line("set xlabel " + literal("diameter in " + ranges.unit + " (logarithmic)"));
  name_rows(plot, shown, names_wide);
  draw_ranges(plot, ranges, rows);
}

}  // namespace chalcedony
