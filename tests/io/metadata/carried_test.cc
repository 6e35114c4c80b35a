// What is carried from a file into those that are made of it, and the profiles that are written.
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdint>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/color/css_color.h"
#include "core/color/rgb_profile.h"
#include "io/metadata/exif.h"
#include "io/metadata/icc_profile.h"
#include "io/metadata/icc_writer.h"
#include "io/picture/create_picture.h"
#include "io/picture/open_picture.h"
#include "io/picture/picture_encoder.h"
#include "tests/support/pictures.h"
#include "tests/support/png_chunks.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

CarriedFacts facts() {
  CarriedFacts carried;
  carried.pixels_per_meter_x = 11811;  // 300 to the inch
  carried.pixels_per_meter_y = 11811;
  carried.description = "north window, second row";
  carried.captured = "2026:05:17 14:03:21";
  return carried;
}

PictureSpec spec_with(const CarriedFacts& carried, const Space& space = spaces::kSrgb) {
  PictureSpec spec = spec_of(4, 2, 3);
  spec.space = &space;
  spec.carried = carried;
  return spec;
}

}  // namespace

TEST_CASE("resolution, description and time come back from every format", "[io][carried]") {
  const TempDir dir;
  for (const char* name : {"a.png", "a.tif", "a.jpg"}) {
    write_picture(dir / name, spec_with(facts()), bytes_of(random_bytes(24)));
    const CarriedFacts found = open_picture(dir / name, {}).facts.carried;
    INFO(name);
    CHECK(found.pixels_per_meter_x == Approx(11811).epsilon(1e-4));
    CHECK(found.pixels_per_meter_y == Approx(11811).epsilon(1e-4));
    CHECK(found.description == "north window, second row");
    CHECK(found.captured == "2026:05:17 14:03:21");
    write_picture(dir / name, spec_with({}), bytes_of(random_bytes(24)));
    const CarriedFacts none = open_picture(dir / name, {}).facts.carried;
    CHECK_FALSE(none.has_resolution());
    CHECK(none.description.empty());
    CHECK(none.captured.empty());
  }
}

TEST_CASE("a description stands below our own line", "[io][carried]") {
  const TempDir dir;
  PictureSpec lab = spec_with(facts(), spaces::kLab);
  lab.shape.sample = SampleType::kF32;
  write_picture(dir / "lab.tif", lab, std::vector<std::byte>(4 * 2 * 12));
  const PictureFile read = open_picture(dir / "lab.tif", {});
  CHECK(read.info.space == &spaces::kLab);
  CHECK(read.facts.carried.description == "north window, second row");
  PictureSpec map = class_map_spec({4, 2, 1, SampleType::kU8}, {{1, "ruby", "#9b1b30"}});
  map.carried = facts();
  write_picture(dir / "map.tif", map, std::vector<std::byte>(8, std::byte{1}));
  ReadOptions indices;
  indices.palette_indices = true;
  const PictureFile labels = open_picture(dir / "map.tif", indices);
  CHECK(labels.facts.legend == map.legend);
  CHECK(labels.facts.carried.description == "north window, second row");
}

TEST_CASE("a place on the ground is carried from TIFF to TIFF", "[io][carried]") {
  const TempDir dir;
  CarriedFacts carried;
  carried.ground = {{33550, {0.25, 0.25, 0}, {}, {}},
                    {33922, {0, 0, 0, 421000.5, 5300200.25, 0}, {}, {}},
                    {34735, {}, {1, 1, 0, 1, 3072, 0, 1, 32633}, {}},
                    {34737, {}, {}, "UTM zone 33N|"}};
  write_picture(dir / "a.tif", spec_with(carried), bytes_of(random_bytes(24)));
  const CarriedFacts found = open_picture(dir / "a.tif", {}).facts.carried;
  REQUIRE(found.ground.size() == 4);
  for (std::size_t i = 0; i < 4; ++i) {
    CHECK(found.ground[i].tag == carried.ground[i].tag);
    CHECK(found.ground[i].reals == carried.ground[i].reals);
    CHECK(found.ground[i].codes == carried.ground[i].codes);
    CHECK(found.ground[i].text == carried.ground[i].text);
  }
  CHECK(reframed(found, 2, 2).ground.empty());
}

