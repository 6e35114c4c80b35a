// Class maps or masks of one place at several times, read together.
#ifndef CHALCEDONY_JOB_CHANGE_TIMED_MAPS_H_
#define CHALCEDONY_JOB_CHANGE_TIMED_MAPS_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/band_labels.h"
#include "core/assess/class_changes.h"
#include "core/assess/class_list.h"
#include "core/assess/label_counts.h"
#include "core/pixel/counting.h"
#include "core/pixel/road.h"
#include "core/pixel/side_by_side.h"
#include "io/picture/label_file.h"
#include "job/run/context.h"

namespace chalcedony {

/// At most so many maps can be held against each other, with so many classes in all.
inline constexpr std::size_t kMostTimedMaps = Labels::kMost, kMostTimedClasses = 4096;

class TimedMaps {
 public:
  /// Opens the maps of a place, in the order of time, and counts their pixels. Warnings go to the
  /// context.
  ///
  /// Errors    InputError: what open_labels throws; sizes that differ, masks among class maps, a
  ///           map that has no class of those before it, too many classes, no pixel that counts;
  ///           Interrupted
  TimedMaps(const std::vector<std::filesystem::path>& files, const SharedOptions& options,
            const Context& context);

  std::size_t size() const { return maps_.size(); }
  const std::filesystem::path& file(std::size_t map) const { return maps_[map].path; }
  /// What the maps are called beside each other.
  std::vector<std::string> names() const;
  std::uint32_t width() const { return width_; }
  std::uint32_t height() const { return rows_->shape().height; }

  /// The classes of all maps on one list, case aside, in the order of the first map and then of
  /// what later ones add.
  std::size_t classes() const { return classes_.size(); }
  /// The name and the color of a class. What pixels without a class are called and shown as has the
  /// number after the last one: those of masks are not selected.
  const std::string& name(std::size_t c) const {
    return c < classes() ? classes_.names()[c] : name_of_none_;
  }
  std::string color(std::size_t c) const;

  /// Of the counted pixels, by their classes.
  const std::vector<ClassHistory>& histories() const { return histories_; }
  std::uint64_t counted() const { return counted_; }
  const Excluded& excluded() const { return excluded_; }

  /// A pass over the pixels in raster order, band by band: `begin_worker()` gives a worker for each
  /// thread, with `begin(band)`, `add(labels, n)` for n pixels (null labels where they do not
  /// count) and `end(band)`, whose result `take` is given in order.
  template <class BeginWorker, class Take>
  void pass(const BeginWorker& begin_worker, const Take& take) {
    rows_->rewind();
    const auto make_worker = [&] {
      return [this, worker = begin_worker()](const Band& band) mutable {
        worker.begin(band);
        for_each_run(band, [&](std::uint32_t n, const Labels& labels, PlaceCounts counts) {
          worker.add(counts == PlaceCounts::kYes ? &labels : nullptr, n);
        });
        return worker.end(band);
      };
    };
    travel(*rows_, road(), make_worker, take);
  }

  /// The place on the list of classes of a label of a map; classes() for none.
  std::size_t class_of(std::size_t map, Label label) const { return places_[map][label]; }

 private:
  void open(const std::filesystem::path& path, std::vector<std::unique_ptr<RowSource>>& sources);
  std::vector<LabelTotal> count();
  void name_classes(const std::vector<LabelTotal>& totals);
  RoadOptions road() const;

  PlaceCounts place(std::uint32_t x, std::uint32_t y) const {
    return counting_.place(x, y, std::uint64_t{y} * width_ + x);
  }

  /// Calls `use(n, labels, counts)` for runs of n pixels that are alike.
  template <class Use>
  void for_each_run(const Band& band, const Use& use) const {
    const BandLabels all{width_, size(), counting_.everywhere()};
    all.for_each_run(band, [&](std::uint32_t x, std::uint32_t y, std::uint32_t n,
                               const Labels& labels) { use(n, labels, place(x, y)); });
  }

  const SharedOptions& options_;
  const Context& context_;
  std::vector<LabelFile> maps_;  // without their rows, which are read side by side
  std::unique_ptr<SideBySide> rows_;
  std::uint32_t width_ = 0;
  Counting counting_;
  ClassList classes_;
  std::string name_of_none_;
  std::vector<std::vector<std::size_t>> places_;  // of each map, by label
  std::vector<ClassHistory> histories_;
  std::uint64_t counted_ = 0;
  Excluded excluded_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_TIMED_MAPS_H_
