#include "job/spot/spot_colors.h"

#include <cmath>
#include <limits>
#include <optional>
#include <utility>

#include "core/balance/patch_sums.h"
#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/error.h"

namespace chalcedony {
namespace {

/// What a band adds.
struct SpotBand {
  PatchSums sums;                          // of XYZ and Lab
  std::vector<std::size_t> spots;          // of the pixels whose values follow, in order
  std::vector<std::vector<float>> values;  // of the channels that were asked for
};

/// One for each thread.
class SpotPicker {
 public:
  /// `color`: of XYZ and Lab; `asked`: of the channels that were asked for, or null.
  SpotPicker(const CountedPicture& picture, const ChannelPlan& color, const ChannelPlan* asked,
             const std::vector<SampleRun>& runs, const PatchSums& empty, Preview& preview)
      : runs_(&runs),
        empty_(&empty),
        reader_(picture.file.info, picture.counting),
        color_(color),
        collector_(preview) {
    if (asked) asked_.emplace(*asked);
    channels_ = asked ? asked->channels().size() : 0;
  }

  SpotBand operator()(const Band& band) {
    SpotBand out{*empty_, {}, std::vector<std::vector<float>>(channels_)};
    reader_.for_each_block(band, [&](const Block& block) {
      collector_.add(block);
      const std::uint64_t first = block.first_pixel, end = first + block.size;
      if (!has_sample_pixel(*runs_, block.picture_width, first, end)) return;
      color_.evaluate(block);
      std::array<const float*, PatchSum::kMostPlanes> planes{};
      for (std::size_t c = 0; c < planes.size(); ++c) planes[c] = color_.channel(c);
      out.sums.add(block, planes, *runs_);
      if (asked_) pick(block, out);
    });
    return out;
  }

 private:
  void pick(const Block& block, SpotBand& out) {
    asked_->evaluate(block);
    const std::uint64_t first = block.first_pixel;
    for_each_sample_pixel(*runs_, block.picture_width, first, first + block.size,
                          [&](const SampleRun& run, std::uint64_t pixel) {
                            const auto i = static_cast<std::size_t>(pixel - first);
                            if (!block.counts(i)) return;
                            out.spots.push_back(run.sample_class);
                            for (std::size_t c = 0; c < channels_; ++c)
                              out.values[c].push_back(asked_->channel(c)[i]);
                          });
  }

  const std::vector<SampleRun>* runs_;
  const PatchSums* empty_;
  BlockReader reader_;
  ChannelEvaluator color_;
  std::optional<ChannelEvaluator> asked_;
  std::size_t channels_ = 0;
  Preview::Collector collector_;
};

void add_values(const SpotBand& band, RegionValues& values) {
  for (std::size_t begin = 0, end = 0; begin < band.spots.size(); begin = end) {
    while (end < band.spots.size() && band.spots[end] == band.spots[begin]) ++end;
    values.add(band.spots[begin], band.values, begin, end);
  }
}

/// The value at which a channel of the picture may be cut off.
float full_scale_of(const PictureInfo& info) {
  return info.space->is_rgb && !info.is_float() ? 255 : std::numeric_limits<float>::infinity();
}

std::vector<Channel> color_channels() {
  std::vector<Channel> channels = channels_of(spaces::kXyzD50);
  for (const Channel& channel : channels_of(spaces::kLab)) channels.push_back(channel);
  return channels;
}

SpotColor spot_color(const std::string& name, const PatchSum& sum) {
  SpotColor spot;
  spot.name = name;
  spot.pixels = sum.pixels;
  spot.full_percent = percent(sum.full, sum.pixels);
  const Color light{&spaces::kXyzD50, sum.mean()};
  spot.lab = light.in(spaces::kLab);
  spot.css = css_hex(light);
  spot.spread = std::sqrt(sum.variance(3) + sum.variance(4) + sum.variance(5));
  return spot;
}

}  // namespace

std::vector<SpotColor> read_spots(CountedPicture& picture, const NamedSamples& spots,
                                  const std::vector<Channel>& channels, Preview& preview,
                                  const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  const std::vector<SampleClass>& classes = spots.samples.classes;
  const std::vector<SampleRun> runs = errors_at(
      spots.from, [&] { return sample_runs(spots.samples, info.shape.width, info.shape.height); });
  RegionValues values(channels, classes.size());
  const ChannelPlan color(info, color_channels(), options.hue_floor);
  std::optional<ChannelPlan> asked;
  if (!channels.empty()) asked.emplace(info, values.channels(), options.hue_floor);
  const PatchSums empty(classes.size(), full_scale_of(info));
  PatchSums sums = empty;
  travel(
      *picture.file.rows, road_for(picture, options, context),
      [&] { return SpotPicker(picture, color, asked ? &*asked : nullptr, runs, empty, preview); },
      [&](SpotBand&& band) {
        sums += band.sums;
        add_values(band, values);
      });
  std::vector<RegionColors> figures = values.take_colors();
  std::vector<SpotColor> colors;
  for (std::size_t s = 0; s < classes.size(); ++s) {
    if (sums[s].pixels == 0)
      throw InputError("the spot '" + classes[s].name + "' has no pixel that counts",
                       "draw it larger, or leave it out", spots.from);
    colors.push_back(spot_color(classes[s].name, sums[s]));
    colors.back().channels = std::move(figures[s].channels);
  }
  return colors;
}

}  // namespace chalcedony
