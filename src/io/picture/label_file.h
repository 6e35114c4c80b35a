// Pictures of labels on disk: class maps, palette and gray pictures read by number, and pictures in
// which each exact color is a class.
#ifndef CHALCEDONY_IO_PICTURE_LABEL_FILE_H_
#define CHALCEDONY_IO_PICTURE_LABEL_FILE_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <vector>

#include "core/pixel/label.h"
#include "core/pixel/row_source.h"
#include "io/metadata/carried_facts.h"
#include "io/metadata/class_legend.h"

namespace chalcedony {

/// What says which classes a picture of labels has.
enum class LegendFrom {
  kFile,     // a list in the file
  kColors,   // its distinct colors, in order of appearance; names are the colors
  kNumbers,  // nothing: numbers found in it are classes without names; `classes` is empty
};

struct LabelFile {
  std::filesystem::path path;
  std::vector<LegendEntry> classes;
  LegendFrom legend_from = LegendFrom::kFile;
  std::unique_ptr<RowSource> rows;  // one channel, 8 or 16 bits; 0 is no class
  CarriedFacts carried = {};
};

/// Opens a picture of labels. One with colors is read once to find them: opaque pixels of one exact
/// color are a class, others have none.
///
/// Errors    InputError: lossy, floats, more than 255 colors, and what open_picture throws
LabelFile open_labels(const std::filesystem::path& path, std::uint64_t max_pixels);

/// Whether a file is a picture that lists classes; one that cannot be read lists none.
bool is_class_map_file(const std::filesystem::path& path);

/// Errors    InputError for a number above 255 where no list of classes is in the file, which then
///           holds something else
void check_listed(const LabelFile& file, Label largest);

/// The rows of a picture of labels one after the other, from where it stands.
class LabelRows {
 public:
  explicit LabelRows(LabelFile& file);

  /// The next row: `width` labels; good until the next call.
  ///
  /// Errors    as check_listed(), and what the file's rows throw
  const Label* next();

 private:
  void read_more();

  LabelFile& file_;
  std::uint32_t left_;  // rows not read yet
  std::vector<std::byte> stored_;
  std::size_t held_ = 0, at_ = 0;  // rows in `stored_`, and how many of them were given
  std::vector<Label> labels_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_LABEL_FILE_H_
