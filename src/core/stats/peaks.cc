#include "core/stats/peaks.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chalcedony {
namespace {

constexpr double kLeastRise = 1.5;  // of a peak over the pass to a higher one
constexpr double kFoot = 0.01;      // of a peak's height: lower bins belong to none
constexpr double kTrim = 0.005;     // of a peak's pixels, on either side of its range
constexpr std::size_t kNone = static_cast<std::size_t>(-1);

/// The bin `step` further on an axis, or kNone past its end.
std::size_t moved(const PeakAxis& axis, std::size_t bin, int step) {
  const auto n = static_cast<std::ptrdiff_t>(axis.bins);
  const std::ptrdiff_t to = static_cast<std::ptrdiff_t>(bin) + step;
  if (axis.circular) return static_cast<std::size_t>((to % n + n) % n);
  return to < 0 || to >= n ? kNone : static_cast<std::size_t>(to);
}

/// Smooths along one axis; what lies beyond an end is left out of the mean.
void smooth(std::vector<double>& values, const PeakAxis& axis, std::size_t stride,
            std::size_t lines, std::size_t line_stride) {
  const double deviation = peak_smoothing(axis);
  const int reach =
      std::min(static_cast<int>(std::ceil(3 * deviation)), static_cast<int>(axis.bins - 1) / 2);
  std::vector<double> kernel;
  for (int k = -reach; k <= reach; ++k)
    kernel.push_back(std::exp(-0.5 * k * k / (deviation * deviation)));
  std::vector<double> line(axis.bins);
  for (std::size_t l = 0; l < lines; ++l) {
    double* const start = values.data() + l * line_stride;
    for (std::size_t b = 0; b < axis.bins; ++b) line[b] = start[b * stride];
    for (std::size_t b = 0; b < axis.bins; ++b) {
      double sum = 0, weight = 0;
      for (int k = -reach; k <= reach; ++k) {
        const std::size_t from = moved(axis, b, k);
        if (from == kNone) continue;
        sum += kernel[static_cast<std::size_t>(k + reach)] * line[from];
        weight += kernel[static_cast<std::size_t>(k + reach)];
      }
      start[b * stride] = sum / weight;
    }
  }
}

/// Bins on their way to peaks: each knows the next one on it, a peak knows itself.
class Flood {
 public:
  Flood(const std::vector<double>& heights, const PeakAxis& first, const PeakAxis& second)
      : heights_(heights), first_(first), second_(second), towards_(heights.size(), kNone) {
    std::vector<std::size_t> order(heights.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return heights[a] > heights[b]; });
    for (const std::size_t bin : order)
      if (heights[bin] > 0) reach(bin);
  }

  /// The highest bin of the peak a bin belongs to; kNone for one that is empty or lies too low.
  std::size_t owner_of(std::size_t bin) const {
    const std::size_t peak = peak_of(bin);
    return peak != kNone && heights_[bin] >= kFoot * heights_[peak] ? peak : kNone;
  }

 private:
  /// The highest bin of the peak whose slope a bin lies on; kNone before the flood is there.
  std::size_t peak_of(std::size_t bin) const {
    if (towards_[bin] == kNone) return kNone;
    while (towards_[bin] != bin) bin = towards_[bin];
    return bin;
  }

  void reach(std::size_t bin) {
    std::size_t highest = kNone;
    std::array<std::size_t, 8> peaks;
    std::size_t met = 0;
    for_each_neighbor(bin, [&](std::size_t neighbor) {
      const std::size_t peak = peak_of(neighbor);
      if (peak == kNone) return;
      peaks[met++] = peak;
      if (highest == kNone || heights_[peak] > heights_[highest]) highest = peak;
    });
    if (highest == kNone) {
      towards_[bin] = bin;
      return;
    }
    // The pass between two peaks is here: the lower ones that rise too little end.
    for (std::size_t i = 0; i < met; ++i)
      if (peaks[i] != highest && heights_[peaks[i]] < kLeastRise * heights_[bin])
        towards_[peaks[i]] = highest;
    towards_[bin] = peak_of(highest_neighbor(bin));
  }

