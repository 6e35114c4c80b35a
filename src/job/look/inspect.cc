#include "job/look/inspect.h"

#include <array>
#include <optional>

#include "core/channel/channel_plan.h"
#include "core/channel/quoted_channel.h"
#include "core/error.h"
#include "core/stats/color_set.h"
#include "core/stats/distinct_colors.h"
#include "core/stats/edge_lines.h"
#include "core/stats/picture_traits.h"
#include "figure/grid_figure.h"
#include "io/text/csv.h"
#include "job/look/channel_statistics.h"
#include "job/look/oddities.h"
#include "job/look/told_classes.h"
#include "job/look/told_pixels.h"
#include "job/picture/code_pixels.h"
#include "job/picture/counted_blocks.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/picture/tallies.h"
#include "job/repeat/picture_run.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// Whole-number findings; merged in any order.
struct Findings {
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t counted = 0;
  PictureTraits traits;
  ColorSet colors;             // of 8 bits
  DistinctColors deep_colors;  // of more
  std::uint64_t distinct = 0;  // colors, where they are counted
  ChannelStatistics::Counts counts;
  CodeCounts codes;

  void merge(const Findings& other) {
    excluded += other.excluded;
    clipped += other.clipped;
    counted += other.counted;
    traits.merge(other.traits);
    colors.merge(other.colors);
    deep_colors.merge(other.deep_colors);
    ChannelStatistics::merge_counts(counts, other.counts);
    codes.merge(other.codes);
  }
};

/// What the statistics of channels are worked out from.
enum class Telling {
  kPixels,  // all of them, twice where percentiles need it
  kColors,  // the distinct colors, with how many pixels each has
  kCodes,   // the codes of single samples
};

/// What is taken band by band.
struct InspectedBand {
  ChannelStatistics::Sums sums;
  LineSums lines;
  std::array<Moments, 3> mean_color;
  std::vector<std::uint32_t> colors;  // where they tell, and not all pixels count
};

/// The format that a figure's name asks for.
FigureFormat figure_format_of(const std::filesystem::path& path) {
  const std::string extension = path.extension().string();
  const auto format =
      figure_format_named(extension.substr(std::min<std::size_t>(1, extension.size())));
  if (format && *format != FigureFormat::kNone) return *format;
  throw UsageError("'" + path.extension().string() + "' is no format of a figure",
                   "end the name in .png, .svg or .pdf", path.string());
}

class Inspection {
 public:
  Inspection(const std::filesystem::path& path, const InspectOptions& options,
             const Context& context)
      : options_(options),
        context_(context),
        picture_(open_counted(path, options.shared, context)),
        info_(picture_.file.info),
        channels_(statistic_channels()),
        plan_(info_, quoted_channels(channels_, options.shared.units, codes_of(picture_)),
              options.shared.hue_floor),
        statistics_(info_, plan_.channels()),
        telling_(what_tells()),
        scales_(sample_scales(info_)),
        findings_(empty_findings()),
        lines_(info_.shape.width, info_.shape.height),
        preview_(info_, options.grid.has_value(), kGridWidth, kGridHeight),
        told_(picture_, options.at, options.values, plan_, channels_) {}

  Json run() {
    look_through();
    if (options_.grid) draw_grid();
    return report();
  }

 private:
  std::vector<Channel> statistic_channels() const {
    std::vector<Channel> channels =
        options_.channels.empty() ? own_channels(info_) : options_.channels;
    for (const auto& defined : options_.shared.names.derived) {
      const Channel channel{nullptr, 0, {}, defined};
      if (place_of(channel, channels) == channels.size()) channels.push_back(channel);
    }
    return channels;
  }
  Telling what_tells() const {
    if (codes_tell(picture_, plan_.channels())) return Telling::kCodes;
    const bool large = info_.shape.pixels() >= ColorCounter::kFewPixels;
    return large && colors_tell(info_, plan_.channels()) ? Telling::kColors : Telling::kPixels;
  }

  Findings empty_findings() const {
    Findings findings;
    findings.counts = statistics_.empty_counts();
    findings.codes = CodeCounts(info_.shape.channels);
    return findings;
  }

  InspectedBand empty_band() const {
    return {statistics_.empty_sums(), LineSums(info_.shape.width, info_.shape.height), {}, {}};
  }

  /// Of a part of a picture whose colors have a mean: those of a space with a hue have none.
  bool wants_mean_color() const {
    return (options_.shared.region || options_.shared.within) && info_.has_color() &&
           info_.space->hue < 0;
  }

