// How many regions classes have when these are parted at their necks, at each H of the step `part`.
#ifndef CHALCEDONY_JOB_REGION_REGION_PARTS_H_
#define CHALCEDONY_JOB_REGION_REGION_PARTS_H_

#include <filesystem>
#include <vector>

#include "figure/part_figure.h"
#include "io/picture/label_picture.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The classes that have regions, in the order of their numbers, with their parts as
/// part_counts() chooses them.
std::vector<ShownParts> parted_classes(const LabelPicture& picture);

/// The table of all numbers of regions: class, above, to, regions, chosen.
///
/// Errors    as write_text_file()
void write_part_counts(const std::filesystem::path& path, const std::vector<ShownParts>& classes);

/// What is told of a class: how many `regions` are counted, the H of `part` for it (null where
/// parting adds none), and the range of H, in pixels, over which it is that number: `above`, `to`.
Json parts_json(const ShownParts& parts);

/// The H that keeps to the ranges of all pictures, as `above`, `to` and `part`, with the sum of
/// their `regions`; `part` is null where no picture is parted or no H keeps to all.
///
/// Shape     what parts_json() tells of one class in each picture that has it
Json parts_of_all(const std::vector<Json>& pictures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_REGION_PARTS_H_
