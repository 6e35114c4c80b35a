#include "figure/spots_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

#include "figure/plot/fitted_text.h"
#include "figure/plot/legend.h"
#include "figure/plot/shape_overlay.h"
#include "figure/plot/text_color.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kSpotTableWide = 470, kSpotLineHigh = 26, kSpotSwatchWide = 40, kSpotSwatchGap = 3;
constexpr double kSpotNumberWide = 62, kSpotColumnGap = 12;
constexpr int kSpotPoints = 11, kSpotHeadPoints = 10;

constexpr double kSeriesNames = 170, kSeriesHead = 26, kHighestSeriesRow = 58, kSeriesGap = 4;
constexpr double kMostSeriesColumn = 360;
constexpr int kSeriesPoints = 11;

/// A column of numbers, as wide as kSpotNumberWide, that ends at `right`.
struct NumberColumn {
  const char* title;
  double right;
};

std::vector<NumberColumn> number_columns(const Box& table, bool has_changes) {
  std::vector<const char*> titles{"L", "a", "b", "spread"};
  if (has_changes) titles.push_back("delta E");
  std::vector<NumberColumn> columns;
  double right = table.right;
  for (std::size_t i = titles.size(); i > 0; --i, right -= kSpotNumberWide)
    columns.insert(columns.begin(), {titles[i - 1], right});
  return columns;
}

/// Without the sign of what is rounded to 0.
std::string one_decimal(double value) {
  const std::string text = fmt::format("{:.1f}", value);
  return text == "-0.0" ? "0.0" : text;
}

void draw_spot(Plot& plot, Box line, const ShownSpot& spot,
               const std::vector<NumberColumn>& columns) {
  const double middle = line.middle();
  Box swatch = line.cut_left(kSpotSwatchWide, kSpotColumnGap);
  swatch.top += kSpotSwatchGap;
  swatch.bottom -= kSpotSwatchGap;
  plot.swatch(swatch, spot.color);
  const double room = columns.front().right - kSpotNumberWide - line.left;
  plot.label(line.left, middle, fitted_text(spot.name, room, kSpotPoints), kSpotPoints);
  std::vector<std::string> numbers;
  for (const double value : spot.lab) numbers.push_back(one_decimal(value));
  numbers.push_back(one_decimal(spot.spread));
  if (columns.size() > numbers.size())
    numbers.push_back(spot.delta_e ? one_decimal(*spot.delta_e) : "");
  for (std::size_t c = 0; c < columns.size(); ++c)
    plot.label(columns[c].right, middle, numbers[c], kSpotPoints, Ink::kText, "right");
}

void draw_spot_table(Plot& plot, Box box, const std::vector<ShownSpot>& spots) {
  const bool has_changes = std::any_of(
      spots.begin(), spots.end(), [](const ShownSpot& spot) { return spot.delta_e.has_value(); });
  const std::vector<NumberColumn> columns = number_columns(box, has_changes);
  const Box head = box.cut_top(kSpotLineHigh);
  for (const NumberColumn& column : columns)
    plot.label(column.right, head.middle(), column.title, kSpotHeadPoints, Ink::kFaint, "right");
  const std::size_t shown =
      shown_lines(spots.size(), static_cast<std::size_t>(box.height() / kSpotLineHigh));
  for (std::size_t s = 0; s < shown; ++s)
    draw_spot(plot, box.cut_top(kSpotLineHigh), spots[s], columns);
  if (shown < spots.size())
    plot.label(box.left, box.top + kSpotLineHigh / 2, and_more(spots.size() - shown), kSpotPoints,
               Ink::kFaint);
}

/// The spots that are shown, in their order: those that went farthest in the first `pictures`.
std::vector<std::size_t> shown_spots(const SpotSeries& series, std::size_t pictures) {
  std::vector<double> farthest;
  for (const std::vector<SeenSpot>& spot : series.seen) {
    double most = 0;
    for (std::size_t p = 0; p < pictures; ++p) most = std::max(most, spot[p].delta_e.value_or(0));
    farthest.push_back(most);
  }
  std::vector<std::size_t> places(series.spots.size());
  std::iota(places.begin(), places.end(), std::size_t{0});
  std::stable_sort(places.begin(), places.end(),
                   [&](std::size_t a, std::size_t b) { return farthest[a] > farthest[b]; });
  places.resize(std::min(places.size(), kMostSeriesSpots));
  std::sort(places.begin(), places.end());
  return places;
}

