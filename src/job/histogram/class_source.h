// The classes that pixels of a picture are counted by.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CLASS_SOURCE_H_
#define CHALCEDONY_JOB_HISTOGRAM_CLASS_SOURCE_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/class_list.h"
#include "core/pixel/label.h"
#include "core/pixel/row_source.h"
#include "job/run/context.h"

namespace chalcedony {

struct CountedClass {
  std::string name;
  std::string color;  // CSS
};

/// Where each of these stands on a list, which those that are not there are added to.
std::vector<std::size_t> add_classes(const std::vector<CountedClass>& classes, ClassList& list);
/// The classes of a list.
std::vector<CountedClass> classes_of(const ClassList& list);

/// A picture of labels, or sample regions as one.
struct ClassSource {
  std::vector<CountedClass> classes;
  std::unique_ptr<RowSource> rows;     // labels of 8 or 16 bits
  std::vector<std::uint8_t> class_of;  // of each label: the class, from 1 on; 0 is none
};

/// Of a class map its classes; of a mask `selected` and `the rest`; of GeoJSON the classes of its
/// regions, where pixels of two classes have none.
///
/// Errors    InputError: what open_labels() and read_samples() throw, another size than the
///           picture's, and more than 255 classes
ClassSource open_classes(const std::filesystem::path& path, const RasterShape& picture,
                         const SharedOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CLASS_SOURCE_H_
