#include "core/pixel/road.h"

#include <tbb/task_group.h>

#include <algorithm>
#include <condition_variable>
#include <deque>
#include <exception>
#include <mutex>

namespace chalcedony {
namespace {

/// Trips between the thread that decodes and those that compute.
class Traffic {
 public:
  using Use = std::function<void(Trip&)>;

  Traffic(BandReader& reader, const std::vector<std::unique_ptr<Trip>>& trips, const Use& compute,
          const Use& take)
      : reader_(reader), compute_(compute), take_(take) {
    for (const std::unique_ptr<Trip>& trip : trips) spare_.push_back(trip.get());
  }

  void run() {
    tbb::task_group others;
    decode(others);
    while (compute_one()) take_ready(kAllReady);
    others.wait();
    take_ready(kAllReady);
    if (error_) std::rethrow_exception(error_);
  }

 private:
  static constexpr std::size_t kAllReady = static_cast<std::size_t>(-1);

  void decode(tbb::task_group& others) {
    try {
      while (!reader_.at_end()) {
        Trip* const trip = spare_trip(others);
        if (!trip) return;
        reader_.read_next(trip->band);
        {
          const std::lock_guard lock(mutex_);
          trip->computed = false;
          decoded_.push_back(trip);
          in_order_.push_back(trip);
        }
        others.run([this] {
          compute_one();
          take_ready(kAllReady);
        });
      }
    } catch (...) {
      fail();
    }
  }

  /// A trip to fill; none when something went wrong. When there is no spare one, others cannot keep
  /// up, and what they have not begun is computed here. Taking is left to them, since they cannot
  /// decode: only when nothing else is left to do is one taken here.
  Trip* spare_trip(tbb::task_group& others) {
    while (true) {
      {
        const std::lock_guard lock(mutex_);
        if (error_) return nullptr;
        if (!spare_.empty()) {
          Trip* const trip = spare_.back();
          spare_.pop_back();
          return trip;
        }
      }
      if (compute_one()) {
        others.run([this] { take_ready(kAllReady); });
        continue;
      }
      if (take_ready(1)) continue;
      std::unique_lock lock(mutex_);
      came_back_.wait(lock, [&] { return error_ || !spare_.empty(); });
    }
  }

  /// Computes a band that waits for it; false when there is none.
  bool compute_one() {
    Trip* trip = nullptr;
    {
      const std::lock_guard lock(mutex_);
      if (decoded_.empty()) return false;
      trip = decoded_.front();
      decoded_.pop_front();
    }
    if (use(compute_, *trip)) {
      const std::lock_guard lock(mutex_);
      trip->computed = true;
    }
    return true;
  }

  /// Takes up to `most` trips that are next in order and computed, unless another thread is at it,
  /// which will see them too. False when none was taken.
  bool take_ready(std::size_t most) {
    std::unique_lock lock(mutex_);
    if (taking_) return false;
    taking_ = true;
    std::size_t taken = 0;
    while (taken < most && !in_order_.empty() && in_order_.front()->computed) {
      Trip* const next = in_order_.front();
      in_order_.pop_front();
      lock.unlock();
      const bool done = use(take_, *next);
      lock.lock();
      if (!done) break;
      ++taken;
      spare_.push_back(next);
      came_back_.notify_one();
    }
    taking_ = false;
    return taken > 0;
  }

  /// False, and all that is under way ends, when it throws or something else has.
  bool use(const Use& work, Trip& trip) {
    try {
      {
        const std::lock_guard lock(mutex_);
        if (error_) return false;
      }
      work(trip);
      return true;
    } catch (...) {
      fail();
      return false;
    }
  }

  void fail() {
    const std::lock_guard lock(mutex_);
    if (!error_) error_ = std::current_exception();
    came_back_.notify_one();
  }

  BandReader& reader_;
  std::mutex mutex_;  // of all below
  std::condition_variable came_back_;
  std::vector<Trip*> spare_;
  std::deque<Trip*> decoded_;   // and not yet computed
  std::deque<Trip*> in_order_;  // decoded and not yet taken
  bool taking_ = false;
  std::exception_ptr error_;
  const Use& compute_;
  const Use& take_;
};

}  // namespace

void send_trips(RowSource& source, const RoadOptions& options,
                const std::function<std::unique_ptr<Trip>()>& make_trip,
                const std::function<void(Trip&)>& compute, const std::function<void(Trip&)>& take) {
  BandReader reader(source, options.halo, options.stop);
  // Made at the start, so that peak memory does not depend on how far the decoder gets ahead.
  std::vector<std::unique_ptr<Trip>> trips;
  while (trips.size() < std::min(bands_under_way(options), reader.bands())) {
    trips.push_back(make_trip());
    trips.back()->band = reader.make_band();
  }
  const std::function<void(Trip&)> take_and_tell = [&](Trip& trip) {
    take(trip);
    if (options.progress) options.progress(std::uint64_t{trip.band.first_row()} + trip.band.rows());
  };
  in_arena(options.threads, [&] { Traffic(reader, trips, compute, take_and_tell).run(); });
}

}  // namespace chalcedony
