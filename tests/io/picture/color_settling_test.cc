// Which of what a file says of its color counts.
#include <zlib.h>

#include <catch2/catch.hpp>
#include <cstdint>
#include <string>
#include <vector>

#include "io/metadata/exif.h"
#include "io/picture/create_picture.h"
#include "io/picture/open_picture.h"
#include "io/picture/picture_file.h"
#include "tests/support/icc.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/png_chunks.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

void add_chunks(const std::filesystem::path& path, const std::vector<std::string>& typed_data) {
  put_text(path, with_chunks(text_of_file(path), typed_data));
}

ReadOptions assuming(const Space& space) {
  ReadOptions options;
  options.assume = &space;
  return options;
}

/// Exif data of a ColorSpace and, when given, an interoperability index.
std::string exif_of(std::uint16_t color_space, const std::string& index) {
  std::string exif("MM\0*\0\0\0\x08", 8);
  const auto entry = [&](int tag, int type, int count, const std::string& value) {
    for (const int number : {tag, type, 0, count})
      exif += {static_cast<char>(number >> 8), static_cast<char>(number)};
    exif += value;
  };
  const auto fields = [&](char count) { exif += std::string{0, count}; };
  const auto end = [&] { exif += std::string(4, '\0'); };
  fields(1);
  entry(0x8769, 4, 1, std::string("\0\0\0\x1a", 4));  // the folder of Exif, at 26
  end();
  fields(index.empty() ? 1 : 2);
  entry(0xa001, 3, 1,
        {static_cast<char>(color_space >> 8), static_cast<char>(color_space), '\0', '\0'});
  if (!index.empty()) entry(0xa005, 4, 1, std::string("\0\0\0\x38", 4));  // the next, at 56
  end();
  if (index.empty()) return exif;
  fields(1);
  entry(0x0001, 2, 4, index + '\0');
  end();
  return exif;
}

void write_jpeg_with(const std::filesystem::path& path, const std::string& exif) {
  write_flat_jpeg(path, 3, JCS_RGB, 128, [&](jpeg_compress_struct& jpeg) {
    const std::string marker = std::string("Exif\0\0", 6) + exif;
    jpeg_write_marker(&jpeg, JPEG_APP0 + 1, reinterpret_cast<const JOCTET*>(marker.data()),
                      static_cast<unsigned>(marker.size()));
  });
}

/// The data of an iCCP chunk.
std::string packed_profile(const IccBytes& profile) {
  std::vector<Bytef> packed(compressBound(profile.size()));
  uLongf size = packed.size();
  compress(packed.data(), &size, profile.data(), profile.size());
  return std::string("p\0\0", 3) +
         std::string(packed.begin(), packed.begin() + static_cast<std::ptrdiff_t>(size));
}

IccBytes profile_of_p3() {
  return icc_profile(
      "RGB ", icc_rgb_tags({{0.68, 0.32}, {0.265, 0.69}, {0.15, 0.06}, kD65},
                           icc_parametric(3, {2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045}),
                           "wide display"));
}

}  // namespace

TEST_CASE("of all that a PNG says of its color, the first that can be honored counts",
          "[io][color]") {
  const TempDir dir;
  struct Said {
    std::string chunk;
    const Space* space;
    const char* from;
  };
  // In the order of precedence; each is a space of its own.
  const std::vector<Said> all{
      {std::string("cICP\x09\x0e\x00\x01", 8), &spaces::kRec2020, "cICP chunk"},
      {"iCCP" + packed_profile(profile_of_p3()), &spaces::kDisplayP3, "profile 'wide display'"},
      {std::string("sRGB\0", 5), &spaces::kSrgb, "sRGB chunk"},
      {std::string("gAMA\0\x01\x86\xa0", 8), &spaces::kSrgbLinear, "gAMA and cHRM chunks"},
      {"eXIf" + exif_of(0xffff, "R03"), &spaces::kA98Rgb, "Exif"}};
  for (std::size_t first = 0; first <= all.size(); ++first) {
    write_other_png(dir / "a.png", {2, 1}, {0, 0, 0, 255, 128, 64});
    std::vector<std::string> chunks;
    for (std::size_t i = first; i < all.size(); ++i) chunks.push_back(all[i].chunk);
    add_chunks(dir / "a.png", chunks);
    const PictureFile file = open_picture(dir / "a.png", assuming(spaces::kProphotoRgb));
    INFO(first);
    CHECK(file.info.space == (first < all.size() ? all[first].space : &spaces::kProphotoRgb));
    CHECK(file.facts.space_from == (first < all.size() ? all[first].from : "assumed"));
    CHECK(file.facts.warnings.empty());
  }
}

