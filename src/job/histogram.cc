#include "job/histogram.h"

#include <algorithm>

#include "core/color/channel_plan.h"
#include "core/pixel/memory_source.h"
#include "core/stats/histogram.h"
#include "figure/histogram_figure.h"
#include "io/csv.h"
#include "job/counted_colors.h"
#include "job/inputs.h"
#include "job/preview.h"
#include "job/tallies.h"

namespace chalcedony {
namespace {

constexpr std::size_t kDefaultBins = 256;
// 3 degrees of hue and 2 % of saturation; else what a small page shows well.
constexpr std::pair<std::size_t, std::size_t> kHueSaturationBins{120, 50};
constexpr std::pair<std::size_t, std::size_t> kOtherJointBins{64, 64};

bool is_hue_saturation(const Channel& first, const Channel& second) {
  return first.is_hue() && !second.is_stored() && second.space == first.space &&
         second.space->channels[second.index].name == "s";
}

struct HistogramTally {
  std::vector<Histogram> channels;
  std::vector<JointHistogram> joint;
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t near_gray = 0;

  void merge(const HistogramTally& other) {
    for (std::size_t i = 0; i < channels.size(); ++i) channels[i].merge(other.channels[i]);
    for (std::size_t i = 0; i < joint.size(); ++i) joint[i].merge(other.joint[i]);
    excluded += other.excluded;
    clipped += other.clipped;
    near_gray += other.near_gray;
  }
};

/// The channels of an option list without repeats, and where each stands.
class ChannelList {
 public:
  std::size_t place_of(const Channel& channel) {
    const auto at = std::find(channels_.begin(), channels_.end(), channel);
    const auto place = static_cast<std::size_t>(at - channels_.begin());
    if (at == channels_.end()) channels_.push_back(channel);
    return place;
  }
  const std::vector<Channel>& channels() const { return channels_; }

 private:
  std::vector<Channel> channels_;
};

class HistogramJob {
 public:
  HistogramJob(const std::filesystem::path& input, const HistogramOptions& options,
               const Context& context)
      : options_(options),
        context_(context),
        picture_(open_counted(input, options.shared, context)) {
    ChannelList list;
    for (const Channel& channel : options.channels)
      channel_places_.push_back(list.place_of(channel));
    for (const auto& [first, second] : options.joint)
      joint_places_.emplace_back(list.place_of(first), list.place_of(second));
    channels_ = list.channels();
  }

  HistogramTally count(Preview& preview) {
    return colors_tell(info(), channels_) ? count_by_color(preview) : count_pixels(preview);
  }

  const CountedPicture& picture() const { return picture_; }
  const PictureInfo& info() const { return picture_.file.info; }

 private:
  /// Counts every Block that `blocks_of(band, use)` hands on, on all threads.
  template <class MakeBlocks>
  HistogramTally count_blocks(RowSource& rows, const RoadOptions& road, const ChannelPlan& plan,
                              MakeBlocks make_blocks) {
    Tallies<HistogramTally> tallies(empty());
    const auto make_worker = [&] {
      return
          [&, blocks = make_blocks(), channels = ChannelEvaluator(plan)](const Band& band) mutable {
            HistogramTally& tally = tallies.local();
            tally.excluded += blocks(band, [&](const Block& block) {
              channels.evaluate(block);
              for (std::size_t i = 0; i < channel_places_.size(); ++i)
                tally.channels[i].add(block, channels.channel(channel_places_[i]));
              for (std::size_t i = 0; i < joint_places_.size(); ++i)
                tally.joint[i].add(block, channels.channel(joint_places_[i].first),
                                   channels.channel(joint_places_[i].second));
            });
            tally.clipped += channels.take_clipped();
            tally.near_gray += channels.take_near_gray();
            return true;
          };
    };
    travel(rows, road, make_worker, [](bool) {});
    return tallies.merged(
        [](HistogramTally& total, const HistogramTally& one) { total.merge(one); });
  }

  HistogramTally count_pixels(Preview& preview) {
    const ChannelPlan plan(info(), channels_, options_.shared.hue_floor);
    const auto make_blocks = [&] {
      return [reader = BlockReader(info(), picture_.counting),
              collector = Preview::Collector(preview)](const Band& band, auto use) mutable {
        reader.for_each_block(band, [&](const Block& block) {
          collector.add(block);
          if (block.counted_size > 0) use(block);
        });
        return reader.take_excluded();
      };
    };
    return count_blocks(*picture_.file.rows, road_for(picture_, options_.shared, context_), plan,
                        make_blocks);
  }

