#include "job/select/derived_selection.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <optional>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/learn/sample_shape.h"
#include "core/select/likeness.h"
#include "core/stats/otsu.h"
#include "io/text/number_text.h"
#include "job/histogram/channel_histogram.h"
#include "job/learn/sample_places.h"
#include "job/select/like_places.h"

namespace chalcedony {
namespace {

constexpr std::size_t kThresholdBins = 1024;

/// Four significant digits are enough for the numbers of a quadratic form.
std::string short_number(double value) {
  if (value == 0) return "0";
  const double scale = std::pow(10.0, 4 - std::ceil(std::log10(std::abs(value))));
  return number_text(std::round(value * scale) / scale);
}

/// Of --like and of --unlike.
using Both = std::array<SampleValues, 2>;

std::vector<SampleRun> runs_of(const LikePlaces& places, const RasterShape& shape,
                               const SharedOptions& options) {
  SampleSet samples;
  samples.classes = {{"like", ""}, {"unlike", ""}};
  for (const std::string& text : places.like) add_places(text, 0, shape, options, samples);
  for (const std::string& text : places.unlike) add_places(text, 1, shape, options, samples);
  return sample_runs(samples, shape.width, shape.height);
}

/// Adds the values of the sample pixels of a picture that count.
void add_values(CountedPicture& picture, const std::vector<SampleRun>& runs,
                const std::vector<Channel>& channels, const SharedOptions& options,
                const Context& context, Both& all) {
  const ChannelPlan plan(picture.file.info, channels, options.hue_floor);
  const Both empty{SampleValues(channels.size()), SampleValues(channels.size())};
  const auto make_worker = [&] {
    return [&, reader = BlockReader(picture.file.info, picture.counting),
            evaluator = ChannelEvaluator(plan)](const Band& band) mutable {
      Both out = empty;
      reader.for_each_block(band, [&](const Block& block) {
        bool evaluated = false;
        for_each_sample_pixel(runs, block.picture_width, block.first_pixel,
                              block.first_pixel + block.size,
                              [&](const SampleRun& run, std::uint64_t pixel) {
                                if (!evaluated) evaluator.evaluate(block);
                                evaluated = true;
                                const auto i = static_cast<std::size_t>(pixel - block.first_pixel);
                                if (!block.counts(i)) return;
                                for (std::size_t c = 0; c < channels.size(); ++c)
                                  out[run.sample_class][c].push_back(evaluator.channel(c)[i]);
                              });
      });
      return out;
    };
  };
  travel(*picture.file.rows, road_for(picture, options, context), make_worker, [&](Both&& band) {
    for (std::size_t side = 0; side < 2; ++side)
      for (std::size_t c = 0; c < channels.size(); ++c)
        all[side][c].insert(all[side][c].end(), band[side][c].begin(), band[side][c].end());
  });
  picture.file.rows->rewind();
}

/// The values of the samples on all inputs.
Both sample_values(CountedPicture& first, const LikeOptions& like,
                   const std::vector<Channel>& channels, const SharedOptions& options,
                   const Context& context) {
  Both all{SampleValues(channels.size()), SampleValues(channels.size())};
  const std::vector<LikePlaces> places =
      places_of_inputs(like.like, like.unlike, options.inputs, *context.ledger);
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (places[i].empty()) continue;
    std::optional<CountedPicture> other;
    if (i > 0) other = open_counted(options.inputs[i], options, without_warnings(context));
    CountedPicture& picture = other ? *other : first;
    errors_at(picture.file.path.string(), [&] {
      add_values(picture, runs_of(places[i], picture.shape(), options), channels, options, context,
                 all);
    });
  }
  return all;
}

/// Leaves out the channels that no sample has a value of: a range of a hue takes no gray.
void leave_out_missing(std::vector<Channel>& channels, SampleValues& like, SampleValues& unlike) {
  for (std::size_t c = channels.size(); c-- > 0;) {
    if (!std::all_of(like[c].begin(), like[c].end(), [](float v) { return std::isnan(v); }))
      continue;
    const auto at = static_cast<std::ptrdiff_t>(c);
    channels.erase(channels.begin() + at);
    like.erase(like.begin() + at);
    unlike.erase(unlike.begin() + at);
  }
}

std::string ranges_text(const std::vector<Channel>& channels,
                        const std::vector<ValueRange>& ranges) {
  std::string text;
  for (std::size_t c = 0; c < channels.size(); ++c)
    text += (c ? " and " : "") + channels[c].name() + " in " + number_text(ranges[c].low) + ".." +
            number_text(ranges[c].high);
  return text;
}

/// The squared distance written out in the selection language.
std::string ellipsoid_text(const std::vector<Channel>& channels, const LikeEllipsoid& e) {
  const auto off = [&](std::size_t c) {
    const double mean = e.mean[static_cast<Eigen::Index>(c)];
    const std::string number = short_number(std::abs(mean));
    return "(" + channels[c].name() + (mean < 0 ? " + " : " - ") + number + ")";
  };
  std::string text;
  for (std::size_t a = 0; a < 3; ++a)
    for (std::size_t b = a; b < 3; ++b) {
      const double factor = (a == b ? 1 : 2) * e.inverse_covariance(static_cast<Eigen::Index>(a),
                                                                    static_cast<Eigen::Index>(b));
      text += text.empty() ? "" : factor < 0 ? " - " : " + ";
      text += short_number(std::abs(factor)) + " * " + off(a) + " * " + off(b);
    }
  return text + " <= " + short_number(e.limit);
}

}  // namespace

