#include "job/inspect.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "core/color/channel_plan.h"
#include "core/color/conversion.h"
#include "core/color/css_color.h"
#include "core/color/quoted_channel.h"
#include "core/error.h"
#include "core/pixel/interleave.h"
#include "core/stats/distinct_colors.h"
#include "core/stats/edge_lines.h"
#include "figure/grid_figure.h"
#include "io/csv.h"
#include "job/channel_statistics.h"
#include "job/code_pixels.h"
#include "job/counted_blocks.h"
#include "job/each_input.h"
#include "job/inputs.h"
#include "job/preview.h"
#include "job/tallies.h"

namespace chalcedony {
namespace {

constexpr double kMuchCut = 1;  // percent of a channel at an end of its range
constexpr std::array kToldSpaces{&spaces::kSrgb, &spaces::kHsv, &spaces::kLab, &spaces::kOklch};

/// Which of the 16.7 million 8-bit colors of a space occur.
class ColorSet {
 public:
  /// `scales`: from the codes of the three channels to their values.
  void add(const Block& block, const std::array<SampleScale, 3>& scales) {
    if (seen_.empty()) seen_.resize(1u << 18);
    codes_.resize(3 * kBlockPixels);
    write_planes(block.color, block.size, 3, SampleType::kU8, scales, codes_.data());
    for (std::size_t i = 0; i < block.size; ++i) {
      if (!block.counts(i)) continue;
      const auto code = [&](std::size_t c) {
        return std::to_integer<std::uint32_t>(codes_[3 * i + c]);
      };
      const std::uint32_t rgb = code(0) << 16 | code(1) << 8 | code(2);
      seen_[rgb / 64] |= std::uint64_t{1} << (rgb % 64);
    }
  }
  void merge(const ColorSet& other) {
    if (seen_.empty()) seen_.resize(1u << 18);
    for (std::size_t i = 0; i < other.seen_.size(); ++i) seen_[i] |= other.seen_[i];
  }
  std::uint64_t count() const {
    std::uint64_t n = 0;
    for (const std::uint64_t bits : seen_)
      n += static_cast<std::uint64_t>(__builtin_popcountll(bits));
    return n;
  }

 private:
  std::vector<std::uint64_t> seen_;  // a bit for each
  std::vector<std::byte> codes_;     // of a Block
};

/// Whole-number findings; merged in any order.
struct Findings {
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t counted = 0;
  bool colored = false;              // some counted pixel has r g b that differ
  bool translucent = false;          // some pixel is not fully opaque
  bool uses_low_bytes = false;       // some 16-bit sample is not an 8-bit code repeated
  std::uint16_t largest_sample = 0;  // of 16-bit samples of color
  ColorSet colors;                   // of 8 bits
  DistinctColors deep_colors;        // of more
  std::uint64_t distinct = 0;        // colors, where they are counted
  ChannelStatistics::Counts counts;
  CodeCounts codes;

