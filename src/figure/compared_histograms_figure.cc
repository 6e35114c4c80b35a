#include "figure/compared_histograms_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kNumbersBeside = 64, kNumbersBelow = 26;  // of the outer axes
constexpr double kBareAxis = 4;                            // of those without numbers
constexpr double kKeyTop = 48, kChannelsRow = 18, kSample = 18, kSampleGap = 6, kNameGap = 20;
constexpr double kTicNumberWide = 60;  // what a number of a level axis takes
constexpr int kChannelPoints = 11;

/// The names of the channels in the colors of their curves, to the right end of a box.
void draw_key(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
              const SeriesPlaces& members) {
  for (auto m = members.rbegin(); m != members.rend(); ++m) {
    const std::string name = series[*m].channel.name();
    const Box text = box.cut_right(text_width(name, kChannelPoints), kSampleGap);
    plot.label(text.left, text.middle(), name, kChannelPoints);
    const Box sample = box.cut_right(kSample, kNameGap);
    plot.bare_swatch({sample.left, sample.middle() - 1.5, sample.right, sample.middle() + 1.5},
                     series_color(series[*m].channel, *m));
  }
}

/// Where a panel stands in the grid: which of its axes have numbers.
struct OuterSides {
  bool left, bottom;
};

void draw_picture(Plot& plot, const Box& box, const std::string& title,
                  const std::vector<HistogramSeries>& series, const SeriesPlaces& members,
                  const CountAxis& counts, double highest, const OuterSides& outer) {
  const HistogramSeries& first = series[members.front()];
  const Binning& binning = first.histogram->binning();
  const Box inner = plot.panel(box, title, {.left = kBareAxis, .bottom = kBareAxis});
  plot.line(fmt::format("set xrange [{:.9g}:{:.9g}]", binning.low(), binning.high()));
  plot.line("set xtics " + channel_tics(first.channel, binning,
                                        static_cast<std::size_t>(inner.width() / kTicNumberWide),
                                        outer.bottom));
  set_count_range(
      plot, first,
      {.counts = counts, .highest = highest, .high = inner.height(), .numbered = outer.left});
  plot.line("plot " + histogram_curves(plot, series, members, counts, CurveNames::kNone));
}

/// What the axes count, and what is drawn on them.
std::string subtitle_of(const std::vector<HistogramSeries>& series, const SeriesPlaces& members,
                        const CountAxis& counts) {
  const bool medians = std::any_of(members.begin(), members.end(),
                                   [&](std::size_t m) { return series[m].has_median; });
  return "across: " + shared_axis_title(series, members) + "; up: " + counts.title() +
         (counts.logarithmic ? ", logarithmic" : "") + "; all on one axis" +
         (medians ? "; medians are dashed" : "");
}

}  // namespace

void add_compared_histograms_figure(Plot& plot, const std::filesystem::path& path,
                                    const std::vector<NamedHistograms>& pictures, std::size_t all,
                                    const CountAxis& counts) {
  const std::vector<HistogramSeries>& front = pictures.front().series;
  const SeriesPlaces members = panels_of(front).front();
  const std::size_t shown = pictures.size();
  Box body = plot.begin(
      path,
      shown == all ? fmt::format("Channel histograms of {} pictures", all)
                   : fmt::format("Channel histograms of the first {} of {} pictures", shown, all),
      subtitle_of(front, members, counts));
  draw_key(plot, {body.left, kKeyTop, body.right, kKeyTop + kChannelsRow}, front, members);
  double highest = 0;
  std::vector<std::string> names;
  for (const NamedHistograms& one : pictures) {
    highest = std::max(highest, highest_bin(one.series, members, counts));
    names.push_back(one.name);
  }
  const auto columns = static_cast<std::size_t>(std::ceil(std::sqrt(shown)));
  body = body.inside({.left = kNumbersBeside, .bottom = kNumbersBelow});
  const auto rows = rows_of(body, (shown + columns - 1) / columns, Plot::kGap / 2);
  const auto places = columns_of(body, columns, Plot::kGap);
  names = fitted_names(names, places.front().width() - kBareAxis, Plot::kPanelTitlePoints);
  for (std::size_t i = 0; i < shown; ++i) {
    const Box &row = rows[i / columns], &column = places[i % columns];
    draw_picture(plot, {column.left, row.top, column.right, row.bottom}, names[i],
                 pictures[i].series, members, counts, highest,
                 {.left = i % columns == 0, .bottom = i + columns >= shown});
  }
}

}  // namespace chalcedony
