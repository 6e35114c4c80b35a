// A picture under a grid of its pixel coordinates, to read regions off.
#ifndef CHALCEDONY_FIGURE_GRID_FIGURE_H_
#define CHALCEDONY_FIGURE_GRID_FIGURE_H_

#include <filesystem>
#include <string>

#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The largest thumbnail the page can use.
inline constexpr std::uint32_t kGridWidth = 1180, kGridHeight = 680;

/// Strong lines at the labelled coordinates, thin ones at fifths between them.
void add_grid_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const Thumbnail& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_GRID_FIGURE_H_
