// Figure of how many regions there are when they are parted at their necks.
#ifndef CHALCEDONY_FIGURE_PART_FIGURE_H_
#define CHALCEDONY_FIGURE_PART_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "core/tidy/part_counts.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The regions of a class, as the figure shows them.
struct ShownParts {
  std::string name, color;
  PartCounts counts;
  std::vector<RegionPart> parts;  // those that the chosen number counts
};

/// Beside the picture, with a circle for each part that is counted, the number of regions over the
/// step `part`; the chosen number of each class is marked.
void add_part_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::vector<ShownParts>& classes, const Thumbnail& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PART_FIGURE_H_
