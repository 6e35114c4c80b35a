#include "core/region/class_sizes.h"

#include <algorithm>
#include <map>
#include <utility>

#include "core/stats/ranks.h"

namespace chalcedony {

std::uint64_t ClassSizes::percentile(double p) const {
  return sorted[nearest_rank(p, sorted.size()) - 1];
}

std::vector<ClassSizes> sizes_of_classes(const std::vector<RegionMeasures>& regions) {
  std::map<Label, std::vector<std::uint64_t>> of_class;
  std::map<Label, std::uint64_t> at_edge;
  for (const RegionMeasures& region : regions) {
    of_class[region.label].push_back(region.pixels);
    at_edge[region.label] += region.at_edge ? 1 : 0;
  }
  std::vector<ClassSizes> sizes;
  for (auto& [label, pixels] : of_class) {
    ClassSizes& own = sizes.emplace_back();
    own.label = label;
    own.regions = pixels.size();
    own.at_edge = at_edge[label];
    for (const std::uint64_t size : pixels) own.pixels += size;
    own.sorted = std::move(pixels);
    std::sort(own.sorted.begin(), own.sorted.end());
  }
  return sizes;
}

}  // namespace chalcedony
