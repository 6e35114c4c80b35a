// `join`: planes put together into one picture.
#ifndef CHALCEDONY_JOB_PREPARE_JOIN_H_
#define CHALCEDONY_JOB_PREPARE_JOIN_H_

#include <array>
#include <filesystem>
#include <optional>

#include "core/channel/channel.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Where a plane of the joined picture comes from: a number, a gray file, or a channel of a file.
struct PlaneSource {
  std::optional<double> constant;  // in the units of the plane; of alpha: percent
  std::filesystem::path file;
  std::optional<Channel> channel;  // of the file; not given: it is gray
};

struct JoinOptions {
  SharedOptions shared;
  std::filesystem::path base;  // its planes are taken where none is given; empty: all are given
  const Space* space = &spaces::kSrgb;
  std::array<std::optional<PlaneSource>, 3> planes;
  std::optional<PlaneSource> alpha;
  bool keep_alpha = true;           // of the base
  std::optional<SampleType> depth;  // not given: the deepest of the files
};

/// A gray file's range from black to white becomes the usual range of the plane; a channel that has
/// other units than the plane is stretched from its usual range to the plane's.
///
/// Errors    InputError for files of different sizes, or a file that is not gray and no channel of
///           it was named; UsageError when the file that is named cannot hold the result
Json run_join(const JoinOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_JOIN_H_
