// Sample regions as GeoJSON.
#ifndef CHALCEDONY_TESTS_SUPPORT_SAMPLE_REGIONS_H_
#define CHALCEDONY_TESTS_SUPPORT_SAMPLE_REGIONS_H_

#include <fmt/format.h>

#include <string>

namespace chalcedony::test {

/// A region of the class `red`, as large as a picture of this size or its upper left part.
inline std::string region_over(int width, int height) {
  return fmt::format(
      R"({{"type":"FeatureCollection","features":[{{"type":"Feature","properties":{{"class":"red"}},)"
      R"("geometry":{{"type":"Polygon","coordinates":[[[0,0],[{0},0],[{0},{1}],[0,{1}],[0,0]]]}}}}]}})",
      width, height);
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_SAMPLE_REGIONS_H_
