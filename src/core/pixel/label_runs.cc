#include "core/pixel/label_runs.h"

namespace chalcedony {
namespace {

template <class Sample>
void set_changes(const Sample* __restrict row, std::size_t width,
                 std::uint8_t* __restrict changes) {
  for (std::size_t x = 1; x < width; ++x) changes[x] = row[x] != row[x - 1];
}

template <class Sample>
void add_changes(const Sample* __restrict row, std::size_t width,
                 std::uint8_t* __restrict changes) {
  for (std::size_t x = 1; x < width; ++x)
    changes[x] |= static_cast<std::uint8_t>(row[x] != row[x - 1]);
}

}  // namespace

void LabelRuns::set(const std::uint8_t* row) { set_changes(row, width_, changes_.data()); }
void LabelRuns::set(const Label* row) { set_changes(row, width_, changes_.data()); }
void LabelRuns::add(const std::uint8_t* row) { add_changes(row, width_, changes_.data()); }
void LabelRuns::add(const Label* row) { add_changes(row, width_, changes_.data()); }

}  // namespace chalcedony
