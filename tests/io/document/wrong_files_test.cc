// Files of ours that were edited by hand, or written by a later version: each says what is wrong.
#include <catch2/catch.hpp>
#include <functional>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "core/error.h"
#include "core/learn/classifier.h"
#include "io/document/correction_file.h"
#include "io/document/curve_file.h"
#include "io/document/model_file.h"
#include "io/document/palette_file.h"
#include "io/document/sample_file.h"
#include "tests/support/trained_models.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

struct Edit {
  const char* place;  // a JSON pointer
  json value;         // a null takes the place away
  const char* says;
};

/// Every edit alone makes `text` one that `parse` refuses.
void check_edits(const std::string& text, const std::function<void(const std::string&)>& parse,
                 const std::vector<Edit>& edits) {
  CHECK_NOTHROW(parse(text));
  for (const Edit& edit : edits) {
    json edited = json::parse(text);
    const json::json_pointer place(edit.place);
    if (!edit.value.is_null()) {
      edited[place] = edit.value;
    } else if (edited[place.parent_pointer()].is_object()) {
      edited[place.parent_pointer()].erase(place.back());
    } else {
      edited[place.parent_pointer()].erase(std::stoul(place.back()));
    }
    INFO(edit.place << " = " << edit.value);
    CHECK_THROWS_WITH(parse(edited.dump()), Catch::Contains(edit.says));
  }
}

}  // namespace

TEST_CASE("models that were edited are refused", "[io][model]") {
  const auto parse = [](const std::string& text) { parse_model(text); };
  const SampleTable samples = clouds(12);
  check_edits(
      model_text(trained("maximum-likelihood", samples)), parse,
      {{"/chalcedony", "modl", "is not a model; give a model written by 'chalcedony train'"},
       {"/version", 9,
        "is a model of version 9, this program reads up to 1; use the newer program that "
        "wrote it, or train again"},
       {"/features", json::array(), "is a damaged model (features"},
       {"/features/1", "lab.c", "no channel is called 'lab.c'"},
       {"/features/1", "lch.h", "the model's numbers do not fit its features"},
       {"/classes/0/mean/0", nullptr, "the model's numbers do not fit its features"},
       {"/classes/0/covariance/1", nullptr, "the model's numbers do not fit its features"},
       {"/classes/1/color", "reddish", "'reddish' is not a color"},
       {"/classes/1/name", nullptr, "is a damaged model (classes"},
       {"/divisors", json{1, 0}, "is a damaged model (divisors/1: Expected number greater than 0"},
       {"/divisors", json{1}, "the model's numbers do not fit its features"}});
  check_edits(model_text(trained("nearest-neighbor", samples)), parse,
              {{"/classes/0/samples/0/1", nullptr, "the model's numbers do not fit its features"},
               {"/classes/0/samples/0", nullptr, "the model's samples and their counts differ"},
               {"/classes/0/sample_counts", nullptr, "is not a model, or a damaged one"}});
}

TEST_CASE("models that no classifier can be made of are refused", "[io][model]") {
  const auto make = [](const std::string& text) { make_classifier(parse_model(text)); };
  const SampleTable samples = clouds(12);
  check_edits(model_text(trained("nearest-neighbor", samples)), make,
              {{"/method", "maximum", "'maximum'"}});
  check_edits(model_text(trained("maximum-likelihood", samples)), make,
              {{"/classes/0/covariance", json{{-9, 0}, {0, 1}},
                "the covariance of class 'warm' cannot be inverted; leave out a feature"},
               {"/method", "nearest-neighbor", "class 'warm' has no sample pixels in the model"}});
}

TEST_CASE("curves that were edited are refused", "[io][curves]") {
  ToneCurve power, table;
  power.kind = CurveKind::kPower;
  power.strength = 0.8;
  table.kind = CurveKind::kTable;
  table.table = {0, 0.3, 1};
  check_edits(
      curves_text({false, {power, power, table}}),
      [](const std::string& text) { parse_curves(text); },
      {{"/chalcedony", "curve",
        "is not a file of curves; give a file written by 'chalcedony balance --save'"},
       {"/version", 2, "has curves of version 2, this program reads up to 1; use the newer"},
       {"/version", nullptr, "cannot be read as curves"},
       {"/of", "light", "has curves of 'light', not of channels or lightness"},
       {"/0", 1, "says '0', which means nothing there"},
       {"/curves/0/strenght", 2,
        "says 'strenght', which means nothing there; did you mean 'strength'?"},
       {"/curves/0/kind", "bend", "has a curve of the unknown kind 'bend'"},
       {"/curves/0/white", 0, "has a curve whose white does not lie above its black"},
       {"/curves/0/strength", -1, "has a curve that does not rise"},
       {"/curves/2/table", json{1}, "has a table without values"},
       {"/curves/2/table", json{0, 0.6, 0.5, 1}, "has a curve that does not rise"},
       {"/curves/2", nullptr, "has 2 curves"}});
}

