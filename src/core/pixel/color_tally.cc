#include "core/pixel/color_tally.h"

#include <utility>

namespace chalcedony {
namespace {

constexpr std::size_t kMostCounters = 4;

// Another counter costs its pages and their addition in the end: what some twenty waits take.
constexpr std::size_t kMostWaits = 16;

}  // namespace

ColorCounter* ColorTally::borrow() {
  std::unique_lock lock(mutex_);
  if (free_.empty() && ++waits_ > kMostWaits && counters_.size() < kMostCounters) {
    waits_ = 0;
    return &counters_.emplace_back();
  }
  came_back_.wait(lock, [&] { return !free_.empty(); });
  ColorCounter* const counter = free_.back();
  free_.pop_back();
  return counter;
}

void ColorTally::give_back(ColorCounter* counter) {
  const std::lock_guard lock(mutex_);
  free_.push_back(counter);
  came_back_.notify_one();
}

ColorCounter ColorTally::take() {
  ColorCounter all = std::move(counters_.front());
  for (std::size_t i = 1; i < counters_.size(); ++i) all.add(std::move(counters_[i]));
  return all;
}

}  // namespace chalcedony
