#include "job/cluster/color_points.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/arena.h"
#include "core/error.h"
#include "core/per_thread.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/color_number.h"
#include "core/pixel/pixel_hash.h"
#include "job/picture/counted_blocks.h"

namespace chalcedony {
namespace {

/// What is drawn of a band.
struct DeepBand {
  PixelSample sample;
  Excluded excluded;
};

std::vector<Channel> with_oklab(std::vector<Channel> channels) {
  for (const Channel& channel : channels_of(spaces::kOklab))
    if (std::find(channels.begin(), channels.end(), channel) == channels.end())
      channels.push_back(channel);
  return channels;
}

/// Works out the features of 8-bit colors of one space, on several threads at once.
class FeaturesOfColors {
 public:
  FeaturesOfColors(const Space& space, const std::vector<Channel>& channels, double hue_floor)
      : info_(info_of(space)), plan_(info_, channels, {}, hue_floor), workers_([this] {
          return Worker{BlockReader(info_, {}), FeatureEvaluator(plan_)};
        }) {}

  /// Of n interleaved colors, at most kBlockPixels. An array for each feature, which the calling
  /// thread has until it asks again.
  const std::vector<const float*>& of(const std::byte* rgb, std::size_t n) {
    Worker& worker = workers_.local();
    worker.evaluator.evaluate(worker.reader.read(rgb, 0, n));
    return worker.evaluator.values();
  }

 private:
  struct Worker {
    BlockReader reader;
    FeatureEvaluator evaluator;
  };

  static PictureInfo info_of(const Space& space) {
    PictureInfo info;
    info.shape = {static_cast<std::uint32_t>(kBlockPixels), 1, 3, SampleType::kU8};
    info.space = &space;
    return info;
  }

  PictureInfo info_;
  FeaturePlan plan_;
  PerThread<Worker> workers_;
};

}  // namespace

ColorPoints::ColorPoints(const std::vector<Channel>& channels, double hue_floor, std::uint64_t seed)
    : channels_(with_oklab(channels)),
      features_(features_of(channels_)),
      own_features_(features_of(channels).size()),
      hue_floor_(hue_floor),
      seed_(seed),
      held_(features_.size()),
      points_(features_.size()) {}

ColorPoints::CountedColors& ColorPoints::counter_for(const PictureInfo& info) {
  for (CountedColors& colors : counted_colors_)
    if (colors.info.space == info.space &&
        colors.pixels + info.shape.pixels() <= std::numeric_limits<std::uint32_t>::max())
      return colors;
  return counted_colors_.emplace_back(info);
}

ColorPoints::Place ColorPoints::place_for(const PictureInfo& info) {
  Place place{&pictures_.emplace_back(), nullptr};
  if (!colors_tell(info, channels_)) {
    place.picture->deep_number = ++deep_pictures_;
    return place;
  }
  place.colors = &counter_for(info);
  place.colors->pixels += info.shape.pixels();
  return place;
}

void ColorPoints::add(const Place& place, CountedPicture& picture, const SharedOptions& options,
                      const Context& context, Preview* preview) {
  AddedPicture& added = *place.picture;
  if (!place.colors) {
    add_deep(added, picture, options, context, preview);
  } else {
    added.excluded = count_colors(picture, options, context, preview, place.colors->tally);
    added.counted = picture.shape().pixels() - added.excluded.total();
  }
  require_counted(added.counted, picture);
}

void ColorPoints::take(const Place& place) {
  AddedPicture& added = *place.picture;
  pixels_ += added.counted;
  left_out_ += added.left_out;
  if (place.colors) return;
  deep_counted_ += added.counted;
  held_.append(*added.held);
  added.held.reset();
  held_.keep_smallest(kMostHeldPixels, deep_limit_);
}

void ColorPoints::add(const StoredColors& colors) {
  if (std::any_of(channels_.begin(), channels_.end(),
                  [](const Channel& c) { return needs_stored(c); }))
    throw InputError("a table of colors has no channels of a file", "choose channels of a space");
  pictures_.emplace_back().counted = colors.all_pixels();
  pixels_ += colors.all_pixels();
  stored_colors_.push_back(colors);
}

void ColorPoints::add_deep(AddedPicture& added, CountedPicture& picture,
                           const SharedOptions& options, const Context& context, Preview* preview) {
  const PictureInfo& info = picture.file.info;
  const FeaturePlan plan(info, channels_, {}, hue_floor_);
  const std::uint64_t picture_seed = mixed_bits(seed_) + added.deep_number;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, picture.counting), evaluator = FeatureEvaluator(plan),
            collector = collector_for(preview)](const Band& band) mutable {
      DeepBand out{PixelSample(features_.size()), {}};
      reader.for_each_block(band, [&](const Block& block) {
        if (collector) collector->add(block);
        if (block.counted_size == 0) return;
        evaluator.evaluate(block);
        out.sample.add(block, evaluator, picture_seed, deep_limit_.now());
      });
      out.excluded = reader.take_excluded();
      return out;
    };
  };
  PixelSample& held = added.held.emplace(features_.size());
  travel(*picture.file.rows, road_for(picture, options, context), make_worker,
         [&](const DeepBand& band) {
           held.append(band.sample);
           if (held.size() >= kMostHeldPixels + kMostHeldPixels / 4)
             held.keep_smallest(kMostHeldPixels, deep_limit_);
           added.excluded += band.excluded;
         });
  held.keep_smallest(kMostHeldPixels, deep_limit_);
  added.counted = held.counted();
  added.left_out = held.left_out();
}

