#include "tests/support/plain_color.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <stdexcept>

namespace chalcedony::test {
namespace {

using Matrix = std::array<Triple, 3>;
constexpr double kPi = 3.14159265358979323846;

Triple times(const Matrix& m, const Triple& v) {
  Triple out{};
  for (int i = 0; i < 3; ++i)
    for (int k = 0; k < 3; ++k) out[i] += m[i][k] * v[k];
  return out;
}
Triple each(const Triple& v, const std::function<double(double)>& f) {
  return {f(v[0]), f(v[1]), f(v[2])};
}

double decode(double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); }
double encode(double v) { return v > 0.0031308 ? 1.055 * std::pow(v, 1 / 2.4) - 0.055 : 12.92 * v; }
Triple linear(const Triple& srgb) {
  return each(srgb, [](double v) { return decode(v / 255); });
}

const Matrix kSrgbToXyz{{{506752.0 / 1228815, 87881.0 / 245763, 12673.0 / 70218},
                         {87098.0 / 409605, 175762.0 / 245763, 12673.0 / 175545},
                         {7918.0 / 409605, 87881.0 / 737289, 1001167.0 / 1053270}}};
const Matrix kD65ToD50{{{1.0479297925449969, 0.022946870601609652, -0.05019226628920524},
                        {0.02962780877005599, 0.9904344267538799, -0.017073799063418826},
                        {-0.009243040646204504, 0.015055191490298152, 0.7518742814281371}}};
const Matrix kXyzToP3{{{446124.0 / 178915, -333277.0 / 357830, -72051.0 / 178915},
                       {-14852.0 / 17905, 63121.0 / 35810, 423.0 / 17905},
                       {11844.0 / 330415, -50337.0 / 660830, 316169.0 / 330415}}};
const Matrix kXyzToA98{{{1829569.0 / 896150, -506331.0 / 896150, -308931.0 / 896150},
                        {-851781.0 / 878810, 1648619.0 / 878810, 36519.0 / 878810},
                        {16779.0 / 1248040, -147721.0 / 1248040, 1266979.0 / 1248040}}};
const Matrix kXyzToRec2020{{{30757411.0 / 17917100, -6372589.0 / 17917100, -4539589.0 / 17917100},
                            {-19765991.0 / 29648200, 47925759.0 / 29648200, 467509.0 / 29648200},
                            {792561.0 / 44930125, -1921689.0 / 44930125, 42328811.0 / 44930125}}};
const Matrix kD50ToProphoto{{{1.34578688164715830, -0.25557208737979464, -0.05110186497554526},
                             {-0.54463070512490190, 1.50824774284514680, 0.02052744743642139},
                             {0, 0, 1.21196754563894520}}};
const Matrix kXyzToLms{{{0.8190224379967030, 0.3619062600528904, -0.1288737815209879},
                        {0.0329836539323885, 0.9292868615863434, 0.0361446663506424},
                        {0.0481771893596242, 0.2642395317527308, 0.6335478284694309}}};
const Matrix kLmsToOklab{{{0.2104542683093140, 0.7936177747023054, -0.0040720430116193},
                          {1.9779985324311684, -2.4285922420485799, 0.4505937096174110},
                          {0.0259040424655478, 0.7827717124575296, -0.8086757549230774}}};

Triple xyz65(const Triple& srgb) { return times(kSrgbToXyz, linear(srgb)); }
Triple xyz50(const Triple& srgb) { return times(kD65ToD50, xyz65(srgb)); }
const Triple kWhite65{0.3127 / 0.3290, 1, (1 - 0.3127 - 0.3290) / 0.3290};
const Triple kWhite50{0.3457 / 0.3585, 1, (1 - 0.3457 - 0.3585) / 0.3585};

Triple lab(const Triple& xyz, const Triple& white) {
  const auto f = [](double t) {
    return t > 216.0 / 24389 ? std::cbrt(t) : (24389.0 / 27 * t + 16) / 116;
  };
  const double x = f(xyz[0] / white[0]), y = f(xyz[1]), z = f(xyz[2] / white[2]);
  return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}
Triple oklab(const Triple& xyz) {
  return times(kLmsToOklab, each(times(kXyzToLms, xyz), [](double v) { return std::cbrt(v); }));
}
Triple luv(const Triple& xyz) {
  const auto uv = [](const Triple& c) {
    const double d = c[0] + 15 * c[1] + 3 * c[2];
    return std::array{4 * c[0] / d, 9 * c[1] / d};
  };
  if (xyz[1] <= 0) return {0, 0, 0};
  const double l = xyz[1] > 216.0 / 24389 ? 116 * std::cbrt(xyz[1]) - 16 : 24389.0 / 27 * xyz[1];
  const auto c = uv(xyz), w = uv(kWhite65);
  return {l, 13 * l * (c[0] - w[0]), 13 * l * (c[1] - w[1])};
}
Triple polar(const Triple& v) {
  const double h = std::atan2(v[2], v[1]) * 180 / kPi;
  return {v[0], std::hypot(v[1], v[2]), h < 0 ? h + 360 : h};
}

struct Hexagon {
  double largest, smallest, hue;
};
Hexagon hexagon(const Triple& rgb) {
  const double largest = std::max({rgb[0], rgb[1], rgb[2]});
  const double smallest = std::min({rgb[0], rgb[1], rgb[2]});
  const double d = largest - smallest;
  double hue = 0;
  if (d > 0) {
    if (largest == rgb[0])
      hue = 60 * (rgb[1] - rgb[2]) / d;
    else if (largest == rgb[1])
      hue = 60 * (rgb[2] - rgb[0]) / d + 120;
    else
      hue = 60 * (rgb[0] - rgb[1]) / d + 240;
    if (hue < 0) hue += 360;
  }
  return {largest / 255, smallest / 255, hue};
}
Triple hsv(const Triple& rgb) {
  const auto h = hexagon(rgb);
  return {h.hue, h.largest > 0 ? 100 * (1 - h.smallest / h.largest) : 0, 100 * h.largest};
}
Triple hsl(const Triple& rgb) {
  const auto h = hexagon(rgb);
  const double l = (h.largest + h.smallest) / 2;
  const double room = std::min(l, 1 - l);
  return {h.hue, room > 0 ? 100 * (h.largest - l) / room : 0, 100 * l};
}
// By the book's arccosine.
Triple hsi(const Triple& rgb) {
  const double r = rgb[0], g = rgb[1], b = rgb[2], sum = r + g + b;
  const double over = 0.5 * ((r - g) + (r - b));
  const double under = std::sqrt((r - g) * (r - g) + (r - b) * (g - b));
  const double angle = under > 0 ? std::acos(std::clamp(over / under, -1.0, 1.0)) * 180 / kPi : 0;
  const double smallest = std::min({r, g, b});
  return {b > g ? 360 - angle : angle, sum > 0 ? 100 * (1 - 3 * smallest / sum) : 0,
          100 * sum / 765};
}
Triple ycc(const Triple& rgb, double kr, double kb) {
  const double y = kr * rgb[0] + (1 - kr - kb) * rgb[1] + kb * rgb[2];
  return {y, 128 + (rgb[2] - y) / (2 * (1 - kb)), 128 + (rgb[0] - y) / (2 * (1 - kr))};
}
Triple scaled(const Triple& v) {
  return each(v, [](double x) { return 255 * x; });
}
double signed_power(double v, double p) { return std::copysign(std::pow(std::abs(v), p), v); }

}  // namespace