  /// The same counts from the distinct colors, each with the number of its pixels.
  HistogramTally count_by_color(Preview& preview) {
    CountedColors colors = count_colors(picture_, options_.shared, context_, preview);
    MemorySource rows(colors.table.shape, std::move(colors.table.rgb));
    const ChannelPlan plan(colors.info, channels_, options_.shared.hue_floor);
    const auto make_blocks = [&] {
      return [&, reader = BlockReader(colors.info, {})](const Band& band, auto use) mutable {
        reader.for_each_block(band, [&](const Block& block) { use(colors.table.weighted(block)); });
        return reader.take_excluded();
      };
    };
    RoadOptions road;
    road.threads = options_.shared.threads;
    HistogramTally tally = count_blocks(rows, road, plan, make_blocks);
    tally.excluded = colors.excluded;
    return tally;
  }

  HistogramTally empty() const {
    HistogramTally tally;
    const double stored_high = info().is_float()                        ? 1.0
                               : info().shape.sample == SampleType::kU8 ? 256.0
                                                                        : 65536.0;
    const std::size_t bins = options_.bins ? options_.bins : kDefaultBins;
    for (const Channel& channel : options_.channels)
      tally.channels.emplace_back(channel_binning(channel, bins, stored_high), channel.is_hue());
    for (const auto& [first, second] : options_.joint) {
      auto joint_bins = is_hue_saturation(first, second) ? kHueSaturationBins : kOtherJointBins;
      if (options_.joint_bins.first) joint_bins = options_.joint_bins;
      tally.joint.emplace_back(
          channel_binning(first, joint_bins.first, stored_high), first.is_hue(),
          channel_binning(second, joint_bins.second, stored_high), second.is_hue());
    }
    return tally;
  }