TEST_CASE("what cannot be honored leaves the word to what comes after it", "[io][color]") {
  const TempDir dir;
  write_other_png(dir / "a.png", {2, 1}, {0, 0, 0, 255, 128, 64});
  const IccBytes tables = icc_profile("RGB ", {{"A2B0", tag_of_type("mft2")}});
  add_chunks(dir / "a.png",
             {std::string("cICP\x09\x10\x00\x01", 8), "iCCP" + packed_profile(tables),
              std::string("gAMA\0\x01\x86\xa0", 8)});
  const PictureFile known = open_picture(dir / "a.png", assuming(spaces::kDisplayP3));
  CHECK(known.info.space == &spaces::kDisplayP3);
  CHECK(known.facts.space_from == "assumed");
  CHECK(known.facts.warnings.size() == 2);
  const PictureFile file = open_picture(dir / "a.png");
  CHECK(file.info.space == &spaces::kSrgbLinear);
  CHECK(file.facts.space_from == "gAMA and cHRM chunks");
  CHECK(file.facts.warnings ==
        std::vector<std::string>{
            "its cICP chunk names the colors 9/16 of H.273, which are not known here, and is not "
            "honored; taken as srgb-linear",
            "its color profile works by look-up tables and is not honored; taken as srgb-linear"});
}

TEST_CASE("Exif says sRGB, the other space of cameras, or only that it is another", "[io][color]") {
  const TempDir dir;
  const auto open = [&](std::uint16_t color_space, const std::string& index) {
    write_jpeg_with(dir / "e.jpg", exif_of(color_space, index));
    return open_picture(dir / "e.jpg", assuming(spaces::kDisplayP3));
  };
  CHECK(open(1, "R98").info.space == &spaces::kSrgb);
  CHECK(open(0xffff, "R03").info.space == &spaces::kA98Rgb);
  CHECK(open(0xffff, "R03").facts.space_from == "Exif");
  CHECK(open(0xffff, "R03").facts.warnings.empty());
  for (const char* index : {"", "R98", "THM"}) {
    const PictureFile file = open(0xffff, index);
    CHECK(file.info.space == &spaces::kDisplayP3);
    CHECK(file.facts.space_from == "assumed");
    CHECK(file.facts.warnings ==
          std::vector<std::string>{"its Exif data says that its colors are not sRGB, and not what "
                                   "they are; taken as display-p3"});
  }
  CHECK(open(7, "").info.space == &spaces::kDisplayP3);
  CHECK(open(7, "").facts.warnings.empty());
}

TEST_CASE("the folder of Exif in a TIFF says its colors and its time", "[io][color]") {
  const TempDir dir;
  const auto open = [&](std::uint16_t color_space) {
    write_other_tiff(
        dir / "e.tif", {1, 1, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_RGB}, {1, 2, 3},
        [](TIFF* tiff) { TIFFSetField(tiff, TIFFTAG_DATETIME, "2026:06:01 09:00:00"); });
    TIFF* tiff = TIFFOpen((dir / "e.tif").c_str(), "r+");
    TIFFFreeDirectory(tiff);  // creating one leaves that of the picture to its owner
    TIFFCreateEXIFDirectory(tiff);
    TIFFSetField(tiff, EXIFTAG_COLORSPACE, color_space);
    TIFFSetField(tiff, EXIFTAG_DATETIMEORIGINAL, "2026:05:17 14:03:21");
    std::uint64_t place = 0;
    TIFFWriteCustomDirectory(tiff, &place);
    TIFFSetDirectory(tiff, 0);
    TIFFSetField(tiff, TIFFTAG_EXIFIFD, place);
    TIFFRewriteDirectory(tiff);
    TIFFClose(tiff);
    return open_picture(dir / "e.tif", assuming(spaces::kDisplayP3));
  };
  PictureFile file = open(1);
  CHECK(file.info.space == &spaces::kSrgb);
  CHECK(file.facts.space_from == "Exif");
  CHECK(file.facts.carried.captured == "2026:05:17 14:03:21");
  CHECK(samples_of<std::uint8_t>(file) == std::vector<std::uint8_t>{1, 2, 3});
  CHECK(open(0xffff).facts.warnings ==
        std::vector<std::string>{"its Exif data says that its colors are not sRGB, and not what "
                                 "they are; taken as display-p3"});
}

TEST_CASE("code points of a PNG name its space", "[io][carried]") {
  const TempDir dir;
  struct Named {
    std::string codes;
    const Space* space;
  };
  for (const Named& one :
       {Named{{12, 13, 0, 1}, &spaces::kDisplayP3}, Named{{9, 14, 0, 1}, &spaces::kRec2020},
        Named{{1, 8, 0, 1}, &spaces::kSrgbLinear}, Named{{1, 13, 0, 1}, &spaces::kSrgb}}) {
    // Before the sRGB chunk that our writer puts there.
    write_picture(dir / "a.png", spec_of(4, 2, 3), bytes_of(random_bytes(24)));
    add_chunks(dir / "a.png", {"cICP" + one.codes});
    const PictureFile read = open_picture(dir / "a.png", {});
    INFO(one.space->id);
    CHECK(read.info.space == one.space);
    CHECK(read.facts.space_from == "cICP chunk");
    CHECK(read.facts.warnings.empty());
  }
  write_picture(dir / "a.png", spec_of(4, 2, 3), bytes_of(random_bytes(24)));
  add_chunks(dir / "a.png", {std::string("cICP\x09\x10\x00\x01", 8)});  // perceptual quantizer
  const PictureFile read = open_picture(dir / "a.png", {});
  CHECK(read.info.space == &spaces::kSrgb);
  REQUIRE(read.facts.warnings.size() == 1);
  CHECK_THAT(read.facts.warnings[0],
             Catch::Contains("its cICP chunk names the colors 9/16 of H.273"));
}
