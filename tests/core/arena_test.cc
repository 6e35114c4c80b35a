#include "core/arena.h"

#include <tbb/task_arena.h>

#include <catch2/catch.hpp>
#include <stdexcept>

using namespace chalcedony;

TEST_CASE("work takes the threads that are asked for, or all", "[core][threads]") {
  CHECK(threads_for(3) == 3);
  CHECK(threads_for(0) >= 1);
  for (const unsigned asked : {1u, 3u, 0u}) {
    int taken = 0;
    in_arena(asked, [&] { taken = tbb::this_task_arena::max_concurrency(); });
    CHECK(taken == static_cast<int>(threads_for(asked)));
  }
  CHECK_THROWS_AS(in_arena(2, [] { throw std::runtime_error("left as it came"); }),
                  std::runtime_error);
}
