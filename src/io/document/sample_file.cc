#include "io/document/sample_file.h"

#include <cmath>
#include <nlohmann/json.hpp>
#include <string>
#include <utility>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/letter_case.h"
#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

using Json = nlohmann::ordered_json;

[[noreturn]] void reject_samples(const std::string& problem) {
  throw InputError(problem, "the sample format is described in docs/formats.md");
}

double number_of(const Json& value) {
  if (!value.is_number() || !std::isfinite(value.get<double>()))
    reject_samples("a coordinate is no number");
  return value.get<double>();
}

Position position_of(const Json& value) {
  if (!value.is_array() || value.size() < 2) reject_samples("a position is not [x, y]");
  return {number_of(value[0]), number_of(value[1])};
}

std::vector<std::vector<Position>> rings_of(const Json& coordinates) {
  if (!coordinates.is_array() || coordinates.empty()) reject_samples("a polygon has no rings");
  std::vector<std::vector<Position>> rings;
  for (const Json& ring : coordinates) {
    if (!ring.is_array() || ring.size() < 4) reject_samples("a ring has fewer than four positions");
    auto& out = rings.emplace_back();
    for (const Json& position : ring) out.push_back(position_of(position));
  }
  return rings;
}

std::size_t class_of(const Json& feature, SampleSet& samples) {
  const Json properties = feature.value("properties", Json::object());
  if (!properties.is_object() || !properties.contains("class") ||
      !properties["class"].is_string() || properties["class"].get<std::string>().empty())
    reject_samples("it has no properties.class");
  const std::size_t index = samples.class_named(properties["class"].get<std::string>());
  if (properties.contains("color") && samples.classes[index].color.empty()) {
    if (!properties["color"].is_string()) reject_samples("its properties.color is no text");
    samples.classes[index].color = css_hex(css_color(properties["color"].get<std::string>()));
  }
  return index;
}

void add_feature(const Json& feature, SampleSet& samples) {
  if (!feature.is_object() || !feature.contains("geometry") || !feature["geometry"].is_object())
    reject_samples("it has no geometry");
  const Json& geometry = feature["geometry"];
  const std::string type = geometry.value("type", "");
  const Json coordinates = geometry.value("coordinates", Json());
  SampleShape shape;
  shape.sample_class = class_of(feature, samples);
  if (type == "Polygon") {
    shape.rings = rings_of(coordinates);
    samples.shapes.push_back(shape);
  } else if (type == "MultiPolygon") {
    if (!coordinates.is_array()) reject_samples("a MultiPolygon has no polygons");
    for (const Json& polygon : coordinates) {
      shape.rings = rings_of(polygon);
      samples.shapes.push_back(shape);
    }
  } else if (type == "Point") {
    shape.point = position_of(coordinates);
    const Json radius = feature["properties"].value("radius", Json(0.0));
    shape.radius = number_of(radius);
    if (shape.radius < 0) reject_samples("its properties.radius is negative");
    samples.shapes.push_back(shape);
  } else {
    reject_samples("its geometry is '" + type + "', not a Point, Polygon or MultiPolygon");
  }
}

DrawnSamples drawn_of(const Json& json) {
  if (!json.is_object() || json.value("type", "") != "FeatureCollection" ||
      !json.contains("features") || !json["features"].is_array())
    reject_samples("is no GeoJSON FeatureCollection");
  SampleSet samples;
  std::size_t number = 0;
  for (const Json& feature : json["features"]) {
    ++number;
    try {
      add_feature(feature, samples);
    } catch (const Error& error) {
      throw InputError("feature " + std::to_string(number) + ": " + error.problem(),
                       error.remedy());
    }
  }
  if (samples.shapes.empty()) reject_samples("holds no samples");
  DrawnSamples drawn{std::move(samples), {}};
  if (json.contains("width") && json.contains("height"))
    drawn.size = DrawnSize{number_of(json["width"]), number_of(json["height"])};
  return drawn;
}

