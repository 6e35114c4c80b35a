// Figure of how the shares of classes went in several places from one time to another.
#ifndef CHALCEDONY_FIGURE_GAINS_FIGURE_H_
#define CHALCEDONY_FIGURE_GAINS_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/stats/normal_distribution.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Changes are percentage points of the shares.
struct GainsFigure {
  /// Of a class.
  struct Gains {
    std::vector<double> in_places;
    double of_all = 0;
    std::optional<Interval> limits = {};  // of all places like them
  };
  struct Step {
    std::string title;
    std::vector<Gains> of;  // each class
  };

  std::string title;
  std::vector<LegendLine> classes;
  std::vector<Step> steps;
};

/// A panel for each step with a row for each class: a dot for each place, a bar for the limits and
/// a line for all places together. Of very many places the dots are of the first ones, and the
/// figure says of how many.
void add_gains_figure(Plot& plot, const std::filesystem::path& path, const GainsFigure& figure);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_GAINS_FIGURE_H_
