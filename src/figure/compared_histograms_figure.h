// The channel histograms of several pictures beside each other.
#ifndef CHALCEDONY_FIGURE_COMPARED_HISTOGRAMS_FIGURE_H_
#define CHALCEDONY_FIGURE_COMPARED_HISTOGRAMS_FIGURE_H_

#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "figure/histogram_curves.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The histograms of a picture among others.
struct NamedHistograms {
  std::string name;
  std::vector<HistogramSeries> series;
};

/// A small panel for each picture, all on one axis, so that they can be compared: of the channels
/// that share the unit and the bins of the first one. `all`: how many there are, these first ones
/// among them.
///
/// Shape     at least one picture; all with the same channels
void add_compared_histograms_figure(Plot& plot, const std::filesystem::path& path,
                                    const std::vector<NamedHistograms>& pictures, std::size_t all,
                                    const CountAxis& counts);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_COMPARED_HISTOGRAMS_FIGURE_H_
