#include "core/tidy/column_distances.h"

#include <tbb/parallel_for.h>

#include <algorithm>

namespace chalcedony {
namespace {

constexpr std::size_t kStrip = 512;  // columns that a thread takes down the picture

}  // namespace

Distances column_distances(const Flags& on, std::size_t width) {
  Distances out(on.size());
  tbb::parallel_for(std::size_t{0}, (width + kStrip - 1) / kStrip, [&](std::size_t strip) {
    const std::size_t begin = strip * kStrip, end = std::min(width, begin + kStrip);
    for (std::size_t x = begin; x < end; ++x) out[x] = on[x] ? 0 : kFarAway;
    for (std::size_t at = width; at < on.size(); at += width)
      for (std::size_t x = begin; x < end; ++x)
        out[at + x] = on[at + x] ? 0 : next_distance(out[at + x - width]);
    for (std::size_t at = on.size() - width; at >= width; at -= width)
      for (std::size_t x = begin; x < end; ++x) {
        std::uint16_t& above = out[at + x - width];
        above = std::min(above, next_distance(out[at + x]));
      }
  });
  return out;
}

}  // namespace chalcedony
