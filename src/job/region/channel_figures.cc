#include "job/region/channel_figures.h"

#include <utility>

namespace chalcedony {

void add_figure_columns(const std::vector<Channel>& channels, std::vector<std::string>& header) {
  for (const Channel& channel : channels)
    for (const char* figure : {"_mean", "_median", "_spread"})
      header.push_back(channel.name() + figure);
}

void add_figure_fields(const std::vector<ChannelFigures>& figures, std::vector<CsvField>& row) {
  for (const ChannelFigures& channel : figures)
    for (const auto& value : {channel.mean, channel.median, channel.spread})
      row.push_back(value ? CsvField(*value) : CsvField());
}

Json figures_json(const std::vector<Channel>& channels,
                  const std::vector<ChannelFigures>& figures) {
  Json list = Json::array();
  for (std::size_t c = 0; c < channels.size(); ++c) {
    Json one{{"channel", channels[c].name()}, {"unit", channels[c].unit_name()}};
    const auto& [mean, median, spread] = figures[c];
    if (mean) one["mean"] = *mean;
    if (median) one["median"] = *median;
    if (spread) one["standard_deviation"] = *spread;
    list.push_back(std::move(one));
  }
  return list;
}

}  // namespace chalcedony
