#include "figure/region_figure.h"

#include <fmt/format.h>

namespace chalcedony {
namespace {

constexpr const char* kLight = "#fcfbf8";

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

}  // namespace

void add_region_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<ShownRegion>& regions, const std::string& sentence,
                       const Thumbnail& picture) {
  plot.begin(path, "Regions of " + name, sentence);
  std::string rings, boxes, numbers;
  for (const ShownRegion& region : regions) {
    rings += ring_points(region.rings);
    boxes += box_points(region.measures);
    numbers += fmt::format("{:.6g} {:.6g} {}\n", region.measures.center_x, region.measures.center_y,
                           region.number);
  }
  std::string over;
  if (!regions.empty()) {
    const std::string ring_data = plot.store(rings), number_data = plot.store(numbers);
    over = fmt::format(
        "{0} using 1:2 with lines dt 3 lw 1 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 3.4 lc rgb '{1}' notitle, "
        "{2} using 1:2 with lines lw 1.4 lc rgb '{3}' notitle, "
        "{4} using 1:2:3 with labels font ',11' boxed textcolor rgb '{3}' notitle",
        plot.store(boxes), kLight, ring_data, Ink::kText, number_data);
    plot.line(fmt::format("set style textbox opaque noborder margins 0.4,0.3 fillcolor rgb '{}'",
                          kLight));
  }
  plot.show({0.06, 0.97, 0.06, 0.88}, "", picture, over, true);
}

}  // namespace chalcedony
