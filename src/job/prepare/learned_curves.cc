#include "job/prepare/learned_curves.h"

#include <fmt/format.h>

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/stats/histogram.h"
#include "core/stats/hue_counts.h"
#include "core/stats/ranks.h"
#include "job/picture/counted_blocks.h"
#include "job/picture/tallies.h"
#include "job/prepare/colors_in_common.h"
#include "job/run/summary.h"

namespace chalcedony {
namespace {

constexpr double kBoldGuess = 50;         // percent of the counted pixels in one color
constexpr std::size_t kTableBins = 1024;  // of an equalizing curve

struct Statistics {
  std::vector<Ranks> ranks;
  std::vector<Histogram> spread;        // for curves that are tables
  std::optional<CubeHistogram> colors;  // of a picture that others are to be like
  HueCounts hues;
  std::uint64_t counted = 0;

  void merge(const Statistics& other) {
    for (std::size_t c = 0; c < ranks.size(); ++c) ranks[c].merge_coarse(other.ranks[c]);
    for (std::size_t c = 0; c < spread.size(); ++c) spread[c].merge(other.spread[c]);
    if (colors) colors->merge(*other.colors);
    hues += other.hues;
  }
};

class CurveLearner {
 public:
  CurveLearner(CountedPicture& picture, const CurveWish& wish, const Balance& balance,
               const std::vector<Channel>& channels, const SharedOptions& options,
               const Context& context)
      : picture_(picture),
        info_(picture.file.info),
        wish_(wish),
        balance_(balance),
        channels_(channels),
        context_(context),
        // Where the light is evened out, the place of a pixel has a say; a neutral patch is small.
        blocks_(balance.light || wish.neutral
                    ? CountedBlocks(picture, options, context, statistic_counting())
                    : CountedBlocks(picture, options, context, channels)) {}

  ChannelValues values() {
    std::vector<Binning> bins;
    for (std::size_t c = 0; c < channels_.size(); ++c)
      bins.push_back(matching_bins(range(c).low, range(c).high));
    const Statistics found = gather(bins, true);
    ChannelValues values{picture_.file.path, channels_, {}, {}, *found.colors};
    for (std::size_t c = 0; c < channels_.size(); ++c) {
      values.medians.push_back(double{found.ranks[c].percentile(50).value()});
      values.counts.push_back(counts_of(found.spread[c]));
    }
    return values;
  }

  /// Leaves the picture at its top row.
  LearnedCurves learn() {
    if (wish_.like && wish_.like->channels != channels_) refuse_other_channels();
    const Statistics found = gather(bins_of_curves(), wish_.like != nullptr);
    learned_.colors = found.colors;
    for (const Ranks& ranks : found.ranks)
      learned_.medians.push_back(double{ranks.percentile(50).value()});
    std::vector<double> shares;
    for (std::size_t c = 0; c < channels_.size(); ++c) {
      learned_.set.curves.push_back(levels(c, found.ranks[c]));
      const double width = range(c).high - range(c).low;
      shares.push_back((learned_.medians[c] - range(c).low) / width);
    }
    learned_.set.on_lightness = balance_.on_lightness;
    if (wish_.kind == CurveKind::kTable) {
      for (std::size_t c = 0; c < shares.size(); ++c) {
        const std::vector<double> counts = counts_of(found.spread[c]);
        learned_.set.curves[c] =
            wish_.like ? matching_curve(counts, wish_.like->counts[c]) : equalizing_curve(counts);
      }
    } else if (wish_.kind != CurveKind::kNone) {
      bend_to_target(shares);
      if (can_mistake_a_cast()) warn_of_one_color(found);
    }
    picture_.file.rows->rewind();
    return std::move(learned_);
  }

 private:
  const ChannelInfo& range(std::size_t c) const { return channels_[c].info(); }

  Counting statistic_counting() const {
    Counting counting = picture_.counting;
    if (wish_.neutral) counting.region = wish_.neutral->in(info_.shape.width, info_.shape.height);
    return counting;
  }

