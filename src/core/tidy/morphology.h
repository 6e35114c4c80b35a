// Dilation, erosion, opening and closing of masks and class maps, each class by itself.
#ifndef CHALCEDONY_CORE_TIDY_MORPHOLOGY_H_
#define CHALCEDONY_CORE_TIDY_MORPHOLOGY_H_

#include "core/region/label_grid.h"
#include "core/tidy/element.h"

namespace chalcedony {

// What happens to a pixel hangs on the pixels of its class within the element around it. Pixels
// that lose their class have none; a class grows only into pixels that have none, and where several
// could, the one with the lowest number takes the pixel. Beyond the picture nothing grows in, and
// nothing is worn off at its edge. For masks these are the operations of the textbook.
//
// Source    Serra (1982), Image Analysis and Mathematical Morphology

/// Classes grow by the element.
void dilate(LabelGrid& grid, const Element& element);
/// Pixels keep their class when the whole element around them is of it.
void erode(LabelGrid& grid, const Element& element);
/// Pixels keep their class when an element that holds them fits into it: thin parts and specks go.
void open(LabelGrid& grid, const Element& element);
/// Pixels without a class take one when no element that holds them fits beside it: gaps and small
/// holes close.
void close(LabelGrid& grid, const Element& element);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_MORPHOLOGY_H_