DrawnSamples parse_drawn(std::string_view text) {
  try {
    return drawn_of(Json::parse(text));
  } catch (const Json::exception&) {
    throw InputError("is no GeoJSON", "the sample format is described in docs/formats.md");
  }
}

Json coordinates_of(const SampleShape& shape) {
  if (shape.rings.empty()) return {shape.point.x, shape.point.y};
  auto rings = Json::array();
  for (const auto& ring : shape.rings) {
    auto& out = rings.emplace_back(Json::array());
    for (const Position& p : ring) out.push_back({p.x, p.y});
  }
  return rings;
}

Json feature_of(const SampleShape& shape, const SampleClass& sample_class) {
  Json properties{{"class", sample_class.name}};
  if (!sample_class.color.empty()) properties["color"] = sample_class.color;
  if (shape.rings.empty() && shape.radius > 0) properties["radius"] = shape.radius;
  return {{"type", "Feature"},
          {"properties", properties},
          {"geometry",
           {{"type", shape.rings.empty() ? "Point" : "Polygon"},
            {"coordinates", coordinates_of(shape)}}}};
}

}  // namespace

bool is_sample_file(const std::filesystem::path& path) {
  const std::string extension = lower_case(path.extension().string());
  return extension == ".geojson" || extension == ".json";
}

std::optional<SampleFilePart> sample_file_part(const std::string& text) {
  for (const std::string ending : {".geojson", ".json"})
    if (const auto at = text.find(ending); at != std::string::npos) {
      const std::size_t end = at + ending.size();
      if (end == text.size()) return SampleFilePart{text, ""};
      if (text[end] == ':') return SampleFilePart{text.substr(0, end), text.substr(end + 1)};
    }
  return std::nullopt;
}

SampleSet parse_samples(std::string_view text, std::uint32_t width, std::uint32_t height,
                        OtherSize other) {
  DrawnSamples drawn = parse_drawn(text);
  if (!drawn.size) return drawn.samples;
  return fitted_samples(std::move(drawn.samples), *drawn.size, width, height, other);
}

DrawnSamples read_drawn(const std::filesystem::path& path) {
  const std::string text = read_text_file(path);
  return errors_at(path.string(), [&] { return parse_drawn(text); });
}

SampleSet read_samples(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
                       OtherSize other) {
  const std::string text = read_text_file(path);
  return errors_at(path.string(), [&] { return parse_samples(text, width, height, other); });
}

SampleSet fitted_samples(SampleSet samples, const DrawnSize& from, std::uint32_t width,
                         std::uint32_t height, OtherSize other) {
  const DrawnSize to{static_cast<double>(width), static_cast<double>(height)};
  if (from.width == to.width && from.height == to.height) return samples;
  if (other == OtherSize::kError)
    throw InputError("its samples were drawn on a picture of " + number_text(from.width) + "x" +
                         number_text(from.height) + ", this one is " + std::to_string(width) + "x" +
                         std::to_string(height),
                     "give the picture they belong to, or add --rescale-samples");
  if (!(from.width > 0 && from.height > 0)) reject_samples("its width or height is not above 0");
  return rescaled(std::move(samples), from, to);
}

std::string samples_text(const SampleSet& samples, std::uint32_t width, std::uint32_t height) {
  const Json frame{{"type", "FeatureCollection"},
                   {"chalcedony", "samples"},
                   {"width", width},
                   {"height", height}};
  std::string text = json_text(frame);
  text.erase(text.find_last_of('}'));
  // A line for each, so that people find their way.
  text += ",\"features\":[";
  const char* before = "\n";
  for (const SampleShape& shape : samples.shapes) {
    text += before + json_text(feature_of(shape, samples.classes[shape.sample_class]));
    before = ",\n";
  }
  return text + "\n]}\n";
}

}  // namespace chalcedony
