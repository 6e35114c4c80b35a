// Where samples would help a class map most.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/learn/doubt_tiles.h"
#include "core/pixel/label.h"

namespace chalcedony {

struct SuggestedSample {
  std::uint32_t left = 0, top = 0, side = 0;  // a square, in pixels
  Label guess = 0;                            // the class of its middle pixel, 0 for none
  std::uint64_t doubtful = 0;                 // pixels it stands for, see suggested_samples()
};

/// Colors are alike that are no farther apart in oklab.
inline constexpr double kAlikeInOklab = 0.05;

/// At most `most` squares that stand for as many doubtful pixels as possible: one stands for those
/// of all squares whose mean color is alike its own and that none before it stands for. Each is the
/// one that stands for most, of several the first from the top; squares with less than half of
/// their pixels doubtful are not suggested, and none that stands for less than a thousandth of the
/// counted pixels.
///
/// Source    the greedy rule for maximum coverage, Nemhauser, Wolsey and Fisher (1978)
std::vector<SuggestedSample> suggested_samples(const DoubtTiles& tiles, std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_
