// The figures of channels in a region or a spot, in tables and summaries.
#ifndef CHALCEDONY_JOB_REGION_CHANNEL_FIGURES_H_
#define CHALCEDONY_JOB_REGION_CHANNEL_FIGURES_H_

#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/region_values.h"
#include "io/text/csv.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Adds the columns CHANNEL_mean, CHANNEL_median and CHANNEL_spread of each channel to a header.
void add_figure_columns(const std::vector<Channel>& channels, std::vector<std::string>& header);

/// Adds the fields of those columns to a row; empty where there is no figure.
void add_figure_fields(const std::vector<ChannelFigures>& figures, std::vector<CsvField>& row);

/// For each channel its `channel`, `unit`, `mean`, `median` and `standard_deviation`, where it has
/// them.
///
/// Shape     figures for each channel
Json figures_json(const std::vector<Channel>& channels, const std::vector<ChannelFigures>& figures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_CHANNEL_FIGURES_H_
