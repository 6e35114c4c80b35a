// Figures that hold a mask or a class map against the picture.
#ifndef CHALCEDONY_FIGURE_MAP_FIGURE_H_
#define CHALCEDONY_FIGURE_MAP_FIGURE_H_

#include <array>
#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Picture, mask and cut-out side by side, with the selection and its coverage as text.
void add_mask_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& selection, double covered_percent, const Thumbnail& picture,
                     const Thumbnail& mask, const Thumbnail& cutout);

/// Picture and class map side by side, the classes with their shares below.
void add_class_map_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& legend, const Thumbnail& picture,
                          const Thumbnail& map);

/// A mask or class map before and after cleaning, with the steps as text.
void add_tidy_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& steps, const std::vector<LegendLine>& legend,
                     const Thumbnail& before, const Thumbnail& after);

/// Class map and picture of its errors side by side, what the colors mean below.
void add_error_map_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& legend, const Thumbnail& map,
                          const Thumbnail& errors);

/// Class map and which of it and `others` maps are right side by side, what the colors mean below.
void add_right_maps_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                           std::size_t others, const std::vector<LegendLine>& legend,
                           const Thumbnail& map, const Thumbnail& right);

/// Places in a picture, in its pixels.
using Places = std::vector<std::array<double, 2>>;

/// The assessed pixels on the class map, right ones as rings and wrong ones as crosses.
void add_sampled_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const Places& right, const Places& wrong, const Thumbnail& map);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_MAP_FIGURE_H_
