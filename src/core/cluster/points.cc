#include "core/cluster/points.h"

#include "core/cluster/seeded_random.h"

namespace chalcedony {

std::vector<std::size_t> even_draw(const Points& points, std::size_t count, std::uint64_t seed) {
  double all = 0;
  for (std::size_t i = 0; i < points.size; ++i) all += points.weights[i];
  const double step = all / static_cast<double>(count);
  double next = SeededRandom(seed).next() * step, passed = 0;
  std::vector<std::size_t> drawn;
  for (std::size_t i = 0; i < points.size; ++i)
    for (passed += points.weights[i]; next < passed && drawn.size() < count; next += step)
      drawn.push_back(i);
  return drawn;
}

}  // namespace chalcedony
