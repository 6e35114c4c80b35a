#include "core/arena.h"

#include <tbb/global_control.h>
#include <tbb/info.h>
#include <tbb/task_arena.h>

namespace chalcedony {

unsigned threads_for(unsigned asked) {
  return asked ? asked : static_cast<unsigned>(tbb::info::default_concurrency());
}

void in_arena(unsigned asked, const std::function<void()>& work) {
  const unsigned threads = threads_for(asked);
  // Without this, asking for more threads than the machine has is answered with a warning.
  const tbb::global_control limit(tbb::global_control::max_allowed_parallelism, threads);
  tbb::task_arena arena(static_cast<int>(threads));
  arena.execute(work);
}

}  // namespace chalcedony
