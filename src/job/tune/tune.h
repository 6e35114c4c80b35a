// `tune`: pages on which a person sets the limits of a selection.
#ifndef CHALCEDONY_JOB_TUNE_TUNE_H_
#define CHALCEDONY_JOB_TUNE_TUNE_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/select/channel_limits.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The most channels that a page has, and the most pictures.
inline constexpr std::size_t kMostTuned = 24, kMostTunedTogether = 36;

/// What limits take, as a class of a map; one that stands alone may have no name.
struct TunedClass {
  std::string name;
  std::string color;  // CSS hexadecimal; empty: the mean of what it takes
  std::vector<ChannelLimits> limits;
};

struct TuneOptions {
  SharedOptions shared;
  std::vector<Channel> channels;                 // empty: those of hsv, or of the picture
  std::vector<TunedClass> begun;                 // to go on from
  std::optional<std::filesystem::path> classes;  // class maps, masks or sample files
  std::uint32_t view = 1000;                     // pixels along the longest side on the page
  bool together = false;                         // all pictures on one page
};

const std::vector<ResultKind>& tune_results();

/// A page for each picture, or of all `together`, which then are of the channels of the first.
///
/// Errors    InputError when the only picture or its classes, or one of those together, cannot be
///           read, or it has more channels of its own than a page; OutputError
Json run_tune(const TuneOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_TUNE_H_
