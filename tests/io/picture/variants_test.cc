// What pictures of other programs may hold and ours never do, one by one.
#include <webp/encode.h>
#include <webp/mux.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <limits>

#include "core/error.h"
#include "io/metadata/exif.h"
#include "io/metadata/icc_profile.h"
#include "io/picture/create_picture.h"
#include "io/picture/open_picture.h"
#include "io/picture/picture_file.h"
#include "tests/support/icc.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("a TIFF with a palette is read as its colors", "[io][tiff]") {
  const TempDir dir;
  std::vector<std::uint16_t> red(65536), green(65536), blue(65536);
  red[2] = 65535, green[2] = 257, blue[7] = 1000, red[300] = 12345;
  const auto with_colors = [&](TIFF* tiff) {
    TIFFSetField(tiff, TIFFTAG_COLORMAP, red.data(), green.data(), blue.data());
  };
  TiffLayout layout;
  layout.width = 4;
  layout.photometric = PHOTOMETRIC_PALETTE;
  write_other_tiff(dir / "p8.tif", layout, {2, 7, 0, 2}, with_colors);
  PictureFile bytes = open_picture(dir / "p8.tif");
  CHECK(bytes.facts.layout == "palette");
  CHECK(samples_of<std::uint16_t>(bytes) ==
        std::vector<std::uint16_t>{65535, 257, 0, 0, 0, 1000, 0, 0, 0, 65535, 257, 0});
  layout.bits = 16;
  layout.width = 2;
  write_other_tiff(dir / "p16.tif", layout, {300 % 256, 300 / 256, 7, 0}, with_colors);
  PictureFile words = open_picture(dir / "p16.tif");
  CHECK(samples_of<std::uint16_t>(words) == std::vector<std::uint16_t>{12345, 0, 0, 0, 0, 1000});
  // With alpha behind each code, which is left out.
  layout.bits = 8;
  layout.channels = 2;
  write_other_tiff(dir / "alpha.tif", layout, {2, 9, 7, 255}, [&](TIFF* tiff) {
    const std::uint16_t alpha[] = {EXTRASAMPLE_UNASSALPHA};
    TIFFSetField(tiff, TIFFTAG_EXTRASAMPLES, 1, alpha);
    with_colors(tiff);
  });
  PictureFile clear = open_picture(dir / "alpha.tif");
  CHECK(clear.info.alpha == AlphaKind::kNone);
  CHECK(samples_of<std::uint16_t>(clear) == std::vector<std::uint16_t>{65535, 257, 0, 0, 0, 1000});
}

TEST_CASE("a TIFF whose white is 0 is put right, and its alpha left alone", "[io][tiff]") {
  const TempDir dir;
  TiffLayout layout;
  layout.width = 4;
  layout.photometric = PHOTOMETRIC_MINISWHITE;
  write_other_tiff(dir / "g.tif", layout, {0, 10, 255, 128});
  PictureFile gray = open_picture(dir / "g.tif");
  CHECK(samples_of<std::uint8_t>(gray) == std::vector<std::uint8_t>{255, 245, 0, 127});
  layout.width = layout.channels = 2;
  write_other_tiff(dir / "ga.tif", layout, {0, 255, 10, 3}, [](TIFF* tiff) {
    const std::uint16_t alpha[] = {EXTRASAMPLE_UNASSALPHA};
    TIFFSetField(tiff, TIFFTAG_EXTRASAMPLES, 1, alpha);
  });
  PictureFile clear = open_picture(dir / "ga.tif");
  CHECK(clear.info.alpha == AlphaKind::kStraight);
  CHECK(samples_of<std::uint8_t>(clear) == std::vector<std::uint8_t>{255, 255, 245, 3});
}

