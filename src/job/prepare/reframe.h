// `reframe`: a picture cropped, turned and scaled.
#ifndef CHALCEDONY_JOB_PREPARE_REFRAME_H_
#define CHALCEDONY_JOB_PREPARE_REFRAME_H_

#include <cstdint>
#include <optional>

#include "core/color/css_color.h"
#include "core/reframe/four_corners.h"
#include "core/reframe/resampling.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The size asked for; what is not given follows from the rest.
struct WantedSize {
  std::optional<double> factor;
  std::optional<std::uint32_t> width, height;
};

struct ReframeOptions {
  SharedOptions shared;
  std::optional<FourCorners>
      corners;                 // what lies between them is made upright; then no crop, no turn
  std::optional<Region> crop;  // comes first
  double turn = 0;             // then this, in degrees clockwise as seen
  std::optional<Color> fill;   // beside a picture; not given: transparent
  WantedSize size;             // comes last
  Interpolation enlarging = Interpolation::kBicubic;
  bool linear_light = false;
};

/// Masks and class maps are recognised and keep their numbers: the nearest pixel is taken.
///
/// Errors    UsageError when the file that is named cannot hold the result
Json run_reframe(const ReframeOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_REFRAME_H_
