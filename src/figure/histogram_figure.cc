#include "figure/histogram_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <optional>

#include "figure/plot/axis.h"
#include "figure/plot/axis_strip.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kTicRoom = 18;     // a tic of an upright axis
constexpr double kNumberRoom = 22;  // the number of a peak, above the curves
constexpr double kKeyRow = 19;      // a row of the names above a panel
constexpr double kStrip = 9;        // a strip of example colors and the gap below it
constexpr double kStripGap = 2;
constexpr double kKeyGap = 4;     // between the names and what is below them
constexpr double kPanelGap = 12;  // between an axis and what stands below it
constexpr double kLeastCurves = 70;
constexpr double kCountAxis = 112;    // an upright axis with numbers of up to seven digits
constexpr double kOneKeyBottom = 48;  // of the names of all panels: beside the titles of the page

/// In one row, or where that has no room in two columns.
std::size_t key_columns(std::size_t names) { return names <= 3 ? 3 : 2; }

/// r, g and b in their own colors, everything else in quiet ones that differ.
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

constexpr double kLogFloor = 0.7;  // of a logarithmic axis of counts

/// Channels that can share an axis: same unit, same bins, and no peaks, whose bands would overlap.
std::vector<std::vector<std::size_t>> panels_of(const std::vector<HistogramSeries>& series) {
  std::vector<std::vector<std::size_t>> panels;
  for (std::size_t i = 0; i < series.size(); ++i) {
    const Binning& mine = series[i].histogram->binning();
    const auto fits = [&](const std::vector<std::size_t>& panel) {
      const HistogramSeries& first = series[panel.front()];
      const Binning& theirs = first.histogram->binning();
      return series[i].peaks.empty() &&
             first.channel.unit_name() == series[i].channel.unit_name() &&
             mine.low() == theirs.low() && mine.high() == theirs.high() &&
             mine.bins() == theirs.bins();
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

/// What stands for one pixel on the axis.
double pixel_height(const Histogram& histogram, const CountAxis& counts) {
  return counts.shares && histogram.total() > 0 ? 100.0 / static_cast<double>(histogram.total())
                                                : 1.0;
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

/// The peaks of the members as bands over the whole height, numbered for each channel.
void mark_bands(Plot& plot, const Box& curves, const std::vector<HistogramSeries>& series,
                const std::vector<std::size_t>& members) {
  const double middle = 1 - kNumberRoom / 2 / curves.height();
  int object = 20;
  for (const std::size_t s : members)
    for (std::size_t p = 0; p < series[s].peaks.size(); ++p) {
      const PeakMark& peak = series[s].peaks[p];
      for_each_piece(
          peak.interval[0], series[s].histogram->binning(), [&](double low, double high) {
            plot.line(
                fmt::format("set object {} rectangle from {:.9g},graph 0 to {:.9g},graph 1 "
                            "fillcolor rgb '{}' fillstyle transparent solid 0.18 noborder behind",
                            object, low, high, peak.color));
            plot.line(
                fmt::format("set label {} '{}' at {:.9g},graph {:.5f} center front font ',11' "
                            "textcolor rgb '{}'",
                            object++, p + 1, (low + high) / 2, middle, Ink::kText));
          });
    }
}

/// The upright axis of so many pixels up to the highest bin and what stands above it; `floor` is
/// where a logarithmic one begins.
void set_count_axis(Plot& plot, double high, double highest, double floor, double above,
                    const CountAxis& counts) {
  plot.line(std::string("set ylabel '") + (counts.shares ? "percent per bin" : "pixels per bin") +
            "' offset -1.5,0");
  const double share = high / (high - above);  // of the whole axis, for that of the curves
  const double places = std::clamp(high / kTicRoom, 2.0, 6.0);
  if (!counts.logarithmic) {
    const double top = highest * 1.08 * share;
    plot.line(fmt::format("set yrange [0:{:.9g}]", top));
    plot.line("set ytics " + tic_list(round_tics(0, top, static_cast<std::size_t>(places))));
    return;
  }
  const double top = floor * std::pow(highest * 1.5 / floor, share);
  plot.line(fmt::format("set logscale y; set yrange [{:.9g}:{:.9g}]", floor, top));
  const double lowest = std::ceil(std::log10(floor)), decades = std::log10(top) - lowest;
  std::vector<double> tics;
  for (double t = lowest; t <= lowest + decades; t += std::ceil((decades + 1) / places))
    tics.push_back(std::pow(10, t));
  plot.line("set ytics " + tic_list(tics));
}

/// The highest bin of some histograms, as it stands on the axis.
double highest_of(const std::vector<HistogramSeries>& series,
                  const std::vector<std::size_t>& members, const CountAxis& counts) {
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

/// The names of curves: where their lower right corner is, and whether they say the medians.
struct PanelKey {
  double right, bottom;
  bool medians = true;
};

/// The filled curve of a channel, and the line along it, as parts of a `plot`; the median besides.
struct Curve {
  std::string fill, line;
};

Curve draw_curve(Plot& plot, const HistogramSeries& one, std::size_t number,
                 const CountAxis& counts, double floor, bool says_median) {
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
  const std::string median =
      one.has_median && says_median ? "  median " + rounded_text(one.median, 4) : "";
  return {fmt::format("{} using 1:{} with filledcurves y1={} lc rgb '{}' fs transparent solid "
                      "0.22 notitle, ",
                      data, height, counts.logarithmic ? floor : 0, color),
          fmt::format("{} using 1:{} with lines lw 1.8 lc rgb '{}' title {}, ", data, height, color,
                      literal(one.channel.name() + median))};
}

struct PanelStyle {
  const CountAxis& counts;
  double highest;               // bin that the axis has room for
  std::optional<PanelKey> key;  // none: no names
  std::string title = {};
};

/// Returns the box of the curves.
Box draw_panel(Plot& plot, const Box& box, const std::vector<HistogramSeries>& series,
               const std::vector<std::size_t>& members, const PanelStyle& style) {
  const auto& [counts, highest, key, title] = style;
  const HistogramSeries& first = series[members.front()];
  const Binning& binning = first.histogram->binning();
  const double floor = kLogFloor * pixel_height(*first.histogram, counts);
  std::string axis;
  for (const std::size_t m : members) axis += (axis.empty() ? "" : ", ") + series[m].channel.name();
  const std::string unit = first.channel.shown_unit();
  const Box inner = plot.panel(box, title, {.left = kCountAxis, .bottom = kAxisBelow});
  mark_bands(plot, inner, series, members);
  plot.line(fmt::format("set xrange [{:.9g}:{:.9g}]", binning.low(), binning.high()));
  const bool numbered = std::any_of(members.begin(), members.end(),
                                    [&](std::size_t m) { return !series[m].peaks.empty(); });
  set_count_axis(plot, inner.height(), highest, floor, numbered ? kNumberRoom : 0, counts);
  plot.line("set xtics " + channel_tics(first.channel, binning, 8));
  plot.line("set xlabel " + literal(unit.empty() ? axis : axis + " (" + unit + ")") +
            " offset 0,0.3");
  if (key)
    plot.line(fmt::format(
        "set key at {} right bottom horizontal maxcols {} samplen 2 width {} textcolor rgb '{}' "
        "font ',11'",
        plot.place(key->right, key->bottom), key_columns(members.size()),
        // gnuplot takes the letters of long names for wider than they are.
        key->medians ? -2.5 : 0.5, Ink::kText));
  std::string curves, lines;
  for (const std::size_t m : members) {
    const Curve curve = draw_curve(plot, series[m], m, counts, floor, key && key->medians);
    curves += curve.fill;
    lines += curve.line;
  }
  lines.resize(lines.size() - 2);
  plot.line("plot " + curves + lines);
  return inner;
}

/// The strips of example colors, from the bottom of a box up.
void draw_strips(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                 const std::vector<std::size_t>& members) {
  for (const std::size_t m : members) {
    const Binning& binning = series[m].histogram->binning();
    Box above = box;
    const Box strip = above.cut_bottom(kStrip).inside({.bottom = kStripGap});
    if (draw_axis_strip(plot, strip, series[m].channel, binning.low(), binning.high())) box = above;
  }
}

/// Pixels that the strips and the names above a panel take.
double strips_height(const std::vector<std::size_t>& members) {
  return kStrip * static_cast<double>(members.size()) + kKeyGap;
}
double names_height(const std::vector<std::size_t>& members) {
  const std::size_t columns = key_columns(members.size());
  return kKeyRow * static_cast<double>((members.size() + columns - 1) / columns);
}

}  // namespace

void draw_histogram_panel(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                          const CountAxis& counts) {
  std::vector<std::size_t> all(series.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  const Box names = box.cut_top(names_height(all), kKeyGap);
  draw_panel(plot, box, series, all,
             {counts, highest_of(series, all, counts), PanelKey{names.right, names.bottom}});
}

void add_histogram_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<HistogramSeries>& series, const CountAxis& counts,
                          const Thumbnail& picture) {
  const auto panels = panels_of(series);
  double around = 0;  // the curves of all panels
  for (const auto& members : panels)
    around += names_height(members) + strips_height(members) + kAxisBelow + kPanelGap;
  const auto count = static_cast<double>(panels.size());
  Box body =
      plot.begin(path, "Channel histograms of " + name,
                 fmt::format("{} counted pixels{}",
                             grouped(static_cast<double>(series.front().histogram->total())),
                             counts.logarithmic ? "; the axes of counts are logarithmic" : ""),
                 std::max(Plot::kHeight, Plot::page_height(around + count * kLeastCurves)));
  Box left = body.cut_left(Plot::kPictureBeside, Plot::kGap);
  // In line with the curves of the first panel.
  left.top += names_height(panels.front()) + strips_height(panels.front());
  std::vector<PeakMark> peaks;
  for (const HistogramSeries& s : series) peaks.insert(peaks.end(), s.peaks.begin(), s.peaks.end());
  show_with_peaks(plot, left, picture, peaks);
  const double curves = (body.height() - around) / count;
  for (const auto& members : panels) {
    const Box names = body.cut_top(names_height(members));
    const Box strips = body.cut_top(strips_height(members));
    const Box inner = draw_panel(
        plot, body.cut_top(curves + kAxisBelow, kPanelGap), series, members,
        {counts, highest_of(series, members, counts), PanelKey{names.right, names.bottom}});
    draw_strips(plot, {inner.left, strips.top, inner.right, strips.bottom}, series, members);
  }
}

void add_histograms_figure(Plot& plot, const std::filesystem::path& path,
                           const std::vector<NamedHistograms>& pictures, std::size_t all,
                           const CountAxis& counts) {
  const auto members = panels_of(pictures.front().series).front();
  const std::size_t shown = pictures.size();
  std::string channels;
  for (const std::size_t m : members)
    channels += (channels.empty() ? "" : ", ") + pictures.front().series[m].channel.name();
  const Box body = plot.begin(
      path,
      shown == all ? fmt::format("Channel histograms of {} pictures", all)
                   : fmt::format("Channel histograms of the first {} of {} pictures", shown, all),
      channels + ", all on one axis; medians are dashed" +
          (counts.logarithmic ? "; the axes of counts are logarithmic" : ""));
  double highest = 0;
  for (const NamedHistograms& one : pictures)
    highest = std::max(highest, highest_of(one.series, members, counts));
  const auto columns = static_cast<std::size_t>(std::ceil(std::sqrt(pictures.size())));
  const auto rows = rows_of(body, (pictures.size() + columns - 1) / columns, kPanelGap);
  for (std::size_t i = 0; i < pictures.size(); ++i) {
    // One key is enough.
    const auto key =
        i == 0 ? std::optional(PanelKey{body.right, kOneKeyBottom, false}) : std::nullopt;
    draw_panel(plot, columns_of(rows[i / columns], columns, Plot::kGap)[i % columns],
               pictures[i].series, members, {counts, highest, key, pictures[i].name});
  }
}

}  // namespace chalcedony
