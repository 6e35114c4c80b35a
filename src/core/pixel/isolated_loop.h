// Loops on all threads inside a row source.
#ifndef CHALCEDONY_CORE_PIXEL_ISOLATED_LOOP_H_
#define CHALCEDONY_CORE_PIXEL_ISOLATED_LOOP_H_

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

namespace chalcedony {

/// Calls `body(i)` for i = 0 to count - 1, on as many threads as are free. Isolated, so that a
/// thread that waits for the others does not start on a band of the road instead.
template <class Index, class Body>
void isolated_loop(Index count, const Body& body) {
  tbb::this_task_arena::isolate([&] { tbb::parallel_for(Index{0}, count, body); });
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ISOLATED_LOOP_H_
