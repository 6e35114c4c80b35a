// Figures of the colors at spots: of one picture, and from picture to picture.
#ifndef CHALCEDONY_FIGURE_SPOTS_FIGURE_H_
#define CHALCEDONY_FIGURE_SPOTS_FIGURE_H_

#include <array>
#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"
#include "figure/spot_series.h"

namespace chalcedony {

struct ShownSpot {
  std::string name, color;
  std::array<double, 3> lab{};
  double spread = 0;
  std::string other;              // the color it is held against; empty where it is held to none
  std::optional<double> delta_e;  // to that
};

/// The spots outlined on the picture, and their colors in a table beside it; as many as there is
/// room for.
///
/// Shape     a class of `places` for each spot
void add_spots_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const std::string& subtitle, const SampleSet& places,
                      const std::vector<ShownSpot>& spots, const Thumbnail& picture);

/// What a page shows of a series: so many pictures as columns, more as lines.
inline constexpr std::size_t kMostSeriesPictures = 12, kMostSeriesSpots = 18;

/// A row for each spot, with its color in each picture and how far it is from what it is held
/// against; of many pictures a line for each spot. Of more spots than fit those that went farthest.
void add_spot_series_figure(Plot& plot, const std::filesystem::path& path,
                            const SpotSeries& series);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SPOTS_FIGURE_H_