  const HistogramOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  std::vector<Channel> channels_;
  std::vector<std::size_t> channel_places_;
  std::vector<std::pair<std::size_t, std::size_t>> joint_places_;
};

/// The bin that holds the middle pixel of those in the bins, or nothing.
std::optional<std::size_t> median_bin(const Histogram& histogram) {
  const std::uint64_t all = histogram.in_bins();
  if (all == 0) return std::nullopt;
  std::uint64_t left = (all + 1) / 2;
  std::size_t bin = 0;
  while (left > histogram.count(bin)) left -= histogram.count(bin++);
  return bin;
}

/// The value a bin stands for: the 8-bit code where bins hold one each, else its center.
double value_of_bin(const Binning& binning, std::size_t bin) {
  const bool codes = binning.high() == 256 && binning.bins() == 256;
  return codes ? binning.edge(bin) : binning.center(bin);
}

void write_channel_table(const std::filesystem::path& path, const HistogramOptions& options,
                         const HistogramTally& tally) {
  CsvTable table({"channel", "bin", "from", "below", "count", "share_percent"});
  for (std::size_t i = 0; i < options.channels.size(); ++i) {
    const Histogram& h = tally.channels[i];
    const std::string name = options.channels[i].name();
    const auto row = [&](CsvField bin, CsvField from, CsvField below, std::uint64_t count) {
      table.add({name, bin, from, below, count, percent(count, h.total())});
    };
    const Binning& binning = h.binning();
    for (std::size_t b = 0; b < binning.bins(); ++b)
      row(std::uint64_t{b}, binning.edge(b), binning.edge(b + 1), h.count(b));
    row("below", {}, binning.low(), h.below());
    row("above", binning.high(), {}, h.above());
    row("no-hue", {}, {}, h.no_hue());
    row("not-a-number", {}, {}, h.not_a_number());
  }
  table.write(path);
}

void write_joint_table(const std::filesystem::path& path, const HistogramOptions& options,
                       const HistogramTally& tally) {
  std::size_t cells = 0;
  for (const JointHistogram& h : tally.joint) cells += h.first().bins() * h.second().bins();
  constexpr std::size_t kBytesPerCell = 96;  // an upper bound on most lines
  CsvTable table({"first", "second", "first_from", "first_below", "second_from", "second_below",
                  "count", "share_percent"},
                 cells * kBytesPerCell);
  for (std::size_t i = 0; i < options.joint.size(); ++i) {
    const JointHistogram& h = tally.joint[i];
    const std::string first = options.joint[i].first.name(),
                      second = options.joint[i].second.name();
    const std::uint64_t total = h.total();
    for (std::size_t a = 0; a < h.first().bins(); ++a)
      for (std::size_t b = 0; b < h.second().bins(); ++b)
        table.add({first, second, h.first().edge(a), h.first().edge(a + 1), h.second().edge(b),
                   h.second().edge(b + 1), h.count(a, b), percent(h.count(a, b), total)});
    const auto apart = [&](const char* kind, std::uint64_t count) {
      table.add({first, second, kind, {}, kind, {}, count, percent(count, total)});
    };
    apart("outside", h.outside());
    apart("no-hue", h.no_hue());
    apart("not-a-number", h.not_a_number());
  }
  table.write(path);
}

Json channel_json(const Channel& channel, const Histogram& h) {
  Json json{{"channel", channel.name()},
            {"unit", channel.unit_name()},
            {"bins", h.binning().bins()},
            {"from", h.binning().low()},
            {"to", h.binning().high()}};
  std::size_t fullest = 0;
  for (std::size_t b = 1; b < h.binning().bins(); ++b)
    if (h.count(b) > h.count(fullest)) fullest = b;
  json["fullest_bin_from"] = h.binning().edge(fullest);
  json["fullest_bin_below"] = h.binning().edge(fullest + 1);
  json["fullest_bin_percent"] = percent(h.count(fullest), h.total());
  // A hue has no middle: it is a circle.
  if (const auto median = median_bin(h); median && !channel.is_hue())
    json["median_bin_from"] = h.binning().edge(*median);
  json["below"] = h.below();
  json["above"] = h.above();
  json["no_hue"] = h.no_hue();
  json["not_a_number"] = h.not_a_number();
  return json;
}

Json joint_json(const std::pair<Channel, Channel>& pair, const JointHistogram& h) {
  std::size_t best_a = 0, best_b = 0;
  for (std::size_t a = 0; a < h.first().bins(); ++a)
    for (std::size_t b = 0; b < h.second().bins(); ++b)
      if (h.count(a, b) > h.count(best_a, best_b)) best_a = a, best_b = b;
  return Json{{"first", pair.first.name()},
              {"second", pair.second.name()},
              {"bins", {h.first().bins(), h.second().bins()}},
              {"fullest_first", {h.first().edge(best_a), h.first().edge(best_a + 1)}},
              {"fullest_second", {h.second().edge(best_b), h.second().edge(best_b + 1)}},
              {"fullest_percent", percent(h.count(best_a, best_b), h.total())},
              {"outside", h.outside()},
              {"no_hue", h.no_hue()},
              {"not_a_number", h.not_a_number()}};
}

void add_figures(Plot& plot, const CountedPicture& picture, const HistogramOptions& options,
                 const HistogramTally& tally, const Thumbnail& thumbnail, Results& results) {
  const std::string extension = extension_of(plot.format());
  const std::filesystem::path& input = picture.file.path;
  if (!options.channels.empty()) {
    std::vector<HistogramSeries> series;
    for (std::size_t i = 0; i < options.channels.size(); ++i) {
      const auto median = median_bin(tally.channels[i]);
      const bool marked = median && !options.channels[i].is_hue();
      series.push_back({options.channels[i], &tally.channels[i],
                        marked ? value_of_bin(tally.channels[i].binning(), *median) : 0, marked});
    }
    add_histogram_figure(plot, results.path(input, "histogram", extension), picture.name(), series,
                         thumbnail);
  }
  for (std::size_t i = 0; i < options.joint.size(); ++i) {
    const std::string thing = i == 0 ? "joint" : "joint-" + std::to_string(i + 1);
    add_joint_figure(plot, results.path(input, thing, extension), picture.name(),
                     options.joint[i].first, options.joint[i].second, tally.joint[i], thumbnail);
  }
}

}  // namespace

const std::vector<ResultKind>& histogram_results() {
  static const std::vector<ResultKind> kinds{
      {"channels", "<stem>.histogram.csv: the bins of every channel"},
      {"joint", "<stem>.joint.csv: the bins of every pair of channels"},
      {"figure", "<stem>.histogram.png and <stem>.joint.png: the same, drawn"}};
  return kinds;
}

Json run_histogram(const HistogramOptions& options, const Context& context) {
  Results results(options.shared, histogram_results());
  const FigureFormat format =
      results.wants("figure") ? settle_figures(options.shared, context) : FigureFormat::kNone;
  Json summary = summary_frame("histogram");
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    HistogramJob job(input, options, context);
    Preview preview(job.info(), format != FigureFormat::kNone);
    const HistogramTally tally = job.count(preview);
    const std::uint64_t counted = job.info().shape.pixels() - tally.excluded.total();
    require_counted(counted, job.picture());
    if (results.wants("channels") && !options.channels.empty())
      write_channel_table(results.path(input, "histogram", "csv"), options, tally);
    if (results.wants("joint") && !options.joint.empty())
      write_joint_table(results.path(input, "joint", "csv"), options, tally);
    if (preview.wanted()) {
      Plot plot(format);
      add_figures(plot, job.picture(), options, tally, preview.thumbnail(), results);
      draw_figures(plot, context);
    }
    Json json{{"file", input.string()},
              {"counted", counted},
              {"excluded", excluded_json(tally.excluded)},
              {"clipped", tally.clipped},
              {"channels", Json::array()},
              {"joint", Json::array()}};
    note_near_gray(json, tally.near_gray, counted);
    for (std::size_t i = 0; i < options.channels.size(); ++i)
      json["channels"].push_back(channel_json(options.channels[i], tally.channels[i]));
    for (std::size_t i = 0; i < options.joint.size(); ++i)
      json["joint"].push_back(joint_json(options.joint[i], tally.joint[i]));
    return json;
  });
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
