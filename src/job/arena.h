// Work that does not travel the road, on as many threads as the user allows.
#ifndef CHALCEDONY_JOB_ARENA_H_
#define CHALCEDONY_JOB_ARENA_H_

#include <tbb/global_control.h>
#include <tbb/task_arena.h>

#include "core/pixel/road.h"
#include "job/context.h"

namespace chalcedony {

/// Runs work() so that what is parallel in it takes the threads of the options.
template <class Work>
void in_arena(const SharedOptions& options, const Work& work) {
  RoadOptions road;
  road.threads = options.threads;
  const unsigned threads = threads_of(road);
  const tbb::global_control limit(tbb::global_control::max_allowed_parallelism, threads);
  tbb::task_arena arena(static_cast<int>(threads));
  arena.execute(work);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ARENA_H_
