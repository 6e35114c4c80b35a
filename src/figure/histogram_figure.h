// Figures of channel histograms.
#ifndef CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
#define CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/histogram_curves.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// One panel of filled curves over their bins, with medians marked and the names above.
///
/// Shape     at least one series; all of one unit and the same bins
void draw_histogram_panel(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                          const CountAxis& counts);

/// Filled curves over their bins, one panel for each unit, the picture beside them.
void add_histogram_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<HistogramSeries>& series, const CountAxis& counts,
                          const Thumbnail& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
