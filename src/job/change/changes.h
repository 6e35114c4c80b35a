// `changes`: what became of the classes of maps of one place.
#ifndef CHALCEDONY_JOB_CHANGE_CHANGES_H_
#define CHALCEDONY_JOB_CHANGE_CHANGES_H_

#include <vector>

#include "job/picture/pixel_size.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ChangesOptions {
  SharedOptions shared;  // the inputs in the order of time
  PixelSize pixel_size;
};

const std::vector<ResultKind>& changes_results();

Json run_changes(const ChangesOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_CHANGES_H_
