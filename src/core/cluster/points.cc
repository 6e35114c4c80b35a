#include "core/cluster/points.h"

#include <algorithm>
#include <numeric>
#include <set>
#include <utility>

#include "core/cluster/seeded_random.h"

namespace chalcedony {

std::vector<std::size_t> even_draw(const Points& points, std::size_t count, std::uint64_t seed) {
  // The weights before each chunk, so that all chunks can be drawn from at once.
  std::vector<double> before(chunks_of(points.size) + 1);
  for_each_chunk(points.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
    before[chunk + 1] = std::accumulate(points.weights + begin, points.weights + end, 0.0);
  });
  std::partial_sum(before.begin(), before.end(), before.begin());
  const double step = before.back() / static_cast<double>(count);
  const double start = SeededRandom(seed).next() * step;
  const auto place = [&](std::size_t d) { return start + static_cast<double>(d) * step; };
  const auto first_from = [&](double weight) {
    auto d = static_cast<std::size_t>(std::max(0.0, (weight - start) / step));
    while (d > 0 && place(d - 1) >= weight) --d;
    while (d < count && place(d) < weight) ++d;
    return d;
  };
  std::vector<std::size_t> drawn(count, points.size - 1);
  for_each_chunk(points.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
    const std::size_t last = first_from(before[chunk + 1]);
    double passed = before[chunk];
    std::size_t i = begin;
    for (std::size_t d = first_from(before[chunk]); d < last; ++d) {
      while (i + 1 < end && passed + points.weights[i] <= place(d)) passed += points.weights[i++];
      drawn[d] = i;
    }
  });
  return drawn;
}

std::size_t differing_points(const Points& points, std::size_t most) {
  std::set<std::vector<float>> seen;
  for (std::size_t i = 0; i < points.size && seen.size() < most; ++i) {
    std::vector<float> values;
    for (const float* feature : points.features) values.push_back(feature[i]);
    seen.insert(std::move(values));
  }
  return seen.size();
}

}  // namespace chalcedony
