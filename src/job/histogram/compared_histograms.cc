#include "job/histogram/compared_histograms.h"

#include <string>
#include <utility>

#include "core/error.h"
#include "figure/compared_histograms_figure.h"
#include "job/histogram/histogram_report.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostCompared = 16;

std::vector<std::string> names_of_channels(const Json& told) {
  std::vector<std::string> names;
  for (const Json& channel : told) names.push_back(channel["channel"].get<std::string>());
  return names;
}

}  // namespace

std::vector<HistogramSeries> series_of(const std::vector<Channel>& channels,
                                       const std::vector<Histogram>& histograms) {
  std::vector<HistogramSeries> series;
  for (std::size_t i = 0; i < channels.size(); ++i) {
    const auto median = median_bin(histograms[i]);
    const bool marked = median && !channels[i].is_hue();
    series.push_back({channels[i], &histograms[i],
                      marked ? value_of_bin(histograms[i].binning(), *median) : 0, marked});
  }
  return series;
}

std::optional<std::vector<Histogram>> ComparedHistograms::histograms_of(
    const std::filesystem::path& input, const std::vector<Channel>& channels,
    const Json& told) const {
  try {
    return pictures_.of(input, [&](const std::filesystem::path& table) {
      return read_channel_table(table, channels, told);
    });
  } catch (const InputError& problem) {
    context_.warn(std::string("a picture is left out of the figure of all histograms: ") +
                  problem.what());
    return std::nullopt;
  }
}

void ComparedHistograms::report(const Json& summary, Plot& plot, const Results& results) const {
  if (plot.format() == FigureFormat::kNone || summary["inputs"].size() < 2) return;
  std::vector<std::string> names;
  std::vector<Channel> channels;
  std::vector<std::pair<std::string, std::vector<Histogram>>> shown;
  std::size_t all = 0;
  for (const Json& picture : summary["inputs"]) {
    const Json& told = picture["channels"];
    if (told.empty() || (!names.empty() && names_of_channels(told) != names)) continue;
    const std::filesystem::path input = picture["file"].get<std::string>();
    if (names.empty()) {
      names = names_of_channels(told);
      for (const std::string& name : names) channels.push_back(channel_named(name, options_.names));
    }
    if (shown.size() < kMostCompared) {
      auto histograms = histograms_of(input, channels, told);
      if (!histograms) continue;
      shown.emplace_back(input.filename().string(), std::move(*histograms));
    }
    ++all;
  }
  if (shown.size() < 2) return;
  std::vector<NamedHistograms> pictures;
  for (const auto& [name, histograms] : shown)
    pictures.push_back({name, series_of(channels, histograms)});
  add_compared_histograms_figure(plot,
                                 results.path("histograms.figure." + extension_of(plot.format())),
                                 pictures, all, counts_);
}

}  // namespace chalcedony
