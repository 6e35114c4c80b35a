// Figures of what became of the classes of maps.
#ifndef CHALCEDONY_FIGURE_CHANGES_FIGURE_H_
#define CHALCEDONY_FIGURE_CHANGES_FIGURE_H_

#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Shares are percent of the counted pixels.
struct ChangesFigure {
  /// A share that went over from one class to another, or stayed.
  struct Flow {
    std::size_t from, to;
    double percent;
  };

  std::string title;
  std::vector<std::string> times;           // what the maps are called
  std::vector<LegendLine> classes;          // of all maps, what is of no class among them
  std::vector<std::vector<double>> shares;  // of each map those of each class
  std::vector<std::vector<Flow>> flows;     // from each map to the next, by class
};

/// A strip for each map, divided among the classes, and between them bands for what became of each;
/// what stayed is faint.
void add_flows_figure(Plot& plot, const std::filesystem::path& path, const ChangesFigure& figure);

/// A map and what changed in it side by side, what the colors mean below.
void add_changed_figure(Plot& plot, const std::filesystem::path& path, const std::string& title,
                        const std::vector<LegendLine>& legend, const Thumbnail& map,
                        const Thumbnail& changed);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_CHANGES_FIGURE_H_