TEST_CASE("floats of 16 and 64 bits are read as those of 32", "[io][tiff]") {
  const TempDir dir;
  struct Half {
    std::uint16_t code;
    float value;
  };
  // 0, -0, 1, the next above it, -2, the largest, the smallest, the largest below normal, infinity
  const std::vector<Half> halves{{0x0000, 0.0f},
                                 {0x8000, -0.0f},
                                 {0x3c00, 1.0f},
                                 {0x3c01, 1.0009765625f},
                                 {0xc000, -2.0f},
                                 {0x7bff, 65504.0f},
                                 {0x0001, 0x1p-24f},
                                 {0x03ff, 1023 * 0x1p-24f},
                                 {0xfc00, -std::numeric_limits<float>::infinity()}};
  std::vector<std::uint8_t> bytes;
  for (const Half& half : halves) {
    bytes.push_back(static_cast<std::uint8_t>(half.code & 255));
    bytes.push_back(static_cast<std::uint8_t>(half.code >> 8));
  }
  TiffLayout layout{static_cast<std::uint32_t>(halves.size()), 1, 1, 16, SAMPLEFORMAT_IEEEFP};
  for (const bool packed : {false, true}) {
    write_other_tiff(dir / "h.tif", layout, bytes, [&](TIFF* tiff) {
      if (!packed) return;
      TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_ADOBE_DEFLATE);
      TIFFSetField(tiff, TIFFTAG_PREDICTOR, PREDICTOR_FLOATINGPOINT);
    });
    PictureFile file = open_picture(dir / "h.tif");
    CHECK(file.facts.bits == 16);
    CHECK(file.facts.floats);
    REQUIRE(file.info.is_float());
    const auto read = samples_of<float>(file);
    for (std::size_t i = 0; i < halves.size(); ++i) {
      INFO(i);
      CHECK(read[i] == halves[i].value);
      CHECK(std::signbit(read[i]) == std::signbit(halves[i].value));
    }
  }
  // What is no number stays so.
  write_other_tiff(dir / "n.tif", {1, 1, 1, 16, SAMPLEFORMAT_IEEEFP}, {0x01, 0x7e});
  PictureFile none = open_picture(dir / "n.tif");
  CHECK(std::isnan(samples_of<float>(none)[0]));
  const std::vector<double> doubles{0.25, -1.5, 0.1};
  std::vector<std::uint8_t> wide(doubles.size() * sizeof(double));
  std::memcpy(wide.data(), doubles.data(), wide.size());
  write_other_tiff(dir / "d.tif", {1, 1, 3, 64, SAMPLEFORMAT_IEEEFP, PHOTOMETRIC_RGB}, wide);
  PictureFile file = open_picture(dir / "d.tif");
  CHECK(file.facts.bits == 64);
  CHECK(samples_of<float>(file) == std::vector<float>{0.25f, -1.5f, 0.1f});
}

TEST_CASE("a TIFF of L*a*b* is read as lab", "[io][tiff]") {
  const TempDir dir;
  TiffLayout layout{2, 1, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_CIELAB};
  write_other_tiff(dir / "l.tif", layout, {255, 0, 0, 51, 0x9c, 100});
  PictureFile file = open_picture(dir / "l.tif");
  CHECK(file.info.space == &spaces::kLab);
  CHECK(file.facts.space_from == "stored as L*a*b*");
  CHECK(file.facts.layout == "L*a*b*");
  CHECK(file.facts.bits == 8);
  CHECK_FALSE(file.facts.floats);
  CHECK(samples_of<float>(file) == std::vector<float>{100, 0, 0, 20, -100, 100});
  // Of 16 bits, with alpha, and another white.
  layout = {1, 1, 4, 16, SAMPLEFORMAT_UINT, PHOTOMETRIC_CIELAB};
  write_other_tiff(dir / "w.tif", layout, {0xff, 0xff, 0x80, 0xff, 0x00, 0x10, 0xff, 0xff},
                   [](TIFF* tiff) {
                     const std::uint16_t alpha[] = {EXTRASAMPLE_UNASSALPHA};
                     TIFFSetField(tiff, TIFFTAG_EXTRASAMPLES, 1, alpha);
                     const float white[] = {0.3127f, 0.329f};
                     TIFFSetField(tiff, TIFFTAG_WHITEPOINT, white);
                   });
  PictureFile wide = open_picture(dir / "w.tif");
  CHECK(wide.info.space == &spaces::kLabD65);
  CHECK(wide.info.alpha == AlphaKind::kStraight);
  CHECK(samples_of<float>(wide) == std::vector<float>{100, -0.5f, 16, 1});
  // As ICC counts them.
  layout = {1, 1, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_ICCLAB};
  write_other_tiff(dir / "i.tif", layout, {255, 128, 0});
  PictureFile shifted = open_picture(dir / "i.tif");
  CHECK(samples_of<float>(shifted) == std::vector<float>{100, 0, -128});
  layout.bits = 16;
  write_other_tiff(dir / "i16.tif", layout, {0x00, 0xff, 0x00, 0x80, 0x80, 0x7f});
  PictureFile deep = open_picture(dir / "i16.tif");
  CHECK(samples_of<float>(deep) == std::vector<float>{100, 0, -0.5f});
}

