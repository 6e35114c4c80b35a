#include "figure/scatter_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/degrees.h"
#include "figure/plot/axis.h"
#include "figure/plot/legend.h"

namespace chalcedony {
namespace {

constexpr double kLeastLegendWide = 180, kMostLegendWide = 300;  // of the page, in pixels

/// The curve two standard deviations from the mean in every direction.
std::string ellipse_data(const ClassStatistics& s, std::size_t x, std::size_t y) {
  const auto ix = static_cast<Eigen::Index>(x), iy = static_cast<Eigen::Index>(y);
  // The factor of the covariance (Cholesky) takes the circle of radius 2 to the curve.
  const double xx = std::sqrt(s.covariance(ix, ix));
  const double xy = xx > 0 ? s.covariance(ix, iy) / xx : 0;
  const double yy = std::sqrt(std::max(0.0, s.covariance(iy, iy) - xy * xy));
  std::string data;
  for (int degrees = 0; degrees <= 360; degrees += 6) {
    const double a = radians(degrees);
    const double u = 2 * std::cos(a), v = 2 * std::sin(a);
    data += fmt::format("{:.6g} {:.6g}\n", s.mean[ix] + xx * u, s.mean[iy] + xy * u + yy * v);
  }
  return data;
}

/// What the figure spans.
struct Extent {
  double low_x = 1e300, high_x = -1e300, low_y = 1e300, high_y = -1e300;

  void hold(double x, double y) {
    low_x = std::min(low_x, x);
    high_x = std::max(high_x, x);
    low_y = std::min(low_y, y);
    high_y = std::max(high_y, y);
  }
  void hold(const ScatterPoints& points) {
    for (const auto& p : points) hold(double{p[0]}, double{p[1]});
  }
  /// A little room on all sides, and some width where there is none.
  void widen() {
    const auto widen_side = [](double& low, double& high) {
      const double room = high > low ? 0.03 * (high - low) : 1;
      low -= room;
      high += room;
    };
    widen_side(low_x, high_x);
    widen_side(low_y, high_y);
  }
};

Extent extent_of(const Model& model, const FeaturePair& features, const ScatterContent& content) {
  Extent extent;
  const auto x = static_cast<Eigen::Index>(features.x), y = static_cast<Eigen::Index>(features.y);
  for (const ModelClass& c : model.classes) {
    const ClassStatistics& s = c.statistics;
    const double right = 2 * std::sqrt(s.covariance(x, x)), up = 2 * std::sqrt(s.covariance(y, y));
    extent.hold(s.mean[x] - right, s.mean[y] - up);
    extent.hold(s.mean[x] + right, s.mean[y] + up);
  }
  for (const ScatterPoints& points : content.samples) extent.hold(points);
  extent.hold(content.everything);
  extent.hold(content.marked);
  extent.widen();
  return extent;
}

/// Cells of gray, the darker the more pixels (by the logarithm of their number).
std::string density_image(Plot& plot, const ScatterPoints& points, const Extent& extent) {
  constexpr std::size_t kAcross = 110, kDown = 80;
  constexpr double kLightest = 236, kDarkest = 150;
  const double dx = (extent.high_x - extent.low_x) / kAcross;
  const double dy = (extent.high_y - extent.low_y) / kDown;
  std::vector<double> counts(kAcross * kDown);
  for (const auto& p : points) {
    const auto column = static_cast<std::size_t>((double{p[0]} - extent.low_x) / dx);
    const auto row = static_cast<std::size_t>((double{p[1]} - extent.low_y) / dy);
    ++counts[std::min(row, kDown - 1) * kAcross + std::min(column, kAcross - 1)];
  }
  const double most = std::log1p(*std::max_element(counts.begin(), counts.end()));
  std::vector<std::uint8_t> rgb;
  for (const double count : counts) {
    // Nothing is as dark as the paper is.
    const double gray = kLightest + (kDarkest - kLightest) * std::log1p(count) / most;
    for (const double paper : {252.0, 251.0, 248.0})
      rgb.push_back(static_cast<std::uint8_t>(count == 0 ? paper : gray));
  }
  return fmt::format(
      "{} binary array=({},{}) dx={:.8g} dy={:.8g} origin=({:.8g},{:.8g}) format='%uchar' with "
      "rgbimage notitle, ",
      plot.store(rgb), kAcross, kDown, dx, dy, extent.low_x + dx / 2, extent.low_y + dy / 2);
}

/// The classes: dots of their samples, curves, means.
std::string class_layers(Plot& plot, const Model& model, const FeaturePair& features,
                         const std::vector<ScatterPoints>& samples) {
  std::string dots, curves, means;
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    const ModelClass& one = model.classes[c];
    std::string data;
    if (c < samples.size())
      for (const auto& p : samples[c]) data += fmt::format("{:.6g} {:.6g}\n", p[0], p[1]);
    if (!data.empty())
      dots += fmt::format("{} using 1:2 with points pt 7 ps 0.3 lc rgb '{}' notitle, ",
                          plot.store(data), one.color);
    if (one.statistics.count > 1) {
      const std::string curve = plot.store(ellipse_data(one.statistics, features.x, features.y));
      curves += fmt::format(
          "{0} using 1:2 with lines lw 3.4 lc rgb '{1}' notitle, {0} using 1:2 with lines lw 2 lc "
          "rgb '{2}' notitle, ",
          curve, Ink::kPaper, one.color);
    }
    const auto& mean = one.statistics.mean;
    const std::string place =
        plot.store(fmt::format("{:.6g} {:.6g}\n", mean[static_cast<Eigen::Index>(features.x)],
                               mean[static_cast<Eigen::Index>(features.y)]));
    means += fmt::format(
        "{0} using 1:2 with points pt 2 ps 1.8 lw 4 lc rgb '{1}' notitle, {0} using "
        "1:2 with points pt 2 ps 1.6 lw 2 lc rgb '{2}' notitle, ",
        place, Ink::kText, one.color);
  }
  return dots + curves + means;
}

/// Rings with their numbers beside them.
std::string marked_layer(Plot& plot, const ScatterPoints& marked) {
  std::string data;
  for (std::size_t i = 0; i < marked.size(); ++i)
    data += fmt::format("{:.6g} {:.6g} {}\n", marked[i][0], marked[i][1], i + 1);
  const std::string file = plot.store(data);
  return fmt::format(
      "{0} using 1:2 with points pt 6 ps 2.2 lw 5 lc rgb '{1}' notitle, {0} using 1:2 with points "
      "pt 6 ps 2.2 lw 2 lc rgb '{2}' notitle, {0} using 1:2:3 with labels offset 1.4,0.7 "
      "textcolor rgb '{2}' notitle, ",
      file, Ink::kPaper, Ink::kText);
}

/// The names of the classes with their colors, cut off a box on its right.
void draw_classes(Plot& plot, Box& body, const Model& model) {
  std::vector<LegendLine> classes;
  for (const ModelClass& one : model.classes) classes.push_back({one.name, one.color});
  const double wide = std::clamp(legend_width(classes), kLeastLegendWide, kMostLegendWide);
  draw_legend(plot, classes, body.cut_right(wide, Plot::kGap));
}

}  // namespace

