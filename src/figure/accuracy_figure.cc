#include "figure/accuracy_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/heat_cells.h"
#include "figure/plot/heat_scale.h"
#include "figure/plot/name_tics.h"
#include "figure/plot/placed_texts.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostWithCounts = 9;   // more classes leave room for shares only
constexpr std::size_t kMostWithShares = 16;  // and then for colors only, without totals
constexpr std::size_t kMostNames = 30;       // beside one another; of more every second, third, ...
// Of the page, in pixels.
constexpr double kLeastNamesWide = 140, kMostNamesWide = 260, kBesideClassNames = 16;
constexpr double kSharesScaleShort = 136, kKeyHigh = 40;
constexpr int kCellPoints = 11, kBarPoints = 12;
constexpr const char* kUsersColor = "#5b7f9d";
constexpr const char* kProducersColor = "#d9a04a";

std::string count_text(std::uint64_t count) { return grouped(static_cast<double>(count)); }

std::string percent_text(const std::optional<double>& share) {
  return share ? fmt::format("{:.1f} %", 100 * *share) : "-";
}

/// What the names of classes take beside a panel.
double class_names_wide(const std::vector<std::string>& names, int points) {
  return std::clamp(widest_text(names, points) + kBesideClassNames, kLeastNamesWide,
                    kMostNamesWide);
}

/// Names of classes as they stand beside a panel that leaves them so much.
std::vector<std::string> beside_panel(const std::vector<std::string>& names, double wide,
                                      int points) {
  return fitted_names(names, wide - kBesideClassNames, points);
}

/// Totals of rows and columns beside the matrix, and the accuracies behind them.
void add_totals(PlacedTexts& totals, const ErrorMatrix& matrix, const Accuracy& accuracy) {
  const double below = static_cast<double>(matrix.rows()) + 0.5;
  const double beside = static_cast<double>(matrix.columns()) + 0.5;
  for (std::size_t r = 0; r < matrix.rows(); ++r) {
    const double y = static_cast<double>(r) + 0.5;
    totals.add(beside, y, count_text(matrix.row_total(r)));
    if (r < matrix.columns()) totals.add(beside + 1, y, percent_text(accuracy.classes[r].users));
  }
  for (std::size_t c = 0; c < matrix.columns(); ++c) {
    const double x = static_cast<double>(c) + 0.5;
    totals.add(x, below, count_text(matrix.column_total(c)));
    totals.add(x, below + 1, percent_text(accuracy.classes[c].producers));
  }
  totals.add(beside, below, count_text(matrix.total()));
  totals.add(beside + 1, below + 1, percent_text(accuracy.overall));
}

/// Cells with counts and shares of their row, as far as there is room for them.
HeatCells cells_of(const ErrorMatrix& matrix) {
  const std::size_t width = matrix.columns();
  HeatCells cells;
  for (std::size_t r = 0; r < matrix.rows(); ++r)
    for (std::size_t c = 0; c < width; ++c) {
      if (matrix.at(r, c) == 0) continue;
      const double x = static_cast<double>(c) + 0.5, y = static_cast<double>(r) + 0.5;
      const double share =
          static_cast<double>(matrix.at(r, c)) / static_cast<double>(matrix.row_total(r));
      cells.add(x, y, share);
      if (width <= kMostWithCounts) cells.add_text(x, y - 0.16, share, count_text(matrix.at(r, c)));
      if (width <= kMostWithShares)
        cells.add_text(x, width <= kMostWithCounts ? y + 0.18 : y, share, percent_text(share));
    }
  return cells;
}

}  // namespace

