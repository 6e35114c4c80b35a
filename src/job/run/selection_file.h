// Classes by selections as a file, which slice and tune take with --config.
#ifndef CHALCEDONY_JOB_RUN_SELECTION_FILE_H_
#define CHALCEDONY_JOB_RUN_SELECTION_FILE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "job/run/context.h"

namespace chalcedony {

/// A class and the selection that takes it, as text.
struct ClassSelection {
  std::string name;
  std::string color;  // CSS hexadecimal
  std::string where;
};

/// The options that have a say in what a selection takes, as they were typed.
std::vector<TypedOption> selecting_options(const SharedOptions& options);

/// Writes the classes, one at least, in this order, with those options.
///
/// Errors    OutputError
void write_selection_file(const std::filesystem::path& path,
                          const std::vector<ClassSelection>& classes, const SharedOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_SELECTION_FILE_H_
