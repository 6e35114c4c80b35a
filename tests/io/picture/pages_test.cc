// TIFFs with several pictures, and files that are pictures of formats that are not read.
#include <catch2/catch.hpp>

#include "core/error.h"
#include "io/picture/foreign_format.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

constexpr std::uint32_t kNoKind = 0;

struct Page {
  std::uint32_t width;
  std::uint8_t code;  // of all samples
  std::uint32_t kind = kNoKind;
  std::uint16_t photometric = PHOTOMETRIC_MINISBLACK, channels = 1, planes = PLANARCONFIG_CONTIG;
};

/// Pages of two rows, one behind the other; the last `below` of them are not in the chain but below
/// the first one.
void write_pages(const std::filesystem::path& path, const std::vector<Page>& pages,
                 std::uint16_t below = 0) {
  TIFF* tiff = TIFFOpen(path.c_str(), "w");
  for (std::size_t i = 0; i < pages.size(); ++i) {
    const Page& page = pages[i];
    TIFFSetField(tiff, TIFFTAG_SUBFILETYPE, page.kind);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, page.width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, 2);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, page.channels);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, page.planes);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, page.photometric);
    std::vector<std::uint64_t> places(below, 0);
    if (i == 0 && below > 0) TIFFSetField(tiff, TIFFTAG_SUBIFD, below, places.data());
    const bool separate = page.planes == PLANARCONFIG_SEPARATE;
    std::vector<std::uint8_t> row(page.width * (separate ? 1u : page.channels));
    for (std::uint16_t p = 0; p < (separate ? page.channels : 1); ++p)
      for (std::uint32_t y = 0; y < 2; ++y) {
        std::fill(row.begin(), row.end(), static_cast<std::uint8_t>(page.code + p));
        TIFFWriteScanline(tiff, row.data(), y, p);
      }
    TIFFWriteDirectory(tiff);
  }
  TIFFClose(tiff);
}

PictureFile page_of(const std::filesystem::path& path, std::size_t page) {
  ReadOptions options;
  options.page = page;
  return open_picture(path, options);
}

std::vector<std::uint8_t> samples_on(const std::filesystem::path& path, std::size_t page) {
  PictureFile file = page_of(path, page);
  return samples_of<std::uint8_t>(file);
}

std::string error_of(const std::filesystem::path& path, std::size_t page = 0) {
  try {
    page_of(path, page);
  } catch (const InputError& error) {
    return error.what();
  }
  return "";
}

}  // namespace

TEST_CASE("a TIFF with several pictures is read where it is asked for", "[io][tiff]") {
  const TempDir dir;
  write_pages(dir / "p.tif", {{3, 10}, {5, 20, FILETYPE_PAGE}, {7, 30, FILETYPE_PAGE}});
  const PictureFile first = page_of(dir / "p.tif", 0);
  CHECK(first.facts.pages == 3);
  CHECK(first.info.shape.width == 3);
  CHECK(first.facts.warnings ==
        std::vector<std::string>{
            "holds 3 pictures, of which the first is read; give --page for others"});
  CHECK(page_of(dir / "p.tif", 1).facts.warnings.empty());
  CHECK(page_of(dir / "p.tif", 2).info.shape.width == 5);
  CHECK(samples_on(dir / "p.tif", 3) == std::vector<std::uint8_t>(14, 30));
  CHECK_THAT(error_of(dir / "p.tif", 4),
             Catch::EndsWith("p.tif: holds 3 pictures, and --page asks for number 4; give a number "
                             "up to 3"));
  write_pages(dir / "one.tif", {{3, 10}});
  CHECK(page_of(dir / "one.tif", 1).facts.pages == 1);
  CHECK(page_of(dir / "one.tif", 0).facts.warnings.empty());
  write_stripes(dir / "s.png");
  for (const char* name : {"one.tif", "s.png"})
    CHECK_THAT(error_of(dir / name, 2),
               Catch::EndsWith("holds one picture, and --page asks for another; leave it out"));
}

