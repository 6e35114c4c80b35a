// Masks and class maps that are read and written whole.
#ifndef CHALCEDONY_IO_PICTURE_LABEL_PICTURE_H_
#define CHALCEDONY_IO_PICTURE_LABEL_PICTURE_H_

#include <filesystem>
#include <string_view>
#include <vector>

#include "core/region/label_grid.h"
#include "io/metadata/class_legend.h"
#include "io/picture/create_picture.h"
#include "io/picture/label_file.h"
#include "io/picture/picture_file.h"

namespace chalcedony {

struct LabelPicture {
  std::filesystem::path path;
  bool is_mask = false;
  LabelGrid grid;                    // of a mask: 1 where it is on
  std::vector<LegendEntry> classes;  // of every number in the grid; of a mask: "selected"
  CarriedFacts carried = {};
};

/// What the one class of a mask is called.
inline constexpr std::string_view kSelected = "selected";

/// What the numbers of a picture of labels are.
struct FoundClasses {
  bool is_mask = false;
  std::vector<LegendEntry> classes;  // of a mask one: kSelected, number 255, white
};

/// Of a file that holds these numbers, 0 aside: a mask when it lists no classes and holds nothing
/// but 255, or nothing; else the classes it lists, and for numbers that it does not list `class N`
/// in a color of ours.
FoundClasses classes_found(const LabelFile& file, const std::vector<Label>& labels);

/// Whether a picture's numbers are labels, not colors: it lists classes, or it is a mask (8-bit
/// gray, all 0 or 255). A gray picture is read until another number comes, and rewound.
///
/// Errors    what its rows throw
bool holds_labels(PictureFile& picture);

/// Reads a mask (gray without a list of classes, all 0 or 255) or a class map from where it stands.
///
/// Errors    as LabelRows::next()
LabelPicture read_label_picture(LabelFile& file);

/// The same of a file that is opened by open_labels().
///
/// Errors    as open_labels() too
LabelPicture read_label_picture(const std::filesystem::path& path, std::uint64_t max_pixels);

/// Writes a mask as a mask and a class map with its list of classes.
///
/// Errors    as write_picture()
void write_label_picture(const std::filesystem::path& path, const LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_LABEL_PICTURE_H_