  std::size_t highest_neighbor(std::size_t bin) const {
    std::size_t best = kNone;
    for_each_neighbor(bin, [&](std::size_t neighbor) {
      if (towards_[neighbor] != kNone && (best == kNone || heights_[neighbor] > heights_[best]))
        best = neighbor;
    });
    return best;
  }

  template <class Use>
  void for_each_neighbor(std::size_t bin, Use&& use) const {
    const std::size_t a = bin / second_.bins, b = bin % second_.bins;
    for (int da = -1; da <= 1; ++da)
      for (int db = -1; db <= 1; ++db) {
        if (da == 0 && db == 0) continue;
        const std::size_t na = moved(first_, a, da), nb = moved(second_, b, db);
        if (na == kNone || nb == kNone || na * second_.bins + nb == bin) continue;
        use(na * second_.bins + nb);
      }
  }

  const std::vector<double>& heights_;
  const PeakAxis &first_, &second_;
  std::vector<std::size_t> towards_;
};

/// The first bin after the longest run of empty ones on a circle; 0 elsewhere.
std::size_t start_of(const std::vector<std::uint64_t>& pixels, bool circular) {
  if (!circular) return 0;
  const std::size_t n = pixels.size();
  std::size_t best_start = 0, best_gap = 0, gap = 0;
  for (std::size_t i = 0; i < 2 * n; ++i) {
    if (pixels[i % n] == 0) {
      ++gap;
      continue;
    }
    if (gap > best_gap) best_gap = gap, best_start = i % n;
    gap = 0;
  }
  return best_start;
}

/// Where the pixels of a peak lie on an axis, but for half a percent on either side.
BinRange range_of(const std::vector<std::uint64_t>& pixels, bool circular) {
  const std::size_t n = pixels.size(), start = start_of(pixels, circular);
  const std::uint64_t all = std::accumulate(pixels.begin(), pixels.end(), std::uint64_t{0});
  const auto spare = static_cast<std::uint64_t>(kTrim * static_cast<double>(all));
  std::size_t first = 0, last = n - 1;
  for (std::uint64_t left = pixels[start]; left <= spare && first < last;
       left += pixels[(start + first) % n])
    ++first;
  for (std::uint64_t left = pixels[(start + last) % n]; left <= spare && last > first;
       left += pixels[(start + last) % n])
    --last;
  return {(start + first) % n, last - first + 1};
}

}  // namespace

double peak_smoothing(const PeakAxis& axis) {
  return std::max(0.8, static_cast<double>(axis.bins) / 100);
}

std::vector<Peak> find_peaks(std::span<const std::uint64_t> counts, const PeakAxis& first,
                             const PeakAxis& second, std::size_t most) {
  std::vector<double> heights(counts.begin(), counts.end());
  smooth(heights, first, second.bins, second.bins, 1);
  smooth(heights, second, 1, first.bins, second.bins);
  const Flood flood(heights, first, second);

  struct Gathered {
    std::uint64_t pixels = 0;
    std::vector<std::uint64_t> on_first, on_second;
  };
  std::vector<Gathered> gathered(counts.size());
  std::vector<std::size_t> tops;
  for (std::size_t bin = 0; bin < counts.size(); ++bin) {
    const std::size_t peak = flood.owner_of(bin);
    if (peak == kNone) continue;
    Gathered& g = gathered[peak];
    if (g.on_first.empty()) {
      g.on_first.resize(first.bins);
      g.on_second.resize(second.bins);
      tops.push_back(peak);
    }
    g.pixels += counts[bin];
    g.on_first[bin / second.bins] += counts[bin];
    g.on_second[bin % second.bins] += counts[bin];
  }
  std::stable_sort(tops.begin(), tops.end(), [&](std::size_t a, std::size_t b) {
    return gathered[a].pixels > gathered[b].pixels;
  });
  std::vector<Peak> peaks;
  for (const std::size_t top : tops) {
    const Gathered& g = gathered[top];
    if (peaks.size() == most || g.pixels == 0) break;
    peaks.push_back(
        {{range_of(g.on_first, first.circular), range_of(g.on_second, second.circular)}, g.pixels});
  }
  return peaks;
}

}  // namespace chalcedony
