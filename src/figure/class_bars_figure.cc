#include "figure/class_bars_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/picture_rows.h"
#include "figure/plot/placed_texts.h"
#include "figure/plot/text_color.h"

namespace chalcedony {
namespace {

constexpr double kBarRowsHigh = 560, kLowestBarRow = 24,
                 kHighestBarRow = 64;                 // of the page, in pixels
constexpr std::size_t kMostBars = 600;                // lower ones are not seen at all
constexpr double kHalfBar = 0.4, kHalfThinBar = 0.5;  // of a row; thin ones leave no gap
constexpr double kBesideWide = 230, kBarTicsBelow = 34, kAroundText = 8;
constexpr double kLeastEnd = 0.01;  // percent, of an axis
constexpr std::size_t kCountTics = 5;
constexpr const char* kBesideColor = "#a5762a";

/// An axis of bars, and how their values are written.
struct BarScale {
  BarsOf of = BarsOf::kShares;
  std::string title;
  double end = 100;

  std::string text(double value) const {
    if (of == BarsOf::kRegions) return grouped(std::round(value));
    return fmt::format("{:.{}f}", value, end < 1 ? 3 : 1);
  }
};

/// The least of 100, 90, ..., 10, 5, 2, 1, 0.5, ... that is not below a share.
double round_end(double most) {
  double end = 100;
  while (end > 10 && end - 10 >= most) end -= 10;
  for (double ten = 10; end == ten && ten > kLeastEnd; ten /= 10)
    for (const double part : {0.5, 0.2, 0.1})
      if (part * ten >= most) end = part * ten;
  return end;
}

/// The first tic that is not below a number.
double round_end_of_counts(double most) {
  const std::vector<double> tics = round_tics(0, std::max(1.0, most), kCountTics);
  const double step = tics.size() > 1 ? tics[1] : 1;
  return std::ceil(std::max(1.0, most) / step) * step;
}

/// The mean of every `step` that follow each other.
std::vector<double> means_of(const std::vector<double>& values, std::size_t step) {
  std::vector<double> means;
  for (std::size_t first = 0; first < values.size(); first += step) {
    const std::size_t count = std::min(step, values.size() - first);
    double sum = 0;
    for (std::size_t i = first; i < first + count; ++i) sum += values[i];
    means.push_back(sum / static_cast<double>(count));
  }
  return means;
}

/// What is drawn: a row for each picture, or for some of them.
struct BarRows {
  std::size_t pictures_each;
  std::vector<std::string> names;  // of the first picture of each
  std::vector<std::vector<double>> of_classes;
  std::vector<double> beside;

