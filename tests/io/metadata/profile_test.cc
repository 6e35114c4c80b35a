// Color profiles inside pictures: read, recognised, honored, or named when they cannot be.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/conversion.h"
#include "core/error.h"
#include "io/metadata/icc_profile.h"
#include "tests/support/icc.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/png_chunks.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

const IccBytes kSrgbCurve = icc_parametric(3, {2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045});

/// Primaries that no space of ours has, with a gamma of 1.9.
IccBytes odd_profile() {
  return icc_profile("RGB ", icc_rgb_tags({{0.60, 0.35}, {0.28, 0.58}, {0.16, 0.10}, kD65},
                                          icc_gamma(1.9), "bench lamp"));
}

RgbProfile parsed(const IccBytes& bytes) { return parse_icc(std::as_bytes(std::span(bytes))); }

void write_tiff(const std::filesystem::path& path, std::uint16_t channels,
                const std::vector<std::uint8_t>& pixels, const IccBytes& profile) {
  TiffLayout layout;
  layout.width = static_cast<std::uint32_t>(pixels.size() / channels);
  layout.channels = channels;
  if (channels > 1) layout.photometric = PHOTOMETRIC_RGB;
  write_other_tiff(path, layout, pixels, [&](TIFF* tiff) {
    TIFFSetField(tiff, TIFFTAG_ICCPROFILE, static_cast<std::uint32_t>(profile.size()),
                 profile.data());
  });
}

/// What sRGB floats a picture of the odd profile must hold, by the formulas in double.
std::vector<double> odd_in_srgb(const std::vector<std::uint8_t>& rgb) {
  const RgbProfile profile = parsed(odd_profile());
  std::vector<double> out;
  for (std::size_t i = 0; i < rgb.size(); i += 3) {
    std::array<double, 3> linear{};
    for (std::size_t c = 0; c < 3; ++c) linear[c] = std::pow(rgb[i + c] / 255.0, 1.8984375);
    const auto srgb =
        convert_color(spaces::kXyzD50, spaces::kSrgb, image_of(profile.to_xyz_d50, linear));
    out.insert(out.end(), srgb.begin(), srgb.end());
  }
  return out;
}

}  // namespace

TEST_CASE("curves of profiles follow their parameters", "[io][profile]") {
  const auto curve = [](const IccBytes& bytes) {
    return parsed(icc_profile("GRAY", {{"kTRC", bytes}})).curves[0];
  };
  CHECK(curve(icc_gamma(2)).at(0.5) == Approx(0.25));
  CHECK(curve(icc_table({})).at(0.3) == Approx(0.3));  // no values: the straight line
  CHECK(curve(icc_table({0, 0.1, 1})).at(0.75) == Approx(0.55).margin(1e-4));
  CHECK(curve(icc_parametric(0, {3})).at(0.5) == Approx(0.125));
  const ProfileCurve one = curve(icc_parametric(1, {2, 2, -0.5}));
  CHECK(one.at(0.2) == Approx(0));
  CHECK(one.at(0.5) == Approx(0.25));
  const ProfileCurve two = curve(icc_parametric(2, {2, 2, -0.5, 0.1}));
  CHECK(two.at(0.2) == Approx(0.1).margin(1e-4));
  CHECK(two.at(0.5) == Approx(0.35).margin(1e-4));
  const ProfileCurve three = curve(kSrgbCurve);
  CHECK(three.at(0.02) == Approx(0.02 / 12.92).epsilon(1e-3));
  CHECK(three.at(0.5) == Approx(0.21404).epsilon(1e-3));
  const ProfileCurve four = curve(icc_parametric(4, {2, 1, 0, 0.5, 0.25, 0.1, 0.05}));
  CHECK(four.at(0.1) == Approx(0.1).margin(1e-4));
  CHECK(four.at(0.5) == Approx(0.35).margin(1e-4));
}

TEST_CASE("profiles of known spaces are recognised", "[io][profile]") {
  const auto space = [](const IccTags& tags) {
    return space_like(parsed(icc_profile("RGB ", tags)));
  };
  CHECK(space(icc_rgb_tags(kSrgbPrimaries, kSrgbCurve, "s")) == &spaces::kSrgb);
  CHECK(space(icc_rgb_tags({{0.68, 0.32}, {0.265, 0.69}, {0.15, 0.06}, kD65}, kSrgbCurve, "p3")) ==
        &spaces::kDisplayP3);
  CHECK(space(icc_rgb_tags({{0.64, 0.33}, {0.21, 0.71}, {0.15, 0.06}, kD65}, icc_gamma(563 / 256.0),
                           "a98")) == &spaces::kA98Rgb);
  CHECK(space(icc_rgb_tags(kSrgbPrimaries, icc_gamma(1), "linear")) == &spaces::kSrgbLinear);
  CHECK(space_like(parsed(odd_profile())) == nullptr);
  // sRGB's curve as a table, as many files have it.
  std::vector<double> table;
  for (int i = 0; i < 1024; ++i)
    table.push_back(parsed(icc_profile("GRAY", {{"kTRC", kSrgbCurve}})).curves[0].at(i / 1023.0));
  CHECK(space(icc_rgb_tags(kSrgbPrimaries, icc_table(table), "t")) == &spaces::kSrgb);
}

