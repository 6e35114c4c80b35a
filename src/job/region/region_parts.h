// How many regions classes have when these are parted at their necks, at each H of the step `part`.
#ifndef CHALCEDONY_JOB_REGION_REGION_PARTS_H_
#define CHALCEDONY_JOB_REGION_REGION_PARTS_H_

#include <filesystem>
#include <string>
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

/// The steps of tidy that part the classes so: one for all where one H keeps to the range of every
/// class, else one for the classes that are parted, else one for each of them. Empty where none is.
///
/// Shape     of each class its `name` and `parts`, as parts_json() or parts_of_all() tells them;
///           classes without `parts` have no regions
std::string parting_steps(const Json& classes);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_REGION_PARTS_H_
