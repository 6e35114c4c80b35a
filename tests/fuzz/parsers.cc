#include "tests/fuzz/parsers.h"

#include <algorithm>
#include <filesystem>

#include "core/channel/derived_channel.h"
#include "core/color/css_color.h"
#include "core/learn/classifier.h"
#include "core/pixel/region.h"
#include "core/select/expression.h"
#include "core/select/variants.h"
#include "core/tidy/tidy_steps.h"
#include "io/document/color_table_file.h"
#include "io/document/correction_file.h"
#include "io/document/curve_file.h"
#include "io/document/known_colors_file.h"
#include "io/document/model_file.h"
#include "io/document/palette_file.h"
#include "io/document/sample_file.h"
#include "io/document/sample_table_file.h"
#include "io/metadata/exif.h"
#include "io/metadata/icc_profile.h"
#include "io/metadata/icc_writer.h"
#include "io/picture/create_picture.h"
#include "io/picture/label_file.h"
#include "io/picture/open_picture.h"
#include "io/text/csv.h"
#include "job/repeat/recipe.h"
#include "job/run/picture_journal.h"
#include "job/run/run_record.h"
#include "tests/support/icc.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"
#include "tests/support/trained_models.h"

namespace chalcedony::test {
namespace {

using Path = std::filesystem::path;

/// A file that a damaged header makes larger than this is opened, and not read.
constexpr std::uint64_t kMostPixels = 1 << 20;

const TempDir& scratch() {
  static const TempDir dir;
  return dir;
}

/// A parser of a file of this name.
template <class Read>
std::function<void(const std::string&)> of_file(const std::string& name, const Read& read) {
  return [name, read](const std::string& bytes) {
    put_text(scratch() / name, bytes);
    read(scratch() / name);
  };
}

/// What a writer of files writes.
template <class Write>
std::string written(const std::string& name, const Write& write) {
  write(scratch() / name);
  return text_of_file(scratch() / name);
}

std::string picture(const std::string& name, const PictureSpec& spec) {
  const auto samples = random_bytes(spec.shape.row_bytes() * spec.shape.height);
  return written(name, [&](const Path& path) { write_picture(path, spec, bytes_of(samples)); });
}

std::vector<std::string> pictures() {
  std::vector<std::string> all;
  for (const std::uint32_t channels : {1u, 2u, 3u, 4u})
    for (const char* const name : {"p.png", "p.tif"})
      for (const SampleType sample : {SampleType::kU8, SampleType::kU16})
        all.push_back(picture(name, spec_of(7, 5, channels, sample)));
  for (const char* const name : {"p.jpg", "p.webp"})
    all.push_back(picture(name, spec_of(19, 9, 3)));
  all.push_back(picture("p.tif", spec_of(4, 3, 5, SampleType::kU16)));
  for (const TiffLayout& layout :
       {TiffLayout{5, 3, 3, 16, SAMPLEFORMAT_IEEEFP, PHOTOMETRIC_RGB},
        TiffLayout{5, 3, 1, 64, SAMPLEFORMAT_IEEEFP}, TiffLayout{5, 3, 1, 4},
        TiffLayout{5, 3, 2, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_MINISWHITE},
        TiffLayout{5, 3, 4, 16, SAMPLEFORMAT_UINT, PHOTOMETRIC_CIELAB}})
    all.push_back(written("p.tif", [&](const Path& path) {
      const std::size_t row_bytes = (layout.width * layout.channels * layout.bits + 7u) / 8;
      write_other_tiff(path, layout, random_bytes(row_bytes * layout.height));
    }));
  PictureSpec lab = spec_of(4, 3, 3, SampleType::kU16);
  lab.space = &spaces::kLab;
  lab.carried.description = "south window";
  all.push_back(picture("p.png", lab));
  return all;
}

void read_all(RowSource& rows) {
  const RasterShape& shape = rows.shape();
  if (shape.pixels() > kMostPixels) return;
  std::vector<std::byte> row(shape.row_bytes());
  for (std::uint32_t y = 0; y < shape.height; ++y) rows.read_rows(1, row.data());
}

Parser picture_parser() {
  return {"picture", pictures(),
          of_file("picture", [](const Path& path) { read_all(*open_picture(path).rows); })};
}

Parser label_parser() {
  const std::vector<std::uint8_t> labels{0, 1, 2, 2, 9, 0, 1, 1};
  const auto map = written("l.png", [&](const Path& path) {
    write_labels(path, 4, labels,
                 {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}, {9, "amber", "#d68e18"}});
  });
  const auto mask = written("l.tif", [&](const Path& path) { write_labels(path, 2, labels); });
  return {"labels",
          {map, mask, written("l.png", write_stripes)},
          of_file("labels", [](const Path& path) {
            LabelFile file = open_labels(path, kMostPixels);
            LabelRows rows(file);
            for (std::uint32_t y = 0; y < file.rows->shape().height; ++y) rows.next();
          })};
}

std::string text_of(const std::vector<std::byte>& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

Parser profile_parser() {
  std::vector<std::string> seeds{text_of(icc_profile_of(spaces::kDisplayP3)),
                                 text_of(gray_icc_profile_of(spaces::kGray))};
  for (const IccBytes& curve :
       {icc_gamma(2.2), icc_table({0, 0.3, 1}), icc_parametric(3, {2.4, 0.95, 0.05, 0.08, 0.04})}) {
    const auto profile = icc_profile("RGB ", icc_rgb_tags(kSrgbPrimaries, curve, "made up"));
    seeds.emplace_back(profile.begin(), profile.end());
  }
  return {"profile", seeds,
          [](const std::string& bytes) { parse_icc(std::as_bytes(std::span(bytes))); }};
}

Parser exif_parser() {
  Exif exif;
  exif.description = "south window";
  exif.captured = "2026:05:17 14:03:21";
  exif.colors = ExifColors::kSrgb;
  return {"exif", {text_of(exif_data(exif))}, [](const std::string& bytes) {
            parse_exif(std::as_bytes(std::span(bytes)));
          }};
}

Parser model_parser() {
  std::vector<std::string> seeds;
  const SampleTable samples = clouds(20);
  for (const char* const method : {"minimum-distance", "parallelepiped", "mahalanobis",
                                   "maximum-likelihood", "nearest-neighbor"})
    seeds.push_back(model_text(trained(method, samples)));
  return {"model", seeds, [](const std::string& text) { make_classifier(parse_model(text)); }};
}

Parser curve_parser() {
  ToneCurve power, table;
  power.kind = CurveKind::kPower;
  power.black = 0.1;
  power.strength = 0.8;
  table.kind = CurveKind::kTable;
  table.table = {0, 0.3, 0.5, 1};
  return {"curves",
          {curves_text({false, {power, power, table}}), curves_text({true, {table}})},
          [](const std::string& text) { parse_curves(text); }};
}

Parser correction_parser() {
  ColorCorrection correction{{},
                             {{{{0.96, 0.1, -0.02}, {0.05, 0.8, 0.03}, {0.01, 0.04, 0.5}}}, {}}};
  const std::string matrix = correction_text(correction);
  correction.tone.bend = {0.2, -0.1, 0.05};
  return {"correction", {matrix, correction_text(correction)}, [](const std::string& text) {
            parse_correction(text);
          }};
}

Parser known_colors_parser() {
  return {"known-colors",
          {"name,lab.l,lab.a,lab.b\r\nwhite,95,0,1\r\nruby,34,50.5,-2e1\r\n",
           text_of_file(Path(CHALCEDONY_DEMO_DATA) / "target.known.csv")},
          of_file("known.csv", [](const Path& path) { read_known_colors(path); })};
}

Parser palette_parser() {
  return {"palette",
          {"#4b3abe\n#625b44\n", "oklch(0.7 0.1 120)\n\nrgb(20 30 40)\n",
           text_of_file(Path(CHALCEDONY_DEMO_DATA) / "glass.palette.txt")},
          [](const std::string& text) { parse_palette_colors(text); }};
}

Parser sample_parser() {
  const SampleSet samples =
      read_samples(Path(CHALCEDONY_DEMO_DATA) / "panel-a.samples.geojson", 480, 360);
  return {"samples", {samples_text(samples, 480, 360)}, [](const std::string& text) {
            parse_samples(text, 480, 360);
          }};
}

Parser sample_table_parser() {
  const auto features = channels_named("lab.a,lab.b");
  const std::vector<MapClass> classes{{"warm", "#b04020"}, {"cool", "#2040b0"}};
  return {
      "sample-table",
      {written("s.csv",
               [&](const Path& path) { write_sample_table(path, classes, features, clouds(6)); })},
      of_file("samples.csv", [features](const Path& path) { read_sample_table(path, features); })};
}

Parser table_parser() {
  return {"table",
          {"a,b\r\n1,\"two, \"\"2\"\"\"\r\n", "x\ny\n"},
          of_file("table.csv", [](const Path& path) { read_csv(path); })};
}

Parser color_table_parser() {
  StoredColors colors;
  colors.rgb = {1, 2, 3, 200, 100, 50};
  colors.pixels = {7, 12345678901};
  return {"color-table",
          {written("c.bin", [&](const Path& path) { write_color_table(path, colors); })},
          of_file("colors", [](const Path& path) { read_color_table(path); })};
}

Parser recipe_parser() {
  return {"recipe",
          {text_of_file(Path(CHALCEDONY_DEMO_DATA) / "glass.recipe.yaml"),
           "chalcedony: recipe\nvariables: {low: 40}\nsteps:\n  - name: calm\n    command: smooth\n"
           "    options: {radius: 2}\n  - name: light\n    command: mask\n    input: calm\n"
           "    options: {where: \"lab.l > ${low}\"}\n    keep: false\n"},
          [](const std::string& text) { parse_recipe(text, "r.yaml", {}, "out"); }};
}

Parser options_parser() {
  return {"options",
          {"space: lab\nregion: 0,0,10,10\nfigures: none\n"},
          of_file("options.yaml", [](const Path& path) { read_options(path); })};
}

Parser journal_parser() {
  JournalText journal;
  journal.header = {{"chalcedony", "pictures"}, {"version", 1}, {"pictures", 2}};
  JournalEntry done;
  done.file = "a.png";
  done.state = {12, 34567, "00ff"};
  done.outputs = {scratch() / "a.mask.png"};
  done.summary = {{"file", "a.png"}};
  JournalEntry failed;
  failed.place = 1;
  failed.file = "b.png";
  failed.error = "b.png: is empty";
  journal.entries = {done, failed};
  return {
      "journal",
      {written("j.jsonl",
               [&](const Path& path) { write_journal(path, scratch().path(), journal); })},
      of_file("pictures.jsonl", [](const Path& path) { read_journal(path, scratch().path()); })};
}

Parser record_parser() {
  const std::vector<nlohmann::ordered_json> runs{
      {{"program", "chalcedony 1"},
       {"command", "mask"},
       {"from", "../pictures"},
       {"output", "."},
       {"options", {{"where", "lab.l > 40"}, {"quiet", true}, {"list", {"a", "b"}}}},
       {"operands", {"a.png"}},
       {"outputs", {"a.mask.png"}},
       {"files", nlohmann::ordered_json::array()},
       {"inputs", {{{"file", "a.png"}, {"hash", "00ff"}}}}}};
  return {"record",
          {written("how.json", [&](const Path& path) { write_record(path, runs); })},
          of_file("how.json", [](const Path& path) {
            for (const auto& run : read_record(path)) words_of_run(run, "out");
          })};
}

Parser expression_parser() {
  return {"selection",
          {"hsv.h in 340..20 and not (lab.l < 40 or hsv.s >= 12.5)",
           "near(#b5563a, 12) or oklab.a + 2 * oklab.b > 1e-2",
           "(lab.a - 20) * (lab.a - 20) / 9 + 2.5e-2 * lab.b * lab.b <= 12"},
          [](const std::string& text) { parse_expression(text); }};
}

Parser formula_parser() {
  return {"formula",
          {"ndvi=(file.3 - file.0) / (file.3 + file.0)", "twice = 2 * lab.l - 1.5e1 in -1..3",
           "h=hsv.h - 180"},
          [](const std::string& text) { derived_channel(text, {}); }};
}

Parser color_parser() {
  return {"color",
          {"#abc", "#4b3abe", "rgb(10, 20, 30)", "hsl(210 30% 40%)", "lab(40% 20 -30)",
           "oklch(0.7 0.1 120)", "color(display-p3 1 0.5 0)"},
          [](const std::string& text) { css_color(text); }};
}

Parser region_parser() {
  return {"region", {"10,20,30,40", "percent:10,20,30,40"}, [](const std::string& text) {
            parse_region(text).in(480, 360);
          }};
}

Parser variable_parser() {
  return {"variable", {"low=180..220/5", "s=-1.5..2e1/3"}, [](const std::string& text) {
            parse_variable(text);
          }};
}

Parser step_parser() {
  return {"steps",
          {"dilate 2; erode 3 box; open 1.5 disk; close 4 line 45", "fill; drop 20; keep 3",
           "majority 2; part 1.5; clear-edge; invert"},
          [](const std::string& text) { parse_tidy_steps(text); }};
}

Parser channel_parser() {
  return {"channels", {"lab.a,lab.b", "hsv,oklab.l", "file.0,gray"}, [](const std::string& text) {
            channels_named(text);
          }};
}

}  // namespace

const std::vector<Parser>& all_parsers() {
  static const std::vector<Parser> parsers{
      picture_parser(),     label_parser(),      profile_parser(),      exif_parser(),
      model_parser(),       correction_parser(), known_colors_parser(), curve_parser(),
      palette_parser(),     sample_parser(),     sample_table_parser(), table_parser(),
      color_table_parser(), recipe_parser(),     options_parser(),      journal_parser(),
      record_parser(),      expression_parser(), formula_parser(),      color_parser(),
      region_parser(),      variable_parser(),   step_parser(),         channel_parser()};
  return parsers;
}

const Parser* find_parser(const std::string& name) {
  const auto& parsers = all_parsers();
  const auto found = std::find_if(parsers.begin(), parsers.end(),
                                  [&](const Parser& parser) { return parser.name == name; });
  return found == parsers.end() ? nullptr : &*found;
}

}  // namespace chalcedony::test
