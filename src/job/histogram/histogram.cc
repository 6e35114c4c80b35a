#include "job/histogram/histogram.h"

#include <algorithm>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/error.h"
#include "core/stats/code_counts.h"
#include "figure/disc_figure.h"
#include "figure/histogram_figure.h"
#include "figure/joint_figure.h"
#include "io/document/color_table_file.h"
#include "job/histogram/compared_histograms.h"
#include "job/histogram/histogram_peaks.h"
#include "job/histogram/histogram_report.h"
#include "job/picture/code_pixels.h"
#include "job/picture/counted_blocks.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/picture/tallies.h"
#include "job/repeat/picture_run.h"
#include "job/run/results.h"
#include "job/run/selection_file.h"

namespace chalcedony {
namespace {

constexpr std::size_t kDefaultBins = 256;
// 3 degrees of hue and 2 % of saturation; else what a small page shows well.
constexpr std::pair<std::size_t, std::size_t> kHueSaturationBins{120, 50};
constexpr std::pair<std::size_t, std::size_t> kOtherJointBins{64, 64};

bool is_hue_saturation(const Channel& first, const Channel& second) {
  return first.is_hue() && !second.is_stored() && second.space == first.space &&
         second.info().name == "s";
}

/// The channels of an option list without repeats, and where each stands.
class ChannelList {
 public:
  std::size_t place_of(const Channel& channel) {
    const std::size_t place = chalcedony::place_of(channel, channels_);
    if (place == channels_.size()) channels_.push_back(channel);
    return place;
  }
  const std::vector<Channel>& channels() const { return channels_; }

 private:
  std::vector<Channel> channels_;
};

class HistogramJob {
 public:
  HistogramJob(const std::filesystem::path& input, const HistogramOptions& options,
               const Context& context, bool figures)
      : options_(options),
        singles_(options.channels),
        picture_(open_counted(input, options.shared, context)),
        preview_(info(), figures) {
    if (options.own_channels) singles_ = own_channels(info());
    ChannelList list;
    for (const Channel& channel : singles_) channel_places_.push_back(list.place_of(channel));
    for (const auto& [first, second] : options.joint)
      joint_places_.emplace_back(list.place_of(first), list.place_of(second));
    if (options.cube > 0)
      for (const Channel& channel : channels_of(*options.cube_space))
        cube_places_.push_back(list.place_of(channel));
    channels_ = list.channels();
    if (codes_are_enough()) {
      count_codes(context);
    } else {
      blocks_.emplace(picture_, options.shared, context, channels_, &preview_, options.colors);
      count();
    }
    require_counted(counted(), picture_);
    find_peaks();
  }

  /// Those with a histogram each.
  const std::vector<Channel>& channels() const { return singles_; }
  const CountedPicture& picture() const { return picture_; }
  const HistogramTally& tally() const { return tally_; }
  const std::vector<HistogramPeaks>& peaks() const { return peaks_; }
  Preview& preview() { return preview_; }
  /// Errors    InputError when the picture is not of 8-bit colors of an RGB space
  StoredColors colors() {
    auto colors = blocks_->colors();
    if (!colors || !info().space->is_rgb)
      throw InputError("its colors cannot be counted, as they are not 8-bit RGB",
                       "convert it to srgb with --depth 8, or leave --colors out",
                       picture_.file.path.string());
    return *colors;
  }
  std::uint64_t counted() const { return info().shape.pixels() - tally_.excluded.total(); }

 private:
  const PictureInfo& info() const { return picture_.file.info; }

  /// Whether nothing is asked but of channels by themselves, and counting their codes will do.
  bool codes_are_enough() const {
    const bool only_channels =
        options_.joint.empty() && !options_.cube && !options_.peaks && !options_.colors;
    return only_channels && codes_tell(picture_, channels_);
  }

  void count_codes(const Context& context) {
    const std::uint32_t width = info().shape.width, samples = info().shape.channels;
    Tallies<CodeCounts> tallies{CodeCounts(samples)};
    const auto make_worker = [&] {
      return [&, reader = BlockReader(info(), picture_.counting),
              collector = Preview::Collector(preview_)](const Band& band) mutable {
        tallies.local().add(band.own_rows(), std::size_t{band.rows()} * width);
        if (preview_.wanted())
          reader.for_each_block(band, [&](const Block& block) { collector.add(block); });
        return true;
      };
    };
    travel(*picture_.file.rows, road_for(picture_, options_.shared, context), make_worker,
           [](bool) {});
    const CodeCounts& counts =
        tallies.merged([](CodeCounts& total, const CodeCounts& one) { total.merge(one); });
    tally_ = tally_of(counts);
  }

  HistogramTally tally_of(const CodeCounts& counts) const {
    HistogramTally tally = empty();
    CodePixels(info(), singles_, options_.shared.hue_floor)
        .for_each_channel(counts, [&](std::size_t i, const Block& block, const float* values) {
          tally.channels[i].add(block, values);
        });
    return tally;
  }