Triple plain_from_srgb(const std::string& space, const Triple& srgb) {
  using Maker = std::function<Triple(const Triple&)>;
  static const std::map<std::string, Maker> makers{
      {"srgb", [](const Triple& v) { return v; }},
      {"srgb-linear", [](const Triple& v) { return scaled(linear(v)); }},
      {"xyz-d65", xyz65},
      {"xyz-d50", xyz50},
      {"xyy",
       [](const Triple& v) {
         const Triple c = xyz65(v);
         const double sum = c[0] + c[1] + c[2];
         return sum > 0 ? Triple{c[0] / sum, c[1] / sum, c[1]} : Triple{0.3127, 0.3290, 0};
       }},
      {"lab", [](const Triple& v) { return lab(xyz50(v), kWhite50); }},
      {"lab-d65", [](const Triple& v) { return lab(xyz65(v), kWhite65); }},
      {"lch", [](const Triple& v) { return polar(lab(xyz50(v), kWhite50)); }},
      {"lch-d65", [](const Triple& v) { return polar(lab(xyz65(v), kWhite65)); }},
      {"oklab", [](const Triple& v) { return oklab(xyz65(v)); }},
      {"oklch", [](const Triple& v) { return polar(oklab(xyz65(v))); }},
      {"luv", [](const Triple& v) { return luv(xyz65(v)); }},
      {"lchuv", [](const Triple& v) { return polar(luv(xyz65(v))); }},
      {"hsv", hsv},
      {"hsl", hsl},
      {"hwb",
       [](const Triple& v) {
         const auto h = hexagon(v);
         return Triple{h.hue, 100 * h.smallest, 100 * (1 - h.largest)};
       }},
      {"hsi", hsi},
      {"ycbcr", [](const Triple& v) { return ycc(v, 0.299, 0.114); }},
      {"ycbcr-709", [](const Triple& v) { return ycc(v, 0.2126, 0.0722); }},
      {"cmy", [](const Triple& v) { return each(v, [](double x) { return 100 - x / 2.55; }); }},
      {"gray",
       [](const Triple& v) {
         const double y = 0.299 * v[0] + 0.587 * v[1] + 0.114 * v[2];
         return Triple{y, y, y};
       }},
      {"gray-709",
       [](const Triple& v) {
         const double y = 0.2126 * v[0] + 0.7152 * v[1] + 0.0722 * v[2];
         return Triple{y, y, y};
       }},
      {"gray-linear",
       [](const Triple& v) {
         const double y = 255 * encode(xyz65(v)[1]);
         return Triple{y, y, y};
       }},
      {"display-p3",
       [](const Triple& v) { return scaled(each(times(kXyzToP3, xyz65(v)), encode)); }},
      {"a98-rgb",
       [](const Triple& v) {
         return scaled(each(times(kXyzToA98, xyz65(v)),
                            [](double x) { return signed_power(x, 256.0 / 563); }));
       }},
      {"prophoto-rgb",
       [](const Triple& v) {
         return scaled(each(times(kD50ToProphoto, xyz50(v)), [](double x) {
           return std::abs(x) >= 1.0 / 512 ? signed_power(x, 1 / 1.8) : 16 * x;
         }));
       }},
      {"rec2020", [](const Triple& v) {
         return scaled(each(times(kXyzToRec2020, xyz65(v)), [](double x) {
           constexpr double a = 1.09929682680944, b = 0.018053968510807;
           return std::abs(x) > b ? std::copysign(a * std::pow(std::abs(x), 0.45) - (a - 1), x)
                                  : 4.5 * x;
         }));
       }}};
  const auto maker = makers.find(space);
  if (maker == makers.end()) throw std::runtime_error("no plain way to " + space);
  return maker->second(srgb);
}

}  // namespace chalcedony::test
