// One table over all pictures: the rows of every picture's own table below each other.
#ifndef CHALCEDONY_JOB_RUN_LONG_TABLE_H_
#define CHALCEDONY_JOB_RUN_LONG_TABLE_H_

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace chalcedony {

/// A picture and the files that were written for it.
struct PictureResults {
  std::filesystem::path input;
  std::filesystem::path stem;  // what the names of its files begin with
  std::vector<std::filesystem::path> files;
};

/// The names of the tables that write_long_tables() writes of these pictures, in order.
std::vector<std::string> long_table_names(const std::vector<PictureResults>& pictures);

/// For each table that pictures have (`<stem>.THING.csv`) writes THING.csv into the folder: a
/// column `picture`, then the columns of theirs. A table that names its picture itself is taken as
/// it is. What a picture does not have is left out, and so is a table whose columns are not those
/// of the first, which `warn` is told. Tables of colors (colors.csv) are added up instead, and
/// places where samples would help (suggested.csv) put in the order in which to check them; what is
/// to be filled in (truth.csv) stays apart. Returns the files in order of their names.
///
/// Errors    InputError, OutputError
std::vector<std::filesystem::path> write_long_tables(
    const std::vector<PictureResults>& pictures, const std::filesystem::path& folder,
    const std::function<void(const std::string&)>& warn);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_LONG_TABLE_H_
