#include "figure/ranges_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstddef>

#include "figure/plot/axis.h"
#include "figure/plot/picture_rows.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostRangeRows = 400;
// Of the page, in pixels.
constexpr double kRangeRowsHigh = 560, kMostRowsHigh = 1500, kRangeBarHigh = 9, kNamedRowHigh = 22,
                 kHighestBar = 46;
constexpr double kRowShare = 0.8;  // of a row, that its bars take

/// The values of all that is shown, with some room at both ends.
ValueRange limits_of(const PictureRanges& ranges, std::size_t rows) {
  ValueRange limits{1e300, 1, 0};
  for (std::size_t r = 0; r < rows; ++r)
    for (const std::optional<ValueRange>& one : ranges.of[r]) {
      if (!one) continue;
      limits.low = std::min(limits.low, one->low);
      limits.high = std::max(limits.high, one->high);
    }
  if (ranges.limit) limits.high = std::max(limits.high, *ranges.limit);
  if (limits.high <= 0) limits.high = 1;
  return {ranges.logarithmic ? limits.low / 1.1 : 0, 1, limits.high * 1.1};
}

/// The bars and the dots of a kind, as lines of data.
struct KindMarks {
  std::string bars, dots;
};

KindMarks marks_of(const PictureRanges& ranges, std::size_t c, std::size_t rows) {
  const double share = kRowShare / static_cast<double>(ranges.kinds.size());
  KindMarks marks;
  for (std::size_t r = 0; r < rows; ++r) {
    if (!ranges.of[r][c]) continue;
    const auto& [low, middle, high] = *ranges.of[r][c];
    const double top =
        static_cast<double>(r) + (1 - kRowShare) / 2 + static_cast<double>(c) * share;
    // One value only has a bar too.
    marks.bars += ranges.logarithmic ? bar_data({low / 1.003, high * 1.003, top, top + share})
                                     : bar_data({low, high, top, top + share});
    marks.dots += fmt::format("{:.7g} {:.7g}\n", middle, top + share / 2);
  }
  return marks;
}

void draw_ranges(Plot& plot, const PictureRanges& ranges, std::size_t rows) {
  std::string bars, dots;
  for (std::size_t c = 0; c < ranges.kinds.size(); ++c) {
    const KindMarks marks = marks_of(ranges, c, rows);
    if (marks.bars.empty()) continue;
    bars += (bars.empty() ? "plot " : ", ") + plot_of_bars(plot, marks.bars, ranges.kinds[c].color);
    const std::string stored = plot.store(marks.dots);
    for (const auto& [size, ink] : {std::pair{0.9, Ink::kText}, std::pair{0.55, Ink::kPaper}})
      dots += fmt::format(", {} using 1:2 with points pt 7 ps {} lc rgb '{}' notitle", stored, size,
                          ink);
  }
  if (ranges.limit)
    bars +=
        fmt::format(", {} using 1:2 with lines lw 1.5 dt 2 lc rgb '{}' notitle",
                    plot.store(fmt::format("{0} 0\n{0} {1}\n", *ranges.limit, rows)), Ink::kText);
  plot.line(bars + dots);
}

}  // namespace

void add_ranges_figure(Plot& plot, const std::filesystem::path& path, const PictureRanges& ranges) {
  const std::size_t all = ranges.pictures.size(), rows = std::min(all, kMostRangeRows);
  const std::vector<std::string> shown(ranges.pictures.begin(),
                                       ranges.pictures.begin() + static_cast<std::ptrdiff_t>(rows));
  const double least =
      std::max(kNamedRowHigh, kRangeBarHigh * static_cast<double>(ranges.kinds.size()) / kRowShare);
  const double most = kHighestBar * static_cast<double>(ranges.kinds.size() * rows) / kRowShare;
  const double rows_high = std::clamp(least * static_cast<double>(std::min(rows, kMostNamedRows)),
                                      std::min(kRangeRowsHigh, most), kMostRowsHigh);
  std::vector<LegendLine> named = ranges.kinds;
  std::erase_if(named, [](const LegendLine& kind) { return kind.name.empty(); });
  const double legend = legend_height(named, Plot::kBodyWidth);
  std::string subtitle = ranges.subtitle;
  if (rows < all) subtitle += fmt::format("; the first {} of {} pictures", rows, all);
  Box body = plot.begin(path, ranges.title, subtitle,
                        Plot::page_height(rows_high + kAxisBelow + Plot::kGap + legend));
  if (!named.empty()) draw_legend(plot, named, body.cut_bottom(legend, Plot::kGap));
  const double names_wide = row_names_wide(shown, body.width());
  plot.panel(body, "", {.left = names_wide, .bottom = kAxisBelow});
  const ValueRange limits = limits_of(ranges, rows);
  plot.line(ranges.logarithmic ? logarithmic_axis("x", limits.low, limits.high, 12)
                               : fmt::format("set xrange [0:{}]", limits.high));
  plot.line(fmt::format("set yrange [{}:0]; set border 1; set grid noytics", rows));
  plot.line("set xlabel " + literal(ranges.axis));
  name_rows(plot, shown, names_wide);
  draw_ranges(plot, ranges, rows);
}

}  // namespace chalcedony
