// What an assessment found, and the tables and fields that tell it.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_

#include <cstdint>
#include <filesystem>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/accuracy.h"
#include "core/assess/area_estimate.h"
#include "core/assess/class_matching.h"
#include "core/assess/error_matrix.h"
#include "core/assess/map_comparison.h"
#include "core/assess/right_maps.h"
#include "job/run/summary.h"

namespace chalcedony {

/// One map held against the reference. The last row of the matrix is unclassified.
struct Agreement {
  ClassMatching matching;
  ErrorMatrix matrix{0, 0};
  Accuracy accuracy;
};

/// Another map of the same picture, at the same pixels.
struct OtherMap {
  Agreement map;
  std::uint64_t only_first = 0;  // pixels that the map it is held against has right, and this not
  std::uint64_t only_this = 0;
};

struct Assessment {
  Agreement map;
  std::vector<double> mapped_shares;     // of the counted pixels of the map, one a row
  std::optional<AreaAdjusted> adjusted;  // of a sample, when every class of the map has some
  std::vector<OtherMap> versus;
  std::vector<RightCounts> right_in;  // by class of the reference; none without other maps
};

/// The pixels of the diagonal.
std::uint64_t right_pixels(const Agreement& agreement);

/// Everything but the files' names, as fields of the summary and of accuracy.json.
Json assessment_json(const Assessment& assessment);

/// matrix.csv: counts, then shares; rows what the map says, columns the reference.
void write_matrix(const std::filesystem::path& path, const Agreement& agreement);

/// accuracy.csv: a line for each measure and class.
void write_accuracy(const std::filesystem::path& path, const Assessment& assessment);

/// versus.csv: by class of the reference, how many pixels which of the maps have right.
void write_versus(const std::filesystem::path& path, const Assessment& assessment);

/// An assessed pixel as it is told.
struct ToldPixel {
  std::string map;  // empty when there is one only
  std::uint64_t x = 0, y = 0;
  std::string mapped, reference;
};

/// sampled.csv: map (of several), x, y, mapped, reference.
void write_sampled(const std::filesystem::path& path, std::size_t pixels,
                   const std::function<ToldPixel(std::size_t)>& told);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_
