#include "job/map/places_to_check.h"

#include <algorithm>
#include <string>
#include <utility>

#include "core/color/css_color.h"
#include "core/color/space.h"
#include "core/error.h"
#include "core/learn/alike_colors.h"
#include "figure/sample_figure.h"
#include "job/map/close_ups.h"
#include "job/picture/inputs.h"

namespace chalcedony {
namespace {

DoubtfulColor color_of(const Json& place) {
  return {css_color(place["color"].get<std::string>()).in(spaces::kOklab),
          place["pixels"].get<std::uint64_t>()};
}

PixelRect square_of(const Json& place) {
  const auto side = place["side"].get<std::uint32_t>();
  const double half = side / 2.0;
  return {static_cast<std::uint32_t>(place["x"].get<double>() - half),
          static_cast<std::uint32_t>(place["y"].get<double>() - half), side, side};
}

std::string color_of_class(const std::vector<MapClass>& classes, const std::string& name) {
  for (const MapClass& one : classes)
    if (one.name == name) return one.color;
  return kUnclassifiedColor;
}

/// For each place its close-up; those of a picture are cut out at once.
std::vector<std::optional<CloseUp>> near_places(const Json& places, const SharedOptions& options,
                                                const Context& context) {
  std::vector<std::optional<CloseUp>> near(places.size());
  for (std::size_t first = 0; first < places.size(); ++first) {
    if (near[first]) continue;
    std::vector<std::size_t> here;
    std::vector<PixelRect> squares;
    for (std::size_t i = first; i < places.size(); ++i)
      if (places[i]["file"] == places[first]["file"]) {
        here.push_back(i);
        squares.push_back(square_of(places[i]));
      }
    try {
      CountedPicture picture = open_counted(places[first]["file"].get<std::string>(), options,
                                            without_warnings(context));
      std::vector<CloseUp> seen = close_ups(picture.file, squares);
      for (std::size_t i = 0; i < here.size(); ++i) near[here[i]] = std::move(seen[i]);
    } catch (const InputError& error) {
      context.warn(std::string("a picture is left out of the figure of places to check: ") +
                   error.what());
    }
  }
  return near;
}

}  // namespace

Json places_to_check(const Json& pictures, std::size_t most) {
  std::vector<DoubtfulColor> colors;
  std::vector<Json> places;
  std::uint64_t counted = 0;
  for (const Json& picture : pictures) {
    counted += picture["counted"].get<std::uint64_t>();
    for (const Json& place : picture["suggested"]) {
      colors.push_back(color_of(place));
      places.push_back(place);
      places.back()["file"] = picture["file"];
    }
  }
  Json first = Json::array();
  for (const ColorStandIn& one : color_stand_ins(colors, most, 0)) {
    Json place = places[one.color];
    place["pixels"] = one.pixels;
    place["percent"] = percent(one.pixels, counted);
    first.push_back(std::move(place));
  }
  return first;
}

void add_places_to_check(Plot& plot, const std::filesystem::path& path, const Json& places,
                         std::size_t pictures, const std::vector<MapClass>& classes,
                         const SharedOptions& options, const Context& context) {
  const auto near = near_places(places, options, context);
  std::vector<PlaceToCheck> shown;
  for (std::size_t i = 0; i < near.size(); ++i) {
    if (!near[i]) continue;
    const auto guess = places[i]["guess"].get<std::string>();
    const std::filesystem::path file = places[i]["file"].get<std::string>();
    shown.push_back({places[i]["number"].get<std::uint64_t>(),
                     file.stem().string(),
                     {square_of(places[i]), guess + "?", color_of_class(classes, guess),
                      places[i]["percent"].get<double>(), *near[i]}});
  }
  if (!shown.empty()) add_places_to_check_figure(plot, path, pictures, shown);
}

}  // namespace chalcedony
