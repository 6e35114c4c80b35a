// The small formats: CSV, numbers, class lists, models, samples, Exif, deflate, whole files.
#include <zlib.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "io/document/model_file.h"
#include "io/document/sample_file.h"
#include "io/file/atomic_file.h"
#include "io/file/whole_file.h"
#include "io/metadata/class_legend.h"
#include "io/metadata/exif.h"
#include "io/metadata/space_note.h"
#include "io/picture/deflate.h"
#include "io/text/csv.h"
#include "io/text/number_text.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("numbers are written in the shortest form that reads back the same", "[io][csv]") {
  CHECK(number_text(0.1) == "0.1");
  CHECK(number_text(100.0) == "100");
  CHECK(number_text(0.1f) == "0.1");
  CHECK(number_text(std::nan("")).empty());
  for (const double v : {1.0 / 3, 1e-300, 123456789.123, -0.0})
    CHECK(std::stod(number_text(v)) == v);
}

TEST_CASE("numbers for people keep all digits before the point", "[io]") {
  CHECK(rounded_text(0.0123456, 4) == "0.01235");
  CHECK(rounded_text(12.3456, 4) == "12.35");
  CHECK(rounded_text(9999.4, 4) == "9999");
  CHECK(rounded_text(9999.7, 4) == "10000");
  CHECK(rounded_text(-65535, 4) == "-65535");
  CHECK(fixed_text(12.345, 1) == "12.3");
  CHECK(fixed_text(-0.04, 1) == "0.0");
  CHECK(fixed_text(-0.06, 1) == "-0.1");
  CHECK(fixed_text(-0.4, 0) == "0");
  CHECK(fixed_text(1e300, 2).size() == 304);
  CHECK(rounded_text(99.97, 3) == "100");
  CHECK(rounded_text(0, 4) == "0");
  CHECK(rounded_text(3e20, 3) == "3e+20");
}

TEST_CASE("CSV quotes what needs it and ends lines as RFC 4180 says", "[io][csv]") {
  CsvTable table({"name", "count", "share"});
  table.add({"plain", std::uint64_t{3}, 0.5});
  table.add({"a,b", std::uint64_t{0}, CsvField()});
  table.add({"say \"hi\"", std::uint64_t{1}, std::nan("")});
  CHECK(table.text() ==
        "name,count,share\r\nplain,3,0.5\r\n\"a,b\",0,\r\n\"say \"\"hi\"\"\",1,\r\n");
}

TEST_CASE("stripes deflated apart join into one zlib stream", "[io][deflate]") {
  for (const bool noisy : {false, true}) {
    std::vector<std::uint8_t> data = random_bytes(900000);
    if (!noisy)
      for (std::size_t i = 0; i < data.size(); ++i) data[i] = static_cast<std::uint8_t>(i / 1000);
    const auto bytes = std::as_bytes(std::span(data));
    std::vector<std::byte> stream{std::byte{0x78}, std::byte{0x01}};
    std::uint32_t adler = 1;
    const std::size_t cuts[] = {0, 1, 300000, 300001, 900000};
    for (int i = 0; i < 4; ++i) {
      const auto stripe = deflate_stripe(bytes.subspan(cuts[i], cuts[i + 1] - cuts[i]), i == 3);
      stream.insert(stream.end(), stripe.bytes.begin(), stripe.bytes.end());
      adler = join_adler(adler, stripe.adler, stripe.size);
    }
    for (int shift = 24; shift >= 0; shift -= 8)
      stream.push_back(static_cast<std::byte>(adler >> shift & 255));
    std::vector<std::uint8_t> back(data.size());
    uLongf size = back.size();
    CHECK(uncompress(back.data(), &size, reinterpret_cast<const Bytef*>(stream.data()),
                     stream.size()) == Z_OK);
    CHECK(back == data);
  }
}

TEST_CASE("a stripe is the same bytes wherever it is deflated", "[io][deflate]") {
  // Few symbols, many equal ones: what a deflater that reads unset memory gets wrong now and then.
  for (const std::size_t size : {136u, 5000u, 131072u, 393216u}) {
    std::vector<std::uint8_t> data(size);
    for (std::size_t i = 0; i < size; ++i) data[i] = static_cast<std::uint8_t>(i / 211 % 3);
    const auto first = deflate_stripe(std::as_bytes(std::span(data)), true);
    const std::vector<std::uint8_t> random = random_bytes(60200);
    for (int run = 0; run < 200; ++run) {
      // Memory that was used for something else.
      const std::vector<std::uint8_t> garbage(random.begin() + run, random.begin() + run + 60000);
      CHECK(deflate_stripe(std::as_bytes(std::span(data)), true).bytes == first.bytes);
      CHECK(garbage.size() == 60000);
    }
  }
}

