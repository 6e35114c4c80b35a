// `spots`: the colors at places of pictures, and how they differ from picture to picture.
#ifndef CHALCEDONY_JOB_SPOT_SPOTS_H_
#define CHALCEDONY_JOB_SPOT_SPOTS_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "figure/plot/plot.h"
#include "job/learn/patch_places.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"
#include "job/spot/held_spots.h"

namespace chalcedony {

struct SpotsOptions {
  SharedOptions shared;
  PatchPlaces places;  // files of its samples: of each input, then of `to` where that is no input
  bool apart = false;  // whether each region of a class is a spot of its own
  bool outlines = false;          // whether the spots are written as sample regions
  std::vector<Channel> channels;  // whose figures are wanted beside the color
  // What spots are held against: a picture, or a table of colors; else the first of several inputs.
  std::optional<std::filesystem::path> to, known;
  ChangeLimits limits;
};

const std::vector<ResultKind>& spots_results();

/// Reads every input once, and the picture they are held against where it is none of them.
///
/// Errors    InputError when what they are held against cannot be read, or has no spot that is
///           called steady; an input that fails is listed and the others go on
Json run_spots(const SpotsOptions& options, const Context& context);

/// Of several pictures that were held against one, the `inputs` of a summary, adds to the plot the
/// figure of all their spots.
void report_spots(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_SPOTS_H_
