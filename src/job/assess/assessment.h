// What an assessment found, and the tables and fields that tell it.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/accuracy.h"
#include "core/assess/area_estimate.h"
#include "core/assess/class_matching.h"
#include "core/assess/error_matrix.h"
#include "core/assess/map_comparison.h"
#include "core/assess/sample_draw.h"
#include "job/run/summary.h"

namespace chalcedony {

/// One map held against the reference. The last row of the matrix is unclassified.
struct Agreement {
  ClassMatching matching;
  ErrorMatrix matrix{0, 0};
  Accuracy accuracy;

  std::size_t row_of(unsigned map_code) const {
    return map_code == 0 ? matching.names.size() : matching.of_map.at(map_code);
  }
  std::size_t column_of(unsigned reference_code) const {
    return matching.of_reference.at(reference_code);
  }
  /// The name of a row.
  std::string row_name(std::size_t row) const {
    return row < matching.names.size() ? matching.names[row] : "unclassified";
  }
};

struct Assessment {
  Agreement map;
  std::vector<double> mapped_shares;     // of the counted pixels of the map, one a row
  std::optional<AreaAdjusted> adjusted;  // of a sample, when every class of the map has some
  std::vector<DrawnPixel> sampled;       // in the order they were drawn; empty when all were taken
  std::optional<Agreement> second;       // of --versus
  std::uint64_t only_first = 0;          // pixels that only this map has right
  std::uint64_t only_second = 0;
};

/// Everything but the files' names, as fields of the summary and of accuracy.json.
Json assessment_json(const Assessment& assessment);

/// matrix.csv: counts, then shares; rows what the map says, columns the reference.
void write_matrix(const std::filesystem::path& path, const Agreement& agreement);

/// accuracy.csv: a line for each measure and class.
void write_accuracy(const std::filesystem::path& path, const Assessment& assessment);

/// sampled.csv: x, y, mapped, reference.
void write_sampled(const std::filesystem::path& path, const Assessment& assessment,
                   std::uint32_t width);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSMENT_H_