DerivedSelection like_selection(CountedPicture& first, const LikeOptions& like,
                                const SharedOptions& options, const Context& context) {
  const std::string path = first.file.path.string();
  std::vector<Channel> channels = like.channels.empty() ? channels_of(spaces::kLab) : like.channels;
  auto [on, off] = sample_values(first, like, channels, options, context);
  if (on[0].empty())
    throw InputError("no pixel of the samples counts", "choose other places for --like", path);
  leave_out_missing(channels, on, off);
  if (channels.empty())
    throw InputError("no pixel of the samples has a value of the channels",
                     "name others with --channels: a gray has no hue", path);
  DerivedSelection out;
  double kept = 0, passed = 0;
  if (like.by == LikeBy::kRanges) {
    std::vector<ValueRange> ranges = middle_ranges(channels, on, like.coverage);
    if (!off[0].empty()) narrow_ranges(channels, on, off, ranges);
    out.where = ranges_text(channels, ranges);
    kept = share_within(ranges, on);
    passed = share_within(ranges, off);
  } else {
    const LikeEllipsoid ellipsoid = gaussian_likeness(channels, on, like.coverage);
    out.where = ellipsoid_text(channels, ellipsoid);
    kept = share_within(ellipsoid, on);
    passed = share_within(ellipsoid, off);
  }
  out.facts = {{"like_pixels", on[0].size()}, {"like_kept_percent", 100 * kept}};
  if (!like.unlike.empty()) {
    out.facts["unlike_pixels"] = off[0].size();
    out.facts["unlike_passed_percent"] = 100 * passed;
  }
  return out;
}

DerivedSelection auto_selection(CountedPicture& picture, const Channel& channel,
                                const SharedOptions& options, const Context& context) {
  const auto [binning, counts] = channel_counts(picture, channel, kThresholdBins, options, context);
  const TwoParts parts = part_in_two(counts);
  if (parts.first_above == 0)
    throw InputError("has one value only in " + channel.name() + ", so no threshold parts it",
                     "choose another channel", picture.file.path.string());
  const double threshold = std::round(binning.edge(parts.first_above) * 1e6) / 1e6;
  return {channel.name() + " >= " + number_text(threshold),
          {{"threshold", threshold}, {"parted_percent", 100 * parts.parted}}};
}

}  // namespace chalcedony
