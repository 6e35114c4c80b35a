// Values of single pixels that inspect tells: at points, and of a small part as a grid of numbers.
#ifndef CHALCEDONY_JOB_LOOK_TOLD_PIXELS_H_
#define CHALCEDONY_JOB_LOOK_TOLD_PIXELS_H_

#include <array>
#include <cstdint>
#include <optional>
#include <utility>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/pixel/region.h"
#include "job/picture/inputs.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The most pixels across and down that a grid may have.
inline constexpr std::uint32_t kMostValues = 32;

/// A color in every space that colors are told in, in the units that are asked for.
Json color_report(const Color& color, QuotedUnits units, const CodesOf& codes);

/// Gathers the values while a picture passes by.
class ToldPixels {
 public:
  /// `at`: points, which are told as colors, and with the values of those channels of the plan that
  /// a color told so does not show; `part`: of which the values of all channels are told;
  /// `channels`: those of the plan in their own units.
  ///
  /// Errors    InputError for a point outside the picture, and for a part outside it or too large
  ToldPixels(const CountedPicture& picture,
             const std::vector<std::pair<std::int64_t, std::int64_t>>& at,
             const std::optional<Region>& part, const ChannelPlan& plan,
             const std::vector<Channel>& channels);

  /// Whether the channels of a Block have to be evaluated for it.
  bool wants_channels() const { return !values_.empty() || (!at_.empty() && !beside_.empty()); }
  /// Each pixel is in one Block, so threads do not meet here.
  void take(const Block& block, const ChannelEvaluator& channels);

  /// [{"x", "y", the color in its spaces, "channels": {name: value, ...}}, ...]
  Json points(QuotedUnits units, const CodesOf& codes) const;
  /// {"x", "y", "grids": [{"channel", "rows"}, ...]}
  Json grids() const;

 private:
  void check_points() const;
  void set_up(const Region& part, const CountedPicture& picture);

  PictureInfo info_;
  const ChannelPlan& plan_;
  std::vector<std::pair<std::int64_t, std::int64_t>> at_;
  std::vector<std::array<double, 3>> colors_;  // at those
  std::vector<std::size_t> beside_;            // channels of the plan that colors do not show
  std::vector<std::vector<float>> beside_at_;  // their values at each point
  PixelRect part_;
  std::vector<std::vector<float>> values_;  // of each channel, row by row
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_TOLD_PIXELS_H_
