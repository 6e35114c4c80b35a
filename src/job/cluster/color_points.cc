#include "job/cluster/color_points.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/error.h"
#include "core/pixel/color_number.h"
#include "core/pixel/memory_source.h"
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

}  // namespace

ColorPoints::ColorPoints(const std::vector<Channel>& channels, double hue_floor, std::uint64_t seed)
    : channels_(with_oklab(channels)),
      features_(features_of(channels_)),
      own_features_(features_of(channels).size()),
      hue_floor_(hue_floor),
      seed_(seed),
      held_(features_.size()),
      planes_(features_.size()) {}

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

void ColorPoints::append(const float* values, double weight) {
  for (std::size_t f = 0; f < planes_.size(); ++f) planes_[f].push_back(values[f]);
  weights_.push_back(weight);
}

template <class Numbers>
void ColorPoints::take_table(const Space& space, ColorTable table, const Numbers& pixels) {
  PictureInfo info;
  info.shape = table.shape;
  info.space = &space;
  const FeaturePlan plan(info, channels_, {}, hue_floor_);
  MemorySource rows(table.shape, std::move(table.rgb));
  // The colors come first, then what fills up the last row.
  const std::size_t base = weights_.size();
  weights_.resize(base + table.colors);
  for (auto& plane : planes_) {
    plane.reserve(base + table.colors + kPlanePadding);  // as finish() needs
    plane.resize(base + table.colors);
  }
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, {}),
            evaluator = FeatureEvaluator(plan)](const Band& band) mutable {
      reader.for_each_block(band, [&](const Block& block) {
        evaluator.evaluate(block);
        const std::size_t first = static_cast<std::size_t>(block.first_pixel);
        const std::size_t n = std::min<std::size_t>(block.size, table.colors - first);
        for (std::size_t f = 0; f < planes_.size(); ++f)
          std::copy_n(evaluator.values()[f], n, planes_[f].data() + base + first);
        for (std::size_t i = 0; i < n; ++i)
          weights_[base + first + i] = static_cast<double>(pixels[first + i]);
      });
      return true;
    };
  };
  travel(rows, {}, make_worker, [](bool) {});
  leave_out_incomplete(base);
}

/// Takes away the points from `first` on of which some feature is not a number. Of 8-bit colors
/// only formulas have none: a missing hue has features too.
void ColorPoints::leave_out_incomplete(std::size_t first) {
  if (std::none_of(channels_.begin(), channels_.end(),
                   [](const Channel& c) { return c.derived != nullptr; }))
    return;
  std::size_t to = first;
  for (std::size_t i = first; i < weights_.size(); ++i) {
    if (std::any_of(planes_.begin(), planes_.end(),
                    [&](const auto& plane) { return std::isnan(plane[i]); })) {
      left_out_ += static_cast<std::uint64_t>(weights_[i]);
      pixels_ -= static_cast<std::uint64_t>(weights_[i]);
      continue;
    }
    for (auto& plane : planes_) plane[to] = plane[i];
    weights_[to++] = weights_[i];
  }
  weights_.resize(to);
  for (auto& plane : planes_) plane.resize(to);
}

/// In the order in which a counter has its colors, so that a table gives the points of its
/// pictures.
void ColorPoints::take_stored(StoredColors colors) {
  std::vector<std::pair<std::uint32_t, std::size_t>> order;
  for (std::size_t i = 0; i < colors.pixels.size(); ++i)
    order.emplace_back(color_number(reinterpret_cast<const std::byte*>(colors.rgb.data() + 3 * i)),
                       i);
  std::sort(order.begin(), order.end());
  ColorTable table;
  std::vector<std::uint64_t> pixels;
  for (const auto& [packed, i] : order) {
    for (std::size_t c = 0; c < 3; ++c)
      table.rgb.push_back(static_cast<std::byte>(colors.rgb[3 * i + c]));
    pixels.push_back(colors.pixels[i]);
  }
  table.colors = order.size();
  const std::size_t rows = (table.colors + kBlockPixels - 1) / kBlockPixels;
  table.shape = {static_cast<std::uint32_t>(kBlockPixels), static_cast<std::uint32_t>(rows), 3,
                 SampleType::kU8};
  table.rgb.resize(rows * table.shape.row_bytes());
  take_table(*colors.space, std::move(table), pixels);
}

void ColorPoints::take_deep() {
  if (held_.size() == 0) return;
  // Drawn pixels stand for all.
  const double weight = static_cast<double>(deep_counted_) / static_cast<double>(held_.size());
  for (std::size_t i = 0; i < held_.size(); ++i) append(held_.values(i), weight);
  held_.clear();
}

void ColorPoints::finish() {
  const bool one_kind =
      counted_colors_.size() == 1 && deep_pictures_ == 0 && stored_colors_.empty();
  for (CountedColors& colors : counted_colors_) {
    ColorCounter counter = colors.tally.take();
    ColorTable table = counter.table();
    if (one_kind) counted_colors_of_all_.emplace(std::move(counter));
    const LargeVector<std::uint32_t> pixels = std::move(table.counts);
    take_table(*colors.info.space, std::move(table), pixels);
  }
  if (left_out_ > 0) counted_colors_of_all_.reset();
  for (StoredColors& colors : stored_colors_) take_stored(std::move(colors));
  counted_colors_.clear();
  stored_colors_.clear();
  take_deep();
  size_ = weights_.size();
  for (auto& plane : planes_) plane.resize(size_ + kPlanePadding, 0.0f);
}

void ColorPoints::divide(const std::vector<double>& divisors) {
  if (divisors.empty()) return;
  for (std::size_t c = 0; c < 3; ++c)
    if (const std::size_t plane = plane_of({{&spaces::kOklab, c}}); plane < own_features_)
      oklab_kept_[c] = planes_[plane];
  for (std::size_t f = 0; f < own_features_; ++f) {
    const float factor = static_cast<float>(1 / divisors[f]);
    for (float& value : planes_[f]) value *= factor;
  }
}

std::size_t ColorPoints::plane_of(const Feature& feature) const {
  for (std::size_t f = 0; f < features_.size(); ++f)
    if (features_[f].channel == feature.channel && features_[f].part == feature.part) return f;
  return features_.size();
}

Points ColorPoints::points() const {
  Points points{size_, {}, weights_.data()};
  for (std::size_t f = 0; f < own_features_; ++f) points.features.push_back(planes_[f].data());
  return points;
}

Points ColorPoints::oklab() const {
  Points points{size_, {}, weights_.data()};
  for (std::size_t c = 0; c < 3; ++c)
    points.features.push_back(oklab_kept_[c].empty()
                                  ? planes_[plane_of({{&spaces::kOklab, c}})].data()
                                  : oklab_kept_[c].data());
  return points;
}

}  // namespace chalcedony
