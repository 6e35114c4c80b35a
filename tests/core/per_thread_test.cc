#include "core/per_thread.h"

#include <atomic>
#include <catch2/catch.hpp>
#include <cstddef>
#include <thread>
#include <vector>

using namespace chalcedony;

TEST_CASE("every thread has a value of its own, made when it first asks", "[core][threads]") {
  std::atomic<int> made{0};
  PerThread<std::vector<int>> values([&] {
    ++made;
    return std::vector<int>{1};
  });
  CHECK(made == 0);

  const std::size_t kThreads = 4;
  std::vector<std::thread> threads;
  for (std::size_t t = 0; t < kThreads; ++t)
    threads.emplace_back([&values, t] {
      for (std::size_t i = 0; i <= t; ++i) values.local().push_back(static_cast<int>(t));
    });
  for (std::thread& thread : threads) thread.join();
  CHECK(made == 4);

  std::vector<std::size_t> sizes(kThreads);
  values.for_each([&](const std::vector<int>& value) {
    REQUIRE(value.size() >= 2);
    CHECK(value.front() == 1);
    // What the others added is not here.
    for (std::size_t i = 1; i < value.size(); ++i) CHECK(value[i] == value[1]);
    sizes.at(static_cast<std::size_t>(value[1])) = value.size();
  });
  CHECK(sizes == std::vector<std::size_t>{2, 3, 4, 5});

  values.clear();
  values.for_each([](const std::vector<int>&) { FAIL("forgotten"); });
  CHECK(values.local() == std::vector<int>{1});
  CHECK(made == 5);
}

TEST_CASE("a value that cannot be moved is made in its place", "[core][threads]") {
  struct Fixed {
    explicit Fixed(int n) : number(n) {}
    Fixed(const Fixed&) = delete;
    int number;
  };
  PerThread<Fixed> values([] { return Fixed(7); });
  CHECK(values.local().number == 7);
  CHECK(&values.local() == &values.local());
}
