// Learns the curves that balance a picture from its counted pixels.
#ifndef CHALCEDONY_JOB_PREPARE_LEARNED_CURVES_H_
#define CHALCEDONY_JOB_PREPARE_LEARNED_CURVES_H_

#include <filesystem>
#include <optional>
#include <vector>

#include "core/balance/balancer.h"
#include "core/channel/channel.h"
#include "core/stats/cube.h"
#include "io/document/curve_file.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// A black or white point: a value of the channel, or the percentile of that many percent.
struct LevelPoint {
  double value = 0;
  bool percentile = false;
};

/// The values of the counted pixels of a picture, channel by channel.
struct ChannelValues {
  std::filesystem::path file;
  std::vector<Channel> channels;
  std::vector<double> medians;
  std::vector<std::vector<double>> counts;  // in matching_bins() of each
  CubeHistogram colors;                     // in empty_color_cube()
};

/// What the curves are to do.
struct CurveWish {
  CurveKind kind = CurveKind::kPower;   // kTable: equalize, or take the values of `like`
  std::optional<double> target;         // not given: the mean of the channel medians
  const ChannelValues* like = nullptr;  // whose medians or values are wanted instead
  std::optional<Region> neutral;        // medians of this patch, which should be gray
  std::optional<LevelPoint> black, white;
};

struct LearnedCurves {
  CurveSet set;
  std::vector<double> medians;  // of the channels, the light evened out
  std::optional<CubeHistogram>
      colors;  // as in ChannelValues, where the picture is to be like another
};

/// The values of a picture that others are to be like. One pass, or two, as below.
///
/// Errors    InputError: nothing counts
ChannelValues channel_values(CountedPicture& picture, const Balance& balance,
                             const std::vector<Channel>& channels, const SharedOptions& options,
                             const Context& context);

/// Passes over the picture once, or twice when the percentiles need it, and rewinds it. `channels`:
/// what the curves are of, as in Balance; of `balance` the light is used.
///
/// Errors    InputError: nothing counts, a median at an end of the range, points that do not rise,
///           a picture to be like with other channels
LearnedCurves learn_curves(CountedPicture& picture, const CurveWish& wish, const Balance& balance,
                           const std::vector<Channel>& channels, const SharedOptions& options,
                           const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_LEARNED_CURVES_H_