TEST_CASE("corrections that were edited are refused", "[io][correction]") {
  ColorCorrection correction;
  correction.matrix = Affine{{{{1, 0, 0}, {0, 0.9, 0}, {0, 0, 1.1}}}};
  check_edits(
      correction_text(correction), [](const std::string& text) { parse_correction(text); },
      {{"/of", "xyz", "is not a correction of xyz-d50; give a file written by"},
       {"/of", nullptr, "cannot be read as a color correction"},
       {"/tones", json{0, 0, 0}, "says 'tones', which means nothing there; did you mean 'tone'?"},
       {"/matrix/2/2", nullptr, "cannot be read as a color correction"}});
}

TEST_CASE("palettes that were edited are refused", "[io][palette]") {
  check_edits(
      R"({"chalcedony": "palette", "version": 1, "colors": [{"color": "#9b1b30"}]})",
      [](const std::string& text) { parse_palette_colors(text); },
      {{"/chalcedony", "pallet",
        "is not a palette; give a palette.json written by 'chalcedony palette', or a text "
        "with one CSS color a line"},
       {"/version", 3, "is a palette of version 3, this program reads up to 1; use the newer"},
       {"/colors/0/color", nullptr, "is not a palette, or a damaged one"},
       {"/colors/0/color", "#12", "is not a palette: '#12' is not a color"},
       {"/colors/0", nullptr, "holds no color"}});
}

TEST_CASE("samples that were edited are refused, by their number", "[io][samples]") {
  const std::string text = R"({"type": "FeatureCollection", "width": 20, "height": 10, "features": [
    {"type": "Feature", "properties": {"class": "lead", "color": "#303030"},
     "geometry": {"type": "Polygon", "coordinates": [[[1,1],[5,1],[5,5],[1,1]]]}},
    {"type": "Feature", "properties": {"class": "ruby", "radius": 2},
     "geometry": {"type": "Point", "coordinates": [9, 4]}},
    {"type": "Feature", "properties": {"class": "ruby"},
     "geometry": {"type": "MultiPolygon", "coordinates": [[[[1,1],[5,1],[5,5],[1,1]]]]}}]})";
  check_edits(
      text, [](const std::string& samples) { parse_samples(samples, 20, 10); },
      {{"/features", json::object(),
        "is no GeoJSON FeatureCollection; the sample format is described"},
       {"/width", 21, "its samples were drawn on a picture of 21x10, this one is 20x10"},
       {"/features/0/geometry", nullptr, "feature 1: it has no geometry"},
       {"/features/0/properties/class", "", "feature 1: it has no properties.class"},
       {"/features/0/properties/color", 7, "feature 1: its properties.color is no text"},
       {"/features/0/properties/color", "dark", "feature 1: 'dark' is not a color"},
       {"/features/0/geometry/type", "LineString",
        "feature 1: its geometry is 'LineString', not a Point, Polygon or MultiPolygon"},
       {"/features/0/geometry/coordinates", json::array(), "feature 1: a polygon has no rings"},
       {"/features/0/geometry/coordinates/0/1", nullptr,
        "feature 1: a ring has fewer than four positions"},
       {"/features/0/geometry/coordinates/0/1", 5, "feature 1: a position is not [x, y]"},
       {"/features/0/geometry/coordinates/0/1/0", "5", "feature 1: a coordinate is no number"},
       {"/features/1/properties/radius", -1, "feature 2: its properties.radius is negative"},
       {"/features/2/geometry/coordinates", 5, "feature 3: a MultiPolygon has no polygons"}});
  check_edits(
      text, [](const std::string& samples) { parse_samples(samples, 20, 10, OtherSize::kRescale); },
      {{"/width", 0, "its width or height is not above 0"},
       {"/height", -10, "its width or height is not above 0"},
       {"/height", "ten", "a coordinate is no number"}});
  CHECK_THROWS_WITH(parse_samples(R"({"type": "FeatureCollection", "features": []})", 20, 10),
                    Catch::Contains("holds no samples"));
}
