// Figures of palettes: the colors of a picture, a picture repainted, two palettes compared.
#ifndef CHALCEDONY_FIGURE_PALETTE_FIGURE_H_
#define CHALCEDONY_FIGURE_PALETTE_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/palette/palette.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/transport.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The picture, its colors with what is known of them, and all of them as wide as their shares.
void add_palette_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const Palette& palette, const Thumbnail& picture);

/// Picture and repainted picture side by side, the colors with their shares below. `sentence` says
/// how near the colors come.
void add_repainted_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& colors, const std::string& sentence,
                          const Thumbnail& picture, const Thumbnail& repainted);

/// Two palettes as upright strips, with bands for what has to move from one to the other.
void add_matching_figure(Plot& plot, const std::filesystem::path& path,
                         const std::vector<std::string>& names,
                         const std::vector<Palette>& palettes, const TransportPlan& plan);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PALETTE_FIGURE_H_
