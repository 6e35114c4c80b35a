// The labels of several pictures that are read side by side, band by band.
#ifndef CHALCEDONY_CORE_ASSESS_BAND_LABELS_H_
#define CHALCEDONY_CORE_ASSESS_BAND_LABELS_H_

#include <cstddef>
#include <cstdint>

#include "core/assess/labels.h"
#include "core/pixel/band.h"
#include "core/pixel/label_runs.h"

namespace chalcedony {

/// How runs of labels are taken from a band of SideBySide::of_labels().
struct BandLabels {
  std::uint32_t width = 0;   // of a picture
  std::size_t pictures = 2;  // at least two, at most Labels::kMost
  bool whole_runs = true;    // else pixel by pixel, for who looks where they lie

  /// Calls `use(x, y, n, labels)` for runs of n pixels that are alike in all pictures, in raster
  /// order. No run crosses the end of a row.
  template <class Use>
  void for_each_run(const Band& band, Use&& use) const {
    if (band.shape().sample == SampleType::kU8) {
      visit<std::uint8_t>(band, use);
    } else {
      visit<Label>(band, use);
    }
  }

 private:
  template <class Sample, class Use>
  void visit(const Band& band, Use& use) const {
    LabelRuns runs(width);
    for (std::uint32_t r = 0; r < band.rows(); ++r) {
      const std::uint32_t y = band.first_row() + r;
      const auto* row = reinterpret_cast<const Sample*>(band.row(y));
      runs.set(row);
      for (std::size_t p = 1; p < pictures; ++p) runs.add(row + p * width);
      for (std::uint32_t x = 0, n = 0; x < width; x += n) {
        Labels labels(row[x], row[width + x]);
        for (std::size_t p = 2; p < pictures; ++p) labels.add(p, row[p * width + x]);
        n = whole_runs ? static_cast<std::uint32_t>(runs.end_of(x)) - x : 1;
        use(x, y, n, labels);
      }
    }
  }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_BAND_LABELS_H_
