#include "figure/changes_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/fitted_text.h"
#include "figure/plot/flow_bands.h"
#include "figure/plot/picture_pair.h"
#include "figure/plot/text_color.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kTimeStripWide = 56, kTimesHigh = 30, kFlowNamesWide = 190, kBesideStrip = 12;
constexpr double kMostOfTime = 2 * kFlowNamesWide;  // what there is room for at the outer strips
constexpr double kLeastTextHigh = 20;
constexpr double kLeastBand = 0.3;  // thinner ones are not seen, and there may be thousands
constexpr int kClassPoints = 11, kSharePoints = 10, kTimePoints = 12;
constexpr double kStayedOpacity = 0.18, kChangedOpacity = 0.6;

/// Where the share of a class lies in a strip.
struct Part {
  double top, bottom;

  double middle() const { return (top + bottom) / 2; }
  double high() const { return bottom - top; }
};

std::vector<Part> parts_of(const Box& strip, const std::vector<double>& shares) {
  std::vector<Part> parts;
  double at = strip.top;
  for (const double share : shares) {
    const double next = at + share / 100 * strip.height();
    parts.push_back({at, next});
    at = next;
  }
  return parts;
}

/// The parts in their colors, with their shares on them where there is room.
void draw_time_strip(Plot& plot, const Box& strip, const std::vector<Part>& parts,
                     const std::vector<LegendLine>& classes, const std::vector<double>& shares) {
  for (std::size_t c = 0; c < parts.size(); ++c) {
    if (parts[c].high() <= 0) continue;
    plot.swatch({strip.left, parts[c].top, strip.right, parts[c].bottom}, classes[c].color);
    if (parts[c].high() >= kLeastTextHigh)
      plot.label((strip.left + strip.right) / 2, parts[c].middle(),
                 fmt::format("{:.1f}", shares[c]), kSharePoints, text_color_on(classes[c].color),
                 "center");
  }
}

/// The names of the classes beside an outer strip; what lies too close to one before is left out.
void draw_class_names(Plot& plot, double x, const char* align, const std::vector<Part>& parts,
                      const std::vector<LegendLine>& classes) {
  std::vector<std::string> names;
  for (const LegendLine& one : classes) names.push_back(one.name);
  names = fitted_names(names, kFlowNamesWide - kBesideStrip, kClassPoints);
  double last = -kLeastTextHigh;
  for (std::size_t c = 0; c < parts.size(); ++c) {
    if (parts[c].high() <= 0 || parts[c].middle() - last < kLeastTextHigh) continue;
    last = parts[c].middle();
    plot.label(x, last, names[c], kClassPoints, Ink::kText, align);
  }
}

/// The classes that only strips between the outer ones have.
std::vector<LegendLine> unnamed_classes(const ChangesFigure& figure) {
  std::vector<LegendLine> lines;
  for (std::size_t c = 0; c < figure.classes.size(); ++c) {
    const auto has = [c](const std::vector<double>& shares) { return shares[c] > 0; };
    if (!has(figure.shares.front()) && !has(figure.shares.back()) &&
        std::any_of(figure.shares.begin(), figure.shares.end(), has))
      lines.push_back({figure.classes[c].name, figure.classes[c].color});
  }
  return lines;
}

/// What the maps are called, above their strips.
void draw_times(Plot& plot, const Box& above, const std::vector<Box>& strips,
                const std::vector<std::string>& times) {
  const double room = strips[1].left - strips[0].left - kBesideStrip;
  const auto names = fitted_names(times, std::min(room, kMostOfTime), kTimePoints);
  for (std::size_t m = 0; m < strips.size(); ++m)
    plot.label((strips[m].left + strips[m].right) / 2, above.middle(), names[m], kTimePoints,
               Ink::kText, "center");
}

/// The bands of a step. Those of a class leave it in the order of what they become, and arrive in
/// the order of what they were.
std::vector<FlowBand> bands_of(const std::vector<ChangesFigure::Flow>& flows, const Box& left,
                               const Box& right, const std::vector<Part>& before,
                               const std::vector<Part>& after,
                               const std::vector<LegendLine>& classes) {
  std::vector<double> leaves, arrives;
  for (const Part& part : before) leaves.push_back(part.top);
  for (const Part& part : after) arrives.push_back(part.top);
  std::vector<FlowBand> bands;
  for (const ChangesFigure::Flow& flow : flows) {
    const double high = flow.percent / 100 * left.height();
    if (high >= kLeastBand)
      bands.push_back({left.right, right.left, leaves[flow.from], arrives[flow.to], high,
                       classes[flow.from].color,
                       flow.from == flow.to ? kStayedOpacity : kChangedOpacity});
    leaves[flow.from] += high;
    arrives[flow.to] += high;
  }
  return bands;
}

}  // namespace

void add_flows_figure(Plot& plot, const std::filesystem::path& path, const ChangesFigure& figure) {
  const std::vector<LegendLine> unnamed = unnamed_classes(figure);
  Box body = plot.begin(path, figure.title,
                        "shares of the counted pixels, percent; bands have the color of what was, "
                        "and what stayed is faint");
  if (!unnamed.empty()) {
    const Box legend = body.cut_bottom(legend_height(unnamed, kFlowNamesWide), kBesideStrip);
    draw_legend(plot, unnamed, legend.inside({.left = kFlowNamesWide}));
  }
  const Box titles = body.cut_top(kTimesHigh);
  const Box middle = body.inside({.left = kFlowNamesWide, .right = kFlowNamesWide});
  const std::size_t maps = figure.times.size();
  const double step = (middle.width() - kTimeStripWide) / static_cast<double>(maps - 1);
  std::vector<Box> strips;
  std::vector<std::vector<Part>> parts;
  for (std::size_t m = 0; m < maps; ++m) {
    const double left = middle.left + step * static_cast<double>(m);
    strips.push_back({left, middle.top, left + kTimeStripWide, middle.bottom});
    parts.push_back(parts_of(strips[m], figure.shares[m]));
  }
  for (std::size_t m = 0; m + 1 < maps; ++m)
    draw_flow_bands(plot, {strips[m].right, middle.top, strips[m + 1].left, middle.bottom},
                    bands_of(figure.flows[m], strips[m], strips[m + 1], parts[m], parts[m + 1],
                             figure.classes));
  for (std::size_t m = 0; m < maps; ++m)
    draw_time_strip(plot, strips[m], parts[m], figure.classes, figure.shares[m]);
  draw_class_names(plot, strips.front().left - kBesideStrip, "right", parts.front(),
                   figure.classes);
  draw_class_names(plot, strips.back().right + kBesideStrip, "left", parts.back(), figure.classes);
  draw_times(plot, titles, strips, figure.times);
}

void add_changed_figure(Plot& plot, const std::filesystem::path& path, const std::string& title,
                        const std::vector<LegendLine>& legend, const Thumbnail& map,
                        const Thumbnail& changed) {
  draw_pair(plot, path, title, "shares are percent of the counted pixels; white does not count",
            {"before", map, "what changed, and into what", changed}, legend);
}

}  // namespace chalcedony
