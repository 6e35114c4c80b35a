#include "figure/balance_figure.h"

namespace chalcedony {

void add_balance_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::string& subtitle, const BalanceSide& before,
                        const BalanceSide& after) {
  plot.begin(path, name + " before and after", subtitle);
  plot.show({0.03, 0.42, 0.49, 0.85}, "before", before.picture);
  plot.show({0.03, 0.42, 0.03, 0.39}, "after", after.picture);
  draw_histogram_panel(plot, {0.52, 0.97, 0.57, 0.86}, before.series, {});
  draw_histogram_panel(plot, {0.52, 0.97, 0.11, 0.40}, after.series, {});
}

}  // namespace chalcedony
