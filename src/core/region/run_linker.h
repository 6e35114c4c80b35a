// Connected regions of a picture of labels, found in one pass over its rows.
#ifndef CHALCEDONY_CORE_REGION_RUN_LINKER_H_
#define CHALCEDONY_CORE_REGION_RUN_LINKER_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/label.h"
#include "core/pixel/label_runs.h"

namespace chalcedony {

enum class Connectivity { kFour, kEight };

/// Pixels begin <= x < end of one row that have one label, and the region they are part of so far.
struct RegionRun {
  std::uint32_t y = 0;
  std::uint32_t begin = 0;
  std::uint32_t end = 0;
  Label label = 0;
  std::uint32_t part = 0;  // parts of one region are joined as rows come; see region_numbers()
};

/// Links runs of neighboring rows that touch and have one label. Memory holds two rows and a number
/// for each part.
///
/// Source    union-find over runs (Rosenfeld and Pfaltz 1966; trees by Tarjan 1975)
class RunLinker {
 public:
  /// `with_zero` takes label 0 for a label like any other; else its pixels are in no region.
  RunLinker(std::uint32_t width, Connectivity connectivity, bool with_zero = false);

  /// Takes the next row and returns its runs from the left. `touch(above, run)` is called for
  /// every run of the row before that a run touches, after the two are one region.
  template <class Touch>
  const std::vector<RegionRun>& add_row(const Label* labels, Touch&& touch) {
    start_row(labels);
    std::size_t first = 0;
    for (RegionRun& run : runs_) {
      const std::uint32_t reach = connectivity_ == Connectivity::kEight ? 1 : 0;
      while (first < above_.size() && above_[first].end + reach <= run.begin) ++first;
      bool linked = false;
      for (std::size_t a = first; a < above_.size() && above_[a].begin < run.end + reach; ++a) {
        if (above_[a].label != run.label) continue;
        if (!linked) {
          run.part = above_[a].part;
          linked = true;
        } else {
          join(run.part, above_[a].part);
        }
      }
      if (!linked) run.part = new_part();
      for (std::size_t a = first; a < above_.size() && above_[a].begin < run.end + reach; ++a)
        if (above_[a].label == run.label) touch(above_[a], run);
    }
    return runs_;
  }
  const std::vector<RegionRun>& add_row(const Label* labels) {
    return add_row(labels, [](const RegionRun&, const RegionRun&) {});
  }

  /// How many parts there were.
  std::size_t parts() const { return parent_.size(); }
  /// For each part the number of its region, 0 for the first: in the order of their first pixels.
  std::vector<std::uint32_t> region_numbers();

 private:
  void start_row(const Label* labels);
  std::uint32_t new_part();
  /// The part that stands for the region this one belongs to: the first of its parts.
  std::uint32_t first_part(std::uint32_t part);
  void join(std::uint32_t a, std::uint32_t b);

  std::uint32_t width_;
  Connectivity connectivity_;
  bool with_zero_;
  std::uint32_t y_ = 0;
  bool started_ = false;
  LabelRuns finder_;
  std::vector<RegionRun> runs_, above_;
  std::vector<std::uint32_t> parent_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_RUN_LINKER_H_
