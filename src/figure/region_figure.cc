#include "figure/region_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace chalcedony {
namespace {

std::string ring_points(const std::vector<Ring>& rings) {
  std::string text;
  for (const Ring& ring : rings) {
    for (const auto& [x, y] : ring) text += fmt::format("{} {}\n", x, y);
    text += "\n";
  }
  return text;
}

std::string box_points(const RegionMeasures& m) {
  const std::uint32_t right = m.left + m.width, bottom = m.top + m.height;
  return fmt::format("{0} {1}\n{2} {1}\n{2} {3}\n{0} {3}\n{0} {1}\n\n", m.left, m.top, right,
                     bottom);
}

/// Where a number stands in its region: at the center of it, or, when that lies outside, in the
/// middle of the longest piece of its row that does not.
std::array<double, 2> number_place(const ShownRegion& region) {
  const double x = region.measures.center_x, row = std::floor(region.measures.center_y) + 0.5;
  std::vector<double> borders;
  for (const Ring& ring : region.rings)
    for (std::size_t i = 1; i < ring.size(); ++i)
      if ((ring[i - 1][1] < row) != (ring[i][1] < row)) borders.push_back(ring[i][0]);
  std::sort(borders.begin(), borders.end());
  double longest = 0, middle = x;
  for (std::size_t i = 1; i < borders.size(); i += 2) {
    const double from = borders[i - 1], to = borders[i];
    if (from <= x && x < to) return {x, region.measures.center_y};
    if (to - from > longest) longest = to - from, middle = (from + to) / 2;
  }
  return {middle, row};
}

}  // namespace

void add_region_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<ShownRegion>& regions, const std::string& sentence,
                       const Thumbnail& picture) {
  const Box body = plot.begin(path, "Regions of " + name, sentence, Plot::height_for(picture));
  std::string rings, boxes;
  Overlay over{.coordinates = true};
  for (const ShownRegion& region : regions) {
    rings += ring_points(region.rings);
    boxes += box_points(region.measures);
    const auto [x, y] = number_place(region);
    over.labels.push_back({x, y, std::to_string(region.number)});
  }
  if (!regions.empty())
    over.plots = fmt::format(
        "{0} using 1:2 with lines dt 3 lw 1 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 3.4 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 1.4 lc rgb '{3}' notitle",
        plot.store(boxes), Ink::kPaper, plot.store(rings), Ink::kText);
  plot.show(body, "", picture, over);
}

}  // namespace chalcedony
