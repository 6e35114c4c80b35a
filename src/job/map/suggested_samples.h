// The samples that would help a class map most, as files to be checked and trained with.
#ifndef CHALCEDONY_JOB_MAP_SUGGESTED_SAMPLES_H_
#define CHALCEDONY_JOB_MAP_SUGGESTED_SAMPLES_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/learn/doubt_tiles.h"
#include "core/learn/model.h"
#include "core/learn/sample_suggestion.h"
#include "core/pixel/raster.h"
#include "core/pixel/region.h"
#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"
#include "figure/sample_figure.h"
#include "io/document/suggestion_table.h"
#include "job/map/class_shares.h"
#include "job/run/summary.h"

namespace chalcedony {

class SuggestedSamples {
 public:
  /// At most `most` of a picture of this size with so many counted pixels, with guesses among these
  /// classes.
  SuggestedSamples(const DoubtTiles& tiles, std::size_t most, const RasterShape& size,
                   std::uint64_t counted, std::vector<MapClass> classes);

  bool none() const { return samples_.empty(); }

  /// <stem>.suggested.geojson: squares whose classes are guesses with a question mark behind, so
  /// that none is trained with unseen.
  void write(const std::filesystem::path& path) const;
  /// <stem>.suggested.csv
  void write_table(const std::filesystem::path& path) const;
  /// Where the places are, for close_ups().
  std::vector<PixelRect> squares() const;
  /// `near`: a close-up of each.
  void add_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                  const Thumbnail& picture, const std::vector<CloseUp>& near) const;
  /// Adds `doubtful` and `doubtful_percent` of the counted pixels, and `suggested`: what a
  /// SuggestedPlace holds, for each.
  void report(Json& json) const;

 private:
  const MapClass& guess_of(const SuggestedSample& sample) const;
  std::vector<SuggestedPlace> places() const;

  RasterShape size_;
  std::uint64_t counted_;
  std::vector<MapClass> classes_;
  std::uint64_t doubtful_;
  std::vector<SuggestedSample> samples_;
  MapClass no_class_{"", kUnclassifiedColor};
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_SUGGESTED_SAMPLES_H_