TEST_CASE("TIFFs of both byte orders and BigTIFFs are read, in every depth", "[io][tiff]") {
  const TempDir dir;
  const std::vector<std::uint8_t> bytes = random_bytes(7 * 5 * 3 * 4);
  for (const char* mode : {"wl", "wb", "w8", "w8b"})
    for (const std::uint16_t bits : {8, 16, 32})
      for (const bool packed : {false, true}) {
        INFO(mode << ' ' << bits << ' ' << packed);
        TiffLayout layout{7, 5, 3, bits, SAMPLEFORMAT_UINT, PHOTOMETRIC_RGB, mode};
        if (bits == 32) layout.format = SAMPLEFORMAT_IEEEFP;
        const std::vector<std::uint8_t> stored(bytes.begin(), bytes.begin() + 7 * 5 * 3 * bits / 8);
        write_other_tiff(dir / "t.tif", layout, stored, [&](TIFF* tiff) {
          if (!packed) return;
          TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_LZW);
          // Floats of the other byte order are written wrong by the library with a predictor.
          if (bits < 32) TIFFSetField(tiff, TIFFTAG_PREDICTOR, PREDICTOR_HORIZONTAL);
        });
        PictureFile file = open_picture(dir / "t.tif");
        CHECK(file.facts.format == (std::string(mode).starts_with("w8") ? "BigTIFF" : "TIFF"));
        CHECK(samples_of<std::uint8_t>(file) == stored);
      }
}

TEST_CASE("TIFFs of 1, 2 and 4 bits are read, in strips and in tiles", "[io][tiff]") {
  const TempDir dir;
  constexpr std::uint32_t kWidth = 37, kHeight = 20, kTile = 16;
  for (const std::uint16_t bits : {1, 2, 4})
    for (const bool tiled : {false, true}) {
      INFO(bits << " bits, tiled " << tiled);
      const unsigned full = (1u << bits) - 1;
      const auto code = [&](std::uint32_t x, std::uint32_t y) { return (x * x + 3 * y) & full; };
      const auto pack = [&](std::uint32_t left, std::uint32_t width, std::uint32_t y) {
        std::vector<std::uint8_t> row((width * bits + 7) / 8);
        for (std::uint32_t x = 0; x < width; ++x)
          row[x * bits / 8] |=
              static_cast<std::uint8_t>(code(left + x, y) << (8 - bits - x * bits % 8));
        return row;
      };
      const auto write = [&](const char* name, std::uint16_t photometric) {
        TIFF* tiff = TIFFOpen((dir / name).c_str(), "w");
        TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, kWidth);
        TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, kHeight);
        TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, bits);
        TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 1);
        TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, photometric);
        std::vector<std::uint16_t> red{7, 65535, 300}, other(16);
        red.resize(16);
        if (photometric == PHOTOMETRIC_PALETTE)
          TIFFSetField(tiff, TIFFTAG_COLORMAP, red.data(), other.data(), other.data());
        if (tiled) {
          TIFFSetField(tiff, TIFFTAG_TILEWIDTH, kTile);
          TIFFSetField(tiff, TIFFTAG_TILELENGTH, kTile);
          for (std::uint32_t top = 0; top < kHeight; top += kTile)
            for (std::uint32_t left = 0; left < kWidth; left += kTile) {
              std::vector<std::uint8_t> tile;
              for (std::uint32_t y = top; y < top + kTile; ++y) {
                const auto row = pack(left, kTile, y);
                tile.insert(tile.end(), row.begin(), row.end());
              }
              TIFFWriteTile(tiff, tile.data(), left, top, 0, 0);
            }
        } else {
          for (std::uint32_t y = 0; y < kHeight; ++y) {
            auto row = pack(0, kWidth, y);
            TIFFWriteScanline(tiff, row.data(), y, 0);
          }
        }
        TIFFClose(tiff);
      };
      write("black.tif", PHOTOMETRIC_MINISBLACK);
      write("white.tif", PHOTOMETRIC_MINISWHITE);
      write("palette.tif", PHOTOMETRIC_PALETTE);
      PictureFile black = open_picture(dir / "black.tif"), white = open_picture(dir / "white.tif"),
                  palette = open_picture(dir / "palette.tif");
      CHECK(black.facts.bits == bits);
      CHECK(black.facts.layout == "gray");
      ReadOptions indices;
      indices.palette_indices = true;
      PictureFile labels = open_picture(dir / "palette.tif", indices);
      const auto grays = samples_of<std::uint8_t>(black),
                 inverted = samples_of<std::uint8_t>(white),
                 codes = samples_of<std::uint8_t>(labels);
      const auto colors = samples_of<std::uint16_t>(palette);
      REQUIRE(grays.size() == kWidth * kHeight);
      for (std::uint32_t y = 0; y < kHeight; ++y)
        for (std::uint32_t x = 0; x < kWidth; ++x) {
          const std::size_t at = y * kWidth + x;
          const unsigned stored = code(x, y);
          REQUIRE(grays[at] == stored * 255 / full);
          REQUIRE(inverted[at] == 255 - stored * 255 / full);
          REQUIRE(codes[at] == stored);
          REQUIRE(colors[3 * at] == (stored == 0   ? 7
                                     : stored == 1 ? 65535
                                     : stored == 2 ? 300
                                                   : 0));
        }
    }
}

