#include "figure/sample_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "figure/axis.h"
#include "figure/legend.h"

namespace chalcedony {
namespace {

constexpr double kLegendWide = 308;  // of the page, in pixels

/// The rings of a shape, closed; a circle for a point.
std::vector<std::vector<Position>> closed_rings(const SampleShape& shape) {
  std::vector<std::vector<Position>> rings = shape.rings;
  for (auto& ring : rings) {
    // Closed twice, an outline shows a spike where it begins.
    const bool closed = ring.front().x == ring.back().x && ring.front().y == ring.back().y;
    if (!closed) ring.push_back(ring.front());
  }
  if (!rings.empty()) return rings;
  const double r = std::max(shape.radius, 0.5);
  std::vector<Position>& circle = rings.emplace_back();
  for (int degrees = 0; degrees <= 360; degrees += 15) {
    const double a = degrees * 0.017453292519943295;
    circle.push_back({shape.point.x + r * std::cos(a), shape.point.y + r * std::sin(a)});
  }
  return rings;
}

/// Above the middle of the outer ring.
PictureLabel name_above(const std::vector<Position>& ring, const std::string& name) {
  const auto by_x = [](const Position& a, const Position& b) { return a.x < b.x; };
  const auto by_y = [](const Position& a, const Position& b) { return a.y < b.y; };
  const auto [left, right] = std::minmax_element(ring.begin(), ring.end(), by_x);
  return {(left->x + right->x) / 2, std::min_element(ring.begin(), ring.end(), by_y)->y, name,
          true};
}

}  // namespace

void add_samples_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const SampleSet& samples, const std::vector<std::string>& colors,
                        const std::vector<std::uint64_t>& counts, const Thumbnail& picture) {
  std::vector<std::string> outlines(samples.classes.size());
  Overlay over{.coordinates = true};
  for (const SampleShape& shape : samples.shapes) {
    const auto rings = closed_rings(shape);
    std::string& data = outlines[shape.sample_class];
    for (const auto& ring : rings) {
      for (const Position& p : ring) data += fmt::format("{:.6g} {:.6g}\n", p.x, p.y);
      data += "\n";
    }
    over.labels.push_back(name_above(rings.front(), samples.classes[shape.sample_class].name));
  }
  for (std::size_t c = 0; c < outlines.size(); ++c) {
    const std::string data = plot.store(outlines[c]);
    // Its color between two lines of paper, which part it from a picture of that color.
    over.plots += fmt::format(
        "{}{} using 1:2 with lines lw 6 lc rgb '{}' notitle, {} using 1:2 with lines lw 2.4 lc rgb "
        "'{}' notitle",
        over.plots.empty() ? "" : ", ", data, Ink::kPaper, data, colors[c]);
  }
  const std::uint64_t all = std::accumulate(counts.begin(), counts.end(), std::uint64_t{0});
  Box body = plot.begin(path, "Samples on " + name,
                        fmt::format("{} sample pixels in {} regions; coordinates are pixels",
                                    grouped(static_cast<double>(all)), samples.shapes.size()));
  const Box legend = body.cut_right(kLegendWide, Plot::kGap);
  plot.show(body, "", picture, over);
  std::vector<LegendLine> classes;
  for (std::size_t c = 0; c < colors.size(); ++c)
    classes.push_back({fmt::format("{}   {} pixels", samples.classes[c].name,
                                   grouped(static_cast<double>(counts[c]))),
                       colors[c]});
  draw_legend(plot, classes, legend);
}

}  // namespace chalcedony
