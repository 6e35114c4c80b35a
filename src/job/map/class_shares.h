// What the classes of a map take of a picture, for summaries and legends.
#ifndef CHALCEDONY_JOB_MAP_CLASS_SHARES_H_
#define CHALCEDONY_JOB_MAP_CLASS_SHARES_H_

#include <cstdint>
#include <vector>

#include "core/learn/model.h"
#include "figure/map_figure.h"
#include "job/picture/pixel_size.h"
#include "job/run/summary.h"

namespace chalcedony {

/// For each class `index`, `name`, `color`, `pixels` and `percent` of the counted pixels.
///
/// Shape     `pixels`: unclassified first, then class 1, ...
Json classes_json(const std::vector<MapClass>& classes, const std::vector<std::uint64_t>& pixels,
                  std::uint64_t counted);

/// The same, and the `area` of each.
Json classes_json(const std::vector<MapClass>& classes, const std::vector<std::uint64_t>& pixels,
                  std::uint64_t counted, const PixelSize& size);

/// What pixels of no class are drawn in.
inline constexpr const char* kUnclassifiedColor = "#000000";

/// The same as lines of a legend, and a last one for the unclassified where there are some.
std::vector<LegendLine> classes_legend(const std::vector<MapClass>& classes,
                                       const std::vector<std::uint64_t>& pixels,
                                       std::uint64_t counted);

/// That last line alone.
void add_unclassified(std::vector<LegendLine>& legend, std::uint64_t pixels, std::uint64_t counted);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_CLASS_SHARES_H_
