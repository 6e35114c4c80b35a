// A scatter of two features with the classes of a model.
#ifndef CHALCEDONY_FIGURE_SCATTER_FIGURE_H_
#define CHALCEDONY_FIGURE_SCATTER_FIGURE_H_

#include <array>
#include <filesystem>
#include <string>
#include <vector>

#include "core/learn/model.h"
#include "figure/plot.h"

namespace chalcedony {

/// Some sample pixels of a class, in two features.
using ScatterPoints = std::vector<std::array<float, 2>>;

/// Sample pixels, class means and two-sigma ellipses over features `x` and `y` of the model.
void add_scatter_figure(Plot& plot, const std::filesystem::path& path, const Model& model,
                        std::size_t x, std::size_t y, const std::vector<ScatterPoints>& points);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SCATTER_FIGURE_H_
