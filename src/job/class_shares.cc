#include "job/class_shares.h"

#include "core/pixel/label.h"
#include "core/stats/code_counts.h"

namespace chalcedony {

void count_labels(const std::byte* stored, SampleType sample, const Block& block,
                  std::vector<std::uint64_t>& counts) {
  if (sample == SampleType::kU8) {
    CodeCounts codes(1);
    codes.add(stored, block.size);
    const CodeCounts::Counts pixels = codes.of(0);
    for (std::size_t c = 0; c < counts.size(); ++c) counts[c] += pixels[c];
  } else {
    const auto* const labels = reinterpret_cast<const Label*>(stored);
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

void add_unclassified(std::vector<LegendLine>& legend, std::uint64_t pixels,
                      std::uint64_t counted) {
  if (pixels > 0) legend.push_back({"unclassified", kUnclassifiedColor, percent(pixels, counted)});
}

std::vector<LegendLine> classes_legend(const std::vector<MapClass>& classes,
                                       const std::vector<std::uint64_t>& pixels,
                                       std::uint64_t counted) {
  std::vector<LegendLine> legend;
  for (std::size_t c = 0; c < classes.size(); ++c)
    legend.push_back({classes[c].name, classes[c].color, percent(pixels[c + 1], counted)});
  add_unclassified(legend, pixels[0], counted);
  return legend;
}

}  // namespace chalcedony
