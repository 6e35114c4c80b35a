// Converts a color and compares it with another: exits with 0 when both are as published.
#include <cmath>
#include <iostream>

#include "core/color/ciede2000.h"
#include "core/color/conversion.h"
#include "core/planes.h"

int main() {
  using namespace chalcedony;
  PlaneBuffer rgb, lab;
  for (int channel = 0; channel < 3; ++channel) rgb.plane(channel)[0] = 255;
  Conversion(spaces::kSrgb, spaces::kLab).run(read_only(rgb.planes()), lab.planes(), 1);
  const double white_off =
      std::abs(lab.plane(0)[0] - 100) + std::abs(lab.plane(1)[0]) + std::abs(lab.plane(2)[0]);
  // The first pair of Sharma, Wu and Dalal (2005).
  const double delta_e = ciede2000({50, 2.6772, -79.7751}, {50, 0, -82.7485});
  std::cout << "Lab of white is off by " << white_off << ", delta E " << delta_e << '\n';
  return white_off < 1e-3 && std::abs(delta_e - 2.0425) < 1e-4 ? 0 : 1;
}
