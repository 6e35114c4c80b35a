// The sample pixels of pictures, read into tables of their features.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_PIXELS_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_PIXELS_H_

#include <cstdint>
#include <mutex>
#include <vector>

#include "core/channel/channel.h"
#include "core/learn/class_colors.h"
#include "core/learn/sample_shape.h"
#include "core/learn/sample_table.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// Held-out samples are drawn as squares of so many pixels a side, not as single pixels: a pixel
/// says much of its neighbors, which would make the score too good.
inline constexpr std::uint32_t kHeldSquare = 4;

class SamplePixels {
 public:
  /// `held_share`: of the samples that stay out of the training, 0-1. `density_pixels`: about how
  /// many pixels of each picture are drawn to show all of it; 0 for none. `wants_colors`: whether
  /// the colors of the samples are summed up.
  SamplePixels(std::vector<Channel> features, double held_share, std::uint64_t density_pixels,
               bool wants_colors, const SharedOptions& options);

  /// The samples of a picture.
  struct Samples {
    std::size_t picture = 0;  // its number
    std::vector<SampleRun> runs;
    std::vector<std::size_t> class_of;  // class c of the runs is class `class_of[c]` of the tables
  };
  struct Added {
    std::vector<std::uint64_t> counts;  // pixels of each class of the samples, held-out ones too
    std::uint64_t left_out = 0;         // sample pixels that do not count or lack a feature
    ClassColors colors;                 // of all of them, if wanted
    std::vector<float> density;         // drawn pixels of the whole picture, a row of features each
  };

  /// Reads a picture. May be called for several at once: the tables do not depend on the order.
  Added add(CountedPicture& picture, const Samples& samples, Preview& preview,
            const Context& context);

  /// Adds samples that were kept before; its class c is our class `class_of[c]`.
  void add(const SampleTable& kept, const std::vector<std::size_t>& class_of);

  /// Call after the last picture.
  void finish();

  const SampleTable& training() const { return training_; }
  const SampleTable& held() const { return held_; }

 private:
  struct Band;
  class Worker;

  const SharedOptions& options_;
  std::vector<Channel> features_;
  double held_share_;
  std::uint64_t density_pixels_;
  bool wants_colors_;
  std::mutex mutex_;  // of the tables
  SampleTable training_, held_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_SAMPLE_PIXELS_H_
