#include "figure/plot/peak_marks.h"

#include <algorithm>

#include "figure/plot/legend.h"

namespace chalcedony {
namespace {

constexpr double kGapAboveList = 16;  // of the page, in pixels
constexpr double kMostOfBox = 0.5;    // for the list of a picture that is high

}  // namespace

void show_with_peaks(Plot& plot, const Box& box, const Thumbnail& picture,
                     const std::vector<PeakMark>& peaks) {
  std::vector<LegendLine> lines;
  for (const PeakMark& peak : peaks) lines.push_back({peak.name, peak.color, peak.percent});
  Box room = box;
  if (!lines.empty())
    room.cut_bottom(std::min(legend_height(lines, box.width()), kMostOfBox * box.height()),
                    kGapAboveList);
  // A picture that is not so high has its list below it all the same.
  Box below = box;
  below.top = plot.show(room, "", picture).bottom + kGapAboveList;
  if (!lines.empty()) draw_legend(plot, lines, below);
}

}  // namespace chalcedony
