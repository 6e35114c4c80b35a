#include "figure/plot/cased_line.h"

#include <fmt/format.h>

namespace chalcedony {

std::string cased_line(const std::string& stored, const LineLook& line, const LineLook& casing) {
  const auto drawn = [&](const LineLook& one) {
    return fmt::format("{} using 1:2 with lines lw {:g} lc rgb '{}' notitle", stored, one.width,
                       one.color);
  };
  return drawn(casing) + ", " + drawn(line);
}

}  // namespace chalcedony
