#include "figure/balance_figure.h"

namespace chalcedony {
namespace {

constexpr double kBalancedWide = 520;  // a picture, in pixels of the page

}  // namespace

void add_balance_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::string& subtitle, const BalanceSide& before,
                        const BalanceSide& after) {
  const Box body = plot.begin(path, name + " before and after", subtitle);
  const auto draw = [&](Box row, const char* title, const BalanceSide& side) {
    plot.show(row.cut_left(kBalancedWide, Plot::kGap), title, side.picture);
    draw_histogram_panel(plot, row, side.series, {});
  };
  const auto rows = rows_of(body, 2, Plot::kGap);
  draw(rows[0], "before", before);
  draw(rows[1], "after", after);
}

}  // namespace chalcedony
