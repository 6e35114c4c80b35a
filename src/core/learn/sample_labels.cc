#include "core/learn/sample_labels.h"

#include <algorithm>

#include "core/pixel/label.h"

namespace chalcedony {
namespace {

// A pixel of two classes, while its row is drawn.
constexpr Label kShared = kMostClasses + 1;

}  // namespace

SampleLabels::SampleLabels(std::vector<SampleRun> runs, std::uint32_t width, std::uint32_t height)
    : runs_(std::move(runs)), shape_{width, height, 1, SampleType::kU16} {}

void SampleLabels::read_rows(std::uint32_t count, std::byte* rows) {
  auto* labels = reinterpret_cast<Label*>(rows);
  const std::uint64_t first = std::uint64_t{next_row_} * shape_.width;
  const std::uint64_t end = first + std::uint64_t{count} * shape_.width;
  std::fill(labels, labels + (end - first), Label{0});
  std::uint64_t covered_to = first;
  // Runs are in raster order and none crosses the end of a row.
  for (; next_run_ < runs_.size() && runs_[next_run_].begin < end; ++next_run_) {
    const SampleRun& run = runs_[next_run_];
    const auto label = static_cast<Label>(run.sample_class + 1);
    for (std::uint64_t p = run.begin; p < run.end; ++p)
      labels[p - first] = p < covered_to && labels[p - first] != 0 ? kShared : label;
    covered_to = std::max(covered_to, run.end);
  }
  std::replace(labels, labels + (end - first), kShared, Label{0});
  next_row_ += count;
}

}  // namespace chalcedony
