// The counts of a table of histograms, read again row by row.
#ifndef CHALCEDONY_JOB_HISTOGRAM_COUNT_ROWS_H_
#define CHALCEDONY_JOB_HISTOGRAM_COUNT_ROWS_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

class CountRows {
 public:
  /// The rows below the headings; `count` is the column of the counts.
  ///
  /// Errors    InputError when the table cannot be read
  CountRows(std::filesystem::path table, std::size_t count);

  /// The count of the next row, whose first columns must say `names`.
  ///
  /// Errors    InputError when they do not, or there is no count
  std::uint64_t next(const std::vector<std::string>& names);

 private:
  std::filesystem::path table_;
  std::size_t count_;
  std::vector<std::vector<std::string>> rows_;
  std::size_t row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_COUNT_ROWS_H_
