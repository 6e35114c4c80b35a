#include "figure/plot/placed_texts.h"

#include <fmt/format.h>

namespace chalcedony {

void PlacedTexts::add(double x, double y, const std::string& text) {
  data_ += fmt::format("{:.4g} {:.4g} \"{}\"\n", x, y, text);
}

std::string PlacedTexts::plot_of(Plot& plot, const char* color) const {
  if (data_.empty()) return "";
  return fmt::format(", {} using 1:2:3 with labels font ',11' textcolor rgb '{}' notitle",
                     plot.store(data_), color);
}

}  // namespace chalcedony
