#include "figure/peak_marks.h"

#include "figure/legend.h"

namespace chalcedony {

void list_peaks(Plot& plot, const Frame& picture, const std::vector<PeakMark>& peaks) {
  std::vector<LegendLine> lines;
  for (const PeakMark& peak : peaks) lines.push_back({peak.name, peak.color, peak.percent});
  draw_legend(plot, lines, {0.03, 0.335, 0, picture.bottom - 16 / plot.height()});
}

}  // namespace chalcedony
