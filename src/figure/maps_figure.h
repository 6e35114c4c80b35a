// A figure of the accuracies of several maps side by side.
#ifndef CHALCEDONY_FIGURE_MAPS_FIGURE_H_
#define CHALCEDONY_FIGURE_MAPS_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/accuracy.h"
#include "core/stats/share_of_units.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct MapAccuracy {
  std::string name;
  Accuracy accuracy;                           // its classes are the same in all maps
  std::vector<std::optional<double>> rings{};  // overall accuracies of others of its picture, 0-1
};

struct MapsFigure {
  std::string title;
  std::vector<std::string> classes;
  std::vector<MapAccuracy> maps;
  double line = 0;  // an overall accuracy, 0-1, and what it is of
  std::string line_of;
  std::optional<ShareOfUnits> between{};  // the interval of the line, by how much the maps differ
  std::vector<std::string> rings{};       // what the rings of each map are
};

/// A row for each map: its overall accuracy with its interval, with a line through all and the band
/// of its interval, and F1 of each class by color. Rings have colors of their own.
void add_maps_figure(Plot& plot, const std::filesystem::path& path, const MapsFigure& figure);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_MAPS_FIGURE_H_
