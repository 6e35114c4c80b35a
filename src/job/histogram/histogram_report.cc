#include "job/histogram/histogram_report.h"

#include "io/file/whole_file.h"
#include "io/text/csv.h"
#include "io/text/json_text.h"
#include "job/histogram/count_rows.h"

namespace chalcedony {
namespace {

// What rows of a channel table are called that count pixels beside the bins.
constexpr const char *kBelowBins = "below", *kAboveBins = "above", *kNoHue = "no-hue",
                     *kNotANumber = "not-a-number";

}  // namespace

std::optional<std::size_t> median_bin(const Histogram& histogram) {
  const std::uint64_t all = histogram.in_bins();
  if (all == 0) return std::nullopt;
  std::uint64_t left = (all + 1) / 2;
  std::size_t bin = 0;
  while (left > histogram.count(bin)) left -= histogram.count(bin++);
  return bin;
}

double value_of_bin(const Binning& binning, std::size_t bin) {
  return binning.holds_codes() ? binning.edge(bin) : binning.center(bin);
}

const HistogramColumns& channel_columns() {
  static const HistogramColumns columns{
      {"channel", "bin", "from", "below", "count", "share_percent"}, 1, 4};
  return columns;
}

const HistogramColumns& joint_columns() {
  static const HistogramColumns columns{{"first", "second", "first_from", "first_below",
                                         "second_from", "second_below", "count", "share_percent"},
                                        2,
                                        6};
  return columns;
}

void write_channel_table(const std::filesystem::path& path, const std::vector<Channel>& channels,
                         const HistogramTally& tally) {
  CsvTable table(channel_columns().header);
  for (std::size_t i = 0; i < channels.size(); ++i) {
    const Histogram& h = tally.channels[i];
    const std::string name = channels[i].name();
    const auto row = [&](CsvField bin, CsvField from, CsvField below, std::uint64_t count) {
      table.add({name, bin, from, below, count, percent(count, h.total())});
    };
    const Binning& binning = h.binning();
    for (std::size_t b = 0; b < binning.bins(); ++b)
      row(std::uint64_t{b}, binning.edge(b), binning.edge(b + 1), h.count(b));
    row(kBelowBins, {}, binning.low(), h.below());
    row(kAboveBins, binning.high(), {}, h.above());
    row(kNoHue, {}, {}, h.no_hue());
    row(kNotANumber, {}, {}, h.not_a_number());
  }
  table.write(path);
}

std::vector<Histogram> read_channel_table(const std::filesystem::path& path,
                                          const std::vector<Channel>& channels, const Json& told) {
  CountRows rows(path, channel_columns().count);
  std::vector<Histogram> histograms;
  for (std::size_t i = 0; i < channels.size(); ++i) {
    const Channel& channel = channels[i];
    Histogram& h = histograms.emplace_back(Binning(told[i]["from"], told[i]["to"], told[i]["bins"]),
                                           channel.is_hue());
    for (std::size_t b = 0; b < h.binning().bins(); ++b)
      h.add(static_cast<std::int32_t>(b), rows.next({channel.name(), std::to_string(b)}));
    h.add(Binning::kBelow, rows.next({channel.name(), kBelowBins}));
    h.add(Binning::kAbove, rows.next({channel.name(), kAboveBins}));
    for (const char* none : {kNoHue, kNotANumber})
      h.add(Binning::kNotANumber, rows.next({channel.name(), none}));
  }
  return histograms;
}

void write_joint_table(const std::filesystem::path& path, const HistogramOptions& options,
                       const HistogramTally& tally) {
  std::size_t cells = 0;
  for (const JointHistogram& h : tally.joint) cells += h.first().bins() * h.second().bins();
  constexpr std::size_t kBytesPerCell = 96;  // an upper bound on most lines
  CsvTable table(joint_columns().header, cells * kBytesPerCell);
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
    apart(kNoHue, h.no_hue());
    apart(kNotANumber, h.not_a_number());
  }
  table.write(path);
}

void write_joint_matrix(const std::filesystem::path& path, const std::pair<Channel, Channel>& pair,
                        const JointHistogram& h) {
  std::vector<CsvField> row;
  std::vector<std::string> header{pair.first.name() + " down; " + pair.second.name() + " across"};
  for (std::size_t b = 0; b < h.second().bins(); ++b)
    header.push_back(CsvField(h.second().edge(b)).text());
  CsvTable table(header);
  for (std::size_t a = 0; a < h.first().bins(); ++a) {
    row.assign(1, CsvField(h.first().edge(a)));
    for (std::size_t b = 0; b < h.second().bins(); ++b) row.emplace_back(h.count(a, b));
    table.add(row);
  }
  table.write(path);
}

void write_cube_table(const std::filesystem::path& path, const std::string& picture,
                      const CubeHistogram& cube) {
  const std::size_t n = cube.side();
  std::vector<std::string> header{"picture", "space", "unit", "no_hue"};
  for (std::size_t bin = 0; bin < n * n * n; ++bin)
    header.push_back("bin_" + std::to_string(bin / (n * n)) + "_" + std::to_string(bin / n % n) +
                     "_" + std::to_string(bin % n));
  CsvTable table(header);
  const double total = static_cast<double>(cube.total());
  for (const bool shares : {false, true}) {
    const auto field = [&](std::uint64_t count) {
      return shares ? CsvField(static_cast<double>(count) / total) : CsvField(count);
    };
    std::vector<CsvField> row{picture, cube.channels()[0].space->id, shares ? "share" : "pixels",
                              field(cube.no_hue())};
    for (const std::uint64_t count : cube.counts()) row.push_back(field(count));
    table.add(row);
  }
  table.write(path);
}

void write_cube_json(const std::filesystem::path& path, const std::string& picture,
                     const CubeHistogram& cube) {
  Json json{{"chalcedony", "cube"},    {"version", 1},
            {"picture", picture},      {"space", std::string(cube.channels()[0].space->id)},
            {"bins", cube.side()},     {"pixels", cube.total()},
            {"no_hue", cube.no_hue()}, {"shares", Json::array()}};
  const double total = static_cast<double>(cube.total());
  for (const std::uint64_t count : cube.counts())
    json["shares"].push_back(static_cast<double>(count) / total);
  write_text_file(path, json_text(json) + "\n");
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

Json cube_json(const CubeHistogram& cube) {
  std::uint64_t filled = 0;
  for (const std::uint64_t count : cube.counts()) filled += count > 0;
  return Json{{"space", std::string(cube.channels()[0].space->id)},
              {"bins", cube.side()},
              {"filled_bins", filled},
              {"no_hue", cube.no_hue()}};
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

}  // namespace chalcedony
