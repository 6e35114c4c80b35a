// A figure of patches beside the colors they are known to have.
#ifndef CHALCEDONY_FIGURE_PATCH_FIGURE_H_
#define CHALCEDONY_FIGURE_PATCH_FIGURE_H_

#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "core/color/css_color.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// A patch as it was found, as it is known to be, and as it is corrected.
struct ShownPatch {
  std::string name;
  Color found, known, corrected;
  double before = 0, after = 0;  // how far found and corrected are from known
};

/// Most patches that a page shows.
inline constexpr std::size_t kMostShownPatches = 80;

/// Each patch in a cell of three strips with its differences below; of more than kMostShownPatches
/// those that stay farthest off.
void add_patch_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const std::string& subtitle, const std::vector<ShownPatch>& patches);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PATCH_FIGURE_H_