  void look_through() {
    Tallies<Findings> tallies(empty_findings());
    std::optional<ColorTally> colors;
    std::optional<ColorCounting> counting;
    if (telling_ == Telling::kColors) counting.emplace(picture_, colors.emplace());
    const auto make_worker = [&] {
      return [&, reader = BlockReader(info_, picture_.counting), channels = ChannelEvaluator(plan_),
              collector = Preview::Collector(preview_)](const Band& band) mutable {
        Findings& findings = tallies.local();
        InspectedBand out = empty_band();
        if (telling_ == Telling::kCodes)
          findings.codes.add(band.own_rows(), std::size_t{band.rows()} * info_.shape.width);
        reader.for_each_block(band, [&](const Block& block) {
          if (telling_ == Telling::kPixels || told_.wants_channels()) channels.evaluate(block);
          look_at(block, channels, findings, out);
          if (counting) counting->pick(block, out.colors);
          told_.take(block, channels);
          collector.add(block);
        });
        findings.excluded += reader.take_excluded();
        if (telling_ == Telling::kPixels) findings.clipped += channels.take_clipped();
        return out;
      };
    };
    ChannelStatistics::Sums sums = statistics_.empty_sums();
    travel(*picture_.file.rows, road_for(picture_, options_.shared, context_), make_worker,
           [&](InspectedBand&& found, const Band& band) {
             sums += found.sums;
             lines_ += found.lines;
             for (std::size_t c = 0; c < 3; ++c) mean_color_[c] += found.mean_color[c];
             // Here, one after the other: there is work enough for all threads beside it.
             if (counting) counting->add(band, found.colors);
           });
    findings_ =
        std::move(tallies.merged([](Findings& total, const Findings& one) { total.merge(one); }));
    require_counted(findings_.counted, picture_);
    if (telling_ == Telling::kCodes) return take_codes();
    if (colors) return take_colors(*colors);
    if (statistics_.finish(std::move(sums), std::move(findings_.counts))) look_again();
  }

  void look_at(const Block& block, const ChannelEvaluator& channels, Findings& findings,
               InspectedBand& band) const {
    findings.counted += block.counted_size;
    findings.traits.add(block, info_);
    if (info_.shape.sample == SampleType::kU8 && info_.has_color() && telling_ != Telling::kColors)
      findings.colors.add(block, scales_);
    if (info_.shape.sample != SampleType::kU8 && info_.has_color()) findings.deep_colors.add(block);
    if (info_.space->is_rgb) band.lines.add(block, block.color);
    if (wants_mean_color())
      for (std::size_t c = 0; c < 3; ++c) band.mean_color[c].add(block, block.color[c], 0, 0);
    if (telling_ != Telling::kPixels) return;
    for (std::size_t i = 0; i < plan_.channels().size(); ++i)
      statistics_.add(i, block, channels.channel(i), band.sums, findings.counts);
  }

  void take_codes() {
    CodePixels codes(info_, plan_.channels(), options_.shared.hue_floor);
    ChannelStatistics::Sums sums = statistics_.empty_sums();
    ChannelStatistics::Counts counts = statistics_.empty_counts();
    codes.for_each_channel(findings_.codes,
                           [&](std::size_t i, const Block& block, const float* values) {
                             statistics_.add(i, block, values, sums, counts);
                           });
    if (!statistics_.finish(std::move(sums), std::move(counts))) return;
    counts = statistics_.counts();
    codes.for_each_channel(findings_.codes,
                           [&](std::size_t i, const Block& block, const float* values) {
                             statistics_.add_again(i, block, values, counts);
                           });
    statistics_.finish_again(std::move(counts));
  }

  void take_colors(ColorTally& tally) {
    CountedBlocks colors(picture_, options_.shared, context_, tally);
    findings_.distinct = colors.distinct();
    findings_.clipped = add_counted_colors(statistics_, colors, options_.shared.hue_floor);
  }

  void look_again() {
    CountedBlocks pixels(picture_, options_.shared, context_, picture_.counting);
    pass_again(statistics_, pixels, options_.shared.hue_floor);
  }

  void draw_grid() {
    Plot plot(figure_format_of(*options_.grid));
    add_grid_figure(plot, *options_.grid, picture_.name(), preview_.thumbnail());
    draw_figures(plot, context_);
  }

  std::string alpha_state() const {
    if (info_.alpha == AlphaKind::kNone) return "none";
    return findings_.traits.translucent ? "used" : "all opaque";
  }

