#include "core/region/class_sizes.h"

#include <algorithm>
#include <map>

namespace chalcedony {

std::vector<ClassSizes> sizes_of_classes(const std::vector<RegionMeasures>& regions) {
  std::map<Label, std::vector<std::uint64_t>> of_class;
  std::map<Label, std::uint64_t> at_edge;
  for (const RegionMeasures& region : regions) {
    of_class[region.label].push_back(region.pixels);
    at_edge[region.label] += region.at_edge ? 1 : 0;
  }
  std::vector<ClassSizes> sizes;
  for (auto& [label, pixels] : of_class) {
    const auto middle = pixels.begin() + static_cast<std::ptrdiff_t>((pixels.size() - 1) / 2);
    std::nth_element(pixels.begin(), middle, pixels.end());
    ClassSizes& own = sizes.emplace_back();
    own.label = label;
    own.regions = pixels.size();
    own.at_edge = at_edge[label];
    for (const std::uint64_t size : pixels) own.pixels += size;
    own.smallest = *std::min_element(pixels.begin(), middle + 1);
    own.median = *middle;
    own.largest = *std::max_element(middle, pixels.end());
  }
  return sizes;
}

}  // namespace chalcedony