void add_matrix_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<std::string>& rows, const ErrorMatrix& matrix,
                       const Accuracy& accuracy) {
  const std::size_t height = matrix.rows(), width = matrix.columns();
  const bool with_totals = width <= kMostWithShares;
  const std::size_t more = with_totals ? 2 : 0;  // rows and columns beside the matrix
  const HeatCells cells = cells_of(matrix);
  PlacedTexts totals;
  if (with_totals) add_totals(totals, matrix, accuracy);

  Box body =
      plot.begin(path, "Error matrix of " + name,
                 "rows: what the map says; columns: the reference; shares and colors are of each "
                 "row");
  const Box scale = cut_color_scale(body);
  const double names_wide = class_names_wide(rows, kCellPoints);
  const Box cells_at = plot.panel(
      body, "", {.left = names_wide, .top = with_totals ? kNamesAbove : kTurnedNamesAbove});
  set_heat_scale(plot);
  plot.line("unset grid; unset border; unset key; set cbrange [0:1]");
  plot.line(fmt::format("set xrange [0:{}]; set yrange [{}:0]", width + more, height + more));
  const std::vector<std::string> columns =
      names_above({rows.begin(), rows.begin() + static_cast<std::ptrdiff_t>(width)},
                  cells_at.width() / static_cast<double>(width + more), !with_totals, kCellPoints);
  const auto beside = [&](const char* accuracy_name) {
    return with_totals ? std::vector<std::string>{"total", accuracy_name}
                       : std::vector<std::string>{};
  };
  plot.line(fmt::format("unset xtics; set x2range [0:{}]", width + more));
  plot.line("set x2tics " + name_tics(columns, beside("user's"), kMostNames) +
            (with_totals ? "" : " rotate by 60 left") + " scale 0 font ',11'");
  plot.line(
      "set ytics " +
      name_tics(beside_panel(rows, names_wide, kCellPoints), beside("producer's"), kMostNames) +
      " scale 0 font ',11'");
  plot.color_scale(scale.inside({.top = kSharesScaleShort, .bottom = kSharesScaleShort}));
  plot.line(
      "set format cb ''; set cbtics ('0 %%' 0, '25 %%' 0.25, '50 %%' 0.5, '75 %%' 0.75, "
      "'100 %%' 1) font ',11'");
  const std::string border =
      with_totals ? fmt::format("border lc rgb '{}'", Ink::kFaint) : "noborder";
  plot.line(cells.plot_of(plot, 0.48, border) + totals.plot_of(plot, Ink::kText));
  plot.line("unset colorbox; unset x2tics; set xtics auto");
}

void add_accuracy_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                         const std::vector<std::string>& classes, const Accuracy& accuracy) {
  std::string users, producers;
  const auto add = [](std::string& to, double y, const std::optional<double>& value,
                      const std::optional<Interval>& interval) {
    if (value)
      to += fmt::format("{:.6g} {:g} {:.6g} {:.6g}\n", 100 * *value, y, 100 * interval->low,
                        100 * interval->high);
  };
  for (std::size_t c = 0; c < classes.size(); ++c) {
    const ClassAccuracy& one = accuracy.classes[c];
    add(users, static_cast<double>(c) + 0.32, one.users, one.users_interval);
    add(producers, static_cast<double>(c) + 0.68, one.producers, one.producers_interval);
  }
  const std::string kappa =
      accuracy.kappa ? fmt::format(", kappa {:.3f}", accuracy.kappa->value) : "";
  Box body =
      plot.begin(path, "Accuracy of " + name,
                 fmt::format("{} pixels assessed: overall {}{}; lines are confidence intervals",
                             count_text(accuracy.total), percent_text(accuracy.overall), kappa));
  const Box key = body.cut_top(kKeyHigh);
  const double names_wide = class_names_wide(classes, kBarPoints);
  plot.panel(body, "", {.left = names_wide, .bottom = kAxisBelow});
  plot.line(fmt::format("set xrange [0:100]; set yrange [{}:0]", classes.size()));
  plot.line("set xtics 0,20,100; set ytics " +
            name_tics(beside_panel(classes, names_wide, kBarPoints), {}, kMostNames) + " scale 0");
  plot.line("set xlabel 'percent of the pixels' offset 0,0.3; set border 1");
  plot.line(fmt::format("set key at {} right top horizontal textcolor rgb '{}' font ',11'",
                        plot.place(key.right, key.top), Ink::kText));
  std::string bars, lines;
  const auto draw = [&](const std::string& data, const char* color, const char* title) {
    if (data.empty()) return;
    const std::string file = plot.store(data);
    bars += fmt::format(
        "{}{} using ($1/2):2:($1/2):(0.16) with boxxyerror fs solid 1 noborder lc "
        "rgb '{}' title '{}'",
        bars.empty() ? "" : ", ", file, color, title);
    lines += fmt::format(", {} using 1:2:3:4 with xerrorbars pt 0 lw 1.6 lc rgb '{}' notitle", file,
                         Ink::kText);
  };
  draw(users, kUsersColor, "user''s: of what the map calls so");
  draw(producers, kProducersColor, "producer''s: of what is so");
  if (!bars.empty()) plot.line("plot " + bars + lines);
}

}  // namespace chalcedony
