#include "figure/joint_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>

#include "core/palette/figure_colors.h"
#include "figure/plot/axis.h"
#include "figure/plot/heat_scale.h"
#include "figure/plot/joint_page.h"

namespace chalcedony {

namespace {

/// The cells that hold pixels, and the most that one holds.
struct JointCells {
  std::string rows;
  std::uint64_t highest = 1;
};

JointCells cells_of(const JointHistogram& joint) {
  const Binning &x = joint.first(), &y = joint.second();
  JointCells cells;
  cells.rows.reserve(x.bins() * y.bins() * 40);
  for (std::size_t a = 0; a < x.bins(); ++a)
    for (std::size_t b = 0; b < y.bins(); ++b)
      if (const std::uint64_t count = joint.count(a, b); count > 0) {
        cells.highest = std::max(cells.highest, count);
        cells.rows += fmt::format("{:.9g} {:.9g} {}\n", x.center(a), y.center(b), count);
      }
  return cells;
}

/// Numbered frames around the peaks.
void frame_peaks(Plot& plot, const std::vector<PeakMark>& peaks, const Binning& x,
                 const Binning& y) {
  int object = 20;
  for (std::size_t p = 0; p < peaks.size(); ++p)
    for_each_piece(peaks[p].interval[0], x, [&](double low, double high) {
      const auto& [bottom, top] = peaks[p].interval[1];
      plot.line(
          fmt::format("set object {} rectangle from {:.9g},{:.9g} to {:.9g},{:.9g} fs empty "
                      "border lc rgb '{}' lw 1.6 front",
                      object, low, bottom, high, top, Ink::kPaper));
      // Above its frame, unless that ends where the colors do.
      const bool ends = top > y.high() - 0.05 * (y.high() - y.low());
      plot.line(
          fmt::format("set label {} '{}' at {:.9g},{:.9g} offset {} left front font "
                      "',11' textcolor rgb '{}'",
                      object++, p + 1, low, top, ends ? "0.4,-0.7" : "0,0.55", Ink::kPaper));
    });
}

void plot_cells(Plot& plot, const std::string& rows, const Binning& x, const Binning& y) {
  if (rows.empty()) {
    // gnuplot draws no labels without a plot: a line below the axes.
    plot.line(
        fmt::format("set label 19 'no pixel lies in these bins' at graph 0.5,0.5 center front "
                    "textcolor rgb '{}'",
                    Ink::kPaper));
    plot.line(fmt::format("plot {:.9g} notitle", 2 * y.low() - y.high()));
    return;
  }
  // A little more than half a bin, or the paper shows through between them.
  const double half_x = (x.high() - x.low()) / static_cast<double>(x.bins()) * 0.53;
  const double half_y = (y.high() - y.low()) / static_cast<double>(y.bins()) * 0.53;
  plot.line(
      fmt::format("plot {} using 1:2:({:.9g}):({:.9g}):3 with boxxyerror fs solid 1 noborder "
                  "lc palette notitle",
                  plot.store(rows), half_x, half_y));
}

}  // namespace

void add_joint_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const Channel& first, const Channel& second, const JointHistogram& joint,
                      const std::vector<PeakMark>& peaks, const Thumbnail& picture,
                      bool linear_heat) {
  const Binning &x = joint.first(), &y = joint.second();
  const JointCells cells = cells_of(joint);
  const JointPage page = begin_joint_page(plot, path, "Joint histogram of " + name, joint);
  show_with_peaks(plot, page.picture, picture, peaks);
  plot.panel(page.histogram, "", {.left = kAxisBeside, .bottom = kAxisBelow});
  frame_peaks(plot, peaks, x, y);
  plot.line("unset grid");
  plot.line(
      fmt::format("set object 9 rectangle from graph 0,0 to graph 1,1 fillcolor rgb '{}' "
                  "fillstyle solid 1 noborder behind",
                  css_hex(heat_ramp(17).front())));
  plot.line(fmt::format("set xrange [{:.9g}:{:.9g}]; set yrange [{:.9g}:{:.9g}]", x.low(), x.high(),
                        y.low(), y.high()));
  plot.line("set xtics " + channel_tics(first, x, 8));
  plot.line("set ytics " + channel_tics(second, y, 8));
  plot.line("set xlabel " + literal(axis_title(first)) + " offset 0,0.3");
  plot.line("set ylabel " + literal(axis_title(second)) + " offset -0.5,0");
  set_count_colors(plot, cells.highest, linear_heat);
  plot.color_scale(page.scale);
  plot_cells(plot, cells.rows, x, y);
  plot.line("unset object 9; unset colorbox; unset logscale; unset cblabel");
}

}  // namespace chalcedony
