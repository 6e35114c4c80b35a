// The labels an assessment compares: a map, its reference and maybe other maps, read together.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSED_LABELS_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSED_LABELS_H_

#include <array>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

#include "core/assess/band_labels.h"
#include "core/assess/class_matching.h"
#include "core/assess/labels.h"
#include "core/learn/sample_shape.h"
#include "core/pixel/band.h"
#include "core/pixel/counting.h"
#include "core/pixel/mask.h"
#include "core/pixel/side_by_side.h"
#include "io/document/truth_table.h"
#include "io/metadata/class_legend.h"
#include "job/assess/assess.h"
#include "job/assess/assessed_files.h"

namespace chalcedony {

/// The picture a map is of, by its name: `panel-b` of `panel-b.classes.png` and of `panel-b.png`.
std::string assessed_picture(const std::filesystem::path& map);

/// Whether a pixel is assessed, or the first reason why not.
enum class Assessed : std::uint8_t { kYes, kOutsideRegion, kOutsideMask, kTrained, kUnlabelled };

class AssessedLabels {
 public:
  /// Opens everything and settles which pixels can be assessed. Warnings go to the context.
  ///
  /// Errors    InputError: what open_labels and read_samples throw; sizes that differ
  AssessedLabels(const AssessedFiles& files, const AssessOptions& options, const Context& context);

  std::uint32_t width() const { return width_; }
  std::uint32_t height() const { return rows_->shape().height; }
  std::size_t pictures() const { return legends_.size(); }
  SideBySide& rows() const { return *rows_; }

  /// The classes of picture p: kOfMap, kOfReference, or kOfVersus and above. Numbers that no legend
  /// lists are classes as well, once they are `found`.
  LabelledClasses classes(std::size_t p, const std::vector<unsigned>& found) const;
  /// The color a legend gives a class of the map, or nothing.
  std::optional<std::string> color_of(const std::string& name) const;

  /// Calls `use(first_pixel, n, labels, assessed)` for runs of n pixels of a band that are alike,
  /// in raster order. No run crosses the end of a row.
  template <class Use>
  void for_each_run(const Band& band, Use&& use) const {
    const BandLabels all{width_, pictures(), everywhere_};
    all.for_each_run(
        band, [&](std::uint32_t x, std::uint32_t y, std::uint32_t n, const Labels& labels) {
          const std::uint64_t first = std::uint64_t{y} * width_ + x;
          const Assessed assessed = everywhere_ ? Assessed::kYes : place(x, y, first);
          const bool unlabelled = assessed == Assessed::kYes && labels[kOfReference] == 0;
          use(first, n, labels, unlabelled ? Assessed::kUnlabelled : assessed);
        });
  }

  /// How the pixels of the reference were drawn, where it is a table of them.
  const std::optional<TruthDrawn>& drawn() const { return drawn_; }
  /// Whether a pixel of such a table was drawn from another class than the map's there: from those
  /// of another map.
  bool of_other_stratum(std::uint64_t pixel, Label of_map) const {
    const auto at = strata_.find(pixel);
    return at != strata_.end() && at->second != of_map;
  }

  /// The picture of the model that the map is of, empty when there is none; null without --model.
  const std::optional<std::string>& trained_on() const { return trained_on_; }

 private:
  struct Legend {
    std::vector<LegendEntry> entries;
    bool named = true;
  };

  void add(const std::filesystem::path& path, std::uint64_t max_pixels);
  void add_samples(const std::filesystem::path& path, const AssessOptions& options,
                   const Context& context);
  void add_truth(const std::filesystem::path& path, const Context& context);
  void add_regions(const SampleSet& samples, const std::filesystem::path& path,
                   const Context& context);
  void name_by_color(Legend& colored, const Legend& named);
  void leave_out_training(const std::filesystem::path& map, const std::filesystem::path& model);

  Assessed place(std::uint32_t x, std::uint32_t y, std::uint64_t pixel) const {
    const PlaceCounts counts = counting_.place(x, y, pixel);
    if (counts == PlaceCounts::kOutsideRegion) return Assessed::kOutsideRegion;
    if (counts == PlaceCounts::kOutsideMask) return Assessed::kOutsideMask;
    return training_ && training_->at(pixel) ? Assessed::kTrained : Assessed::kYes;
  }

  std::vector<std::unique_ptr<RowSource>> sources_;
  std::vector<Legend> legends_;
  std::unique_ptr<SideBySide> rows_;
  std::uint32_t width_ = 0;
  bool everywhere_ = true;
  Counting counting_;
  std::optional<Mask> training_;
  std::optional<TruthDrawn> drawn_;
  std::unordered_map<std::uint64_t, Label> strata_;  // of the pixels of a table
  std::optional<std::string> trained_on_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSED_LABELS_H_
