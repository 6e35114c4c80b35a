#include "demo/demo_data.h"

#include <cmath>
#include <initializer_list>
#include <nlohmann/json.hpp>
#include <numbers>
#include <span>
#include <string>
#include <utility>

#include "demo/beads.h"
#include "demo/panel.h"
#include "demo/random.h"
#include "demo/target.h"
#include "demo/test_card.h"
#include "io/document/sample_file.h"
#include "io/document/truth_table.h"
#include "io/file/whole_file.h"
#include "io/picture/create_picture.h"
#include "io/text/csv.h"

namespace chalcedony::demo {
namespace {

using Json = nlohmann::ordered_json;

std::vector<std::byte> bytes_of(const std::vector<std::uint8_t>& samples) {
  const auto bytes = std::as_bytes(std::span(samples));
  return {bytes.begin(), bytes.end()};
}

void write_rgb(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
               const std::vector<std::uint8_t>& rgb) {
  PictureSpec spec;
  spec.shape = {width, height, 3, SampleType::kU8};
  write_picture(path, spec, bytes_of(rgb));
}

void write_glass(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
                 const std::vector<std::uint8_t>& classes) {
  write_picture(path, class_map_spec({width, height}, glass_legend()), bytes_of(classes));
}

/// Glass is sampled by octagons, lead by points with a radius.
Json feature(const SampleSpot& spot) {
  const LegendEntry& entry = glass_legend()[spot.class_index - 1];
  Json properties{{"class", entry.name}, {"color", entry.color}};
  Json geometry;
  if (entry.name == "lead") {
    properties["radius"] = spot.radius;
    geometry = {{"type", "Point"}, {"coordinates", {spot.x, spot.y}}};
  } else {
    Json ring = Json::array();
    for (int corner = 0; corner <= 8; ++corner) {
      const double angle = (corner % 8 + 0.5) * std::numbers::pi / 4;
      const auto tenth = [](double v) { return std::round(v * 10) / 10; };
      ring.push_back({tenth(spot.x + spot.radius * std::cos(angle)),
                      tenth(spot.y + spot.radius * std::sin(angle))});
    }
    geometry = {{"type", "Polygon"}, {"coordinates", Json::array({ring})}};
  }
  return {{"type", "Feature"}, {"properties", properties}, {"geometry", geometry}};
}

void write_samples(const std::filesystem::path& path, const Panel& panel) {
  Json json{{"type", "FeatureCollection"},
            {"chalcedony", "samples"},
            {"width", panel.width},
            {"height", panel.height},
            {"features", Json::array()}};
  for (const SampleSpot& spot : panel.spots) json["features"].push_back(feature(spot));
  write_text_file(path, json.dump(1) + "\n");
}

/// A square in the middle of each tile, clear of its edge.
void write_target_samples(const std::filesystem::path& path) {
  constexpr double kHalf = 22;
  SampleSet samples;
  for (std::size_t tile = 0; tile < target_tiles().size(); ++tile) {
    const auto [x, y] = middle_of_tile(tile);
    SampleShape shape;
    shape.sample_class = samples.class_named(target_tiles()[tile].name);
    shape.rings = {{{x - kHalf, y - kHalf},
                    {x + kHalf, y - kHalf},
                    {x + kHalf, y + kHalf},
                    {x - kHalf, y + kHalf},
                    {x - kHalf, y - kHalf}}};
    samples.shapes.push_back(shape);
  }
  write_text_file(path, samples_text(samples, kTargetWidth, kTargetHeight) + "\n");
}

void write_known_colors(const std::filesystem::path& path) {
  CsvTable table({"name", "lab.l", "lab.a", "lab.b"});
  for (const Tile& tile : target_tiles())
    table.add({tile.name, tile.lab[0], tile.lab[1], tile.lab[2]});
  table.write(path);
}

/// A mask of one glass with specks and pinholes in it, as a selection by color leaves them.
void write_rough_mask(const std::filesystem::path& path, const Panel& panel, unsigned glass) {
  Random random(panel.width * 31u + glass);
  std::vector<std::uint8_t> mask;
  for (const std::uint8_t label : panel.reference) {
    const bool speck = random.uniform() < 0.02;
    mask.push_back((label == glass) != speck ? 255 : 0);
  }
  write_picture(path, label_spec({panel.width, panel.height}), bytes_of(mask));
}

/// What somebody who looked at them said of pixels drawn at random.
void write_truth(const std::filesystem::path& path, const Panel& panel) {
  constexpr std::size_t kLookedAt = 450;
  Random random(19);
  TruthTable table{TruthDrawn::kRandom, {}};
  while (table.pixels.size() < kLookedAt) {
    const auto x = static_cast<std::uint32_t>(random.uniform(0, panel.width)),
               y = static_cast<std::uint32_t>(random.uniform(0, panel.height));
    const unsigned label = panel.reference[std::size_t{y} * panel.width + x];
    if (label > 0) table.pixels.push_back({x, y, {}, glass_legend()[label - 1].name});
  }
  write_truth_table(path, table);
}

/// The colors of the glass, a line each.
void write_colors(const std::filesystem::path& path) {
  std::string text;
  for (const LegendEntry& entry : glass_legend()) text += entry.color + "\n";
  write_text_file(path, text);
}

constexpr const char* kRecipe = R"(# What glass is where in a panel, without specks.
chalcedony: recipe
about: a model of panel A maps other panels, and the maps are cleaned
variables:
  least: 40 # pixels of the smallest pane that counts
steps:
  - name: learn
    command: train
    files: [panel-a.png]
    options: {samples: [panel-a.samples.geojson], method: maximum-likelihood}
  - name: quiet
    command: smooth
    options: {filter: median, radius: 1}
  - name: map
    command: classify
    input: quiet
    options: {model: "${out}/learn/model.json", reject: 99.9, pixel-size: 0.5mm}
  - name: clean
    command: tidy
    input: map.classes
    options: {steps: "majority 1; drop ${least}; fill ${least}"}
)";

}  // namespace