TEST_CASE("a TIFF of JPEG data is read as RGB", "[io][tiff]") {
  const TempDir dir;
  TiffLayout layout{16, 16, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_YCBCR};
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 256; ++i) rgb.insert(rgb.end(), {200, 40, 30});
  write_other_tiff(dir / "j.tif", layout, rgb, [](TIFF* tiff) {
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_JPEG);
    TIFFSetField(tiff, TIFFTAG_JPEGCOLORMODE, JPEGCOLORMODE_RGB);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, 16);
  });
  PictureFile file = open_picture(dir / "j.tif");
  CHECK(file.info.color_channels() == 3);
  const auto read = samples_of<std::uint8_t>(file);
  REQUIRE(read.size() == rgb.size());
  for (std::size_t i = 0; i < rgb.size(); ++i) CHECK(std::abs(int{read[i]} - int{rgb[i]}) <= 3);
}

TEST_CASE("TIFFs of other samples are refused by what they are", "[io][tiff]") {
  const TempDir dir;
  struct Row {
    TiffLayout layout;
    const char* says;
  };
  const Row rows[] = {
      {{4, 1, 1, 16, SAMPLEFORMAT_INT, PHOTOMETRIC_MINISBLACK},
       "a TIFF with signed or complex samples, which this program does not read; export it with 8- "
       "or 16-bit integer or 32-bit float samples"},
      {{4, 1, 1, 32, SAMPLEFORMAT_UINT, PHOTOMETRIC_MINISBLACK},
       "a TIFF with 32-bit integer samples"},
      {{4, 1, 1, 24, SAMPLEFORMAT_IEEEFP, PHOTOMETRIC_MINISBLACK},
       "a TIFF with 24-bit float samples"},
      {{4, 1, 3, 1, SAMPLEFORMAT_UINT, PHOTOMETRIC_RGB}, "a TIFF with 1-bit integer samples"},
      {{4, 2, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_YCBCR},
       "a TIFF with YCbCr samples, which this program does not read; export it as RGB or gray"},
      {{4, 1, 1, 16, SAMPLEFORMAT_UINT, PHOTOMETRIC_CFA},
       "a TIFF with the raw samples of a sensor, which this program does not read"},
      {{4, 1, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_ITULAB},
       "a TIFF with samples of kind 10 (PhotometricInterpretation), which this program does not "
       "read"}};
  for (const Row& row : rows) {
    write_other_tiff(dir / "t.tif", row.layout, std::vector<std::uint8_t>(64));
    CHECK_THROWS_WITH(open_picture(dir / "t.tif"),
                      Catch::Contains("t.tif: ") && Catch::Contains(row.says));
  }
}

