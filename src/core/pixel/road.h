// The road every picture travels: rows are decoded in order, worked on in parallel, and their
// results taken in order. Memory is bounded by the bands under way, not by the picture.
#ifndef CHALCEDONY_CORE_PIXEL_ROAD_H_
#define CHALCEDONY_CORE_PIXEL_ROAD_H_

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <type_traits>
#include <utility>
#include <vector>

#include "core/arena.h"
#include "core/per_thread.h"
#include "core/pixel/band.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

struct RoadOptions {
  unsigned threads = 0;    // 0: as many as the machine has
  std::uint32_t halo = 0;  // rows of neighborhood a band carries on either side
  /// Bands that can be under way for each thread. Two keep all threads busy.
  std::size_t bands_each = 2;
  std::function<void(std::uint64_t rows_done)> progress;  // called in order, may be empty
  const std::atomic<bool>* stop = nullptr;                // set from outside to stop early
};

/// Bands that can be under way at once.
inline std::size_t bands_under_way(const RoadOptions& options) {
  return options.bands_each * std::size_t{threads_for(options.threads)};
}

/// A band on its way; travel() adds its result.
struct Trip {
  virtual ~Trip() = default;
  Band band;
  bool computed = false;
};

/// travel() for results of any kind: `make_trip` makes one that can hold a result, `compute` leaves
/// the result of a trip's band in it, `take` takes it out, one trip at a time from top to bottom.
///
/// The calling thread decodes and no other does, because a decoder that moves from one core to
/// another finds nothing of its state in the cache there. It computes only when bands pile up.
///
/// Errors    as travel()
void send_trips(RowSource& source, const RoadOptions& options,
                const std::function<std::unique_ptr<Trip>()>& make_trip,
                const std::function<void(Trip&)>& compute, const std::function<void(Trip&)>& take);

/// Sends every band of `source` through `work` and its results, in order, to `sink`.
///
/// `make_worker()` is called once for each thread; the worker is called as `worker(const Band&)`
/// and keeps its scratch memory between bands. `sink(Result&&)`, or `sink(Result&&, const Band&)`
/// where the stored rows are still of use, runs on one band at a time, from top to bottom. The
/// source starts at its top row; call rewind() for a second pass.
///
/// Errors    whatever source, worker or sink throw; Interrupted. No band is under way afterwards.
template <class MakeWorker, class Sink>
void travel(RowSource& source, const RoadOptions& options, const MakeWorker& make_worker,
            Sink&& sink) {
  using Worker = decltype(make_worker());
  using Result = decltype(std::declval<Worker&>()(std::declval<const Band&>()));
  struct ResultTrip : Trip {
    std::optional<Result> result;
  };
  PerThread<Worker> workers(make_worker);
  const auto compute = [&](Trip& trip) {
    static_cast<ResultTrip&>(trip).result.emplace(workers.local()(std::as_const(trip.band)));
  };
  const auto take = [&](Trip& trip) {
    std::optional<Result>& result = static_cast<ResultTrip&>(trip).result;
    if constexpr (std::is_invocable_v<Sink&, Result&&, const Band&>) {
      sink(std::move(*result), std::as_const(trip.band));
    } else {
      sink(std::move(*result));
    }
    result.reset();
  };
  send_trips(
      source, options, [] { return std::make_unique<ResultTrip>(); }, compute, take);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ROAD_H_