  void count() {
    const ChannelPlan plan(blocks_->info(), channels_, options_.shared.hue_floor);
    Tallies<HistogramTally> tallies(empty());
    const auto make_worker = [&](CountedBlocks::Reader reader) {
      return [&, reader = std::move(reader),
              channels = ChannelEvaluator(plan)](const Band& band) mutable {
        HistogramTally& tally = tallies.local();
        reader.for_each_block(band, [&](const Block& block) {
          channels.evaluate(block);
          for (std::size_t i = 0; i < channel_places_.size(); ++i)
            tally.channels[i].add(block, channels.channel(channel_places_[i]));
          for (std::size_t i = 0; i < joint_places_.size(); ++i)
            tally.joint[i].add(block, channels.channel(joint_places_[i].first),
                               channels.channel(joint_places_[i].second));
          if (tally.cube)
            tally.cube->add(block,
                            {channels.channel(cube_places_[0]), channels.channel(cube_places_[1]),
                             channels.channel(cube_places_[2])});
        });
        tally.excluded += reader.take_excluded();
        tally.clipped += channels.take_clipped();
        tally.near_gray += channels.take_near_gray();
        return true;
      };
    };
    blocks_->pass(make_worker, [](bool) {});
    tally_ =
        tallies.merged([](HistogramTally& total, const HistogramTally& one) { total.merge(one); });
    tally_.excluded += blocks_->excluded();
  }

  void find_peaks() {
    if (options_.peaks == 0) return;
    for (std::size_t i = 0; i < singles_.size(); ++i)
      peaks_.push_back(peaks_of(singles_[i], tally_.channels[i], has_codes(singles_[i], info()),
                                options_.peaks));
    for (std::size_t i = 0; i < options_.joint.size(); ++i)
      peaks_.push_back(peaks_of(options_.joint[i].first, options_.joint[i].second, tally_.joint[i],
                                options_.peaks));
    measure_peaks(peaks_, *blocks_, options_.shared.hue_floor, options_.shared.names);
  }

  HistogramTally empty() const {
    HistogramTally tally;
    const std::size_t bins = options_.bins ? options_.bins : kDefaultBins;
    for (const Channel& channel : singles_)
      tally.channels.emplace_back(channel_binning(channel, bins, info()), channel.is_hue());
    for (const auto& [first, second] : options_.joint) {
      auto joint_bins = is_hue_saturation(first, second) ? kHueSaturationBins : kOtherJointBins;
      if (options_.joint_bins.first) joint_bins = options_.joint_bins;
      tally.joint.emplace_back(channel_binning(first, joint_bins.first, info()), first.is_hue(),
                               channel_binning(second, joint_bins.second, info()), second.is_hue());
    }
    if (options_.cube > 0) tally.cube.emplace(channels_of(*options_.cube_space), options_.cube);
    return tally;
  }