TEST_CASE("planes of a later picture are its own", "[io][tiff]") {
  const TempDir dir;
  const Page planar{2, 60, kNoKind, PHOTOMETRIC_RGB, 3, PLANARCONFIG_SEPARATE};
  write_pages(dir / "p.tif", {{3, 10}, planar});
  CHECK(samples_on(dir / "p.tif", 2) ==
        std::vector<std::uint8_t>{60, 61, 62, 60, 61, 62, 60, 61, 62, 60, 61, 62});
}

TEST_CASE("small copies and masks of a picture are no pictures", "[io][tiff]") {
  const TempDir dir;
  write_pages(dir / "pyramid.tif",
              {{8, 10}, {4, 10, FILETYPE_REDUCEDIMAGE}, {8, 1, FILETYPE_MASK}});
  const PictureFile pyramid = page_of(dir / "pyramid.tif", 0);
  CHECK(pyramid.facts.pages == 1);
  CHECK(pyramid.facts.warnings.empty());
  // The copy may come first, beside the picture or above it.
  write_pages(dir / "beside.tif", {{4, 10, FILETYPE_REDUCEDIMAGE}, {8, 20}});
  CHECK(page_of(dir / "beside.tif", 0).info.shape.width == 8);
  write_pages(dir / "above.tif",
              {{4, 10, FILETYPE_REDUCEDIMAGE}, {2, 15, FILETYPE_REDUCEDIMAGE}, {8, 20}}, 2);
  CHECK(samples_on(dir / "above.tif", 0) == std::vector<std::uint8_t>(16, 20));
  // A copy of nothing is all there is.
  write_pages(dir / "alone.tif", {{4, 10, FILETYPE_REDUCEDIMAGE}});
  CHECK(page_of(dir / "alone.tif", 0).info.shape.width == 4);
}

TEST_CASE("of a raw file the small copy is not taken for the picture", "[io][tiff]") {
  const TempDir dir;
  const Page copy{4, 10, FILETYPE_REDUCEDIMAGE, PHOTOMETRIC_RGB, 3};
  write_pages(dir / "raw.tif", {copy, {64, 99, kNoKind, PHOTOMETRIC_CFA}}, 1);
  CHECK_THAT(error_of(dir / "raw.tif"),
             Catch::EndsWith("raw.tif: a TIFF with the raw samples of a sensor, which this program "
                             "does not read; develop it into a TIFF of 16 bits"));
}

TEST_CASE("a picture of a format that is not read is called what it is", "[io]") {
  using std::literals::operator""s;
  const TempDir dir;
  const std::vector<std::pair<std::string, std::string>> files{
      {"\0\0\0\x18"s + "ftypheic", "a HEIC picture"},
      {"\0\0\0\x1c"s + "ftypavif", "an AVIF picture"},
      {"II*\0\x10\0\0\0CR\2\0"s, "a raw file of a camera"},
      {"IIRO\x08\0\0\0"s, "a raw file of a camera"},
      {"GIF89a", "a GIF"},
      {"BM\x36\x10\0\0\0\0\0\0\x36\0"s, "a bitmap (BMP)"},
      {"\0\0\0\x0cjP  "s, "a JPEG 2000 picture"},
      {"\xff\x0a", "a JPEG XL picture"},
      {"v/1\1", "an OpenEXR picture"},
      {"%PDF-1.7", "a PDF"},
      {"<svg xmlns", "a drawing (SVG)"}};
  for (const auto& [bytes, what] : files) {
    INFO(what);
    put_text(dir / "x", bytes);
    CHECK_THAT(error_of(dir / "x"),
               Catch::Contains("x: is " + what + ", which this program does not read; "));
  }
  put_text(dir / "x", "BMWs and other cars");
  CHECK_THAT(error_of(dir / "x"), Catch::Contains("is not a picture this program reads"));
  CHECK_FALSE(foreign_format("").has_value());
  CHECK_FALSE(foreign_format("II*\0\x08\0\0\0"s).has_value());
}
