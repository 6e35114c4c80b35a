// Figures of two pictures side by side, with a legend below.
#ifndef CHALCEDONY_FIGURE_PLOT_PICTURE_PAIR_H_
#define CHALCEDONY_FIGURE_PLOT_PICTURE_PAIR_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Two pictures of one size, with their titles.
struct PicturePair {
  const char* left_title;
  const Thumbnail& left;
  const char* right_title;
  const Thumbnail& right;
};

/// What stands between the pictures and the legend.
enum class PairBar { kNone, kShares };  // kShares: the legend's colors as wide as their shares

/// A page as high as two pictures side by side and the legend below them need.
void draw_pair(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const PicturePair& pair,
               const std::vector<LegendLine>& legend, PairBar bar = PairBar::kNone);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_PICTURE_PAIR_H_
