#include "figure/picture_pair.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr double kGap = 20, kBarHeight = 48;  // of the page, in pixels

}  // namespace

void draw_pair(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const PicturePair& pair,
               const std::vector<LegendLine>& legend, PairBar bar) {
  const double above_legend = kGap + (bar == PairBar::kShares ? kBarHeight + kGap : 0);
  const double below = std::min(0.4 * Plot::kHeight, above_legend + legend_height(legend));
  const double wide = 0.47 * Plot::kWidth / pair.left.width * pair.left.height;
  const double page = std::min(Plot::kHeight, Plot::kHeader + wide + below);
  plot.begin(path, title, subtitle, page);
  const double top = 1 - Plot::kHeader / page, bottom = below / page;
  plot.show({0.02, 0.49, bottom, top}, pair.left_title, pair.left);
  const Frame shown = plot.show({0.51, 0.98, bottom, top}, pair.right_title, pair.right);
  if (bar == PairBar::kShares) {
    const double bar_top = shown.bottom - kGap / page;
    draw_share_bar(plot, {0.02, 0.98, bar_top - kBarHeight / page, bar_top}, legend);
  }
  draw_legend(plot, legend, {0.02, 0.98, 0, shown.bottom - above_legend / page});
}

}  // namespace chalcedony