  /// Whether a picture of one color would mislead the curves.
  bool can_mistake_a_cast() const {
    const bool bends = wish_.kind != CurveKind::kNone && wish_.kind != CurveKind::kTable;
    return bends && !wish_.neutral && !wish_.like && channels_.size() == 3;
  }

  /// One pass; returns what did not count. `make_add()` is called once a thread; what it gives is
  /// called as `add(tally, block, channels)`.
  template <class Tally, class MakeAdd>
  Excluded pass(Tallies<Tally>& tallies, const MakeAdd& make_add) {
    Excluded excluded = blocks_.excluded();
    blocks_.pass(
        [&](CountedBlocks::Reader reader) {
          return [&, reader = std::move(reader), add = make_add(),
                  balancer = std::make_unique<Balancer>(blocks_.info(), balance_)](
                     const Band& band) mutable {
            reader.for_each_block(band, [&](const Block& block) {
              add(tallies.local(), block, balancer->channels(balancer->evened(block), block.size));
            });
            return reader.take_excluded();
          };
        },
        [&](const Excluded& band) { excluded += band; });
    return excluded;
  }

  [[noreturn]] void refuse_other_channels() const {
    std::vector<std::string> names;
    for (const Channel& channel : wish_.like->channels) names.push_back(channel.name());
    throw InputError(fmt::format("has not the channels of {}: {}", wish_.like->file.string(),
                                 fmt::join(names, ", ")),
                     "give a picture of the same kind, or convert one of them",
                     picture_.file.path.string());
  }

  /// Where values are counted for curves that are tables.
  std::vector<Binning> bins_of_curves() const {
    std::vector<Binning> bins;
    if (wish_.kind != CurveKind::kTable) return bins;
    for (std::size_t c = 0; c < channels_.size(); ++c)
      bins.push_back(wish_.like ? matching_bins(range(c).low, range(c).high)
                                : Binning(range(c).low, range(c).high, kTableBins));
    return bins;
  }

  /// `bins`: where the values of each channel are counted too; empty for nowhere. `colors`: whether
  /// those of whole pixels are.
  Statistics gather(const std::vector<Binning>& bins, bool colors) {
    Statistics empty;
    if (colors) empty.colors = empty_color_cube();
    empty.ranks.resize(channels_.size());
    for (const Binning& binning : bins) empty.spread.emplace_back(binning, false);
    const ChannelPlan hue_plan(blocks_.info(), {{&spaces::kHsv, 0}, {&spaces::kHsv, 1}});
    Tallies<Statistics> tallies(empty);
    const Excluded excluded = pass(tallies, [&] {
      return [&, hues = ChannelEvaluator(hue_plan), cube = ColorCubeCounter(blocks_.info())](
                 Statistics& mine, const Block& block, const ConstPlanes& channels) mutable {
        if (mine.colors) cube.add(block, block.color, *mine.colors);
        for (std::size_t c = 0; c < mine.ranks.size(); ++c)
          mine.ranks[c].add_coarse(block, channels[c]);
        for (std::size_t c = 0; c < mine.spread.size(); ++c) mine.spread[c].add(block, channels[c]);
        if (!can_mistake_a_cast()) return;
        hues.evaluate(block);
        mine.hues.add(block, hues.channel(0), hues.channel(1));
      };
    });
    Statistics found =
        tallies.merged([](Statistics& total, const Statistics& one) { total.merge(one); });
    found.counted = info_.shape.pixels() - excluded.total();
    require_counted(found.counted, picture_);
    std::vector<double> wanted{50};
    for (const auto& point : {wish_.black, wish_.white})
      if (point && point->percentile) wanted.push_back(point->value);
    bool again = false;
    for (Ranks& ranks : found.ranks) again |= ranks.refine(wanted);
    if (again) refine(found.ranks);
    return found;
  }

