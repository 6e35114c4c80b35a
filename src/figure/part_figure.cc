#include "figure/part_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/axis.h"
#include "figure/plot/cased_line.h"
#include "figure/plot/largest_places.h"
#include "figure/plot/legend.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostCircles = 3000;
constexpr double kToPixelSide = 0.5;  // of a radius that reaches to the middle of a pixel outside
constexpr double kManyTimes = 20;     // more regions than elsewhere, shown on a logarithmic axis
constexpr double kLeastShown = 0.9 * kLeastDeeper;
// Of the page, in pixels.
constexpr double kCurvesWide = 470, kPartTics = 56, kMostPartLegend = 240;

/// The largest disks of the parts that are counted, as lines of data.
std::string circles_of(const std::vector<ShownParts>& classes) {
  std::vector<RegionPart> parts;
  std::vector<double> radii;
  for (const ShownParts& one : classes)
    for (const RegionPart& part : one.parts) {
      parts.push_back(part);
      radii.push_back(part.radius);
    }
  std::string data;
  for (const std::size_t i : largest_places(radii, kMostCircles))
    data += fmt::format("{:.7g} {:.7g} {:.7g}\n", parts[i].x, parts[i].y,
                        parts[i].radius - kToPixelSide);
  return data;
}

/// From the finest parting to none.
std::string curve_of(const std::vector<PartCount>& counts) {
  std::string data;
  for (auto count = counts.rbegin(); count != counts.rend(); ++count)
    data += fmt::format("{0:.7g} {2}\n{1:.7g} {2}\n", count->above, count->to, count->regions);
  return data;
}

/// A thick stretch of a curve. Not a line: short thick ones end in a spur.
std::string mark_of(Plot& plot, const PartCount& count, const std::string& color) {
  const std::string stretch = plot.store(
      fmt::format("{:.7g} {} {:.7g} 0\n", count.above, count.regions, count.to - count.above));
  const auto drawn = [&](double width, const std::string& ink) {
    return fmt::format("{} using 1:2:3:4 with vectors nohead lw {:g} lc rgb '{}' notitle", stretch,
                       width, ink);
  };
  return drawn(8, Ink::kText) + ", " + drawn(6, color);
}

/// Of all curves.
struct CurveRange {
  double widest = 2 * kLeastDeeper, fewest = 1e18, most = 1;
};

CurveRange range_of(const std::vector<ShownParts>& classes) {
  CurveRange range;
  for (const ShownParts& one : classes) {
    range.widest = std::max(range.widest, one.counts.without().to);
    range.fewest = std::min(range.fewest, static_cast<double>(one.counts.without().regions));
    range.most = std::max(range.most, static_cast<double>(one.counts.all.back().regions));
  }
  return range;
}

void set_regions_axis(Plot& plot, const CurveRange& range) {
  if (range.most < kManyTimes * range.fewest) {
    plot.line(fmt::format("set yrange [0:{:g}]", 1.08 * range.most));
    plot.line("set ytics " + tic_list(whole_tics(0, 1.08 * range.most, 8)));
    return;
  }
  plot.line(logarithmic_axis("y", 0.8 * range.fewest, 1.3 * range.most, 10));
}

void draw_curves(Plot& plot, const Box& box, const std::vector<ShownParts>& classes) {
  const CurveRange range = range_of(classes);
  plot.panel(box, "regions", {.left = kPartTics, .bottom = kAxisBelow});
  set_regions_axis(plot, range);
  plot.line(logarithmic_axis("x", kLeastShown, range.widest, 8));
  plot.line("set xlabel 'H of the step part, in pixels (logarithmic)'");
  std::string curves, marks;
  for (const ShownParts& one : classes) {
    curves += (curves.empty() ? "plot " : ", ") +
              cased_line(plot.store(curve_of(one.counts.all)), {one.color, 2}, {Ink::kFaint, 3.2});
    marks += ", " + mark_of(plot, one.counts.choice(), one.color);
  }
  plot.line(curves + marks);
}

std::vector<LegendLine> legend_of(const std::vector<ShownParts>& classes) {
  std::vector<LegendLine> legend;
  for (const ShownParts& one : classes) {
    std::string count = grouped(static_cast<double>(one.counts.without().regions));
    if (one.counts.chosen > 0)
      count += ", parted " + grouped(static_cast<double>(one.counts.choice().regions));
    legend.push_back({.name = one.name, .color = one.color, .count = count});
  }
  return legend;
}

}  // namespace

void add_part_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::vector<ShownParts>& classes, const Thumbnail& picture) {
  Box body =
      plot.begin(path, "Regions of " + name + ", parted at their necks",
                 "thick: the number that stands out, staying over a wide range of H; circles: the "
                 "largest disk in each region that is counted there");
  Box side = body.cut_right(kCurvesWide, Plot::kGap);
  const std::vector<LegendLine> legend = legend_of(classes);
  const double legend_high = std::min(legend_height(legend, kCurvesWide), kMostPartLegend);
  draw_legend(plot, legend, side.cut_bottom(legend_high, Plot::kGap));
  draw_curves(plot, side, classes);
  Overlay over{.coordinates = true};
  const std::string circles = circles_of(classes);
  if (!circles.empty())
    over.plots = fmt::format(
        "{0} using 1:2:3 with circles fs empty lw 3.4 lc rgb '{1}' notitle, "
        "{0} using 1:2:3 with circles fs empty lw 1.4 lc rgb '{2}' notitle",
        plot.store(circles), Ink::kPaper, Ink::kText);
  plot.show(body, "", picture, over);
}

}  // namespace chalcedony
