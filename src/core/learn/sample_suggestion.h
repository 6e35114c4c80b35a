// Where samples would help a class map most.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/color/css_color.h"
#include "core/learn/doubt_tiles.h"
#include "core/pixel/label.h"
#include "core/pixel/region.h"

namespace chalcedony {

struct SuggestedSample {
  PixelRect square;
  Label guess = 0;             // the class of its middle pixel, 0 for none
  Color color;                 // the mean of its surroundings, in sRGB
  std::uint64_t doubtful = 0;  // pixels it stands for, see suggested_samples()
};

/// At most `most` squares whose mean colors stand for as many doubtful pixels as possible, see
/// color_stand_ins(). So that few samples lie on edges, it is not that square itself but, of it and
/// those it stands for, those whose pixels all have one class, if some do; of these the half whose
/// pixels differ least; and of these the one of nearest color, the first from the top of equal
/// ones. Squares with less than half of their pixels doubtful are not suggested, and none that
/// stands for less than a thousandth of the counted pixels.
std::vector<SuggestedSample> suggested_samples(const DoubtTiles& tiles, std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_SUGGESTION_H_