  void refine(std::vector<Ranks>& ranks) {
    Tallies<std::vector<Ranks>> tallies(ranks);
    pass(tallies, [] {
      return [](std::vector<Ranks>& mine, const Block& block, const ConstPlanes& channels) {
        for (std::size_t c = 0; c < mine.size(); ++c) mine[c].add_fine(block, channels[c]);
      };
    });
    ranks = tallies.merged([](std::vector<Ranks>& total, const std::vector<Ranks>& one) {
      for (std::size_t c = 0; c < total.size(); ++c) total[c].merge_fine(one[c]);
    });
  }

  /// Black and white point of a channel.
  ToneCurve levels(std::size_t c, const Ranks& ranks) const {
    const auto share = [&](const LevelPoint& point) {
      const double value =
          point.percentile ? double{ranks.percentile(point.value).value()} : point.value;
      return (value - range(c).low) / (range(c).high - range(c).low);
    };
    ToneCurve curve;
    if (wish_.black) curve.black = share(*wish_.black);
    if (wish_.white) curve.white = share(*wish_.white);
    if (!(curve.white > curve.black))
      throw InputError(
          "the white point of " + channels_[c].name() + " does not lie above its black point",
          "give points further apart", picture_.file.path.string());
    return curve;
  }

  /// Values beyond the range stand at its ends.
  static std::vector<double> counts_of(const Histogram& spread) {
    std::vector<double> counts;
    for (std::size_t b = 0; b < spread.binning().bins(); ++b)
      counts.push_back(static_cast<double>(spread.count(b)));
    counts.front() += static_cast<double>(spread.below());
    counts.back() += static_cast<double>(spread.above());
    return counts;
  }

  void bend_to_target(const std::vector<double>& shares) {
    double target = 0;
    for (std::size_t c = 0; c < shares.size(); ++c) {
      const double t = learned_.set.curves[c].at(shares[c]);
      if (!(t > 0 && t < 1))
        throw InputError(fmt::format("half of what counts is {} in {}, and no curve moves that",
                                     t > 0 ? "white" : "black", channels_[c].name()),
                         "count another part with --region, or set other points",
                         picture_.file.path.string());
      target += t / static_cast<double>(shares.size());
    }
    if (wish_.target) target = (*wish_.target - range(0).low) / (range(0).high - range(0).low);
    for (std::size_t c = 0; c < shares.size(); ++c) {
      if (wish_.like)
        target = (wish_.like->medians[c] - range(c).low) / (range(c).high - range(c).low);
      bend(learned_.set.curves[c], wish_.kind, shares[c], target);
    }
  }

  void warn_of_one_color(const Statistics& found) const {
    const HueCounts::Window most = found.hues.fullest();
    const double share = percent(most.pixels, found.counted);
    if (share <= kBoldGuess) return;
    context_.warn(fmt::format(
        "{}: one color (hues {} to {}) fills {:.0f} % of what counts, and common medians take it "
        "for a cast; --neutral balances on a patch that should be gray",
        picture_.file.path.string(), most.first, (most.first + HueCounts::kWindow) % 360, share));
  }

  CountedPicture& picture_;
  const PictureInfo& info_;
  const CurveWish& wish_;
  const Balance& balance_;
  const std::vector<Channel>& channels_;
  const Context& context_;
  CountedBlocks blocks_;
  LearnedCurves learned_;
};

}  // namespace

ChannelValues channel_values(CountedPicture& picture, const Balance& balance,
                             const std::vector<Channel>& channels, const SharedOptions& options,
                             const Context& context) {
  return CurveLearner(picture, {}, balance, channels, options, context).values();
}

LearnedCurves learn_curves(CountedPicture& picture, const CurveWish& wish, const Balance& balance,
                           const std::vector<Channel>& channels, const SharedOptions& options,
                           const Context& context) {
  return CurveLearner(picture, wish, balance, channels, options, context).learn();
}

}  // namespace chalcedony
