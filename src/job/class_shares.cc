#include "job/class_shares.h"

#include <cstddef>

#include "core/stats/code_counts.h"

namespace chalcedony {

void count_labels(const std::uint8_t* labels, const Block& block,
                  std::vector<std::uint64_t>& counts) {
  CodeCounts codes(1);
  codes.add(reinterpret_cast<const std::byte*>(labels), block.size);
  const CodeCounts::Counts pixels = codes.of(0);
  for (std::size_t c = 0; c < counts.size(); ++c) counts[c] += pixels[c];
  counts[0] -= block.size - block.counted_size;
}

Json classes_json(const std::vector<MapClass>& classes, const std::vector<std::uint64_t>& pixels,
                  std::uint64_t counted) {
  Json json = Json::array();
  for (std::size_t c = 0; c < classes.size(); ++c)
    json.push_back({{"index", c + 1},
                    {"name", classes[c].name},
                    {"color", classes[c].color},
                    {"pixels", pixels[c + 1]},
                    {"percent", percent(pixels[c + 1], counted)}});
  return json;
}

std::vector<LegendLine> classes_legend(const std::vector<MapClass>& classes,
                                       const std::vector<std::uint64_t>& pixels,
                                       std::uint64_t counted) {
  std::vector<LegendLine> legend;
  for (std::size_t c = 0; c < classes.size(); ++c)
    legend.push_back({classes[c].name, classes[c].color, percent(pixels[c + 1], counted)});
  return legend;
}

}  // namespace chalcedony
