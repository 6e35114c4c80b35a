// Regions that were drawn by hand, put into a mask or a class map.
#ifndef CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_
#define CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_

#include <cstdint>

#include "core/learn/sample_shape.h"
#include "io/picture/label_picture.h"

namespace chalcedony {

/// Gives the pixels of regions their class, whatever the map says, and returns how many had
/// another. Classes are one by name, in upper and lower case; one that the map does not have is
/// added to it. Pixels of `unclassified` have none afterwards; regions of a mask are `selected` or
/// `unselected`.
///
/// Errors    InputError, without a place, of the regions: pixels in regions of two classes, a
/// region outside of the
///           map, a class that a mask cannot have, or no number left for a class
std::uint64_t draw_classes(const SampleSet& regions, LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_
