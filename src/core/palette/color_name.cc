#include "core/palette/color_name.h"

#include <array>
#include <utility>

namespace chalcedony {
namespace {

/// A hue family ends before this angle of oklch; the last one goes round to the first.
struct HueFamily {
  double end;
  const char* name;
  const char* dark_name = nullptr;  // where a dark one has a word of its own
  const char* light_name = nullptr;
};

constexpr std::array<HueFamily, 10> kFamilies{{{8, "pink-red", "wine red", "pink"},
                                               {42, "red", nullptr, "pink"},
                                               {78, "orange", "brown"},
                                               {114, "yellow", "olive"},
                                               {134, "yellow-green"},
                                               {168, "green"},
                                               {214, "blue-green"},
                                               {285, "blue"},
                                               {318, "violet"},
                                               {346, "purple"}}};

constexpr double kGrayChroma = 0.02, kGrayishChroma = 0.06, kVividChroma = 0.17;
constexpr double kDark = 0.4, kLight = 0.78;
constexpr double kDarkFamily = 0.6, kLightFamily = 0.7;  // where the own words begin and end

std::string gray_name(double lightness) {
  if (lightness < 0.22) return "black";
  if (lightness < 0.45) return "dark gray";
  if (lightness < 0.75) return "gray";
  return lightness < 0.95 ? "light gray" : "white";
}

/// The family, and whether its word says already that the color is dark or light.
std::pair<std::string, bool> family_name(double lightness, double hue) {
  const HueFamily* family = &kFamilies.front();
  for (auto f = kFamilies.rbegin(); f != kFamilies.rend(); ++f)
    if (hue < f->end) family = &*f;
  if (family->dark_name && lightness < kDarkFamily) return {family->dark_name, lightness >= kDark};
  if (family->light_name && lightness >= kLightFamily) return {family->light_name, true};
  return {family->name, false};
}

}  // namespace

std::string color_name(const Color& color) {
  const auto [lightness, chroma, hue] = color.in(spaces::kOklch);
  if (chroma < kGrayChroma) return gray_name(lightness);
  const auto [family, said] = family_name(lightness, hue);
  const bool dark = lightness < kDark, light = lightness >= kLight;
  std::string words;
  if (chroma < kGrayishChroma) {
    words = dark ? "dark grayish " : light ? "pale " : "grayish ";
  } else if (!said) {
    words = dark ? "dark " : light && chroma < kVividChroma ? "light " : "";
  }
  if (chroma >= kVividChroma && !dark) words = "vivid ";
  return words + family;
}

}  // namespace chalcedony