TEST_CASE("Exif data that is written is read", "[io][carried]") {
  Exif exif;
  CHECK(exif_data(exif).empty());
  for (const char* description : {"", "abc", "a longer one"})
    for (const char* captured : {"", "2026:01:02 03:04:05"})
      for (const ExifColors colors : {ExifColors::kNotSaid, ExifColors::kSrgb}) {
        exif.description = description;
        exif.captured = captured;
        exif.colors = colors;
        const Exif read = parse_exif(exif_data(exif));
        CHECK(read.description == description);
        CHECK(read.captured == captured);
        CHECK(read.colors == colors);
        CHECK(read.orientation == 1);
      }
  CHECK(per_meter(300, 2) == Approx(11811.02).epsilon(1e-6));
  CHECK(per_meter(100, 3) == Approx(10000));
  CHECK(per_meter(100, 1) == 0);
}

TEST_CASE("the profile that is written of a space is that space", "[io][carried][icc]") {
  for (const Space* space : all_spaces()) {
    if (!space->is_rgb) continue;
    INFO(space->id);
    const RgbProfile read = parse_icc(icc_profile_of(*space));
    CHECK(read.name == std::string(space->title));
    // Clipped sRGB has the colors of sRGB.
    CHECK(space_like(read) == (space->id == "srgb-clipped" ? &spaces::kSrgb : space));
  }
  // The colorants of sRGB adapted to D50, as they are published with IEC 61966-2-1 profiles.
  const auto red = parse_icc(icc_profile_of(spaces::kSrgb)).xyz({1, 0, 0});
  CHECK(red[0] == Approx(0.4361).margin(2e-4));
  CHECK(red[1] == Approx(0.2225).margin(2e-4));
  CHECK(red[2] == Approx(0.0139).margin(2e-4));
}

TEST_CASE("the profile that is written of grays has their curve", "[io][carried][icc]") {
  for (const char* id : {"gray", "gray-709", "gray-linear", "srgb", "prophoto-rgb"}) {
    INFO(id);
    const Space& space = *find_space(id);
    const RgbProfile read = parse_icc(gray_icc_profile_of(space));
    CHECK(read.gray);
    CHECK(read.name == std::string(space.title));
    const Space& curve = space.is_rgb ? space : spaces::kSrgb;
    for (const double v : {0.0, 0.02, 0.2, 0.5, 0.9, 1.0}) {
      const double wanted = Color{&curve, {255 * v, 255 * v, 255 * v}}.in(spaces::kXyzD50)[1];
      CHECK(read.xyz({v, v, v})[1] == Approx(wanted).margin(1e-4));
    }
  }
}

TEST_CASE("gray pictures say in every format what their numbers are", "[io][carried][icc]") {
  const TempDir dir;
  const auto samples = bytes_of(random_bytes(24));
  for (const char* id : {"gray", "gray-linear", "display-p3"})
    for (const char* name : {"g.png", "g.tif"}) {
      INFO(id << " in " << name);
      PictureSpec spec = spec_of(6, 4, 1, SampleType::kU8);
      spec.space = find_space(id);
      write_picture(dir / name, spec, samples);
      const PictureFile read = open_picture(dir / name);
      CHECK(read.info.space == spec.space);
      CHECK(read.info.color_channels() == 1);
      CHECK_FALSE(icc_profile_for(spec).empty());
      // A TIFF holds the profile as it is; that of a PNG is compressed behind its name.
      const std::string bytes = text_of_file(dir / name);
      CHECK_THAT(bytes, Catch::Contains(name == std::string("g.tif") ? "mntrGRAYXYZ " : "iCCP"));
    }
  PictureSpec plane = spec_of(6, 4, 1, SampleType::kU8);
  plane.plane = channels_of(spaces::kLab)[0];
  CHECK(icc_profile_for(plane).empty());
  PictureSpec lab = spec_of(6, 4, 3, SampleType::kU16);
  lab.space = &spaces::kLab;
  CHECK(icc_profile_for(lab).empty());
}