void ColorPoints::take_counted(const Space& space, ColorCounter& counter) {
  const std::size_t base = points_.size();
  points_.grow(counter.colors());
  FeaturesOfColors features(space, channels_, hue_floor_);
  counter.for_each_piece([&](const ColorPiece& piece) {
    points_.set(base + piece.first, piece.size, features.of(piece.rgb, piece.size), piece.pixels);
  });
  leave_out_incomplete(base);
}

/// In the order in which a counter has its colors, so that a table gives the points of its
/// pictures.
void ColorPoints::take_stored(const StoredColors& colors) {
  std::vector<std::pair<std::uint32_t, std::size_t>> order;
  for (std::size_t i = 0; i < colors.pixels.size(); ++i)
    order.emplace_back(color_number(reinterpret_cast<const std::byte*>(colors.rgb.data() + 3 * i)),
                       i);
  std::sort(order.begin(), order.end());
  std::vector<std::byte> rgb;
  std::vector<std::uint64_t> pixels;
  for (const auto& [number, i] : order) {
    for (const std::byte code : color_of_number(number)) rgb.push_back(code);
    pixels.push_back(colors.pixels[i]);
  }
  const std::size_t base = points_.size();
  points_.grow(pixels.size());
  FeaturesOfColors features(*colors.space, channels_, hue_floor_);
  for (std::size_t at = 0; at < pixels.size(); at += kBlockPixels) {
    const std::size_t n = std::min(kBlockPixels, pixels.size() - at);
    points_.set(base + at, n, features.of(rgb.data() + 3 * at, n), pixels.data() + at);
  }
  leave_out_incomplete(base);
}

/// Takes away the points from `first` on that have no number for a feature. Of 8-bit colors only
/// formulas have none: a missing hue has features too.
void ColorPoints::leave_out_incomplete(std::size_t first) {
  if (std::none_of(channels_.begin(), channels_.end(),
                   [](const Channel& c) { return c.derived != nullptr; }))
    return;
  const auto removed = static_cast<std::uint64_t>(points_.remove_incomplete(first));
  left_out_ += removed;
  pixels_ -= removed;
}

void ColorPoints::take_deep() {
  if (held_.size() == 0) return;
  // Drawn pixels stand for all.
  const double weight = static_cast<double>(deep_counted_) / static_cast<double>(held_.size());
  for (std::size_t i = 0; i < held_.size(); ++i) points_.append(held_.values(i), weight);
  held_.clear();
}

void ColorPoints::finish(unsigned threads) {
  const bool one_kind =
      counted_colors_.size() == 1 && deep_pictures_ == 0 && stored_colors_.empty();
  in_arena(threads, [&] {
    for (CountedColors& colors : counted_colors_) {
      ColorCounter counter = colors.tally.take();
      take_counted(*colors.info.space, counter);
      if (one_kind) counted_colors_of_all_.emplace(std::move(counter));
    }
  });
  if (left_out_ > 0) counted_colors_of_all_.reset();
  for (const StoredColors& colors : stored_colors_) take_stored(colors);
  counted_colors_.clear();
  stored_colors_.clear();
  take_deep();
  points_.pad();
}

void ColorPoints::divide(const std::vector<double>& divisors) {
  if (divisors.empty()) return;
  for (std::size_t c = 0; c < 3; ++c)
    if (const std::size_t plane = plane_of({{&spaces::kOklab, c}}); plane < own_features_)
      oklab_kept_[c] = points_.plane(plane);
  for (std::size_t f = 0; f < own_features_; ++f)
    points_.multiply(f, static_cast<float>(1 / divisors[f]));
}

std::size_t ColorPoints::plane_of(const Feature& feature) const {
  for (std::size_t f = 0; f < features_.size(); ++f)
    if (features_[f].channel == feature.channel && features_[f].part == feature.part) return f;
  return features_.size();
}

Points ColorPoints::oklab() const {
  Points points = points_.first_features(0);
  for (std::size_t c = 0; c < 3; ++c)
    points.features.push_back(oklab_kept_[c].empty()
                                  ? points_.plane(plane_of({{&spaces::kOklab, c}})).data()
                                  : oklab_kept_[c].data());
  return points;
}

}  // namespace chalcedony
