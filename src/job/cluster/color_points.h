// The colors of all inputs of a job as one set of weighted points, for work that groups them.
#ifndef CHALCEDONY_JOB_CLUSTER_COLOR_POINTS_H_
#define CHALCEDONY_JOB_CLUSTER_COLOR_POINTS_H_

#include <array>
#include <cstdint>
#include <deque>
#include <optional>
#include <utility>
#include <vector>

#include "core/cluster/pixel_sample.h"
#include "core/cluster/point_set.h"
#include "core/feature/features.h"
#include "core/pixel/color_table.h"
#include "core/pixel/color_tally.h"
#include "core/pixel/large_vector.h"
#include "io/document/color_table_file.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// The most pixels of deep pictures (16-bit, float) that are held; of more, that many are drawn.
inline constexpr std::size_t kMostHeldPixels = 1048576;

/// Gathers the counted pixels of pictures, several at once. Of 8-bit pictures every distinct color
/// is a point with the number of its pixels. Of deep ones every pixel is, up to kMostHeldPixels;
/// past that, those with the smallest hashes of seed, picture and pixel number.
class ColorPoints {
  struct AddedPicture;
  struct CountedColors;

 public:
  /// `channels`: what the points are made of; oklab is gathered besides.
  ColorPoints(const std::vector<Channel>& channels, double hue_floor, std::uint64_t seed);

  /// Where the colors of a picture go.
  struct Place {
    AddedPicture* picture = nullptr;
    CountedColors* colors = nullptr;  // null for a deep picture
  };

  /// The place of the next picture: to be asked in the order of the pictures.
  Place place_for(const PictureInfo& info);

  /// Gathers the preview of the picture too, when there is one. May be called for several pictures
  /// at once.
  ///
  /// Errors    InputError
  void add(const Place& place, CountedPicture& picture, const SharedOptions& options,
           const Context& context, Preview* preview = nullptr);

  /// Takes over what was added of a picture: in the order of the pictures.
  void take(const Place& place);

  /// All of this for the next picture.
  void add(CountedPicture& picture, const SharedOptions& options, const Context& context,
           Preview* preview = nullptr) {
    const Place place = place_for(picture.file.info);
    add(place, picture, options, context, preview);
    take(place);
  }

  /// Adds the colors of a table, as if its pictures had been added.
  ///
  /// Errors    InputError when a channel is of the file, which a table does not know
  void add(const StoredColors& colors);

  /// Turns what was counted into points; call once, after the last picture.
  void finish(unsigned threads);
  /// Divides the features, as FeatureEvaluator does with these divisors.
  void divide(const std::vector<double>& divisors);

  /// The points with their features. Arrays are padded as planes are.
  Points points() const { return points_.first_features(own_features_); }
  /// The same with oklab l, a, b as features, never divided.
  Points oklab() const;

  /// The colors that were counted, which are the points in their order; none when not all of the
  /// pictures are 8-bit ones of one space, or some colors were left out. They can be taken once.
  std::optional<ColorCounter> take_counted_colors() {
    return std::exchange(counted_colors_of_all_, std::nullopt);
  }

  /// Counted pixels, and those left out because a feature of them is not a number.
  std::uint64_t pixels() const { return pixels_; }
  std::uint64_t left_out() const { return left_out_; }
  /// Whether there were too many deep pixels to hold all, and how many were drawn of how many.
  bool sampled() const { return deep_counted_ > kMostHeldPixels; }
  std::uint64_t drawn() const { return std::min<std::uint64_t>(deep_counted_, kMostHeldPixels); }
  std::uint64_t deep() const { return deep_counted_; }
  /// What was left out of each picture, in their order.
  const Excluded& excluded(std::size_t picture) const { return pictures_[picture].excluded; }
  /// The counted pixels of each, or of a table.
  std::uint64_t counted(std::size_t picture) const { return pictures_[picture].counted; }

 private:
  struct CountedColors {
    explicit CountedColors(const PictureInfo& of) : info(of) {}

    PictureInfo info;
    std::uint64_t pixels = 0;  // of all pictures
    ColorTally tally;
  };
  struct AddedPicture {
    Excluded excluded = {};
    std::uint64_t counted = 0;
    std::uint64_t left_out = 0;
    std::uint64_t deep_number = 0;         // of a deep one among those, from 1
    std::optional<PixelSample> held = {};  // of a deep one
  };
  CountedColors& counter_for(const PictureInfo& info);
  void add_deep(AddedPicture& added, CountedPicture& picture, const SharedOptions& options,
                const Context& context, Preview* preview);
  void take_counted(const Space& space, ColorCounter& counter);
  void take_stored(const StoredColors& colors);
  void leave_out_incomplete(std::size_t first);
  void take_deep();
  std::size_t plane_of(const Feature& feature) const;

  std::vector<Channel> channels_;  // of the features, then what oklab needs besides
  std::vector<Feature> features_;  // of channels_
  std::size_t own_features_ = 0;   // the first ones, which the points are made of
  double hue_floor_;
  std::uint64_t seed_;
  std::deque<CountedColors> counted_colors_;  // pictures under way know their places
  std::deque<AddedPicture> pictures_;
  std::vector<StoredColors> stored_colors_;
  PixelSample held_;
  std::uint64_t deep_counted_ = 0;
  std::uint64_t deep_pictures_ = 0;
  HashLimit deep_limit_;  // what is dropped of one picture is none of the smallest of all either
  PointSet points_;       // of features_
  std::array<LargeVector<float>, 3> oklab_kept_;  // when the features are divided
  std::optional<ColorCounter> counted_colors_of_all_;
  std::uint64_t pixels_ = 0;
  std::uint64_t left_out_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_COLOR_POINTS_H_
