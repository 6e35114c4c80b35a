// Regions that were drawn by hand, put into a mask or a class map.
#ifndef CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_
#define CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_

#include <string_view>

#include "core/learn/sample_shape.h"
#include "io/picture/label_picture.h"

namespace chalcedony {

/// What regions are called whose pixels are to have no class, and of a mask not be selected.
inline constexpr std::string_view kDrawnUnclassified = "unclassified";
inline constexpr std::string_view kDrawnUnselected = "unselected";

/// Gives the pixels of regions their class, whatever the map says. Classes are one by name, in
/// upper and lower case; one that the map does not have is added to it.
///
/// Errors    InputError, without a place: pixels in regions of two classes, a region outside of the
///           map, a class that a mask cannot have, or no number left for a class
void draw_classes(const SampleSet& regions, LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_DRAWN_CLASSES_H_
