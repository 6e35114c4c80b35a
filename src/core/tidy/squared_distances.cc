#include "core/tidy/squared_distances.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

#include "core/tidy/column_distances.h"

namespace chalcedony {
namespace {

using Wide = std::int64_t;

/// The lowest of parabolas (x - i)^2 + down[i]^2 over a row, one for each of its columns.
class LowestParabolas {
 public:
  explicit LowestParabolas(std::size_t width) : middles_(width), begins_(width) {}

  void find(const std::uint16_t* down, std::size_t width, std::uint32_t* squares) {
    const auto end = static_cast<Wide>(width);
    std::size_t last = 0;
    middles_[0] = begins_[0] = 0;
    for (Wide i = 1; i < end; ++i) {
      Wide from = first_below(down, middles_[last], i);
      while (last > 0 && from <= begins_[last]) from = first_below(down, middles_[--last], i);
      if (from <= begins_[last]) {
        middles_[last] = i;
      } else if (from < end) {
        middles_[++last] = i;
        begins_[last] = from;
      }
    }
    for (Wide x = end - 1; x >= 0; --x) {
      squares[x] = static_cast<std::uint32_t>(height(down, middles_[last], x));
      if (x == begins_[last] && last > 0) --last;
    }
  }

 private:
  static Wide square(Wide value) { return value * value; }
  static Wide height(const std::uint16_t* down, Wide middle, Wide x) {
    return square(x - middle) + square(down[middle]);
  }

  /// The first x where the parabola of a later column is lower than that of an earlier one.
  static Wide first_below(const std::uint16_t* down, Wide earlier, Wide later) {
    const Wide over = square(later) - square(earlier) + square(down[later]) - square(down[earlier]);
    const Wide twice = 2 * (later - earlier);
    return over < 0 ? 0 : over / twice + 1;
  }

  std::vector<Wide> middles_, begins_;  // of those that are lowest somewhere, from the left
};

}  // namespace

std::vector<std::uint32_t> squared_distances(const Flags& on, std::size_t width) {
  const Distances down = column_distances(on, width);
  std::vector<std::uint32_t> squares(on.size());
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, on.size() / width),
                    [&](const tbb::blocked_range<std::size_t>& rows) {
                      LowestParabolas parabolas(width);
                      for (std::size_t at = rows.begin() * width; at < rows.end() * width;
                           at += width)
                        parabolas.find(down.data() + at, width, squares.data() + at);
                    });
  return squares;
}

}  // namespace chalcedony
