#include "figure/histogram_curves.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/color/css_color.h"
#include "figure/plot/axis.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

constexpr double kTicRoom = 18;    // a tic of an upright axis, in pixels of the page
constexpr double kLogFloor = 0.7;  // of a logarithmic axis of counts

/// What stands for one pixel on the axis.
double pixel_height(const Histogram& histogram, const CountAxis& counts) {
  return counts.shares && histogram.total() > 0 ? 100.0 / static_cast<double>(histogram.total())
                                                : 1.0;
}

/// Where a logarithmic axis begins.
double axis_floor(const HistogramSeries& first, const CountAxis& counts) {
  return kLogFloor * pixel_height(*first.histogram, counts);
}

std::string curve_data(const Histogram& histogram, const CountAxis& counts) {
  std::string data;
  const Binning& binning = histogram.binning();
  const double pixel = pixel_height(histogram, counts);
  for (std::size_t b = 0; b < binning.bins(); ++b) {
    const double height = pixel * static_cast<double>(histogram.count(b));
    data += fmt::format("{:.9g} {:.9g}\n{:.9g} {:.9g}\n", binning.edge(b), height,
                        binning.edge(b + 1), height);
  }
  return data;
}

/// The filled curve of a channel, and the line along it, as parts of a `plot`; the median besides.
struct Curve {
  std::string fill, line;
};

Curve draw_curve(Plot& plot, const HistogramSeries& one, std::size_t number,
                 const CountAxis& counts, double floor, CurveNames names) {
  const std::string color = series_color(one.channel, number);
  const std::string data = plot.store(curve_data(*one.histogram, counts));
  // Empty bins have no logarithm; they lie on the floor.
  const std::string height =
      counts.logarithmic ? fmt::format("($2 < {0:.9g} ? {0:.9g} : $2)", floor) : "2";
  if (one.has_median)
    plot.line(
        fmt::format("set arrow {} from {:.9g},graph 0 to {:.9g},graph 1 nohead dt 2 lw 1.4 "
                    "lc rgb '{}' front",
                    number + 1, one.median, one.median, color));
  const bool says_median = one.has_median && names == CurveNames::kMedians;
  const std::string median = says_median ? "  median " + rounded_text(one.median, 4) : "";
  const std::string title =
      names == CurveNames::kNone ? "notitle" : "title " + literal(one.channel.name() + median);
  return {
      fmt::format("{} using 1:{} with filledcurves y1={} lc rgb '{}' fs transparent solid "
                  "0.22 notitle, ",
                  data, height, counts.logarithmic ? floor : 0, color),
      fmt::format("{} using 1:{} with lines lw 1.8 lc rgb '{}' {}, ", data, height, color, title)};
}

}  // namespace

std::vector<SeriesPlaces> panels_of(const std::vector<HistogramSeries>& series) {
  std::vector<SeriesPlaces> panels;
  for (std::size_t i = 0; i < series.size(); ++i) {
    const Binning& mine = series[i].histogram->binning();
    const auto fits = [&](const SeriesPlaces& panel) {
      const HistogramSeries& first = series[panel.front()];
      return series[i].peaks.empty() &&
             first.channel.unit_name() == series[i].channel.unit_name() &&
             first.histogram->binning() == mine;
    };
    const auto panel = std::find_if(panels.begin(), panels.end(), fits);
    if (panel == panels.end()) {
      panels.push_back({i});
    } else {
      panel->push_back(i);
    }
  }
  return panels;
}

std::string series_color(const Channel& channel, std::size_t number) {
  static const std::array<Color, 3> rgb{Color{&spaces::kOklch, {0.58, 0.19, 25}},
                                        Color{&spaces::kOklch, {0.62, 0.16, 145}},
                                        Color{&spaces::kOklch, {0.52, 0.17, 262}}};
  static const std::array<Color, 5> quiet{
      Color{&spaces::kOklch, {0.45, 0.06, 250}}, Color{&spaces::kOklch, {0.60, 0.11, 70}},
      Color{&spaces::kOklch, {0.45, 0.11, 345}}, Color{&spaces::kOklch, {0.60, 0.08, 190}},
      Color{&spaces::kOklch, {0.35, 0.05, 110}}};
  const bool own = channel.space && channel.space->is_rgb;
  return css_hex(own ? rgb[channel.index] : quiet[number % quiet.size()]);
}

std::string shared_axis_title(const std::vector<HistogramSeries>& series,
                              const SeriesPlaces& members) {
  std::string title;
  for (const std::size_t m : members)
    title += (title.empty() ? "" : ", ") + series[m].channel.name();
  const std::string unit = series[members.front()].channel.shown_unit();
  return unit.empty() ? title : title + " (" + unit + ")";
}

double highest_bin(const std::vector<HistogramSeries>& series, const SeriesPlaces& members,
                   const CountAxis& counts) {
  double highest = 0;
  for (const std::size_t m : members) {
    const Histogram& histogram = *series[m].histogram;
    const double pixel = pixel_height(histogram, counts);
    highest = std::max(highest, pixel);
    for (std::size_t b = 0; b < histogram.binning().bins(); ++b)
      highest = std::max(highest, pixel * static_cast<double>(histogram.count(b)));
  }
  return highest;
}

void set_count_range(Plot& plot, const HistogramSeries& first, const CountRange& range) {
  const auto& [counts, highest, high, above, numbered] = range;
  const double share = high / (high - above);  // of the whole axis, for that of the curves
  const double places = std::clamp(high / kTicRoom, 2.0, 6.0);
  if (!counts.logarithmic) {
    const double top = highest * 1.08 * share;
    plot.line(fmt::format("set yrange [0:{:.9g}]", top));
    plot.line("set ytics " +
              tic_list(round_tics(0, top, static_cast<std::size_t>(places)), numbered));
    return;
  }
  const double floor = axis_floor(first, counts);
  const double top = floor * std::pow(highest * 1.5 / floor, share);
  plot.line(fmt::format("set logscale y; set yrange [{:.9g}:{:.9g}]", floor, top));
  const double lowest = std::ceil(std::log10(floor)), decades = std::log10(top) - lowest;
  std::vector<double> tics;
  for (double t = lowest; t <= lowest + decades; t += std::ceil((decades + 1) / places))
    tics.push_back(std::pow(10, t));
  plot.line("set ytics " + tic_list(tics, numbered));
}

std::string histogram_curves(Plot& plot, const std::vector<HistogramSeries>& series,
                             const SeriesPlaces& members, const CountAxis& counts,
                             CurveNames names) {
  const double floor = axis_floor(series[members.front()], counts);
  std::string fills, lines;
  for (const std::size_t m : members) {
    const Curve curve = draw_curve(plot, series[m], m, counts, floor, names);
    fills += curve.fill;
    lines += curve.line;
  }
  lines.resize(lines.size() - 2);
  return fills + lines;
}

}  // namespace chalcedony