void add_scatter_figure(Plot& plot, const std::filesystem::path& path, const Model& model,
                        const FeaturePair& features, const ScatterContent& content) {
  const std::vector<Feature> named = features_of(model.features);
  const Feature &x = named[features.x], &y = named[features.y];
  std::string told = "crosses: class means; curves: two standard deviations";
  if (!content.marked.empty()) told = "rings: the pixels, by number; " + told;
  if (!content.samples.empty()) told = "dots: sample pixels; " + told;
  if (!content.everything.empty()) told += "; gray: the whole pictures, the darker the more pixels";
  Box body = plot.begin(path, "Classes in " + x.name() + " and " + y.name(), told);
  draw_classes(plot, body, model);
  plot.panel(body, "", {.left = kAxisBeside, .bottom = kAxisBelow});
  plot.line("set xlabel " + literal(x.title()) + " offset 0,0.3");
  plot.line("set ylabel " + literal(y.title()) + " offset -1,0");
  const Extent extent = extent_of(model, features, content);
  plot.line(fmt::format("set xrange [{:.8g}:{:.8g}]; set yrange [{:.8g}:{:.8g}]", extent.low_x,
                        extent.high_x, extent.low_y, extent.high_y));
  std::string layers;
  if (!content.everything.empty()) layers += density_image(plot, content.everything, extent);
  layers += class_layers(plot, model, features, content.samples);
  if (!content.marked.empty()) layers += marked_layer(plot, content.marked);
  layers.resize(layers.size() - 2);
  plot.line("plot " + layers);
}

}  // namespace chalcedony
