// One map of an assessment, with its reference: its pixels counted, drawn from and painted.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSED_MAP_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSED_MAP_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/assess/class_matching.h"
#include "core/assess/label_counts.h"
#include "core/assess/labels.h"
#include "core/assess/sample_draw.h"
#include "core/pixel/road.h"
#include "job/assess/assess_pictures.h"
#include "job/assess/assessed_labels.h"
#include "job/run/context.h"

namespace chalcedony {

/// The labels of a map and its reference.
struct CountedLabels {
  std::vector<LabelTotal> assessed;
  std::vector<LabelTotal> others;  // pixels that count but have no reference, or trained the model
  std::array<std::uint64_t, 5> kinds{};  // pixels by Assessed
  std::uint64_t of_other_strata = 0;     // see AssessedLabels
};

/// Drawn pixels by the pool they are drawn from.
using DrawnPools = std::vector<std::vector<DrawnPixel>>;

/// Adds the pixels of each pool to those of the same pool; both have as many.
inline void append_pools(const DrawnPools& more, DrawnPools& pools) {
  for (std::size_t p = 0; p < pools.size(); ++p)
    pools[p].insert(pools[p].end(), more[p].begin(), more[p].end());
}

class AssessedMap {
 public:
  AssessedMap(AssessedFiles files, const AssessOptions& options)
      : files_(std::move(files)), options_(&options) {}

  const AssessedFiles& files() const { return files_; }

  /// Opens the labels, or goes back to where they begin. Warnings go to the context the first time
  /// only.
  ///
  /// Errors    InputError, see AssessedLabels
  void open(const Context& context);
  void close() { labels_.reset(); }
  const AssessedLabels& labels() const { return *labels_; }

  /// Counts the labels of the open map.
  ///
  /// Errors    InputError when no pixel can be assessed; Interrupted
  void count(const Context& context);

  /// Of the counted map, also when it is closed:
  const CountedLabels& counted() const { return counted_; }
  std::uint32_t width() const { return width_; }
  std::uint32_t height() const { return height_; }
  /// The classes of picture p, see AssessedLabels, with the numbers that were found.
  const LabelledClasses& classes(std::size_t p) const { return classes_[p]; }
  LabelledClasses& classes(std::size_t p) { return classes_[p]; }
  /// See AssessedLabels.
  const std::optional<std::string>& trained_on() const { return trained_on_; }
  const std::optional<TruthDrawn>& drawn() const { return drawn_; }

  /// A pass over the open map that collects pixels: `pool_of(drawn)` says into which of the pools
  /// one goes, if any, and may change its number and hash.
  template <class PoolOf>
  DrawnPools candidates(std::size_t pools, const Context& context, const PoolOf& pool_of) const {
    DrawnPools candidates(pools);
    const auto make_worker = [&] {
      return [&](const Band& band) {
        DrawnPools found(pools);
        labels_->for_each_run(band, [&](std::uint64_t first, std::uint32_t n, const Labels& labels,
                                        Assessed assessed) {
          if (assessed != Assessed::kYes) return;
          for (std::uint64_t pixel = first; pixel < first + n; ++pixel) {
            DrawnPixel drawn{0, pixel, labels};
            if (const auto pool = pool_of(drawn)) found[*pool].push_back(drawn);
          }
        });
        return found;
      };
    };
    travel(labels_->rows(), road(context), make_worker,
           [&](DrawnPools&& found) { append_pools(found, candidates); });
    return candidates;
  }

  /// A pass over the open map that makes its pictures.
  void paint(AssessPictures& pictures, const Context& context) const;

 private:
  RoadOptions road(const Context& context) const;
  /// Numbers that occur in picture p, whether a legend lists them or not.
  std::vector<unsigned> found_in(std::size_t p) const;

  AssessedFiles files_;
  const AssessOptions* options_;
  std::unique_ptr<AssessedLabels> labels_;
  bool opened_before_ = false;
  CountedLabels counted_;
  std::uint32_t width_ = 0, height_ = 0;
  std::array<LabelledClasses, Labels::kMost> classes_;
  std::optional<std::string> trained_on_;
  std::optional<TruthDrawn> drawn_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSED_MAP_H_