TEST_CASE("a TIFF of more channels than it can hold, or than planes are opened, is refused",
          "[io][tiff]") {
  const TempDir dir;
  TiffLayout layout{7, 5};
  write_other_tiff(dir / "wide.tif", layout, std::vector<std::uint8_t>(35));
  std::string bytes = text_of_file(dir / "wide.tif");
  const std::size_t channels = bytes.find(std::string("\x15\x01\x03\0\x01\0\0\0", 8)) + 8;
  bytes[channels] = '\x01', bytes[channels + 1] = '\xb4';
  put_text(dir / "wide.tif", bytes);
  CHECK_THROWS_WITH(open_picture(dir / "wide.tif"),
                    Catch::Contains("wide.tif: says that it has 7x5 pixels, more than") &&
                        Catch::Contains("bytes can hold"));
  layout = {2, 1, 513};
  write_other_tiff(dir / "planes.tif", layout, std::vector<std::uint8_t>(2 * 513), [](TIFF* tiff) {
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_SEPARATE);
  });
  CHECK_THROWS_WITH(
      open_picture(dir / "planes.tif"),
      Catch::Contains(
          "planes.tif: a TIFF with 513 channels, each in a plane of its own; at most 512 "
          "are read so; export it with its channels interleaved"));
}

TEST_CASE("a gray PNG with one clear value has alpha", "[io][png]") {
  const TempDir dir;
  png_color_16 clear{};
  clear.gray = 9;
  for (const int depth : {8, 16}) {
    write_other_png(
        dir / "g.png", {2, 1, PNG_COLOR_TYPE_GRAY, depth},
        depth == 8 ? std::vector<std::uint8_t>{9, 0} : std::vector<std::uint8_t>{0, 9, 0, 80},
        [&](png_structp png, png_infop info) { png_set_tRNS(png, info, nullptr, 0, &clear); });
    PictureFile picture = open_picture(dir / "g.png");
    CHECK(picture.info.shape.channels == 2);
    CHECK(picture.info.alpha == AlphaKind::kStraight);
    if (depth == 8) {
      CHECK(samples_of<std::uint8_t>(picture) == std::vector<std::uint8_t>{9, 0, 0, 255});
    } else {
      CHECK(samples_of<std::uint16_t>(picture) == std::vector<std::uint16_t>{9, 0, 80, 65535});
    }
  }
}

TEST_CASE("a PNG says in Exif how it is to be turned", "[io][png]") {
  const TempDir dir;
  std::string exif("MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\0\0\0\0", 26);
  write_other_png(dir / "e.png", {2, 1, PNG_COLOR_TYPE_GRAY, 8}, {10, 20},
                  [&](png_structp png, png_infop info) {
                    png_set_eXIf_1(png, info, static_cast<png_uint_32>(exif.size()),
                                   reinterpret_cast<png_bytep>(exif.data()));
                  });
  PictureFile picture = open_picture(dir / "e.png");
  CHECK(picture.facts.orientation == 6);
  CHECK(picture.info.shape.height == 2);
  CHECK(samples_of<std::uint8_t>(picture) == std::vector<std::uint8_t>{10, 20});
}

TEST_CASE("an animated WebP is refused", "[io][webp]") {
  const TempDir dir;
  std::vector<std::uint8_t> pixels(8 * 8 * 4, 90);
  WebPAnimEncoder* encoder = WebPAnimEncoderNew(8, 8, nullptr);
  WebPConfig config;
  REQUIRE(WebPConfigInit(&config));
  for (int frame = 0; frame < 2; ++frame) {
    WebPPicture picture;
    REQUIRE(WebPPictureInit(&picture));
    picture.use_argb = 1;
    picture.width = picture.height = 8;
    pixels[0] = static_cast<std::uint8_t>(100 * frame);
    REQUIRE(WebPPictureImportRGBA(&picture, pixels.data(), 32));
    REQUIRE(WebPAnimEncoderAdd(encoder, &picture, 100 * frame, &config));
    WebPPictureFree(&picture);
  }
  REQUIRE(WebPAnimEncoderAdd(encoder, nullptr, 200, nullptr));
  WebPData data;
  WebPDataInit(&data);
  REQUIRE(WebPAnimEncoderAssemble(encoder, &data));
  put_text(dir / "a.webp", {reinterpret_cast<const char*>(data.bytes), data.size});
  WebPDataClear(&data);
  WebPAnimEncoderDelete(encoder);
  CHECK_THROWS_WITH(open_picture(dir / "a.webp"),
                    Catch::Contains("a.webp: an animated WebP, which this program does not read; "
                                    "export one of its pictures"));
}

