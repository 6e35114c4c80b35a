// A picture in the colors of a palette.
#ifndef CHALCEDONY_JOB_PALETTE_REPAINT_H_
#define CHALCEDONY_JOB_PALETTE_REPAINT_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <vector>

#include "core/palette/nearest_color.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/distance_sums.h"
#include "job/picture/inputs.h"

namespace chalcedony {

struct RepaintOptions {
  std::vector<Color> palette;
  DifferenceFormula formula = DifferenceFormula::kCiede2000;
  bool dither = false;
  std::filesystem::path file;  // empty: only count
  bool previews = false;
};

struct Repainted {
  Excluded excluded;
  std::vector<std::uint64_t> counts;  // counted pixels of each color
  DistanceSummary error;              // CIEDE2000 between the pixels and their colors
  std::optional<Thumbnail> picture, repainted;
};

/// One pass. Pixels that do not count become transparent.
///
/// Errors    InputError, OutputError; no file is left then
Repainted repaint(CountedPicture& picture, const RepaintOptions& repaint,
                  const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PALETTE_REPAINT_H_