  void merge(const Findings& other) {
    excluded += other.excluded;
    clipped += other.clipped;
    counted += other.counted;
    colored |= other.colored;
    translucent |= other.translucent;
    uses_low_bytes |= other.uses_low_bytes;
    largest_sample = std::max(largest_sample, other.largest_sample);
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
  std::vector<std::uint32_t> colors;  // where they tell, and not all pixels count
  std::array<double, 3> color_sums{};
};

/// The format that a figure's name asks for.
FigureFormat figure_format_of(const std::filesystem::path& path) {
  for (const FigureFormat format : {FigureFormat::kPng, FigureFormat::kSvg, FigureFormat::kPdf})
    if (path.extension() == "." + extension_of(format)) return format;
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
        preview_(info_, options.grid.has_value(), kGridWidth, kGridHeight) {
    check_points();
    if (options.values) set_up_values(*options.values);
  }

  Json run() {
    look_through();
    if (options_.grid) draw_grid();
    return report();
  }

 private:
  std::vector<Channel> statistic_channels() const {
    if (options_.spaces.empty()) return own_channels(info_);
    std::vector<Channel> channels;
    for (const Space* space : options_.spaces)
      for (const Channel& channel : channels_of(*space)) channels.push_back(channel);
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

  void check_points() const {
    // Points are told in color spaces.
    if (!options_.at.empty()) require_color(info_);
    for (const auto& [x, y] : options_.at)
      if (x < 0 || y < 0 || x >= info_.shape.width || y >= info_.shape.height)
        throw InputError("--at " + std::to_string(x) + "," + std::to_string(y) +
                             " lies outside the picture, which is " + info_.shape.size_text(),
                         "the top-left pixel is 0,0");
  }

  void set_up_values(const Region& region) {
    values_at_ = errors_at(picture_.file.path.string(),
                           [&] { return region.in(info_.shape.width, info_.shape.height); });
    if (values_at_.width > kMostValues || values_at_.height > kMostValues)
      throw InputError(fmt::format("--values {} is {}x{} pixels, more than can be read",
                                   region.text, values_at_.width, values_at_.height),
                       fmt::format("give up to {0}x{0}", kMostValues), picture_.file.path.string());
    values_.assign(plan_.channels().size(),
                   std::vector<float>(std::size_t{values_at_.width} * values_at_.height));
  }

  void look_through() {
    Tallies<Findings> tallies(empty_findings());
    points_.resize(options_.at.size());
    std::optional<ColorCounter> counter;
    std::optional<ColorCounting> counting;
    if (telling_ == Telling::kColors) counting.emplace(picture_, counter.emplace());
    const auto make_worker = [&] {
      return [&, reader = BlockReader(info_, picture_.counting), channels = ChannelEvaluator(plan_),
              collector = Preview::Collector(preview_)](const Band& band) mutable {
        Findings& findings = tallies.local();
        InspectedBand out = empty_band();
        if (telling_ == Telling::kCodes)
          findings.codes.add(band.own_rows(), std::size_t{band.rows()} * info_.shape.width);
        reader.for_each_block(band, [&](const Block& block) {
          if (telling_ == Telling::kPixels || !values_.empty()) channels.evaluate(block);
          look_at(block, channels, findings, out);
          if (counting) counting->pick(block, out.colors);
          take_points(block);
          take_values(block, channels);
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
             for (std::size_t c = 0; c < 3; ++c) color_sums_[c] += found.color_sums[c];
             if (counting) counting->add(band, found.colors);
           });
    findings_ =
        std::move(tallies.merged([](Findings& total, const Findings& one) { total.merge(one); }));
    require_counted(findings_.counted, picture_);
    if (telling_ == Telling::kCodes) return take_codes();
    if (counter) return take_colors(*counter);
    if (statistics_.finish(std::move(sums), std::move(findings_.counts))) look_again();
  }

  void look_at(const Block& block, const ChannelEvaluator& channels, Findings& findings,
               InspectedBand& band) const {
    findings.counted += block.counted_size;
    const bool color = info_.color_channels() == 3 && info_.has_color();
    for (std::size_t i = 0; i < block.size && !findings.colored && color; ++i)
      findings.colored = block.counts(i) && (block.color[0][i] != block.color[1][i] ||
                                             block.color[1][i] != block.color[2][i]);
    if (block.alpha)
      for (std::size_t i = 0; i < block.size && !findings.translucent; ++i)
        findings.translucent = block.alpha[i] < 1.0f;
    if (info_.shape.sample == SampleType::kU8 && info_.has_color() && telling_ != Telling::kColors)
      findings.colors.add(block, scales_);
    if (info_.shape.sample != SampleType::kU8 && info_.has_color()) findings.deep_colors.add(block);
    if (info_.space->is_rgb) band.lines.add(block, block.color);
    if (wants_mean_color())
      for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < block.size; ++i)
          if (block.counts(i)) band.color_sums[c] += static_cast<double>(block.color[c][i]);
    if (info_.shape.sample == SampleType::kU16) {
      const auto* samples = reinterpret_cast<const std::uint16_t*>(block.stored);
      for (std::size_t i = 0; i < block.size * info_.shape.channels && !findings.uses_low_bytes;
           ++i)
        findings.uses_low_bytes = (samples[i] >> 8) != (samples[i] & 255);
      for (std::size_t i = 0; i < block.size; ++i)
        for (std::size_t c = 0; c < info_.shape.channels; ++c)
          findings.largest_sample =
              std::max(findings.largest_sample, samples[i * info_.shape.channels + c]);
    }
    if (telling_ != Telling::kPixels) return;
    for (std::size_t i = 0; i < plan_.channels().size(); ++i)
      statistics_.add(i, block, channels.channel(i), band.sums, findings.counts);
  }

  /// Each pixel is in one Block, so threads do not meet here.
  void take_points(const Block& block) {
    for (std::size_t p = 0; p < points_.size(); ++p) {
      const auto [x, y] = options_.at[p];
      const std::uint64_t pixel =
          static_cast<std::uint64_t>(y) * info_.shape.width + static_cast<std::uint64_t>(x);
      if (pixel < block.first_pixel || pixel >= block.first_pixel + block.size) continue;
      for (std::size_t c = 0; c < 3; ++c) points_[p][c] = block.color[c][pixel - block.first_pixel];
    }
  }

  /// Likewise.
  void take_values(const Block& block, const ChannelEvaluator& channels) {
    if (values_.empty()) return;
    for (std::size_t i = 0; i < block.size; ++i) {
      const std::uint32_t x = block.x(i), y = block.y(i);
      if (!values_at_.contains(x, y)) continue;
      const std::size_t place =
          std::size_t{y - values_at_.y} * values_at_.width + (x - values_at_.x);
      for (std::size_t c = 0; c < values_.size(); ++c) values_[c][place] = channels.channel(c)[i];
    }
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

  void take_colors(ColorCounter& counter) {
    CountedBlocks colors(picture_, options_.shared, context_, std::move(counter));
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
    return findings_.translucent ? "used" : "all opaque";
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
    if (info_.has_color()) add_distinct_colors(json);
    json["findings"] = finding_sentences();
    json["channels"] = Json::array();
    for (std::size_t i = 0; i < plan_.channels().size(); ++i)
      json["channels"].push_back(statistics_.report(i, findings_.counted));
    if (wants_mean_color()) json["mean_color"] = mean_color_report();
    if (!options_.at.empty()) json["at"] = point_reports();
    if (!values_.empty()) json["values"] = value_grids();
    return json;
  }

  Json finding_sentences() const {
    Json list = Json::array();
    if (info_.color_channels() == 3 && info_.has_color() && info_.space->is_rgb &&
        !findings_.colored)
      list.push_back("stored as color, but every pixel is gray");
    if (info_.alpha != AlphaKind::kNone && !findings_.translucent)
      list.push_back("has alpha, but every pixel is opaque");
    find_unused_depth(list);
    for (std::size_t i = 0; i < plan_.channels().size(); ++i)
      if (!plan_.channels()[i].is_hue()) find_flat_or_cut(i, list);
    if (info_.space->is_rgb && info_.has_color()) find_edges(list);
    return list;
  }

  void find_unused_depth(Json& list) const {
    const FileFacts& facts = picture_.file.facts;
    if (facts.significant_bits > 0 && facts.significant_bits < facts.bits)
      list.push_back(
          fmt::format("stored with {} bits, of which its sBIT chunk calls {} significant",
                      facts.bits, facts.significant_bits));
    if (info_.shape.sample != SampleType::kU16) return;
    if (!findings_.uses_low_bytes) {
      list.push_back("stored with 16 bits, but holds only 8-bit values");
      return;
    }
    for (const int bits : {10, 12}) {
      const int full = (1 << bits) - 1;
      if (findings_.largest_sample > full) continue;
      // Nothing to be said to who has said it.
      if (options_.shared.full_scale == 0)
        list.push_back(fmt::format(
            "stored with 16 bits, but no value passes {0}, as of {1} bits: --full-scale {0} takes "
            "it so",
            full, bits));
      return;
    }
  }

  /// What is the same everywhere, or was cut off at the ends of its range.
  void find_flat_or_cut(std::size_t i, Json& list) const {
    const Channel& channel = plan_.channels()[i];
    const Moments& m = statistics_.moments(i);
    if (m.count == 0) return;
    if (m.smallest == m.largest) {
      list.push_back(fmt::format("{} is {:.6g} everywhere", channel.name(),
                                 without_noise(channels_[i].space, double{m.smallest})));
      return;
    }
    if (!channels_[i].is_stored() && !channels_[i].space->is_rgb) return;
    const double low = percent(m.at_low, m.count), high = percent(m.at_high, m.count);
    if (low > kMuchCut)
      list.push_back(fmt::format("{:.3g} % of {} is at 0: cut off?", low, channel.name()));
    if (high > kMuchCut)
      list.push_back(
          fmt::format("{:.3g} % of {} is at full scale: cut off?", high, channel.name()));
    const double times_full = m.largest / usual_range(channel, info_).second;
    if (info_.is_float() && !channels_[i].is_stored() && times_full > 2)
      list.push_back(
          fmt::format("{} goes up to {:.4g} times full scale", channel.name(), times_full));
  }

  void find_edges(Json& list) const {
    constexpr double kLeastSpread = 0.25;  // of 255: half of what rounding to 8 bits can do
    const EdgeLines edges = lines_.edges(kLeastSpread);
    const auto say = [&](std::size_t lines, const char* line, const char* side) {
      if (lines > 0)
        list.push_back(fmt::format("the {} {}{} at the {} {} unlike the rest", lines, line,
                                   lines > 1 ? "s" : "", side, lines > 1 ? "are" : "is"));
    };
    say(edges.top, "row", "top");
    say(edges.bottom, "row", "bottom");
    say(edges.left, "column", "left");
    say(edges.right, "column", "right");
  }

  Json value_grids() const {
    Json grids = Json::array();
    for (std::size_t c = 0; c < values_.size(); ++c) {
      Json rows = Json::array();
      for (std::uint32_t y = 0; y < values_at_.height; ++y) {
        Json row = Json::array();
        for (std::uint32_t x = 0; x < values_at_.width; ++x) {
          const float value = values_[c][std::size_t{y} * values_at_.width + x];
          row.push_back(std::isfinite(value) ? Json(value) : Json());
        }
        rows.push_back(std::move(row));
      }
      grids.push_back({{"channel", plan_.channels()[c].name()}, {"rows", std::move(rows)}});
    }
    return {{"x", values_at_.x}, {"y", values_at_.y}, {"grids", std::move(grids)}};
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

  Json point_reports() const {
    Json list = Json::array();
    for (std::size_t p = 0; p < points_.size(); ++p) {
      Json point{{"x", options_.at[p].first}, {"y", options_.at[p].second}};
      point.update(color_report({info_.space, points_[p]}));
      list.push_back(point);
    }
    return list;
  }

  Json mean_color_report() const {
    Color mean{info_.space, color_sums_};
    for (double& value : mean.value) value /= static_cast<double>(findings_.counted);
    return color_report(mean);
  }

  /// A color in every space that colors are told in.
  Json color_report(const Color& color) const {
    Json report{{"css", css_hex(color)}};
    const bool has_hue = color.has_hue();
    for (const Space* space : kToldSpaces) {
      const auto value = color.in(*space);
      Json values = Json::object();
      for (std::size_t c = 0; c < 3; ++c) {
        const bool missing = !has_hue && space->hue == static_cast<int>(c);
        const double quoted =
            quoted_value(value[c], {space, c}, options_.shared.units, codes_of(picture_));
        values[std::string(space->channels[c].name)] = missing ? Json() : Json(quoted);
      }
      report[std::string(space->id)] = values;
    }
    return report;
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
  std::vector<std::array<double, 3>> points_;
  std::array<double, 3> color_sums_{};  // of the counted pixels
  PixelRect values_at_;
  std::vector<std::vector<float>> values_;  // of each channel, row by row
};

/// The statistics of a picture, a row for each channel.
void write_statistics(const std::filesystem::path& path, const Json& picture) {
  std::vector<std::string> header{"picture", "channel", "unit"};
  const std::vector<std::string> fields{
      "minimum",         "percentile_1",  "percentile_5",       "percentile_25",
      "median",          "percentile_75", "percentile_95",      "percentile_99",
      "maximum",         "mean",          "standard_deviation", "at_low_percent",
      "at_high_percent", "circular_mean", "circular_spread",    "no_hue"};
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
  Json summary = summary_frame("inspect");
  Results results(options.shared, context, inspect_results());
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    Json picture = Inspection(input, options, context).run();
    if (results.wants("statistics"))
      write_statistics(results.path(input, "statistics", "csv"), picture);
    return picture;
  });
  results.report(summary);
  if (options.grid && std::filesystem::exists(*options.grid))
    summary["outputs"].push_back(options.grid->string());
  return summary;
}

}  // namespace chalcedony