TEST_CASE("TIFFs and PNGs that were cut short are refused", "[io][tiff][png]") {
  const TempDir dir;
  for (const char* const name : {"whole.tif", "whole.png"}) {
    write_picture(dir / name, spec_of(60, 40, 3), bytes_of(random_bytes(7200)));
    const std::string whole = text_of_file(dir / name), cut = "cut-" + std::string(name);
    put_text(dir / cut, whole.substr(0, whole.size() / 2));
    const auto read = [&] {
      PictureFile file = open_picture(dir / cut);
      samples_of<std::uint8_t>(file);
    };
    CHECK_THROWS_WITH(read(),
                      Catch::Contains(cut.ends_with("tif") ? "damaged TIFF" : "damaged PNG: "));
  }
}

TEST_CASE("JPEGs are read however they are stored", "[io][jpeg]") {
  const TempDir dir;
  constexpr std::uint32_t kWidth = 37;
  constexpr int kHeight = 21;
  std::vector<std::uint8_t> smooth;
  for (int y = 0; y < kHeight; ++y)
    for (int x = 0; x < static_cast<int>(kWidth); ++x)
      for (const int value : {40 + 4 * x, 200 - 6 * y, 90 + 2 * x + y})
        smooth.push_back(static_cast<std::uint8_t>(value));
  struct Row {
    const char* name;
    void (*set_up)(jpeg_compress_struct& jpeg);
  };
  const Row rows[] = {
      {"rgb", [](jpeg_compress_struct& jpeg) { jpeg_set_colorspace(&jpeg, JCS_RGB); }},
      {"progressive", [](jpeg_compress_struct& jpeg) { jpeg_simple_progression(&jpeg); }},
      {"restarts", [](jpeg_compress_struct& jpeg) { jpeg.restart_in_rows = 1; }},
      {"full chroma",
       [](jpeg_compress_struct& jpeg) {
         jpeg.comp_info[0].h_samp_factor = jpeg.comp_info[0].v_samp_factor = 1;
       }},
      {"half chroma across", [](jpeg_compress_struct& jpeg) {
         jpeg.comp_info[0].h_samp_factor = 2;
         jpeg.comp_info[0].v_samp_factor = 1;
       }}};
  for (const Row& row : rows) {
    INFO(row.name);
    write_other_jpeg(dir / "j.jpg", kWidth, 3, JCS_RGB, smooth, row.set_up,
                     [](jpeg_compress_struct&) {});
    PictureFile file = open_picture(dir / "j.jpg");
    const bool whole = std::string(row.name) == "progressive";
    CHECK(file.facts.format == (whole ? "progressive JPEG" : "JPEG"));
    CHECK(file.facts.holds_picture == whole);
    CHECK(file.facts.layout == "RGB");
    for (int time = 0; time < 2; ++time) {
      const auto read = samples_of<std::uint8_t>(file);
      REQUIRE(read.size() == smooth.size());
      for (std::size_t i = 0; i < read.size(); ++i)
        REQUIRE(std::abs(int{read[i]} - int{smooth[i]}) <= 8);
      file.rows->rewind();
    }
  }
}

