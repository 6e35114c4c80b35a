#include "figure/scatter_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "figure/axis.h"

namespace chalcedony {
namespace {

/// The curve two standard deviations from the mean in every direction.
std::string ellipse_data(const ClassStatistics& s, std::size_t x, std::size_t y) {
  const auto ix = static_cast<Eigen::Index>(x), iy = static_cast<Eigen::Index>(y);
  // The factor of the covariance (Cholesky) takes the circle of radius 2 to the curve.
  const double xx = std::sqrt(s.covariance(ix, ix));
  const double xy = xx > 0 ? s.covariance(ix, iy) / xx : 0;
  const double yy = std::sqrt(std::max(0.0, s.covariance(iy, iy) - xy * xy));
  std::string data;
  for (int degrees = 0; degrees <= 360; degrees += 6) {
    const double a = degrees * std::numbers::pi / 180;
    const double u = 2 * std::cos(a), v = 2 * std::sin(a);
    data += fmt::format("{:.6g} {:.6g}\n", s.mean[ix] + xx * u, s.mean[iy] + xy * u + yy * v);
  }
  return data;
}

}  // namespace

void add_scatter_figure(Plot& plot, const std::filesystem::path& path, const Model& model,
                        std::size_t x, std::size_t y, const std::vector<ScatterPoints>& points) {
  const std::vector<Feature> features = features_of(model.features);
  plot.begin(path, "Classes in " + features[x].name() + " and " + features[y].name(),
             "dots: sample pixels; crosses: class means; curves: two standard deviations");
  plot.panel({0.08, 0.84, 0.11, 0.88});
  plot.line("set xlabel " + literal(features[x].title()) + " offset 0,0.3");
  plot.line("set ylabel " + literal(features[y].title()) + " offset -1,0");
  plot.line(
      fmt::format("set key outside right top Left reverse textcolor rgb '{}' font ',11' "
                  "at screen 0.97,0.87",
                  Ink::kText));
  std::string dots, curves, means;
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    const ModelClass& one = model.classes[c];
    std::string data;
    for (const auto& p : points[c]) data += fmt::format("{:.6g} {:.6g}\n", p[0], p[1]);
    if (!data.empty())
      dots += fmt::format("{} using 1:2 with points pt 7 ps 0.3 lc rgb '{}' notitle, ",
                          plot.store(data), one.color);
    if (one.statistics.count > 1)
      curves += fmt::format("{} using 1:2 with lines lw 2 lc rgb '{}' notitle, ",
                            plot.store(ellipse_data(one.statistics, x, y)), one.color);
    const std::string mean =
        plot.store(fmt::format("{:.6g} {:.6g}\n", one.statistics.mean[static_cast<Eigen::Index>(x)],
                               one.statistics.mean[static_cast<Eigen::Index>(y)]));
    means += fmt::format(
        "{} using 1:2 with points pt 2 ps 1.8 lw 4 lc rgb '{}' notitle, {} using "
        "1:2 with points pt 2 ps 1.6 lw 2 lc rgb '{}' title {}, ",
        mean, Ink::kText, mean, one.color, literal(one.name));
  }
  means.resize(means.size() - 2);
  plot.line("plot " + dots + curves + means);
}

}  // namespace chalcedony
