#include "job/map/class_shares.h"

namespace chalcedony {

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

Json classes_json(const std::vector<MapClass>& classes, const std::vector<std::uint64_t>& pixels,
                  std::uint64_t counted, const PixelSize& size) {
  Json json = classes_json(classes, pixels, counted);
  for (std::size_t c = 0; c < classes.size(); ++c) json[c]["area"] = size.area(pixels[c + 1]);
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
