// Figures of groups of colors: the recolored picture, the criteria for their number, the choices.
#ifndef CHALCEDONY_FIGURE_CLUSTER_FIGURE_H_
#define CHALCEDONY_FIGURE_CLUSTER_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Picture and recolored picture side by side, below them the colors as wide as their shares.
void add_cluster_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::vector<LegendLine>& groups, const Thumbnail& picture,
                        const Thumbnail& recolored);

/// A criterion over the numbers of groups that were tried.
struct CriterionCurve {
  std::string title;
  std::vector<double> values;       // one for each number
  std::optional<std::size_t> best;  // place of the smallest or largest value
  std::optional<std::size_t> knee;  // place of the bend
};

/// The criteria beside each other, marked where they are best and where they bend, and a sentence.
void add_criteria_figure(Plot& plot, const std::filesystem::path& path,
                         const std::vector<double>& numbers,
                         const std::vector<CriterionCurve>& curves, const std::string& sentence);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_CLUSTER_FIGURE_H_