TEST_CASE("a file appears whole or not at all", "[io][atomic]") {
  const TempDir dir;
  put_text(dir / "kept.txt", "old");
  {
    AtomicFile file(dir / "kept.txt");
    file.write("half of the new");
    CHECK(text_of_file(dir / "kept.txt") == "old");
  }
  CHECK(dir.files() == std::set<std::string>{"kept.txt"});
  CHECK(text_of_file(dir / "kept.txt") == "old");
  write_text_file(dir / "kept.txt", "new");
  CHECK(text_of_file(dir / "kept.txt") == "new");
  CHECK_THROWS_WITH(write_text_file(dir / "no/such/folder.txt", "x"),
                    Catch::Contains("cannot be written"));
  CHECK_THROWS_WITH(read_text_file(dir / "none"), Catch::Contains("no such file"));
}

TEST_CASE("Exif gives the orientation in both byte orders and survives damage", "[io][exif]") {
  const auto parse = [](const std::string& s) { return parse_exif(std::as_bytes(std::span(s))); };
  const std::string little("II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x08\0\0\0\0\0\0\0", 26);
  CHECK(parse(little).orientation == 8);
  const std::string big("MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\x03\0\0\0\0\0\0", 26);
  CHECK(parse(big).orientation == 3);
  for (std::size_t cut = 0; cut < little.size(); ++cut) parse(little.substr(0, cut));
  std::string wild = little;
  wild[18] = 99;
  CHECK(parse(wild).orientation == 1);
  std::string far = little;
  far[4] = far[5] = far[6] = far[7] = static_cast<char>(0xff);
  CHECK(parse(far).orientation == 1);
}

TEST_CASE("space notes name space and scaling", "[io][space]") {
  CHECK(space_note(spaces::kLab, SampleType::kU16) ==
        "lab; l 0..100, a -125..125, b -125..125; stored as 0..65535");
  CHECK(space_note(spaces::kLab, SampleType::kF32) ==
        "lab; l 0..100, a -125..125, b -125..125; stored as they are");
  CHECK(space_of_note("oklch; what ever") == &spaces::kOklch);
  CHECK(space_of_note("srgb-clipped; x") == nullptr);
  CHECK(space_of_note("") == nullptr);
}

TEST_CASE("class lists there and back", "[io][legend]") {
  const std::vector<LegendEntry> legend{{1, "ruby", "#9b1b30"}, {7, "\"odd\" name", "#000000"}};
  CHECK(parse_legend(legend_text(legend)) == legend);
  CHECK(legend_text({{1, "ruby", "#9b1b30"}}) ==
        "[{\"index\":1,\"name\":\"ruby\",\"color\":\"#9b1b30\"}]");
  CHECK_THROWS_AS(parse_legend("[{\"index\":1}]"), InputError);
  CHECK_THROWS_AS(parse_legend("[{\"index\":-1,\"name\":\"a\"}]"), InputError);
  CHECK_THROWS_AS(parse_legend("[{\"index\":1,\"name\":\"a\",\"color\":7}]"), InputError);
  // Lists that others wrote: any CSS color, or none.
  const auto others = parse_legend(
      "[{\"index\":3,\"name\":\"a\"},{\"index\":4,\"name\":\"b\",\"color\":\"reddish\"},"
      "{\"index\":5,\"name\":\"c\",\"color\":\"rgb(255 0 16)\"}]");
  CHECK(others[0].color == css_hex(class_color(2)));
  CHECK(others[1].color == css_hex(class_color(3)));
  CHECK(others[2].color == "#ff0010");
}

TEST_CASE("models there and back, number for number", "[io][model]") {
  Model model;
  model.method = "minimum-distance";
  model.features = channels_named("lab.a,hsv.s");
  ClassStatistics s;
  s.count = 12;
  s.mean = Eigen::Vector2d(1.0 / 3, -2e-7);
  s.covariance = Eigen::Matrix2d::Identity() * 0.1;
  s.smallest = s.largest = s.mean;
  model.classes = {{"ruby", "#9b1b30", s}};
  SampleSet samples;
  samples.classes = {{"flat", "#010203"}, {"speck", ""}};
  samples.shapes.push_back({0, {{{0, 0}, {4, 0}, {4, 4}, {0, 0}}}, {}, 0});
  samples.shapes.push_back({1, {}, {1.25, 2.5}, 1.5});
  model.trained_on = {{"a.png", 8, 6, samples}};
  const std::string text = model_text(model);
  const Model back = parse_model(text);
  CHECK(back.method == model.method);
  CHECK(back.features == model.features);
  CHECK(back.classes[0].statistics.mean == s.mean);
  CHECK(back.classes[0].statistics.covariance == s.covariance);
  CHECK(model_text(back) == text);

  const auto changed = [&](const std::string& from, const std::string& to) {
    std::string t = text;
    t.replace(t.find(from), from.size(), to);
    return t;
  };
  CHECK_THROWS_WITH(parse_model("{}"), Catch::Contains("is not a model"));
  CHECK_THROWS_WITH(parse_model("nonsense"), Catch::Contains("is not a model"));
  CHECK_THROWS_WITH(parse_model(changed("\"version\": 1", "\"version\": 9")),
                    Catch::Contains("version 9") && Catch::Contains("up to 1"));
  CHECK_THROWS_WITH(parse_model(changed("lab.a", "lab.q")), Catch::Contains("lab.q"));
  CHECK_THROWS_WITH(parse_model(changed("\"hsv.s\"", "\"hsv.s\",\"hsv.v\"")),
                    Catch::Contains("do not fit"));
}

