// A figure of the accuracies of several maps side by side.
#ifndef CHALCEDONY_FIGURE_MAPS_FIGURE_H_
#define CHALCEDONY_FIGURE_MAPS_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/accuracy.h"
#include "core/assess/between_maps.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct MapAccuracy {
  std::string name;
  Accuracy accuracy;             // its classes are the same in all maps
  std::optional<double> second;  // overall accuracy of a map it is held against, 0-1
};

/// A row for each map: its overall accuracy with its interval, on a band that is the interval of
/// all by how much they differ, and F1 of each class by color.
/// Second maps stand as rings.
void add_maps_figure(Plot& plot, const std::filesystem::path& path,
                     const std::vector<std::string>& classes, const std::vector<MapAccuracy>& maps,
                     const Accuracy& together, const std::optional<BetweenMaps>& between);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_MAPS_FIGURE_H_
