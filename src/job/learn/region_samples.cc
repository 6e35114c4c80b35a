#include "job/learn/region_samples.h"

#include "core/region/region_map.h"

namespace chalcedony {

SampleSet samples_of_regions(const std::vector<Label>& labels,
                             const std::vector<std::vector<Ring>>& rings,
                             const std::vector<std::string>& names,
                             const std::vector<std::string>& colors) {
  SampleSet samples;
  for (std::size_t r = 0; r < rings.size(); ++r) {
    SampleShape shape;
    shape.sample_class = samples.class_named(names[labels[r]]);
    samples.classes[shape.sample_class].color = colors[labels[r]];
    for (const Ring& ring : rings[r]) {
      auto& corners = shape.rings.emplace_back();
      for (const auto& [x, y] : ring)
        corners.push_back({static_cast<double>(x), static_cast<double>(y)});
    }
    samples.shapes.push_back(std::move(shape));
  }
  return samples;
}

SampleSet samples_of_labels(const LabelPicture& picture) {
  const RegionMap map = find_regions(picture.grid, Connectivity::kFour);
  std::vector<Label> labels;
  for (const GridRegion& region : map.regions) labels.push_back(region.label);
  std::vector<std::string> names(kLabels), colors(kLabels);
  for (const LegendEntry& entry : picture.classes) {
    names[entry.index] = entry.name;
    colors[entry.index] = entry.color;
  }
  return samples_of_regions(
      labels, outlines_of(map, picture.grid.width, picture.grid.height, Connectivity::kFour), names,
      colors);
}

}  // namespace chalcedony
