// What inspect tells of a class map besides its colors: its classes, and those at single pixels.
#ifndef CHALCEDONY_JOB_LOOK_TOLD_CLASSES_H_
#define CHALCEDONY_JOB_LOOK_TOLD_CLASSES_H_

#include <cstdint>
#include <utility>
#include <vector>

#include "job/picture/inputs.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Whether a picture lists the classes that its numbers stand for.
bool lists_classes(const CountedPicture& picture);

/// Adds to what is told of a class map `unclassified` and, for each class, `index`, `name`,
/// `color`, `pixels` and `percent` of the pixels in the region and the mask; and to each of `at`
/// its `class`, empty for none. The file is read once more for it.
///
/// Shape     `at`: the points of json["at"], in their order, all in the picture
/// Errors    InputError, see open_labels
void tell_classes(const CountedPicture& picture,
                  const std::vector<std::pair<std::int64_t, std::int64_t>>& at,
                  std::uint64_t max_pixels, Json& json);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_TOLD_CLASSES_H_
