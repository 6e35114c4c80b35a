#include "core/stats/otsu.h"

namespace chalcedony {

TwoParts part_in_two(std::span<const std::uint64_t> counts) {
  double all = 0, sum = 0, squares = 0;
  for (std::size_t b = 0; b < counts.size(); ++b) {
    const double count = static_cast<double>(counts[b]), value = static_cast<double>(b);
    all += count;
    sum += count * value;
    squares += count * value * value;
  }
  TwoParts best;
  if (all == 0) return best;
  const double mean = sum / all, variance = squares / all - mean * mean;
  double below = 0, below_sum = 0, most = 0;
  std::size_t first = 0, last = 0;
  for (std::size_t b = 0; b + 1 < counts.size(); ++b) {
    below += static_cast<double>(counts[b]);
    below_sum += static_cast<double>(b) * static_cast<double>(counts[b]);
    if (below == 0 || below == all) continue;
    const double share = below / all, step = below_sum / below - (sum - below_sum) / (all - below);
    const double between = share * (1 - share) * step * step;
    if (between > most * (1 + 1e-12)) {
      most = between;
      first = b + 1;
    }
    if (between >= most * (1 - 1e-12)) last = b + 1;
  }
  best.first_above = (first + last) / 2;
  best.parted = variance > 0 ? most / variance : 0;
  return best;
}

}  // namespace chalcedony
