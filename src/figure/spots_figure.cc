#include "figure/spots_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/fitted_text.h"
#include "figure/plot/largest_places.h"
#include "figure/plot/legend.h"
#include "figure/plot/shape_overlay.h"
#include "figure/plot/text_color.h"
#include "figure/spot_lines.h"
#include "io/text/number_text.h"

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

void draw_spot(Plot& plot, Box line, const ShownSpot& spot,
               const std::vector<NumberColumn>& columns) {
  const double middle = line.middle();
  Box swatch = line.cut_left(kSpotSwatchWide, kSpotColumnGap);
  swatch.top += kSpotSwatchGap;
  swatch.bottom -= kSpotSwatchGap;
  plot.swatch(swatch, spot.color);
  if (!spot.other.empty()) plot.bare_swatch(swatch.cut_left(swatch.width() / 2), spot.other);
  const double room = columns.front().right - kSpotNumberWide - line.left;
  plot.label(line.left, middle, fitted_text(spot.name, room, kSpotPoints), kSpotPoints);
  std::vector<std::string> numbers;
  for (const double value : spot.lab) numbers.push_back(fixed_text(value, 1));
  numbers.push_back(fixed_text(spot.spread, 1));
  if (columns.size() > numbers.size())
    numbers.push_back(spot.delta_e ? fixed_text(*spot.delta_e, 1) : "");
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

/// The spots that are shown, in their order: those that went farthest.
std::vector<std::size_t> shown_spots(const SpotSeries& series) {
  std::vector<double> farthest;
  for (const std::vector<SeenSpot>& spot : series.seen) {
    double most = 0;
    for (const SeenSpot& seen : spot) most = std::max(most, seen.delta_e.value_or(0));
    farthest.push_back(most);
  }
  return largest_places(farthest, kMostSeriesSpots);
}

bool steady_is_known(const SpotSeries& series) {
  return std::any_of(series.steady.begin(), series.steady.end(),
                     [](const std::optional<double>& one) { return one.has_value(); });
}

void draw_seen(Plot& plot, const Box& cell, const SeenSpot& seen) {
  if (seen.color.empty()) return;
  plot.bare_swatch(cell, seen.color);
  if (seen.delta_e)
    plot.label((cell.left + cell.right) / 2, cell.middle(), fixed_text(*seen.delta_e, 1),
               kSeriesPoints, text_color_on(seen.color), "center");
}

std::string series_subtitle(const SpotSeries& series, std::size_t spots, bool as_lines) {
  const bool has_steady = steady_is_known(series);
  std::string text =
      as_lines ? "how far spots are from " + series.to : "numbers are delta E 2000 to " + series.to;
  if (as_lines && has_steady) text += "; gray: as far as steady spots went";
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
                 fixed_text(*series.steady[p], 1), kSeriesPoints, Ink::kFaint, "center");
}

/// A row for each spot, and one for the steady ones.
void draw_rows(Plot& plot, Box body, const SpotSeries& series,
               const std::vector<std::size_t>& spots, double row_high) {
  const std::size_t pictures = series.pictures.size();
  const Box names = body.cut_left(kSeriesNames, kSpotColumnGap);
  body.right = std::min(
      body.right, body.left + static_cast<double>(pictures) * (kMostSeriesColumn + kSeriesGap));
  const std::vector<Box> columns = columns_of(body, pictures, kSeriesGap);
  const auto heads = fitted_names(series.pictures, columns.front().width(), kSpotHeadPoints);
  for (std::size_t p = 0; p < pictures; ++p)
    plot.label(columns[p].left, body.top + kSeriesHead / 2, heads[p], kSpotHeadPoints);
  double top = body.top + kSeriesHead;
  for (const std::size_t s : spots) {
    plot.label(names.left, top + row_high / 2,
               fitted_text(series.spots[s], kSeriesNames, kSeriesPoints), kSeriesPoints);
    for (std::size_t p = 0; p < pictures; ++p)
      draw_seen(plot, {columns[p].left, top, columns[p].right, top + row_high}, series.seen[s][p]);
    top += row_high + kSeriesGap;
  }
  if (steady_is_known(series))
    draw_steady(plot, {names.left, top, body.right, top + kSeriesHead}, series, columns);
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
  const std::size_t pictures = series.pictures.size();
  const bool as_lines = pictures > kMostSeriesPictures;
  const std::vector<std::size_t> spots = shown_spots(series);
  const std::string title = fmt::format("Spots in {} pictures", pictures),
                    subtitle = series_subtitle(series, spots.size(), as_lines);
  if (as_lines) return draw_spot_lines(plot, plot.begin(path, title, subtitle), series, spots);
  const double below = steady_is_known(series) ? kSeriesHead : 0;
  const auto rows = static_cast<double>(spots.size());
  const double row_high =
      std::min(kHighestSeriesRow, (Plot::kBodyHeight - kSeriesHead - below) / rows - kSeriesGap);
  const double body_high = kSeriesHead + rows * (row_high + kSeriesGap) + below;
  draw_rows(plot, plot.begin(path, title, subtitle, Plot::page_height(body_high)), series, spots,
            row_high);
}

}  // namespace chalcedony
