// Colors that stand for those that are alike: which few to look at of many.
#ifndef CHALCEDONY_CORE_LEARN_ALIKE_COLORS_H_
#define CHALCEDONY_CORE_LEARN_ALIKE_COLORS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Colors are alike that are no farther apart in oklab.
inline constexpr double kAlikeInOklab = 0.05;

/// A color of pixels that are in doubt.
struct DoubtfulColor {
  std::array<double, 3> oklab{};
  std::uint64_t pixels = 0;
  bool may_stand = true;  // for others
};

/// Of two of them in oklab.
double squared_distance(const DoubtfulColor& a, const DoubtfulColor& b);

/// A color and those it stands for, by their places among all.
struct ColorStandIn {
  std::size_t color = 0;
  std::vector<std::size_t> others;
  std::uint64_t pixels = 0;  // of all of them
};

/// At most `most` colors that stand for as many pixels as possible: one stands for those of all
/// colors alike its own that none before it stands for. Each is the one that stands for most, of
/// several the one with most pixels of its own, and of these the first; one that stands for less
/// than `least` ends it.
///
/// Source    the greedy rule for maximum coverage, Nemhauser, Wolsey and Fisher (1978)
std::vector<ColorStandIn> color_stand_ins(const std::vector<DoubtfulColor>& colors,
                                          std::size_t most, std::uint64_t least);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_ALIKE_COLORS_H_
