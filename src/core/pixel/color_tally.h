// Colors counted by several threads at once.
#ifndef CHALCEDONY_CORE_PIXEL_COLOR_TALLY_H_
#define CHALCEDONY_CORE_PIXEL_COLOR_TALLY_H_

#include <condition_variable>
#include <cstddef>
#include <deque>
#include <mutex>
#include <vector>

#include "core/pixel/color_table.h"

namespace chalcedony {

/// One counter, which threads have in turn, as long as they seldom wait for it: counting takes less
/// time than most decoders do. Where it takes more, there are as many as four.
class ColorTally {
 public:
  /// Calls use(ColorCounter&) with a counter that no other thread has meanwhile. May be called from
  /// any thread.
  template <class Use>
  void count(const Use& use) {
    Borrowed borrowed(*this);
    use(*borrowed.counter);
  }

  /// What all have counted. Nothing may be counted after it.
  ColorCounter take();

 private:
  struct Borrowed {
    explicit Borrowed(ColorTally& from) : tally(from), counter(from.borrow()) {}
    ~Borrowed() { tally.give_back(counter); }
    Borrowed(const Borrowed&) = delete;
    Borrowed& operator=(const Borrowed&) = delete;

    ColorTally& tally;
    ColorCounter* counter;
  };

  ColorCounter* borrow();
  void give_back(ColorCounter* counter);

  std::mutex mutex_;  // of all below
  std::condition_variable came_back_;
  std::deque<ColorCounter> counters_ = std::deque<ColorCounter>(1);
  std::vector<ColorCounter*> free_{&counters_.front()};
  std::size_t waits_ = 0;  // for the counters there are
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_COLOR_TALLY_H_