TEST_CASE("a profile is honored in every format", "[io][profile]") {
  const TempDir dir;
  const std::vector<std::uint8_t> rgb{0, 0, 0, 255, 255, 255, 200, 30, 90, 10, 250, 60};
  write_tiff(dir / "odd.tif", 3, rgb, odd_profile());
  const IccBytes odd = odd_profile();
  write_other_png(dir / "odd.png", {4, 1}, rgb, [&](png_structp png, png_infop info) {
    png_set_iCCP(png, info, "p", 0, odd.data(), static_cast<std::uint32_t>(odd.size()));
  });
  for (const std::string name : {"odd.tif", "odd.png"}) {
    PictureFile file = open_picture(dir / name, {});
    CHECK(file.facts.warnings.empty());
    CHECK(file.facts.converted);
    CHECK(file.facts.space_from == "profile 'bench lamp', converted to srgb floats");
    CHECK(file.info.space == &spaces::kSrgb);
    REQUIRE(file.info.shape.sample == SampleType::kF32);
    const auto samples = samples_of<float>(file);
    const auto wanted = odd_in_srgb(rgb);
    for (std::size_t i = 0; i < samples.size(); ++i)
      CHECK(255 * double{samples[i]} == Approx(wanted[i]).margin(2e-3));
    // The second time is the same.
    file.rows->rewind();
    CHECK(samples_of<float>(file) == samples);
  }
  const IccBytes p3 = icc_profile(
      "RGB ",
      icc_rgb_tags({{0.68, 0.32}, {0.265, 0.69}, {0.15, 0.06}, kD65}, kSrgbCurve, "wide display"));
  write_flat_jpeg(dir / "p3.jpg", 3, JCS_RGB, 128, [&](jpeg_compress_struct& jpeg) {
    jpeg_write_icc_profile(&jpeg, p3.data(), static_cast<unsigned>(p3.size()));
  });
  const PictureFile jpeg = open_picture(dir / "p3.jpg", {});
  CHECK(jpeg.info.space == &spaces::kDisplayP3);
  CHECK(jpeg.info.shape.sample == SampleType::kU8);
  CHECK(jpeg.facts.space_from == "profile 'wide display'");
}

TEST_CASE("a gray profile is honored", "[io][profile]") {
  const TempDir dir;
  write_tiff(
      dir / "g.tif", 1, {0, 128, 255},
      icc_profile("GRAY", {{"desc", icc_description("gray card")}, {"kTRC", icc_gamma(1.5)}}));
  PictureFile file = open_picture(dir / "g.tif", {});
  CHECK(file.info.shape.channels == 1);
  const auto samples = samples_of<float>(file);
  const double light = std::pow(128 / 255.0, 1.5);
  CHECK(double{samples[1]} == Approx(1.055 * std::pow(light, 1 / 2.4) - 0.055).margin(1e-5));
  CHECK(double{samples[2]} == Approx(1).margin(1e-5));
}