TEST_CASE("sample files are read, mistakes name the feature", "[io][samples]") {
  const TempDir dir;
  const auto collection = [](const std::string& features, const std::string& more = "") {
    return "{\"type\":\"FeatureCollection\"" + more + ",\"features\":[" + features + "]}";
  };
  const std::string polygon =
      R"({"type":"Feature","properties":{"class":"ruby","color":"#9B1B30"},)"
      R"("geometry":{"type":"Polygon","coordinates":[[[0,0],[4,0],[4,4],[0,0]]]}})";
  const std::string point = R"({"type":"Feature","properties":{"class":"lead","radius":2},)"
                            R"("geometry":{"type":"Point","coordinates":[5,5]}})";
  const std::string two =
      R"({"type":"Feature","properties":{"class":"ruby"},"geometry":{"type":"MultiPolygon",)"
      R"("coordinates":[[[[0,0],[1,0],[1,1],[0,0]]],[[[2,2],[3,2],[3,3],[2,2]]]]}})";
  put_text(dir / "s.geojson",
           collection(polygon + "," + point + "," + two, ",\"width\":10,\"height\":8"));
  const SampleSet set = read_samples(dir / "s.geojson", 10, 8);
  REQUIRE(set.classes.size() == 2);
  CHECK(set.classes[0].name == "ruby");
  CHECK(set.classes[0].color == "#9b1b30");
  CHECK(set.classes[1].color.empty());
  CHECK(set.shapes.size() == 4);
  CHECK(set.shapes[1].radius == 2);
  CHECK_THROWS_WITH(read_samples(dir / "s.geojson", 20, 8),
                    Catch::Contains("drawn on a picture of 10x8, this one is 20x8; give the "
                                    "picture they belong to, or add --rescale-samples"));
  const SampleSet wide = read_samples(dir / "s.geojson", 20, 8, OtherSize::kRescale);
  CHECK(wide.shapes[0].rings[0] == std::vector<Position>{{0, 0}, {8, 0}, {8, 4}, {0, 0}});
  CHECK(wide.shapes[1].point == Position{10, 5});
  CHECK(wide.shapes[1].radius == Approx(2 * std::sqrt(2)));
  CHECK(wide.classes[0].color == "#9b1b30");
  put_text(dir / "sizeless.geojson", collection(polygon));
  CHECK(read_samples(dir / "sizeless.geojson", 20, 8, OtherSize::kRescale).shapes[0].rings ==
        set.shapes[0].rings);

  struct Row {
    std::string text;
    const char* says;
  };
  const Row rows[] = {
      {"[]", "is no GeoJSON FeatureCollection"},
      {"{", "is no GeoJSON"},
      {collection(""), "holds no samples"},
      {collection(
           polygon +
           R"(,{"type":"Feature","properties":{},"geometry":{"type":"Point","coordinates":[1,1]}})"),
       "feature 2: it has no properties.class"},
      {collection(
           R"({"type":"Feature","properties":{"class":"a"},"geometry":{"type":"LineString","coordinates":[]}})"),
       "feature 1: its geometry is 'LineString'"},
      {collection(
           R"({"type":"Feature","properties":{"class":"a"},"geometry":{"type":"Point","coordinates":["x",1]}})"),
       "a coordinate is no number"},
      {collection(
           R"({"type":"Feature","properties":{"class":"a"},"geometry":{"type":"Polygon","coordinates":[[[0,0],[1,1]]]}})"),
       "fewer than four positions"},
      {collection(
           R"({"type":"Feature","properties":{"class":"a","color":"reddish"},"geometry":{"type":"Point","coordinates":[1,1]}})"),
       "'reddish' is not a color"}};
  for (const Row& row : rows) {
    INFO(row.text);
    put_text(dir / "bad.geojson", row.text);
    CHECK_THROWS_WITH(read_samples(dir / "bad.geojson", 10, 8),
                      Catch::Contains("bad.geojson: ") && Catch::Contains(row.says));
  }
}
