#include "figure/plot/picture_pair.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr double kBarHeight = 48, kMostBelow = 320;  // of the page, in pixels

}  // namespace

void draw_pair(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const PicturePair& pair,
               const std::vector<LegendLine>& legend, PairBar bar) {
  const double above_legend = Plot::kGap + (bar == PairBar::kShares ? kBarHeight + Plot::kGap : 0);
  const double below = std::min(kMostBelow, above_legend + legend_height(legend, Plot::kBodyWidth));
  const double wide = (Plot::kBodyWidth - Plot::kGap) / 2;
  const double high = Plot::kPanelTitle + wide / pair.left.width * pair.left.height;
  Box body =
      plot.begin(path, title, subtitle, std::min(Plot::kHeight, Plot::page_height(high + below)));
  const auto sides = columns_of(body.cut_top(body.height() - below), 2, Plot::kGap);
  plot.show(sides[0], pair.left_title, pair.left);
  // A narrow picture is not as high as its box: what is below follows it.
  body.top = plot.show(sides[1], pair.right_title, pair.right).bottom + Plot::kGap;
  if (bar == PairBar::kShares) draw_share_bar(plot, body.cut_top(kBarHeight, Plot::kGap), legend);
  draw_legend(plot, legend, body);
}

}  // namespace chalcedony