TEST_CASE("a WebP with losses, and one with alpha, are read", "[io][webp]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgba;
  for (int i = 0; i < 24 * 16; ++i)
    for (const int value : {60, 140, 200, i < 24 ? 0 : 255})
      rgba.push_back(static_cast<std::uint8_t>(value));
  std::uint8_t* packed = nullptr;
  const std::size_t size = WebPEncodeRGBA(rgba.data(), 24, 16, 24 * 4, 90, &packed);
  put_text(dir / "w.webp", std::string(reinterpret_cast<const char*>(packed), size));
  WebPFree(packed);
  PictureFile file = open_picture(dir / "w.webp");
  CHECK(file.facts.lossy);
  CHECK(file.info.alpha == AlphaKind::kStraight);
  const auto read = samples_of<std::uint8_t>(file);
  REQUIRE(read.size() == rgba.size());
  for (std::size_t i = 24 * 4; i < read.size(); ++i)
    REQUIRE(std::abs(int{read[i]} - int{rgba[i]}) <= 6);
  CHECK(read[3] == 0);
  CHECK(file.rows->rereads_quickly());  // it is decoded as a whole
  file.rows->rewind();
  CHECK(samples_of<std::uint8_t>(file) == read);
}

TEST_CASE("JPEGs of inks and damaged ones are refused", "[io][jpeg]") {
  const TempDir dir;
  write_flat_jpeg(dir / "inks.jpg", 4, JCS_CMYK, 60, [](jpeg_compress_struct&) {});
  CHECK_THROWS_WITH(open_picture(dir / "inks.jpg"),
                    Catch::Contains("inks.jpg: a CMYK JPEG, which this program does not read; "
                                    "export it as an RGB picture"));
  put_text(dir / "cut.jpg", text_of_file(dir / "inks.jpg").substr(0, 40));
  CHECK_THROWS_WITH(open_picture(dir / "cut.jpg"), Catch::Contains("cut.jpg: damaged JPEG: "));
}

TEST_CASE("Exif says a resolution per inch or per centimeter", "[io][exif]") {
  for (const auto& [unit, per_meter_wanted] :
       {std::pair{2, 300 / 0.0254}, {3, 30000.0}, {1, 0.0}}) {
    std::string exif("II*\0\x08\0\0\0\x03\0", 10);
    const auto entry = [&](char tag_low, char type, char value) {
      exif += std::string{tag_low, '\x01', type, 0, 1, 0, 0, 0, value, 0, 0, 0};
    };
    entry('\x1a', 5, 50);
    entry('\x1b', 5, 50);
    entry('\x28', 3, static_cast<char>(unit));
    exif += std::string("\0\0\0\0\x58\x02\0\0\x02\0\0\0", 12);  // 600 / 2, from byte 50 on
    const Exif read = parse_exif(std::as_bytes(std::span(exif)));
    CHECK(read.pixels_per_meter_x == Approx(per_meter_wanted));
    CHECK(read.pixels_per_meter_y == Approx(per_meter_wanted));
  }
}

TEST_CASE("profiles say their name in either way, and what cannot be honored", "[io][profile]") {
  const auto parsed = [](const IccBytes& bytes) {
    return parse_icc(std::as_bytes(std::span(bytes)));
  };
  IccTags tags = icc_rgb_tags({{0.64, 0.33}, {0.3, 0.6}, {0.15, 0.06}, {0.3127, 0.329}},
                              icc_gamma(2.2), "plain");
  CHECK(parsed(icc_profile("RGB ", tags)).name == "plain");
  IccBytes wide = tag_of_type("mluc");
  for (const std::uint32_t v : {1u, 12u}) put_u32(wide, v);
  for (const char c : std::string("enUS")) wide.push_back(static_cast<std::uint8_t>(c));
  for (const std::uint32_t v : {10u, 28u}) put_u32(wide, v);
  for (const char32_t c : std::u32string(U"wide\u03b1")) put_u16(wide, c);
  tags[0].second = wide;
  CHECK(parsed(icc_profile("RGB ", tags)).name == "wide?");
  tags[4].second = icc_parametric(9, {1, 1});
  CHECK_THROWS_WITH(parsed(icc_profile("RGB ", tags)),
                    Catch::Contains("has a curve of an unknown type; say the space with --assume"));
  tags[4].second = tag_of_type("what");
  CHECK_THROWS_WITH(parsed(icc_profile("RGB ", tags)),
                    Catch::Contains("has a curve of an unknown type"));
}
