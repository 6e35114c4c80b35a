#include "figure/heat_scale.h"

#include <fmt/format.h>

#include "core/palette/figure_colors.h"

namespace chalcedony {

void set_heat_scale(Plot& plot) {
  std::string colors;
  const auto ramp = heat_ramp(17);
  for (std::size_t i = 0; i < ramp.size(); ++i)
    colors += fmt::format("{}{:.4f} '{}'", i ? ", " : "",
                          static_cast<double>(i) / static_cast<double>(ramp.size() - 1),
                          css_hex(ramp[i]));
  plot.line("set palette defined (" + colors + ")");
}

}  // namespace chalcedony