TEST_CASE("PNG's gamma and primaries are honored", "[io][profile]") {
  const TempDir dir;
  const std::vector<std::uint8_t> rgb{0, 0, 0, 128, 128, 128, 255, 0, 0};
  const auto write = [&](const char* name, int gamma, const std::vector<int>& primaries = {}) {
    write_other_png(dir / name, {3, 1}, rgb, [&](png_structp png, png_infop info) {
      png_set_gAMA_fixed(png, info, gamma);
      const std::vector<int>& p = primaries;  // white, red, green, blue
      if (!p.empty()) png_set_cHRM_fixed(png, info, p[0], p[1], p[2], p[3], p[4], p[5], p[6], p[7]);
    });
    return open_picture(dir / name, {});
  };
  CHECK(write("linear.png", 100000).info.space == &spaces::kSrgbLinear);
  PictureFile file = write("mac.png", 55556);
  CHECK_THAT(file.facts.space_from, Catch::Contains("gAMA and cHRM chunks"));
  const auto samples = samples_of<float>(file);
  const double light = std::pow(128 / 255.0, 100000 / 55556.0);
  CHECK(double{samples[3]} == Approx(1.055 * std::pow(light, 1 / 2.4) - 0.055).margin(1e-4));
  // The numbers of sRGB itself, and the primaries of the space of linear light.
  const std::vector<int> srgb{31270, 32900, 64000, 33000, 30000, 60000, 15000, 6000};
  CHECK(write("srgb.png", 45455, srgb).facts.space_from == "gAMA and cHRM chunks");
  CHECK_FALSE(write("srgb.png", 45455, srgb).facts.converted);
  CHECK(write("light.png", 100000, srgb).info.space == &spaces::kSrgbLinear);
  // Those of display-p3 make a red that sRGB does not have.
  PictureFile wide =
      write("wide.png", 45455, {31270, 32900, 68000, 32000, 26500, 69000, 15000, 6000});
  CHECK(wide.facts.converted);
  const auto wide_samples = samples_of<float>(wide);
  CHECK(wide_samples[6] > 1.05);
  CHECK(wide_samples[7] < -0.1);
  // Primaries in one place are none.
  std::string bytes = text_of_file(dir / "wide.png");
  const std::size_t red = bytes.find("cHRM") + 4 + 8;
  for (std::size_t i = 8; i < 24; ++i) bytes[red + i] = bytes[red + i % 8];
  put_text(dir / "flat.png", with_check_sums(bytes));
  const PictureFile flat = open_picture(dir / "flat.png");
  CHECK_FALSE(flat.facts.converted);
  CHECK(flat.info.space == &spaces::kSrgb);
  CHECK(flat.facts.warnings ==
        std::vector<std::string>{"its color profile does not tell colors apart and is not honored; "
                                 "taken as srgb"});
}

TEST_CASE("a profile is not honored for channels that are chosen", "[io][profile]") {
  const TempDir dir;
  write_tiff(dir / "odd.tif", 3, {200, 30, 90}, odd_profile());
  ReadOptions options;
  options.bands = {2, 1, 0};
  PictureFile file = open_picture(dir / "odd.tif", options);
  CHECK(file.facts.warnings ==
        std::vector<std::string>{"its color profile is of other channels and is not honored"});
  CHECK(samples_of<std::uint8_t>(file) == std::vector<std::uint8_t>{200, 30, 90});
}

TEST_CASE("profiles that do not tell colors apart are found", "[core][color]") {
  const RgbProfile plain = profile_of_primaries(kSrgbPrimaries, 2.2);
  CHECK(tells_colors_apart(plain));
  CHECK(determinant(plain.to_xyz_d50) == Approx(0.161).margin(0.001));
  CHECK_FALSE(tells_colors_apart(profile_of_primaries(
      {kSrgbPrimaries.red, kSrgbPrimaries.red, kSrgbPrimaries.blue, kD65}, 2.2)));
  RgbProfile curved = plain;
  curved.curves[1].e = std::nan("");
  CHECK_FALSE(tells_colors_apart(curved));
  RgbProfile gray;  // needs no matrix
  gray.gray = true;
  gray.to_xyz_d50 = scale(0);
  CHECK(tells_colors_apart(gray));
}

TEST_CASE("profiles that cannot be honored are named", "[io][profile]") {
  const TempDir dir;
  const std::vector<std::uint8_t> rgb{1, 2, 3};
  const auto warning = [&](const IccBytes& profile, std::uint16_t channels = 3) {
    write_tiff(dir / "w.tif", channels, channels == 1 ? std::vector<std::uint8_t>{9} : rgb,
               profile);
    ReadOptions assume;
    assume.assume = &spaces::kDisplayP3;
    const PictureFile file = open_picture(dir / "w.tif", assume);
    CHECK(file.info.space == &spaces::kDisplayP3);
    REQUIRE(file.facts.warnings.size() == 1);
    return file.facts.warnings.front();
  };
  CHECK(warning(icc_profile("RGB ", {{"A2B0", tag_of_type("mft2")}})) ==
        "its color profile works by look-up tables and is not honored; taken as display-p3");
  CHECK_THAT(warning(icc_profile("CMYK", {})), Catch::Contains("is not of r g b or gray"));
  CHECK_THAT(warning(icc_profile("RGB ", {{"rXYZ", icc_xyz(1, 0, 0)}})),
             Catch::Contains("has no rTRC tag"));
  CHECK_THAT(warning(IccBytes(200, 7)), Catch::Contains("is damaged"));
  IccBytes cut = odd_profile();
  cut.resize(cut.size() - 40);
  CHECK_THAT(warning(cut), Catch::Contains("is damaged"));
  CHECK_THAT(warning(odd_profile(), 1), Catch::Contains("is of another kind of picture"));
}
