#include "job/class_shares.h"

#include <algorithm>
#include <cstddef>

namespace chalcedony {
namespace {

/// How often a label occurs.
std::uint64_t count_of(std::uint8_t label, const std::uint8_t* labels, std::size_t n) {
  constexpr std::size_t kPart = 255;  // so that the sum of a part fits a byte
  std::uint64_t sum = 0;
  for (std::size_t first = 0; first < n; first += kPart) {
    std::uint8_t part = 0;
    const std::size_t end = std::min(n, first + kPart);
    for (std::size_t i = first; i < end; ++i)
      part = static_cast<std::uint8_t>(part + (labels[i] == label));
    sum += part;
  }
  return sum;
}

}  // namespace

void count_labels(const std::uint8_t* labels, const Block& block,
                  std::vector<std::uint64_t>& counts) {
  // Bytes compared side by side are quicker than one counter after the other, for few classes.
  constexpr std::size_t kFew = 32;
  if (counts.size() <= kFew) {
    for (std::size_t c = 0; c < counts.size(); ++c)
      counts[c] += count_of(static_cast<std::uint8_t>(c), labels, block.size);
  } else {
    for (std::size_t i = 0; i < block.size; ++i) ++counts[labels[i]];
  }
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
