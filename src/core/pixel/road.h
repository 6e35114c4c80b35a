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

#include "core/error.h"
#include "core/per_thread.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

/// Some rows of a picture as stored, with rows of their neighborhood above and below.
class Band {
 public:
  Band() = default;
  Band(Band&&) = default;
  Band& operator=(Band&&) = default;

  std::uint32_t first_row() const { return first_row_; }
  std::uint32_t rows() const { return rows_; }
  const RasterShape& shape() const { return shape_; }

  /// Row `y` of the picture. Valid for the band's own rows and for its halo: rows beyond the
  /// picture's edge repeat the edge row.
  const std::byte* row(std::int64_t y) const;

  /// The band's own rows, one after the other.
  const std::byte* own_rows() const { return row(first_row_); }

 private:
  friend class BandReader;
  RasterShape shape_;
  std::uint32_t first_row_ = 0;
  std::uint32_t rows_ = 0;
  std::uint32_t first_held_ = 0;  // the halo above, clipped to the picture, begins here
  std::uint32_t held_ = 0;
  std::vector<std::byte> bytes_;
  const std::byte* held_rows_ = nullptr;  // in bytes_, or in memory of the source
};

/// Rows of a band: some hundred thousand pixels, by the picture alone, so that borders (and with
/// them sums) do not depend on the number of threads.
std::uint32_t rows_per_band(const RasterShape& shape, std::uint32_t halo);

struct RoadOptions {
  unsigned threads = 0;    // 0: as many as the machine has
  std::uint32_t halo = 0;  // rows of neighborhood a band carries on either side
  std::function<void(std::uint64_t rows_done)> progress;  // called in order, may be empty
  const std::atomic<bool>* stop = nullptr;                // set from outside to stop early
};

/// Threads a road uses: those asked for, or all the machine has.
unsigned threads_of(const RoadOptions& options);

/// Bands that can be under way at once; twice the threads keep all of them busy.
inline std::size_t bands_under_way(const RoadOptions& options) {
  return 2 * std::size_t{threads_of(options)};
}

/// Cuts a source into bands.
class BandReader {
 public:
  BandReader(RowSource& source, const RoadOptions& options);

  /// How many bands there are in all.
  std::size_t bands() const { return (shape_.height + band_rows_ - 1) / band_rows_; }
  bool at_end() const { return next_row_ >= shape_.height; }

  /// A band with room for the largest one, to be filled again and again.
  Band make_band() const;

  /// Fills a band with the next rows. Not to be called at the end.
  ///
  /// Errors    what the source throws; Interrupted
  void read_next(Band& band);

 private:
  void read_held_rows(Band& band);
  void keep_halo(const Band& band);

  RowSource& source_;
  RasterShape shape_;
  std::uint32_t halo_;
  std::uint32_t band_rows_;
  const std::atomic<bool>* stop_;
  std::uint32_t next_row_ = 0;   // first row of the next band
  std::uint32_t next_read_ = 0;  // first row not yet decoded
  std::vector<std::byte> kept_;  // the rows before next_read_ that the next band needs
  std::uint32_t kept_first_ = 0;
};

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
