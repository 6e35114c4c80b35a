// Spots through several pictures, as figures show them.
#ifndef CHALCEDONY_FIGURE_SPOT_SERIES_H_
#define CHALCEDONY_FIGURE_SPOT_SERIES_H_

#include <optional>
#include <string>
#include <vector>

namespace chalcedony {

/// A spot in a picture of several.
struct SeenSpot {
  std::string color;              // empty where it is not in the picture
  std::optional<double> delta_e;  // to the picture it is held against
};

struct SpotSeries {
  std::vector<std::string> pictures;
  std::string to;                             // the picture that they are held against
  std::vector<std::string> spots;             // names
  std::vector<std::vector<SeenSpot>> seen;    // of each spot, in each picture
  std::vector<std::optional<double>> steady;  // of each picture: how far steady spots went
};

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SPOT_SERIES_H_
