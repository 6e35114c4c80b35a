#include "job/histogram/count_rows.h"

#include <algorithm>
#include <optional>
#include <utility>

#include "core/error.h"
#include "core/read_number.h"
#include "io/text/csv.h"

namespace chalcedony {

CountRows::CountRows(std::filesystem::path table, std::size_t count)
    : table_(std::move(table)), count_(count), rows_(read_csv(table_)) {}

std::uint64_t CountRows::next(const std::vector<std::string>& names) {
  const bool named = ++row_ < rows_.size() && rows_[row_].size() > count_ &&
                     std::equal(names.begin(), names.end(), rows_[row_].begin());
  const auto count = named ? read_number<std::uint64_t>(rows_[row_][count_]) : std::nullopt;
  if (!count)
    throw InputError("is not as it was written, in line " + std::to_string(row_ + 1),
                     "make it anew", table_.string());
  return *count;
}

}  // namespace chalcedony
