#include "job/histogram/histogram_peaks.h"

#include <cmath>

#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/select/selection.h"
#include "core/stats/peaks.h"
#include "io/text/csv.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

std::string where_of(const std::vector<ChannelInterval>& intervals) {
  std::string text;
  for (const ChannelInterval& interval : intervals)
    if (!interval.whole) text += (text.empty() ? "" : " and ") + interval.text();
  return text.empty() ? intervals.front().text() : text;
}

PeakAxis axis_of(const Channel& channel, const Binning& binning) {
  const bool circle = channel.is_hue() && binning.high() - binning.low() >= 360;
  return {binning.bins(), circle};
}

std::string smoothing_of(const Channel& channel, const Binning& binning) {
  const double width = (binning.high() - binning.low()) / static_cast<double>(binning.bins());
  const double deviation = peak_smoothing(axis_of(channel, binning)) * width;
  const std::string unit = channel.unit_name();
  const bool plain = unit.empty() || unit == "0-255" || unit == "as stored";
  return number_text(std::round(deviation * 1e7) / 1e7) + (plain ? "" : " " + unit) + " of " +
         channel.name();
}

HistogramPeak peak_of(std::vector<ChannelInterval> intervals) {
  HistogramPeak peak;
  peak.where = where_of(intervals);
  peak.intervals = std::move(intervals);
  return peak;
}

/// What a selection takes of a band.
struct Taken {
  std::uint64_t pixels = 0;
  std::array<double, 3> sums{};
};

/// One peak's selection, and the colors of the pixels it takes.
class Taker {
 public:
  Taker(const Expression& where, const PictureInfo& info, double hue_floor)
      : first_color_(where.channels.size()),
        plan_(std::make_unique<ChannelPlan>(info, channels_for(where), hue_floor)),
        channels_(*plan_),
        selection_(where) {}

  void take(const Block& block, Taken& taken) {
    channels_.evaluate(block);
    const std::uint8_t* selected = selection_.select(block, channels_);
    const ConstPlanes srgb = channels_.channels(first_color_);
    for (std::size_t i = 0; i < block.size; ++i) {
      const std::uint32_t weight = selected[i] ? block.weight(i) : 0;
      if (weight == 0) continue;
      taken.pixels += weight;
      for (std::size_t c = 0; c < 3; ++c) taken.sums[c] += static_cast<double>(srgb[c][i]) * weight;
    }
  }

 private:
  static std::vector<Channel> channels_for(const Expression& where) {
    std::vector<Channel> channels = where.channels;
    for (const Channel& c : channels_of(spaces::kSrgb)) channels.push_back(c);
    return channels;
  }

  std::size_t first_color_;
  std::unique_ptr<ChannelPlan> plan_;
  ChannelEvaluator channels_;
  Selection selection_;
};

}  // namespace

HistogramPeaks peaks_of(const Channel& channel, const Histogram& histogram, bool codes,
                        std::size_t most) {
  const Binning& binning = histogram.binning();
  std::vector<std::uint64_t> counts(binning.bins());
  for (std::size_t b = 0; b < counts.size(); ++b) counts[b] = histogram.count(b);
  HistogramPeaks out{channel.name(), smoothing_of(channel, binning), {}};
  for (const Peak& peak : find_peaks(counts, axis_of(channel, binning), {}, most))
    out.peaks.push_back(peak_of({interval_of(channel, binning, peak.range[0], codes)}));
  return out;
}

HistogramPeaks peaks_of(const Channel& first, const Channel& second,
                        const JointHistogram& histogram, std::size_t most) {
  const Binning &a = histogram.first(), &b = histogram.second();
  std::vector<std::uint64_t> counts;
  for (std::size_t i = 0; i < a.bins(); ++i)
    for (std::size_t j = 0; j < b.bins(); ++j) counts.push_back(histogram.count(i, j));
  HistogramPeaks out{first.name() + " with " + second.name(),
                     smoothing_of(first, a) + " and " + smoothing_of(second, b),
                     {}};
  for (const Peak& peak : find_peaks(counts, axis_of(first, a), axis_of(second, b), most))
    out.peaks.push_back(peak_of({interval_of(first, a, peak.range[0], false),
                                 interval_of(second, b, peak.range[1], false)}));
  return out;
}

