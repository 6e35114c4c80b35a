// The peaks of a histogram, with the selection that takes each and what it takes.
#ifndef CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_PEAKS_H_
#define CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_PEAKS_H_

#include <array>
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/stats/histogram.h"
#include "job/histogram/channel_interval.h"
#include "job/picture/counted_blocks.h"
#include "job/run/selection_file.h"
#include "job/run/summary.h"

namespace chalcedony {

struct HistogramPeak {
  std::vector<ChannelInterval> intervals;  // one or two; what the peak spans
  std::string where;                       // for `mask --where`
  std::uint64_t pixels = 0;                // that the selection takes
  std::array<double, 3> mean{};            // of their sRGB, 0-255
};

/// All peaks of one histogram.
struct HistogramPeaks {
  std::string histogram;  // "hsv.h" or "hsv.h with hsv.s"
  std::string smoothing;  // what was done before peaks were sought, in words
  std::vector<HistogramPeak> peaks;
};

/// `codes` says that the values of the channel are 8-bit codes.
HistogramPeaks peaks_of(const Channel& channel, const Histogram& histogram, bool codes,
                        std::size_t most);
HistogramPeaks peaks_of(const Channel& first, const Channel& second,
                        const JointHistogram& histogram, std::size_t most);

/// Fills in what each selection takes: one pass over the picture's counted pixels.
void measure_peaks(std::vector<HistogramPeaks>& all, CountedBlocks& blocks, double hue_floor,
                   const ChannelNames& names);

/// <stem>.peaks.csv
void write_peaks(const std::filesystem::path& path, const std::vector<HistogramPeaks>& all,
                 std::uint64_t counted);

/// The peaks of one histogram as classes, named `peak 1` and so on, in their mean colors.
std::vector<ClassSelection> class_selections(const HistogramPeaks& found);

Json peaks_json(const std::vector<HistogramPeaks>& all, std::uint64_t counted);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_PEAKS_H_
