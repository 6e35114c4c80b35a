// The names and colors of the classes of a class map, as they stand inside the map's file.
#ifndef CHALCEDONY_IO_METADATA_CLASS_LEGEND_H_
#define CHALCEDONY_IO_METADATA_CLASS_LEGEND_H_

#include <string>
#include <string_view>
#include <vector>

#include "core/learn/map_class.h"
#include "core/pixel/label.h"

namespace chalcedony {

struct LegendEntry {
  unsigned index = 0;  // the number in the map; 0 is unclassified and is not listed
  std::string name;
  std::string color;  // CSS hexadecimal

  friend bool operator==(const LegendEntry&, const LegendEntry&) = default;
};

/// Classes as they stand in a map's file; the first is number 1.
std::vector<LegendEntry> legend_of(const std::vector<MapClass>& classes);

/// The keyword of the PNG text chunk.
inline constexpr std::string_view kLegendKeyword = "chalcedony-classes";

/// JSON: [{"index":1,"name":"ruby","color":"#9b1b30"}]
std::string legend_text(const std::vector<LegendEntry>& legend);

/// A class whose color is missing or none gets one of its own.
///
/// Errors    InputError when the text is not such a list, or a number in it is no label
std::vector<LegendEntry> parse_legend(std::string_view text);

/// The numbers of the classes that are called so: one, or several that share a name.
///
/// Errors    InputError, without a place, when there is none
std::vector<Label> labels_named(const std::vector<LegendEntry>& legend, const std::string& name);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_CLASS_LEGEND_H_
