// A scatter of two features with the classes of a model.
#ifndef CHALCEDONY_FIGURE_SCATTER_FIGURE_H_
#define CHALCEDONY_FIGURE_SCATTER_FIGURE_H_

#include <array>
#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "core/learn/model.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Pixels in two features.
using ScatterPoints = std::vector<std::array<float, 2>>;

/// Which two features of a model a scatter shows.
struct FeaturePair {
  std::size_t x = 0, y = 1;
};

struct ScatterContent {
  std::vector<ScatterPoints> samples;  // some sample pixels of each class
  ScatterPoints everything;            // pixels of whole pictures, shown as a density
  ScatterPoints marked;                // single pixels, numbered from 1
};

/// Everything in `content`, class means and two-sigma ellipses over two features of the model.
void add_scatter_figure(Plot& plot, const std::filesystem::path& path, const Model& model,
                        const FeaturePair& features, const ScatterContent& content);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SCATTER_FIGURE_H_