  const HistogramOptions& options_;
  std::vector<Channel> singles_;  // a histogram each
  CountedPicture picture_;
  Preview preview_;
  std::optional<CountedBlocks> blocks_;
  HistogramTally tally_;
  std::vector<HistogramPeaks> peaks_;
  std::vector<Channel> channels_;  // all that are computed
  std::vector<std::size_t> channel_places_, cube_places_;
  std::vector<std::pair<std::size_t, std::size_t>> joint_places_;
};

/// Where a figure marks the peaks of one histogram; with a name when there are others beside it.
std::vector<PeakMark> marks_of(const HistogramJob& job, std::size_t histogram,
                               const std::string& name) {
  std::vector<PeakMark> marks;
  if (job.peaks().empty()) return marks;
  for (const HistogramPeak& peak : job.peaks()[histogram].peaks) {
    PeakMark mark;
    mark.name = name + std::to_string(marks.size() + 1);
    for (std::size_t i = 0; i < peak.intervals.size(); ++i)
      mark.interval[i] = {peak.intervals[i].low, peak.intervals[i].high};
    mark.color = css_hex({&spaces::kSrgb, peak.mean});
    mark.percent = percent(peak.pixels, job.counted());
    marks.push_back(mark);
  }
  return marks;
}

/// The channel histograms of one picture as they are drawn, with their peaks.
std::vector<HistogramSeries> series_of(const HistogramJob& job) {
  const std::vector<Channel>& channels = job.channels();
  std::vector<HistogramSeries> series = series_of(channels, job.tally().channels);
  for (std::size_t i = 0; i < series.size(); ++i)
    series[i].peaks = marks_of(job, i, series.size() > 1 ? channels[i].name() + " " : "");
  return series;
}

void add_figures(Plot& plot, HistogramJob& job, const HistogramOptions& options, Results& results) {
  const std::string extension = extension_of(plot.format()), name = job.picture().name();
  const std::filesystem::path& input = job.picture().file.path;
  const HistogramTally& tally = job.tally();
  const Thumbnail thumbnail = job.preview().thumbnail();
  if (!job.channels().empty())
    add_histogram_figure(plot, results.path(input, "histogram", extension), name, series_of(job),
                         options.counts, thumbnail);
  for (std::size_t i = 0; i < options.joint.size(); ++i) {
    const auto& [first, second] = options.joint[i];
    const std::string number = i == 0 ? "" : "-" + std::to_string(i + 1);
    add_joint_figure(plot, results.path(input, "joint" + number, extension), name, first, second,
                     tally.joint[i], marks_of(job, job.channels().size() + i, ""), thumbnail,
                     options.linear_heat);
    if (options.disc && first.is_hue())
      add_disc_figure(plot, results.path(input, "disc" + number + ".figure", extension), name,
                      first, second, tally.joint[i], thumbnail, options.linear_heat);
  }
}

void write_tables(const std::filesystem::path& input, HistogramJob& job,
                  const HistogramOptions& options, Results& results) {
  const HistogramTally& tally = job.tally();
  if (results.wants("channels") && !job.channels().empty())
    write_channel_table(results.path(input, "histogram", "csv"), job.channels(), tally);
  if (results.wants("joint") && !options.joint.empty())
    write_joint_table(results.path(input, "joint", "csv"), options, tally);
  if (results.wants("joint") && options.joint_matrix)
    for (std::size_t i = 0; i < options.joint.size(); ++i)
      write_joint_matrix(
          results.path(input, "joint-matrix" + (i ? "-" + std::to_string(i + 1) : ""), "csv"),
          options.joint[i], tally.joint[i]);
  if (results.wants("cube") && tally.cube) {
    write_cube_table(results.path(input, "cube", "csv"), job.picture().name(), *tally.cube);
    write_cube_json(results.path(input, "cube", "json"), job.picture().name(), *tally.cube);
  }
  if (results.wants("colors") && options.colors)
    write_color_table(results.path(input, "colors", "csv"), job.colors());
  if (results.wants("peaks") && options.peaks > 0)
    write_peaks(results.path(input, "peaks", "csv"), job.peaks(), job.counted());
  if (!results.wants("selections") || job.peaks().size() != 1) return;
  if (const auto selections = class_selections(job.peaks()[0]); !selections.empty())
    write_selection_file(results.path(input, "peaks", "yaml"), selections, options.shared);
}

Json histogram_json(const std::filesystem::path& input, const HistogramJob& job,
                    const HistogramOptions& options) {
  const HistogramTally& tally = job.tally();
  Json json{{"file", input.string()},
            {"counted", job.counted()},
            {"excluded", excluded_json(tally.excluded)},
            {"clipped", tally.clipped},
            {"channels", Json::array()},
            {"joint", Json::array()}};
  note_near_gray(json, tally.near_gray, job.counted());
  if (tally.cube) json["cube"] = cube_json(*tally.cube);
  if (options.peaks > 0) json["peaks"] = peaks_json(job.peaks(), job.counted());
  for (std::size_t i = 0; i < job.channels().size(); ++i)
    json["channels"].push_back(channel_json(job.channels()[i], tally.channels[i]));
  for (std::size_t i = 0; i < options.joint.size(); ++i)
    json["joint"].push_back(joint_json(options.joint[i], tally.joint[i]));
  return json;
}

}  // namespace

const std::vector<ResultKind>& histogram_results() {
  static const std::vector<ResultKind> kinds{
      {"channels", "<stem>.histogram.csv: the bins of every channel"},
      {"joint",
       "<stem>.joint.csv: the bins of every pair of channels; with --matrix also "
       "<stem>.joint-matrix.csv",
       "joint,merge"},
      {"cube", "<stem>.cube.csv and <stem>.cube.json: three channels together", "cube"},
      {"colors",
       "<stem>.colors.csv: the distinct colors with their pixels, for cluster and palette; of "
       "several pictures also colors.csv, added up",
       "colors"},
      {"peaks", "<stem>.peaks.csv: the main peaks, each with its selection", "peaks"},
      {"selections",
       "<stem>.peaks.yaml: the peaks of one histogram as the classes of a map, for slice and tune "
       "with --config",
       "peaks"},
      {"figure",
       "<stem>.histogram.png and <stem>.joint.png: the same, drawn; <stem>.disc.figure.png with "
       "--disc; histograms.figure.png of several pictures"}};
  return kinds;
}

Json run_histogram(const HistogramOptions& options, const Context& context) {
  PictureRun run("histogram", options.shared, context, histogram_results());
  Results& results = run.results();
  const FigureFormats& figures = run.figures();
  ComparedHistograms compared(options.shared, options.counts, context);
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    HistogramJob job(input, options, its_context, figures.of_each != FigureFormat::kNone);
    write_tables(input, job, options, results);
    if (job.preview().wanted()) {
      Plot plot(figures.of_each);
      add_figures(plot, job, options, results);
      draw_figures(plot, its_context);
    }
    if (figures.of_all != FigureFormat::kNone && !results.wants("channels"))
      compared.keep(input, job.tally().channels);
    return histogram_json(input, job, options);
  };
  return run.do_each(
      do_one, [&](Json& told, Plot& plot, Results& into) { compared.report(told, plot, into); });
}

}  // namespace chalcedony
