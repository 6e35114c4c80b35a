#include "job/repeat/pictures_at_once.h"

#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <numeric>
#include <stdexcept>
#include <string>
#include <thread>
#include <vector>

using namespace chalcedony;

namespace {

using InputNumbers = std::vector<std::size_t>;

InputNumbers first(std::size_t count) {
  InputNumbers places(count);
  std::iota(places.begin(), places.end(), std::size_t{0});
  return places;
}

SharedOptions on_threads(unsigned threads) {
  SharedOptions options;
  options.threads = threads;
  return options;
}

}  // namespace

TEST_CASE("pictures are begun and ended in order, whatever time each takes", "[job]") {
  for (const unsigned threads : {1u, 2u, 5u}) {
    constexpr std::size_t kCount = 40;
    InputNumbers begun, ended;
    std::vector<std::atomic<int>> worked(kCount);
    for_pictures_at_once(
        on_threads(threads), kCount,
        {.begin = [&](std::size_t i) { begun.push_back(i); },
         .work =
             [&](std::size_t i) {
               std::this_thread::sleep_for(std::chrono::microseconds(i % 3 == 0 ? 900 : 10));
               ++worked[i];
             },
         .end =
             [&](std::size_t i) {
               CHECK(worked[i] == 1);
               ended.push_back(i);
             }});
    CHECK(begun == first(kCount));
    CHECK(ended == first(kCount));
  }
}

TEST_CASE("the first picture that fails is told, and those before it are ended", "[job]") {
  for (const unsigned threads : {1u, 2u, 5u}) {
    // So many that they cannot all be begun while a thread is kept from failing.
    constexpr std::size_t kCount = 2'000'000;
    InputNumbers begun, ended;
    const auto run = [&] {
      for_pictures_at_once(on_threads(threads), kCount,
                           {.begin = [&](std::size_t i) { begun.push_back(i); },
                            .work =
                                [&](std::size_t i) {
                                  if (i == 7)
                                    std::this_thread::sleep_for(std::chrono::milliseconds(5));
                                  if (i == 7 || i == 8 || i == 9)
                                    throw std::runtime_error("picture " + std::to_string(i));
                                },
                            .end = [&](std::size_t i) { ended.push_back(i); }});
    };
    CHECK_THROWS_WITH(run(), "picture 7");
    CHECK(ended == first(7));
    CHECK(begun.size() < kCount);
    if (threads == 1) CHECK(begun == first(8));
  }
}

TEST_CASE("what throws at a beginning or an end stops the rest", "[job]") {
  for (const unsigned threads : {1u, 3u}) {
    InputNumbers ended;
    const auto at = [&](std::size_t bad_begin, std::size_t bad_end) {
      ended.clear();
      for_pictures_at_once(on_threads(threads), 30,
                           {.begin =
                                [&](std::size_t i) {
                                  if (i == bad_begin) throw std::runtime_error("begin");
                                },
                            .work = [](std::size_t) {},
                            .end =
                                [&](std::size_t i) {
                                  if (i == bad_end) throw std::runtime_error("end");
                                  ended.push_back(i);
                                }});
    };
    CHECK_THROWS_WITH(at(4, 99), "begin");
    CHECK(ended == first(4));
    CHECK_THROWS_WITH(at(99, 6), "end");
    CHECK(ended == first(6));
  }
  for_pictures_at_once(on_threads(2), 0, {.work = [](std::size_t) { FAIL("there is none"); }});
}
