// `convert`: a picture in another color space or depth.
#ifndef CHALCEDONY_JOB_PREPARE_CONVERT_H_
#define CHALCEDONY_JOB_PREPARE_CONVERT_H_

#include <array>
#include <cstddef>
#include <optional>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ConvertOptions {
  SharedOptions shared;
  const Space* to = nullptr;        // null: the picture's own
  std::optional<SampleType> depth;  // not given: as the picture, but never 8 bits for a space
                                    // that is not RGB
  bool keep_alpha = true;
  bool map_gamut = false;  // reduce chroma until RGB can show it; else clip
  bool dither = false;     // when rounding to 8 bits
  std::optional<std::array<std::size_t, 3>> order;  // where r, g, b are in the file
};

/// Errors    UsageError for an output format that cannot hold the result
Json run_convert(const ConvertOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_CONVERT_H_
