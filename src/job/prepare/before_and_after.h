// What the figure of balance shows, gathered while the picture is written.
#ifndef CHALCEDONY_JOB_PREPARE_BEFORE_AND_AFTER_H_
#define CHALCEDONY_JOB_PREPARE_BEFORE_AND_AFTER_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/color/conversion.h"
#include "core/planes.h"
#include "core/stats/histogram.h"
#include "figure/plot/plot.h"
#include "job/picture/preview.h"
#include "job/picture/tallies.h"

namespace chalcedony {

/// Histograms of a picture before and after.
struct BalancedSums {
  std::vector<Histogram> before, after;  // of its own channels

  void merge(const BalancedSums& other);
};

class BeforeAndAfter {
 public:
  /// `info` must outlive this. Nothing is gathered when no figure is wanted.
  BeforeAndAfter(const PictureInfo& info, bool wanted);

  bool wanted() const { return before_.wanted(); }

  /// One for each thread.
  class Collector {
   public:
    explicit Collector(BeforeAndAfter& all) : all_(all), before_(all.before_) {}

    /// A Block as it was read, and its channels as they are written.
    void add(const Block& block, const ConstPlanes& balanced);

   private:
    BeforeAndAfter& all_;
    Preview::Collector before_;
    PlaneBuffer screen_;
  };

  /// Adds the figure to a plot, when all Blocks have been added.
  void draw(Plot& plot, const std::filesystem::path& path, const std::string& name,
            const std::string& subtitle);

 private:
  const PictureInfo& info_;
  Preview before_;
  Tallies<ThumbnailSums> after_;
  Tallies<BalancedSums> sums_;
  Conversion to_screen_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_BEFORE_AND_AFTER_H_
