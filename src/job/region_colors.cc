#include "job/region_colors.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/color/channel_plan.h"
#include "core/color/css_color.h"
#include "core/error.h"

namespace chalcedony {
namespace {

/// Channel values as 16-bit codes over the channel's usual range.
struct CodeScale {
  double low = 0, step = 1;

  explicit CodeScale(const Channel& channel) {
    if (channel.is_stored()) {
      step = 1;
      return;
    }
    const ChannelInfo& info = channel.info();
    low = info.low;
    step = (info.high - info.low) / 65535;
  }
  std::uint16_t code(float value) const {
    const double steps = (static_cast<double>(value) - low) / step;
    return static_cast<std::uint16_t>(std::lround(std::clamp(steps, 0.0, 65535.0)));
  }
  double value(double code) const { return low + step * code; }
};

/// The values of a band, NaN where a pixel does not count.
struct ValueBand {
  std::uint32_t rows = 0;
  std::vector<std::vector<float>> planes;
};

/// What adds up for one channel in one region.
struct ValueSums {
  double count = 0, sum = 0, squares = 0, cosines = 0, sines = 0;
  std::vector<std::uint16_t> codes;
};

ChannelFigures figures_of(ValueSums& sums, const Channel& channel, const CodeScale& scale) {
  ChannelFigures out;
  if (sums.count == 0) return out;
  if (channel.is_hue()) {
    const double degrees = std::atan2(sums.sines, sums.cosines) * 180 / std::numbers::pi;
    out.mean = degrees < 0 ? degrees + 360 : degrees;
    return out;
  }
  out.mean = sums.sum / sums.count;
  out.spread = std::sqrt(std::max(0.0, sums.squares / sums.count - *out.mean * *out.mean));
  const std::size_t half = sums.codes.size() / 2;
  const auto middle = sums.codes.begin() + static_cast<std::ptrdiff_t>(half);
  std::nth_element(sums.codes.begin(), middle, sums.codes.end());
  double code = *middle;
  if (sums.codes.size() % 2 == 0) code = (code + *std::max_element(sums.codes.begin(), middle)) / 2;
  out.median = scale.value(code);
  return out;
}

class ColorSums {
 public:
  ColorSums(const std::vector<Channel>& channels, std::size_t own, std::size_t regions)
      : channels_(channels), own_(own), sums_(regions, std::vector<ValueSums>(channels.size())) {
    for (const Channel& channel : channels) scales_.emplace_back(channel);
  }

  void add(std::uint32_t region, const ValueBand& band, std::size_t begin, std::size_t end) {
    for (std::size_t c = 0; c < channels_.size(); ++c) {
      ValueSums& sums = sums_[region][c];
      for (std::size_t i = begin; i < end; ++i) {
        const float value = band.planes[c][i];
        if (!std::isfinite(value)) continue;
        const double v = static_cast<double>(value);
        ++sums.count;
        sums.sum += v;
        sums.squares += v * v;
        if (c >= own_) continue;
        if (channels_[c].is_hue()) {
          sums.cosines += std::cos(v * std::numbers::pi / 180);
          sums.sines += std::sin(v * std::numbers::pi / 180);
        } else {
          sums.codes.push_back(scales_[c].code(value));
        }
      }
    }
  }

  std::vector<RegionColors> colors() {
    std::vector<RegionColors> all;
    for (auto& region : sums_) {
      RegionColors& out = all.emplace_back();
      for (std::size_t c = 0; c < own_; ++c)
        out.channels.push_back(figures_of(region[c], channels_[c], scales_[c]));
      const ValueSums* const oklab = region.data() + own_;
      if (oklab[0].count > 0)
        out.mean_color = css_hex({&spaces::kOklab,
                                  {oklab[0].sum / oklab[0].count, oklab[1].sum / oklab[1].count,
                                   oklab[2].sum / oklab[2].count}});
      region.clear();
    }
    return all;
  }

 private:
  const std::vector<Channel>& channels_;
  std::size_t own_;  // the channels asked for; oklab follows
  std::vector<CodeScale> scales_;
  std::vector<std::vector<ValueSums>> sums_;
};

ValueBand values_of(const Band& band, BlockReader& reader, ChannelEvaluator& evaluator,
                    Preview::Collector& collector, std::size_t channels) {
  ValueBand out;
  out.rows = band.rows();
  const std::size_t pixels = std::size_t{band.rows()} * band.shape().width;
  out.planes.assign(channels, std::vector<float>(pixels));
  std::size_t at = 0;
  reader.for_each_block(band, [&](const Block& block) {
    evaluator.evaluate(block);
    collector.add(block);
    for (std::size_t c = 0; c < channels; ++c)
      for (std::size_t i = 0; i < block.size; ++i)
        out.planes[c][at + i] =
            block.counts(i) ? evaluator.channel(c)[i] : std::numeric_limits<float>::quiet_NaN();
    at += block.size;
  });
  return out;
}

}  // namespace

std::vector<RegionColors> region_colors(CountedPicture& image, LabelFile& labels,
                                        Connectivity connectivity,
                                        const std::vector<std::uint32_t>& region_of_part,
                                        std::size_t regions, const std::vector<Channel>& channels,
                                        Preview& preview, const SharedOptions& options,
                                        const Context& context) {
  const RasterShape& shape = labels.rows->shape();
  if (image.shape().width != shape.width || image.shape().height != shape.height)
    throw InputError(
        "is " + image.shape().size_text() + ", the regions are of " + shape.size_text(),
        "give the picture the regions belong to", image.file.path.string());
  std::vector<Channel> all = channels;
  for (const Channel& channel : channels_of(spaces::kOklab)) all.push_back(channel);
  const ChannelPlan plan(image.file.info, all, options.hue_floor);
  const auto make_worker = [&] {
    return [&, reader = BlockReader(image.file.info, image.counting),
            evaluator = ChannelEvaluator(plan),
            collector = Preview::Collector(preview)](const Band& band) mutable {
      return values_of(band, reader, evaluator, collector, all.size());
    };
  };
  ColorSums sums(all, channels.size(), regions);
  RunLinker linker(shape.width, connectivity);
  labels.rows->rewind();
  LabelRows rows(labels);
  travel(*image.file.rows, road_for(image, options, context), make_worker, [&](ValueBand&& band) {
    for (std::uint32_t y = 0; y < band.rows; ++y)
      for (const RegionRun& run : linker.add_row(rows.next())) {
        const std::size_t at = std::size_t{y} * shape.width;
        sums.add(region_of_part[run.part], band, at + run.begin, at + run.end);
      }
  });
  return sums.colors();
}

}  // namespace chalcedony
