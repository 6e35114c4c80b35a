// `changes`: what became of the classes of maps of one place, or of many.
#ifndef CHALCEDONY_JOB_CHANGE_CHANGES_H_
#define CHALCEDONY_JOB_CHANGE_CHANGES_H_

#include <filesystem>
#include <vector>

#include "job/picture/pixel_size.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ChangesOptions {
  SharedOptions
      shared;  // without `then` the inputs are the maps of one place, in the order of time
  // With it each input is the first map of a place; of each later time a map, or a folder or a
  // pattern that has the one that goes with it.
  std::vector<std::filesystem::path> then;
  PixelSize pixel_size;
};

const std::vector<ResultKind>& changes_results();

/// Errors    InputError when nothing can be told of the only place; OutputError
Json run_changes(const ChangesOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_CHANGES_H_