void draw_seen(Plot& plot, const Box& cell, const SeenSpot& seen) {
  if (seen.color.empty()) return;
  plot.bare_swatch(cell, seen.color);
  if (seen.delta_e)
    plot.label((cell.left + cell.right) / 2, cell.middle(), one_decimal(*seen.delta_e),
               kSeriesPoints, text_color_on(seen.color), "center");
}

std::string series_subtitle(const SpotSeries& series, std::size_t pictures, std::size_t spots) {
  std::string text = "numbers are delta E 2000 to " + series.to;
  if (pictures < series.pictures.size())
    text += fmt::format("; the first {} of {} pictures", pictures, series.pictures.size());
  if (spots < series.spots.size())
    text += fmt::format("; the {} of {} spots that went farthest", spots, series.spots.size());
  return text;
}

/// How far steady spots went, below each picture.
void draw_steady(Plot& plot, Box row, const SpotSeries& series, const std::vector<Box>& columns) {
  plot.label(row.left, row.middle(), "steady spots, up to", kSeriesPoints, Ink::kFaint);
  for (std::size_t p = 0; p < columns.size(); ++p)
    if (series.steady[p])
      plot.label((columns[p].left + columns[p].right) / 2, row.middle(),
                 one_decimal(*series.steady[p]), kSeriesPoints, Ink::kFaint, "center");
}

}  // namespace

void add_spots_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const std::string& subtitle, const SampleSet& places,
                      const std::vector<ShownSpot>& spots, const Thumbnail& picture) {
  std::vector<std::string> colors;
  for (const ShownSpot& spot : spots) colors.push_back(spot.color);
  const Overlay over = outlined_samples(plot, places, colors);
  Box body = plot.begin(path, "Spots on " + name, subtitle);
  const Box table = body.cut_right(kSpotTableWide, Plot::kGap);
  plot.show(body, "", picture, over);
  draw_spot_table(plot, table, spots);
}

void add_spot_series_figure(Plot& plot, const std::filesystem::path& path,
                            const SpotSeries& series) {
  const std::size_t pictures = std::min(series.pictures.size(), kMostSeriesPictures);
  const std::vector<std::size_t> spots = shown_spots(series, pictures);
  const bool has_steady = std::any_of(series.steady.begin(), series.steady.end(),
                                      [](const auto& one) { return one.has_value(); });
  const double below = has_steady ? kSeriesHead : 0;
  const double row_high = std::min(
      kHighestSeriesRow,
      (Plot::kBodyHeight - kSeriesHead - below) / static_cast<double>(spots.size()) - kSeriesGap);
  const double body_high =
      kSeriesHead + static_cast<double>(spots.size()) * (row_high + kSeriesGap) + below;
  Box body =
      plot.begin(path, fmt::format("Spots in {} pictures", series.pictures.size()),
                 series_subtitle(series, pictures, spots.size()), Plot::page_height(body_high));
  const Box names = body.cut_left(kSeriesNames, kSpotColumnGap);
  body.right = std::min(
      body.right, body.left + static_cast<double>(pictures) * (kMostSeriesColumn + kSeriesGap));
  const std::vector<Box> columns = columns_of(body, pictures, kSeriesGap);
  for (std::size_t p = 0; p < pictures; ++p)
    plot.label(columns[p].left, body.top + kSeriesHead / 2,
               fitted_text(series.pictures[p], columns[p].width(), kSpotHeadPoints),
               kSpotHeadPoints);
  for (std::size_t s = 0; s < spots.size(); ++s) {
    const double top = body.top + kSeriesHead + static_cast<double>(s) * (row_high + kSeriesGap);
    plot.label(names.left, top + row_high / 2,
               fitted_text(series.spots[spots[s]], kSeriesNames, kSeriesPoints), kSeriesPoints);
    for (std::size_t p = 0; p < pictures; ++p)
      draw_seen(plot, {columns[p].left, top, columns[p].right, top + row_high},
                series.seen[spots[s]][p]);
  }
  if (has_steady)
    draw_steady(plot, {names.left, body.bottom - below, body.right, body.bottom}, series, columns);
}

}  // namespace chalcedony