TEST_CASE("a picture of a wide space names it for other programs", "[io][carried][icc]") {
  const TempDir dir;
  for (const char* name : {"p3.png", "p3.tif", "p3.jpg"}) {
    write_picture(dir / name, spec_with({}, spaces::kDisplayP3), bytes_of(random_bytes(24)));
    const std::string bytes = text_of_file(dir / name);
    INFO(name);
    CHECK(open_picture(dir / name, {}).info.space == &spaces::kDisplayP3);
    if (std::string(name) != "p3.png") CHECK(bytes.find("mntrRGB XYZ ") != std::string::npos);
    if (std::string(name) == "p3.png") CHECK(bytes.find("iCCP") != std::string::npos);
  }
}

TEST_CASE("WebP comes back exactly, with what is said of it", "[io][webp]") {
  const TempDir dir;
  for (const std::uint32_t channels : {3u, 4u}) {
    PictureSpec spec = spec_of(33, 21, channels);
    spec.carried.description = "west wall";
    spec.carried.captured = "2026:05:17 14:03:21";
    spec.space = channels == 4 ? &spaces::kDisplayP3 : &spaces::kSrgb;
    const auto samples = random_bytes(std::size_t{33} * 21 * channels);
    write_picture(dir / "a.webp", spec, bytes_of(samples));
    PictureFile read = open_picture(dir / "a.webp", {});
    CHECK(read.facts.format == "WebP");
    CHECK_FALSE(read.facts.lossy);
    CHECK(read.info.space == spec.space);
    CHECK((read.info.alpha != AlphaKind::kNone) == (channels == 4));
    CHECK(read.facts.carried.description == "west wall");
    CHECK(read.facts.carried.captured == "2026:05:17 14:03:21");
    CHECK(samples_of<std::uint8_t>(read) == samples);
    read.rows->rewind();
    CHECK(samples_of<std::uint8_t>(read) == samples);
  }
  const std::string whole = text_of_file(dir / "a.webp");
  put_text(dir / "cut.webp", whole.substr(0, whole.size() / 2));
  CHECK_THROWS_WITH(bytes_in(dir / "cut.webp"), Catch::Contains("cut.webp: damaged WebP"));
  put_text(dir / "cut.webp", whole.substr(0, 20));
  CHECK_THROWS_WITH(open_picture(dir / "cut.webp", {}), Catch::Contains("cut.webp: damaged WebP"));
}

TEST_CASE("what WebP cannot hold is refused before any work", "[io][webp]") {
  const auto refused = [](PictureSpec spec, const char* says) {
    CHECK_THROWS_WITH(check_format("a.webp", spec), Catch::Contains(says));
  };
  refused(spec_of(4, 4, 1), "a WebP holds no gray picture; write a .png");
  refused(spec_of(4, 4, 3, SampleType::kU16), "a WebP holds 8 bits only; ask for --depth 8");
  refused(spec_of(17000, 4, 3), "a WebP holds at most 16383 pixels");
  refused(label_spec({4, 4, 1, SampleType::kU8}), "a WebP would change the labels");
  PictureSpec lab = spec_of(4, 4, 3);
  lab.space = &spaces::kLab;
  refused(lab, "a WebP would not keep the numbers of lab");
}

TEST_CASE("significant bits of a PNG are read", "[io][carried]") {
  const TempDir dir;
  write_picture(dir / "a.png", spec_of(4, 2, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>(24, 40000)));
  CHECK(open_picture(dir / "a.png", {}).facts.significant_bits == 0);
  put_text(dir / "a.png",
           with_chunks(text_of_file(dir / "a.png"), {std::string("sBIT\x0c\x0a\x0b", 7)}));
  CHECK(open_picture(dir / "a.png", {}).facts.significant_bits == 10);
}
