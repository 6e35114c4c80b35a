#include "core/learn/alike_colors.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <utility>

namespace chalcedony {
namespace {

bool are_alike(const DoubtfulColor& a, const DoubtfulColor& b) {
  return squared_distance(a, b) <= kAlikeInOklab * kAlikeInOklab;
}

/// Colors in the order of their lightness, so that only those of nearly one are held against each
/// other.
class ByLightness {
 public:
  explicit ByLightness(const std::vector<DoubtfulColor>& colors)
      : colors_(colors), order_(colors.size()), rank_(colors.size()) {
    std::iota(order_.begin(), order_.end(), std::size_t{0});
    std::stable_sort(order_.begin(), order_.end(),
                     [&](std::size_t a, std::size_t b) { return lightness(a) < lightness(b); });
    for (std::size_t r = 0; r < order_.size(); ++r) rank_[order_[r]] = r;
  }

  /// Calls `take` with each color alike this one, itself among them.
  template <class Take>
  void for_each_alike(std::size_t color, const Take& take) const {
    const auto near = [&](std::size_t r) {
      return std::abs(lightness(order_[r]) - lightness(color)) <= kAlikeInOklab;
    };
    std::size_t first = rank_[color];
    while (first > 0 && near(first - 1)) --first;
    for (std::size_t r = first; r < order_.size() && near(r); ++r)
      if (are_alike(colors_[color], colors_[order_[r]])) take(order_[r]);
  }

 private:
  double lightness(std::size_t color) const { return colors_[color].oklab[0]; }

  const std::vector<DoubtfulColor>& colors_;
  std::vector<std::size_t> order_, rank_;
};

/// Which colors stand for how much of what is left.
class Coverage {
 public:
  explicit Coverage(const std::vector<DoubtfulColor>& colors)
      : colors_(colors), by_lightness_(colors), pixels_(colors.size()), stood_for_(colors.size()) {
    for (std::size_t c = 0; c < colors.size(); ++c)
      by_lightness_.for_each_alike(c,
                                   [&](std::size_t other) { pixels_[c] += colors[other].pixels; });
  }

  /// The color that stands for most; the number of colors when none is left.
  std::size_t best() const {
    std::size_t best = colors_.size();
    for (std::size_t c = 0; c < colors_.size(); ++c)
      if (colors_[c].may_stand && !stood_for_[c] &&
          (best == colors_.size() || worth(c) > worth(best)))
        best = c;
    return best;
  }

  std::uint64_t pixels(std::size_t color) const { return pixels_[color]; }

  ColorStandIn take(std::size_t color) {
    ColorStandIn taken{color, {}, pixels_[color]};
    std::vector<std::size_t> now;
    by_lightness_.for_each_alike(color, [&](std::size_t other) {
      if (!stood_for_[other]) now.push_back(other);
    });
    std::sort(now.begin(), now.end());
    for (const std::size_t other : now) {
      stood_for_[other] = true;
      if (other != color) taken.others.push_back(other);
      by_lightness_.for_each_alike(
          other, [&](std::size_t alike) { pixels_[alike] -= colors_[other].pixels; });
    }
    return taken;
  }

 private:
  /// Among those that stand for as much, pixels of one's own decide.
  std::pair<std::uint64_t, std::uint64_t> worth(std::size_t color) const {
    return {pixels_[color], colors_[color].pixels};
  }

  const std::vector<DoubtfulColor>& colors_;
  ByLightness by_lightness_;
  std::vector<std::uint64_t> pixels_;  // that each would stand for
  std::vector<bool> stood_for_;
};

}  // namespace

double squared_distance(const DoubtfulColor& a, const DoubtfulColor& b) {
  double squares = 0;
  for (std::size_t c = 0; c < 3; ++c)
    squares += (a.oklab[c] - b.oklab[c]) * (a.oklab[c] - b.oklab[c]);
  return squares;
}

std::vector<ColorStandIn> color_stand_ins(const std::vector<DoubtfulColor>& colors,
                                          std::size_t most, std::uint64_t least) {
  Coverage coverage(colors);
  std::vector<ColorStandIn> taken;
  while (taken.size() < most) {
    const std::size_t best = coverage.best();
    if (best == colors.size() || coverage.pixels(best) < least) break;
    taken.push_back(coverage.take(best));
  }
  return taken;
}

}  // namespace chalcedony