  Json report() const {
    const FileFacts& facts = picture_.file.facts;
    Json json{{"file", picture_.file.path.string()},
              {"format", facts.format},
              {"width", info_.shape.width},
              {"height", info_.shape.height},
              {"layout", facts.layout},
              {"bits", facts.bits},
              {"float", facts.floats},
              {"alpha", alpha_state()},
              {"space", std::string(info_.space->id)},
              {"space_title", std::string(info_.space->title)},
              {"space_from", facts.space_from},
              {"orientation", facts.orientation},
              {"counted", findings_.counted},
              {"excluded", excluded_json(findings_.excluded)},
              {"clipped", findings_.clipped}};
    if (facts.pages > 1) {
      json["page"] = std::max<std::size_t>(options_.shared.page, 1);
      json["pages"] = facts.pages;
    }
    if (info_.has_color()) add_distinct_colors(json);
    // The colors of a class map only stand for something.
    json["findings"] = lists_classes(picture_)
                           ? Json::array()
                           : oddities({picture_.file, findings_.traits, lines_, statistics_,
                                       channels_, options_.shared.full_scale});
    json["channels"] = Json::array();
    for (std::size_t i = 0; i < plan_.channels().size(); ++i)
      json["channels"].push_back(statistics_.report(i, findings_.counted));
    if (wants_mean_color()) json["mean_color"] = mean_color_report();
    if (!options_.at.empty()) json["at"] = told_.points(options_.shared.units, codes_of(picture_));
    if (options_.values) json["values"] = told_.grids();
    if (lists_classes(picture_))
      tell_classes(picture_, options_.at, options_.shared.max_pixels, json);
    return json;
  }

  void add_distinct_colors(Json& json) const {
    if (info_.shape.sample == SampleType::kU8) {
      json["distinct_colors"] =
          telling_ == Telling::kColors ? findings_.distinct : findings_.colors.count();
    } else if (const auto count = findings_.deep_colors.count()) {
      json["distinct_colors"] = *count;
    } else {
      json["distinct_colors_above"] = DistinctColors::kMost;
    }
  }

  Json mean_color_report() const {
    const Color mean{info_.space,
                     {mean_color_[0].mean(), mean_color_[1].mean(), mean_color_[2].mean()}};
    return color_report(mean, options_.shared.units, codes_of(picture_));
  }

  const InspectOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  PictureInfo info_;
  std::vector<Channel> channels_;  // in their own units
  ChannelPlan plan_;
  ChannelStatistics statistics_;
  Telling telling_;
  std::array<SampleScale, 3> scales_;
  Findings findings_;
  LineSums lines_;
  Preview preview_;
  ToldPixels told_;
  std::array<Moments, 3> mean_color_;  // of the counted pixels
};

/// The statistics of a picture, a row for each channel.
void write_statistics(const std::filesystem::path& path, const Json& picture) {
  std::vector<std::string> header{"picture", "channel", "unit"};
  const std::vector<std::string> fields{
      "minimum",         "percentile_1",  "percentile_5",       "percentile_25",
      "median",          "percentile_75", "percentile_95",      "percentile_99",
      "maximum",         "mean",          "standard_deviation", "at_low_percent",
      "at_high_percent", "circular_mean", "circular_spread",    "no_hue",
      "no_value"};
  header.insert(header.end(), fields.begin(), fields.end());
  CsvTable table(header);
  for (const Json& channel : picture["channels"]) {
    std::vector<CsvField> row{picture["file"].get<std::string>(),
                              channel["channel"].get<std::string>(),
                              channel["unit"].get<std::string>()};
    for (const std::string& field : fields)
      row.push_back(channel.contains(field) ? CsvField(channel[field].get<double>()) : CsvField());
    table.add(row);
  }
  table.write(path);
}

}  // namespace

const std::vector<ResultKind>& inspect_results() {
  static const std::vector<ResultKind> kinds{
      {"statistics", "<stem>.statistics.csv: the statistics of every channel"}};
  return kinds;
}

Json run_inspect(const InspectOptions& options, const Context& context) {
  if (options.grid) {
    figure_format_of(*options.grid);
    OutputGuard(options.shared).check(*options.grid);
  }
  PictureRun run("inspect", options.shared, context, inspect_results());
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    Json picture = Inspection(input, options, its_context).run();
    if (run.results().wants("statistics"))
      write_statistics(run.results().path(input, "statistics", "csv"), picture);
    return picture;
  };
  Json summary = run.do_each(do_one);
  if (options.grid && std::filesystem::exists(*options.grid))
    summary["outputs"].push_back(options.grid->string());
  return summary;
}

}  // namespace chalcedony