  std::size_t size() const { return names.size(); }
  bool thin() const { return size() > kMostNamedRows; }
  double half() const { return thin() ? kHalfThinBar : kHalfBar; }
};

BarRows bar_rows_of(const ClassBars& figure) {
  const std::size_t pictures = figure.pictures.size();
  BarRows rows{(pictures + kMostBars - 1) / kMostBars, {}, {}, {}};
  for (std::size_t i = 0; i < pictures; i += rows.pictures_each)
    rows.names.push_back(figure.pictures[i]);
  for (std::size_t c = 0; c < figure.classes.size(); ++c) {
    std::vector<double> shares;
    for (const std::vector<double>& picture : figure.values) shares.push_back(picture[c]);
    rows.of_classes.push_back(means_of(shares, rows.pictures_each));
  }
  if (figure.beside) rows.beside = means_of(figure.beside->percents, rows.pictures_each);
  return rows;
}

/// A bar of a row from one value to another, as a line of data.
std::string bar(double from, double to, std::size_t row, double half) {
  const double middle = static_cast<double>(row) + 0.5;
  return bar_data({from, to, middle - half, middle + half});
}

void set_rows(Plot& plot, const BarRows& rows, double end, std::size_t tics) {
  plot.line(fmt::format("set xrange [0:{:g}]; set yrange [{}:0]; set border 1", end, rows.size()));
  plot.line("unset ytics; set grid noytics; set xtics " + tic_list(round_tics(0, end, tics)));
}

void draw_class_bars(Plot& plot, const Box& box, const Edges& axes, const BarRows& rows,
                     const std::vector<LegendLine>& classes, const BarScale& scale) {
  const Box drawn = plot.panel(box, scale.title, axes);
  set_rows(plot, rows, scale.end, 10);
  name_rows(plot, rows.names, axes.left);
  std::vector<double> ends(rows.size(), 0.0);
  std::string bars;
  PlacedTexts dark, light;
  for (std::size_t c = 0; c < classes.size(); ++c) {
    PlacedTexts& texts = text_color_on(classes[c].color) == kDarkText ? dark : light;
    std::string data;
    for (std::size_t r = 0; r < rows.size(); ++r) {
      const double value = rows.of_classes[c][r], from = ends[r];
      if (value <= 0) continue;
      ends[r] += value;
      data += bar(from, ends[r], r, rows.half());
      const std::string text = scale.text(value);
      if (!rows.thin() &&
          text_width(text, kPicturePoints) + kAroundText < value / scale.end * drawn.width())
        texts.add((from + ends[r]) / 2, static_cast<double>(r) + 0.5, text);
    }
    if (!data.empty())
      bars += (bars.empty() ? "plot " : ", ") + plot_of_bars(plot, data, classes[c].color);
  }
  plot.line(bars + dark.plot_of(plot, kDarkText) + light.plot_of(plot, kLightText));
}

/// One value of each row, from 0 up to the end of its scale.
void draw_values(Plot& plot, const Box& box, const Edges& axes, const BarRows& rows,
                 const std::vector<double>& values, const BarScale& scale,
                 const std::string& color) {
  const Box drawn = plot.panel(box, scale.title, axes);
  set_rows(plot, rows, scale.end, 4);
  if (axes.left > 0) name_rows(plot, rows.names, axes.left);
  std::string bars;
  PlacedTexts on_paper, on_bar;
  for (std::size_t r = 0; r < rows.size(); ++r) {
    bars += bar(0, values[r], r, rows.half());
    if (rows.thin()) continue;
    // Beside its bar, or in it where there is no room left.
    const std::string text = scale.text(values[r]);
    const double half =
        (text_width(text, kPicturePoints) + kAroundText) / drawn.width() * scale.end / 2;
    const double middle = static_cast<double>(r) + 0.5;
    if (values[r] + 2 * half <= scale.end) {
      on_paper.add(values[r] + half, middle, text);
    } else {
      on_bar.add(values[r] - half, middle, text);
    }
  }
  plot.line("plot " + plot_of_bars(plot, bars, color) + on_paper.plot_of(plot, kDarkText) +
            on_bar.plot_of(plot, text_color_on(color)));
}

BarScale share_scale(const std::string& title, const std::vector<double>& shares) {
  return {BarsOf::kShares, title, round_end(*std::max_element(shares.begin(), shares.end()))};
}

/// Of bars that are divided among classes, or of those of the only class.
BarScale scale_of(const ClassBars& figure, const BarRows& rows) {
  if (figure.of == BarsOf::kShares)
    return rows.of_classes.size() > 1 ? BarScale{BarsOf::kShares, figure.axis, 100}
                                      : share_scale(figure.axis, rows.of_classes[0]);
  double most = 0;
  for (std::size_t r = 0; r < rows.size(); ++r) {
    double all = 0;
    for (const std::vector<double>& of_class : rows.of_classes) all += of_class[r];
    most = std::max(most, all);
  }
  return {BarsOf::kRegions, figure.axis, round_end_of_counts(most)};
}

/// What the numbers of the legend are, and bars of many pictures.
std::string subtitle_of(const ClassBars& figure, const BarRows& rows) {
  return rows.pictures_each == 1 ? figure.subtitle
                                 : fmt::format("each bar is the mean of {} pictures; {}",
                                               rows.pictures_each, figure.subtitle);
}

}  // namespace

void add_class_bars_figure(Plot& plot, const std::filesystem::path& path, const ClassBars& figure) {
  const BarRows rows = bar_rows_of(figure);
  const double row_high =
      std::clamp(kBarRowsHigh / static_cast<double>(rows.size()), kLowestBarRow, kHighestBarRow);
  const double rows_high = row_high * static_cast<double>(std::min(rows.size(), kMostNamedRows));
  const double legend = legend_height(figure.classes, Plot::kBodyWidth);
  Box body = plot.begin(path, figure.title, subtitle_of(figure, rows),
                        Plot::page_height(Plot::kPanelTitle + rows_high + kBarTicsBelow + legend));
  draw_legend(plot, figure.classes, body.cut_bottom(legend));
  const Edges axes{.left = row_names_wide(rows.names, body.width()), .bottom = kBarTicsBelow};
  if (figure.beside)
    draw_values(plot, body.cut_right(kBesideWide, Plot::kGap), {.bottom = kBarTicsBelow}, rows,
                rows.beside, share_scale(figure.beside->title, rows.beside), kBesideColor);
  const BarScale scale = scale_of(figure, rows);
  if (figure.classes.size() > 1) {
    draw_class_bars(plot, body, axes, rows, figure.classes, scale);
  } else {
    draw_values(plot, body, axes, rows, rows.of_classes[0], scale, figure.classes[0].color);
  }
}

}  // namespace chalcedony