void measure_peaks(std::vector<HistogramPeaks>& all, CountedBlocks& blocks, double hue_floor,
                   const ChannelNames& names) {
  std::vector<HistogramPeak*> peaks;
  std::vector<Expression> selections;
  for (HistogramPeaks& of_one : all)
    for (HistogramPeak& peak : of_one.peaks) {
      peaks.push_back(&peak);
      selections.push_back(parse_expression(peak.where, names));
    }
  std::vector<Taken> totals(peaks.size());
  const auto make_worker = [&](CountedBlocks::Reader reader) {
    std::vector<Taker> takers;
    for (const Expression& where : selections) takers.emplace_back(where, blocks.info(), hue_floor);
    return [&, reader = std::move(reader), takers = std::move(takers)](const Band& band) mutable {
      std::vector<Taken> taken(takers.size());
      reader.for_each_block(band, [&](const Block& block) {
        for (std::size_t p = 0; p < takers.size(); ++p) takers[p].take(block, taken[p]);
      });
      return taken;
    };
  };
  blocks.pass(make_worker, [&](const std::vector<Taken>& taken) {
    for (std::size_t p = 0; p < totals.size(); ++p) {
      totals[p].pixels += taken[p].pixels;
      for (std::size_t c = 0; c < 3; ++c) totals[p].sums[c] += taken[p].sums[c];
    }
  });
  for (std::size_t p = 0; p < peaks.size(); ++p) {
    peaks[p]->pixels = totals[p].pixels;
    for (std::size_t c = 0; c < 3 && totals[p].pixels > 0; ++c)
      peaks[p]->mean[c] = totals[p].sums[c] / static_cast<double>(totals[p].pixels);
  }
}

void write_peaks(const std::filesystem::path& path, const std::vector<HistogramPeaks>& all,
                 std::uint64_t counted) {
  CsvTable table({"histogram", "peak", "first", "first_from", "first_to", "second", "second_from",
                  "second_to", "pixels", "share_percent", "color", "where"});
  for (const HistogramPeaks& of_one : all)
    for (std::size_t p = 0; p < of_one.peaks.size(); ++p) {
      const HistogramPeak& peak = of_one.peaks[p];
      std::vector<CsvField> row{of_one.histogram, std::uint64_t{p + 1}};
      for (std::size_t i = 0; i < 2; ++i) {
        const bool there = i < peak.intervals.size();
        row.push_back(there ? CsvField(peak.intervals[i].channel.name()) : CsvField());
        row.push_back(there ? CsvField(peak.intervals[i].low) : CsvField());
        row.push_back(there ? CsvField(peak.intervals[i].high) : CsvField());
      }
      row.insert(row.end(), {peak.pixels, percent(peak.pixels, counted),
                             css_hex({&spaces::kSrgb, peak.mean}), peak.where});
      table.add(row);
    }
  table.write(path);
}

std::vector<ClassSelection> class_selections(const HistogramPeaks& found) {
  std::vector<ClassSelection> classes;
  for (std::size_t p = 0; p < found.peaks.size(); ++p)
    if (const HistogramPeak& peak = found.peaks[p]; !peak.where.empty())
      classes.push_back(
          {"peak " + std::to_string(p + 1), css_hex({&spaces::kSrgb, peak.mean}), peak.where});
  return classes;
}

Json peaks_json(const std::vector<HistogramPeaks>& all, std::uint64_t counted) {
  Json list = Json::array();
  for (const HistogramPeaks& of_one : all) {
    Json peaks = Json::array();
    for (const HistogramPeak& peak : of_one.peaks)
      peaks.push_back({{"where", peak.where},
                       {"pixels", peak.pixels},
                       {"percent", percent(peak.pixels, counted)},
                       {"css", css_hex({&spaces::kSrgb, peak.mean})}});
    list.push_back(
        {{"histogram", of_one.histogram}, {"smoothed_by", of_one.smoothing}, {"peaks", peaks}});
  }
  return list;
}

}  // namespace chalcedony
