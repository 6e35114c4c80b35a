#include "core/tidy/majority.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

#include <algorithm>
#include <vector>

namespace chalcedony {
namespace {

constexpr std::size_t kRowsPerTask = 64;

/// Rows [begin, end) of the result. For each class, counts of the columns of the box slide down,
/// and their sums slide along.
class MajorityRows {
 public:
  MajorityRows(const LabelGrid& from, std::uint32_t radius, const std::vector<Label>& classes)
      : from_(from),
        radius_(radius),
        classes_(classes),
        columns_(classes.size(), std::vector<std::uint32_t>(from.width)),
        best_(from.width),
        best_count_(from.width) {}

  void run(std::size_t begin, std::size_t end, LabelGrid& to) {
    for (auto& counts : columns_) std::fill(counts.begin(), counts.end(), 0u);
    const std::size_t first = begin > radius_ ? begin - radius_ : 0;
    for (std::size_t y = first; y < std::min<std::size_t>(begin + radius_, from_.height); ++y)
      add_row(y, 1);
    for (std::size_t y = begin; y < end; ++y) {
      if (y + radius_ < from_.height) add_row(y + radius_, 1);
      pick(y);
      std::copy(best_.begin(), best_.end(), to.row(y));
      if (y >= radius_) add_row(y - radius_, ~std::uint32_t{0});
    }
  }

 private:
  /// `by` is 1, or all ones to take 1 away.
  void add_row(std::size_t y, std::uint32_t by) {
    const Label* const row = from_.row(y);
    for (std::size_t c = 0; c < classes_.size(); ++c)
      for (std::size_t x = 0; x < from_.width; ++x)
        columns_[c][x] += row[x] == classes_[c] ? by : 0u;
  }

  void pick(std::size_t y) {
    std::fill(best_count_.begin(), best_count_.end(), 0u);
    const Label* const own = from_.row(y);
    for (std::size_t c = 0; c < classes_.size(); ++c) {
      const auto& columns = columns_[c];
      std::uint32_t sum = 0;
      for (std::size_t x = 0; x < std::min<std::size_t>(radius_, from_.width); ++x)
        sum += columns[x];
      for (std::size_t x = 0; x < from_.width; ++x) {
        if (x + radius_ < from_.width) sum += columns[x + radius_];
        const bool better =
            sum > best_count_[x] || (sum == best_count_[x] && sum > 0 && own[x] == classes_[c]);
        if (better) {
          best_count_[x] = sum;
          best_[x] = classes_[c];
        }
        if (x >= radius_) sum -= columns[x - radius_];
      }
    }
  }

  const LabelGrid& from_;
  std::size_t radius_;
  const std::vector<Label>& classes_;
  std::vector<std::vector<std::uint32_t>> columns_;  // of each class
  std::vector<Label> best_;
  std::vector<std::uint32_t> best_count_;
};

}  // namespace

void majority(LabelGrid& grid, std::uint32_t radius) {
  const LabelGrid before = grid;
  std::vector<Label> classes = labels_in(before);
  classes.insert(classes.begin(), 0);
  tbb::parallel_for(
      std::size_t{0}, (grid.height + kRowsPerTask - 1) / kRowsPerTask, [&](std::size_t task) {
        const std::size_t begin = task * kRowsPerTask;
        MajorityRows(before, radius, classes)
            .run(begin, std::min<std::size_t>(grid.height, begin + kRowsPerTask), grid);
      });
}

}  // namespace chalcedony