std::vector<std::filesystem::path> write_demo_data(const std::filesystem::path& folder) {
  std::vector<std::filesystem::path> files;
  const auto file = [&](const std::string& name) { return files.emplace_back(folder / name); };
  for (const PanelPlan& plan : panel_plans()) {
    const Panel panel = draw_panel(plan);
    write_rgb(file(plan.name + ".png"), panel.width, panel.height, panel.rgb);
    write_glass(file(plan.name + ".reference.png"), panel.width, panel.height, panel.reference);
    if (plan.name == "panel-a") write_rough_mask(file("panel-a.rough.png"), panel, 2);
    for (const auto& [year, survey] :
         {std::pair{".1911.png", Survey::k1911}, std::pair{".1954.png", Survey::k1954}})
      write_glass(file(plan.name + year), panel.width, panel.height, surveyed_glass(plan, survey));
    if (plan.name == "panel-b") write_truth(file("panel-b.truth.csv"), panel);
    if (plan.samples) write_samples(file(plan.name + ".samples.geojson"), panel);
  }
  write_rgb(file("test-card.png"), kCardColumns * kPatchSize, kCardRows * kPatchSize,
            draw_test_card());
  write_rgb(file("beads.png"), kTableWidth, kTableHeight, draw_beads());
  write_glass(file("beads.reference.png"), kTableWidth, kTableHeight, beads_reference());
  write_rgb(file("target.png"), kTargetWidth, kTargetHeight, draw_target());
  write_target_samples(file("target.samples.geojson"));
  write_known_colors(file("target.known.csv"));
  write_colors(file("glass.palette.txt"));
  write_text_file(file("glass.recipe.yaml"), kRecipe);
  return files;
}

}  // namespace chalcedony::demo
