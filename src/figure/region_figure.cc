#include "figure/region_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace chalcedony {
namespace {

constexpr const char* kLight = "#fcfbf8";
constexpr Frame kPicture{0.06, 0.97, 0.06, 0.88};
constexpr double kDigit = 10, kNumberHigh = 24;  // of the page, in pixels, with what is around them

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

/// The numbers, but those that would lie on one before them; `scale`: pixels of the page for one of
/// the picture.
std::string number_points(const std::vector<ShownRegion>& regions, double scale) {
  struct Place {
    double x, y, wide;
  };
  std::vector<Place> taken;
  std::string points;
  for (const ShownRegion& region : regions) {
    const auto [x, y] = number_place(region);
    const std::string number = std::to_string(region.number);
    const Place place{x * scale, y * scale, kDigit * static_cast<double>(number.size() + 1)};
    const bool meets = std::any_of(taken.begin(), taken.end(), [&](const Place& other) {
      return std::abs(other.x - place.x) < (other.wide + place.wide) / 2 &&
             std::abs(other.y - place.y) < kNumberHigh;
    });
    if (meets) continue;
    taken.push_back(place);
    points += fmt::format("{:.6g} {:.6g} {}\n", x, y, number);
  }
  return points;
}

}  // namespace

void add_region_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<ShownRegion>& regions, const std::string& sentence,
                       const Thumbnail& picture) {
  plot.begin(path, "Regions of " + name, sentence);
  std::string rings, boxes;
  for (const ShownRegion& region : regions) {
    rings += ring_points(region.rings);
    boxes += box_points(region.measures);
  }
  std::string over;
  if (!regions.empty()) {
    const double wide = (kPicture.right - kPicture.left) * Plot::kWidth / picture.width;
    const double high = (kPicture.top - kPicture.bottom) * Plot::kHeight / picture.height;
    const std::string ring_data = plot.store(rings);
    const std::string number_data =
        plot.store(number_points(regions, std::min(wide, high) / picture.pixels_per_cell));
    over = fmt::format(
        "{0} using 1:2 with lines dt 3 lw 1 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 3.4 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 1.4 lc rgb '{3}' notitle, "
        "{4} using 1:2:3 with labels font ',11' boxed textcolor rgb '{3}' notitle",
        plot.store(boxes), kLight, ring_data, Ink::kText, number_data);
    plot.line(fmt::format("set style textbox opaque noborder margins 0.4,0.3 fillcolor rgb '{}'",
                          kLight));
  }
  plot.show(kPicture, "", picture, over, true);
}

}  // namespace chalcedony
