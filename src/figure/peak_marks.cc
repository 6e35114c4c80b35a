#include "figure/peak_marks.h"

#include "figure/legend.h"

namespace chalcedony {

void list_peaks(Plot& plot, const Box& box, const std::vector<PeakMark>& peaks) {
  std::vector<LegendLine> lines;
  for (const PeakMark& peak : peaks) lines.push_back({peak.name, peak.color, peak.percent});
  draw_legend(plot, lines, box);
}

}  // namespace chalcedony
