// The counts of a `histogram` run, and the tables and fields that tell them.
#ifndef CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_REPORT_H_
#define CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_REPORT_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/stats/cube.h"
#include "core/stats/histogram.h"
#include "job/histogram/histogram.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What one thread counts, and all of them together.
struct HistogramTally {
  std::vector<Histogram> channels;
  std::vector<JointHistogram> joint;
  std::optional<CubeHistogram> cube;
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t near_gray = 0;

  void merge(const HistogramTally& other) {
    for (std::size_t i = 0; i < channels.size(); ++i) channels[i].merge(other.channels[i]);
    for (std::size_t i = 0; i < joint.size(); ++i) joint[i].merge(other.joint[i]);
    if (cube) cube->merge(*other.cube);
    excluded += other.excluded;
    clipped += other.clipped;
    near_gray += other.near_gray;
  }
};

/// The bin that holds the middle pixel of those in the bins, or nothing.
std::optional<std::size_t> median_bin(const Histogram& histogram);

/// The value a bin stands for: the 8-bit code where bins hold one each, else its center.
double value_of_bin(const Binning& binning, std::size_t bin);

/// What a table of histograms consists of: first what names a histogram, then where its bins are,
/// the count of each, and its share.
struct HistogramColumns {
  std::vector<std::string> header;
  std::size_t names;  // columns that name the histogram
  std::size_t count;  // the column of the count
};

const HistogramColumns& channel_columns();
const HistogramColumns& joint_columns();

/// <stem>.histogram.csv: the bins of every channel, then what lies beside them.
void write_channel_table(const std::filesystem::path& path, const std::vector<Channel>& channels,
                         const HistogramTally& tally);

/// What write_channel_table wrote of these channels; `told` is what channel_json says of each.
///
/// Errors    InputError when the table has other rows
std::vector<Histogram> read_channel_table(const std::filesystem::path& path,
                                          const std::vector<Channel>& channels, const Json& told);

/// <stem>.joint.csv
void write_joint_table(const std::filesystem::path& path, const HistogramOptions& options,
                       const HistogramTally& tally);

/// The counts alone: a row for each bin of the first channel, a column for each of the second.
void write_joint_matrix(const std::filesystem::path& path, const std::pair<Channel, Channel>& pair,
                        const JointHistogram& h);

/// <stem>.cube.csv: a row of counts and one of shares. <stem>.cube.json: the shares alone.
void write_cube_table(const std::filesystem::path& path, const std::string& picture,
                      const CubeHistogram& cube);
void write_cube_json(const std::filesystem::path& path, const std::string& picture,
                     const CubeHistogram& cube);

/// The fields of one histogram in the summary.
Json channel_json(const Channel& channel, const Histogram& h);
Json cube_json(const CubeHistogram& cube);
Json joint_json(const std::pair<Channel, Channel>& pair, const JointHistogram& h);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_REPORT_H_
