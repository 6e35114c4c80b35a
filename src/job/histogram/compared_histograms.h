// The channel histograms of several pictures beside each other.
#ifndef CHALCEDONY_JOB_HISTOGRAM_COMPARED_HISTOGRAMS_H_
#define CHALCEDONY_JOB_HISTOGRAM_COMPARED_HISTOGRAMS_H_

#include <filesystem>
#include <optional>
#include <vector>

#include "core/stats/histogram.h"
#include "figure/histogram_curves.h"
#include "figure/plot/plot.h"
#include "job/histogram/picture_counts.h"
#include "job/run/context.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Channel histograms as they are drawn: the median of each is marked, of hues none.
///
/// Shape     one histogram for each channel; they must outlive what is returned
std::vector<HistogramSeries> series_of(const std::vector<Channel>& channels,
                                       const std::vector<Histogram>& histograms);

/// The figure of the channel histograms of all pictures of a run. Those are read from the tables of
/// the pictures, so that it does not matter when and where these were counted.
class ComparedHistograms {
 public:
  ComparedHistograms(const SharedOptions& options, const CountAxis& counts, const Context& context)
      : options_(options), counts_(counts), context_(context), pictures_(options, "histogram") {}

  /// Keeps the histograms of a picture that has no table. May be called from any thread.
  void keep(const std::filesystem::path& input, const std::vector<Histogram>& histograms) {
    pictures_.keep(input, histograms);
  }

  /// Draws histograms.figure of the first pictures in the summary of a run; of those whose channels
  /// are those of the first picture. A picture whose histograms are not to be had is left out, and
  /// the user is told when its table is not as it was written.
  void report(const Json& summary, Plot& plot, const Results& results) const;

 private:
  std::optional<std::vector<Histogram>> histograms_of(const std::filesystem::path& input,
                                                      const std::vector<Channel>& channels,
                                                      const Json& told) const;

  const SharedOptions& options_;
  CountAxis counts_;
  const Context& context_;
  PictureCounts<std::vector<Histogram>> pictures_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_COMPARED_HISTOGRAMS_H_
