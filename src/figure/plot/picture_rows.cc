#include "figure/plot/picture_rows.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/fitted_text.h"
#include "figure/plot/name_tics.h"

namespace chalcedony {
namespace {

constexpr double kBesidePictures = 16;        // of the page, in pixels
constexpr double kMostOfPictureNames = 0.25;  // of the body

}  // namespace

double row_names_wide(const std::vector<std::string>& names, double body) {
  return std::min(widest_text(names, kPicturePoints), kMostOfPictureNames * body) + kBesidePictures;
}

void name_rows(Plot& plot, const std::vector<std::string>& names, double room) {
  const std::vector<std::string> fitted =
      fitted_names(names, room - kBesidePictures, kPicturePoints);
  plot.line(fmt::format("set ytics {} scale 0 font ',{}'", name_tics(fitted, {}, kMostNamedRows),
                        kPicturePoints));
}

std::string bar_data(const RowBar& bar) {
  return fmt::format("{:.6g} {:.6g} {:.6g} {:.6g} {:.6g} {:.6g}\n", (bar.from + bar.to) / 2,
                     (bar.top + bar.bottom) / 2, bar.from, bar.to, bar.top, bar.bottom);
}

std::string plot_of_bars(Plot& plot, const std::string& bars, const std::string& color) {
  return fmt::format("{} using 1:2:3:4:5:6 with boxxyerror fs solid 1 noborder lc rgb '{}' notitle",
                     plot.store(bars), color);
}

}  // namespace chalcedony
