#include "job/histogram/apart_report.h"

#include <algorithm>
#include <string>
#include <utility>

#include "figure/class_histogram_figure.h"
#include "io/text/csv.h"
#include "job/histogram/channel_interval.h"
#include "job/histogram/count_rows.h"

namespace chalcedony {
namespace {

constexpr const char* kBesideBins = "beside";

ChannelInterval values_of(const ChannelFindings& channel, std::size_t c) {
  return interval_of(channel.channel(), channel.histogram().binning(), channel.intervals[c].bins,
                     channel.counted->codes);
}

Json class_json(const FoundApart& found, std::size_t c) {
  const auto& [name, color] = found.classes[c];
  Json json{
      {"name", name}, {"color", color}, {"pixels", found.channels.front().histogram().total(c)}};
  const ChannelFindings* const best = telling_channel(found, c);
  if (!best) return json;
  const ChannelInterval values = values_of(*best, c);
  json["best"] = {{"channel", best->channel().name()},
                  {"from", values.low},
                  {"to", values.high},
                  {"own_percent", 100 * best->intervals[c].own},
                  {"others_percent", 100 * best->intervals[c].others},
                  {"where", values.text()}};
  return json;
}

Json channel_json(const FoundApart& found, const ChannelFindings& channel) {
  const ClassPair& alike = channel.most_alike();
  const Binning& binning = channel.histogram().binning();
  return {{"channel", channel.channel().name()},
          {"unit", channel.channel().unit_name()},
          {"bins", binning.bins()},
          {"from", binning.low()},
          {"to", binning.high()},
          {"codes", channel.counted->codes},
          {"overlap_percent", 100 * channel.mean_overlap()},
          {"most_alike",
           {{"first", found.classes[alike.first].name},
            {"second", found.classes[alike.second].name},
            {"overlap_percent", 100 * alike.overlap}}}};
}

void add_counts(CsvTable& table, const std::string& name, const ChannelFindings& channel,
                std::size_t c) {
  const ClassHistogram& histogram = channel.histogram();
  const Binning& binning = histogram.binning();
  const std::uint64_t all = histogram.total(c);
  for (std::size_t b = 0; b < binning.bins(); ++b)
    table.add({name, channel.channel().name(), std::uint64_t{b}, binning.edge(b),
               binning.edge(b + 1), histogram.count(c, b), percent(histogram.count(c, b), all)});
  table.add({name,
             channel.channel().name(),
             kBesideBins,
             {},
             {},
             histogram.beside(c),
             percent(histogram.beside(c), all)});
}

}  // namespace

void write_class_intervals(const std::filesystem::path& path, const FoundApart& found) {
  CsvTable table({"class", "channel", "from", "to", "own_percent", "others_percent", "where"});
  for (std::size_t c = 0; c < found.classes.size(); ++c)
    for (const ChannelFindings& channel : found.channels) {
      if (channel.histogram().total(c) == 0) continue;
      const ChannelInterval values = values_of(channel, c);
      table.add({found.classes[c].name, channel.channel().name(), values.low, values.high,
                 100 * channel.intervals[c].own, 100 * channel.intervals[c].others, values.text()});
    }
  table.write(path);
}

std::vector<ClassSelection> class_selections(const FoundApart& found) {
  std::vector<std::pair<double, ClassSelection>> classes;
  for (std::size_t c = 0; c < found.classes.size(); ++c)
    if (const ChannelFindings* const best = telling_channel(found, c))
      classes.push_back(
          {best->intervals[c].others,
           {found.classes[c].name, found.classes[c].color, values_of(*best, c).text()}});
  std::stable_sort(classes.begin(), classes.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<ClassSelection> selections;
  for (auto& [others, one] : classes) selections.push_back(std::move(one));
  return selections;
}

void write_class_overlaps(const std::filesystem::path& path, const FoundApart& found) {
  CsvTable table({"channel", "first", "second", "overlap_percent"});
  for (const ChannelFindings& channel : found.channels)
    for (const ClassPair& pair : channel.pairs)
      table.add({channel.channel().name(), found.classes[pair.first].name,
                 found.classes[pair.second].name, 100 * pair.overlap});
  table.write(path);
}

void write_class_histograms(const std::filesystem::path& path, const FoundApart& found) {
  CsvTable table({"class", "channel", "bin", "from", "below", "count", "share_percent"});
  for (std::size_t c = 0; c < found.classes.size(); ++c)
    for (const ChannelFindings& channel : found.channels)
      add_counts(table, found.classes[c].name, channel, c);
  table.write(path);
}

ClassCounts read_class_histograms(const std::filesystem::path& path, const Json& told,
                                  const ChannelNames& names) {
  const Json &classes = told["classes"], &channels = told["channels"];
  ClassCounts counts;
  for (const Json& one : channels)
    counts.channels.push_back(
        {channel_named(one["channel"].get<std::string>(), names), one["codes"],
         ClassHistogram(Binning(one["from"], one["to"], one["bins"]), classes.size())});
  constexpr std::size_t kCountColumn = 5;
  CountRows rows(path, kCountColumn);
  for (std::size_t c = 0; c < classes.size(); ++c)
    for (CountedChannel& one : counts.channels) {
      const auto next = [&, &channel = one.channel](const std::string& bin) {
        return rows.next({classes[c]["name"].get<std::string>(), channel.name(), bin});
      };
      for (std::size_t b = 0; b < one.histogram.binning().bins(); ++b)
        one.histogram.add(c, static_cast<std::int32_t>(b), next(std::to_string(b)));
      one.histogram.add(c, Binning::kNotANumber, next(kBesideBins));
    }
  return counts;
}

const ChannelFindings* telling_channel(const FoundApart& found, std::size_t c) {
  constexpr double kLeastGain = 0.01;
  if (found.channels.front().histogram().total(c) == 0) return nullptr;
  const ChannelFindings& best = best_channel(found.channels, c);
  return best.intervals[c].gain() < kLeastGain ? nullptr : &best;
}

void add_apart_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const FoundApart& found, const std::vector<double>& of_each) {
  std::vector<ShownChannel> shown;
  for (const ChannelFindings& channel : found.channels) {
    ShownChannel& one = shown.emplace_back(
        ShownChannel{channel.channel(), &channel.histogram(), 100 * channel.mean_overlap(), {}});
    if (!of_each.empty()) one.of_each_percent = of_each[shown.size() - 1];
  }
  std::vector<LegendLine> legend;
  for (const CountedClass& one : found.classes) legend.push_back({one.name, one.color});
  add_class_histogram_figure(plot, path, name, shown, legend);
}

void report_apart(const FoundApart& found, Json& json) {
  json["classes"] = Json::array();
  for (std::size_t c = 0; c < found.classes.size(); ++c)
    json["classes"].push_back(class_json(found, c));
  json["channels"] = Json::array();
  for (const ChannelFindings& channel : found.channels)
    json["channels"].push_back(channel_json(found, channel));
}

}  // namespace chalcedony
