// Pictures there and back, and pictures made by other hands.
#include <png.h>
#include <sys/stat.h>
#include <tiffio.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <cstring>

#include "core/error.h"
#include "core/pixel/memory_source.h"
#include "io/picture/mask_file.h"
#include "io/picture/orientation.h"
#include "tests/support/other_writers.h"
#include "tests/support/pictures.h"
#include "tests/support/png_chunks.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Reads a PNG with libpng as 8-bit RGBA.
std::vector<std::uint8_t> read_with_libpng(const std::filesystem::path& path) {
  png_image image{};
  image.version = PNG_IMAGE_VERSION;
  REQUIRE(png_image_begin_read_from_file(&image, path.c_str()));
  image.format = PNG_FORMAT_RGBA;
  std::vector<std::uint8_t> pixels(PNG_IMAGE_SIZE(image));
  REQUIRE(png_image_finish_read(&image, nullptr, pixels.data(), 0, nullptr));
  return pixels;
}

}  // namespace

TEST_CASE("pictures come back as they were written, in every format and depth", "[io][picture]") {
  const TempDir dir;
  struct Row {
    const char* name;
    std::uint32_t channels;
    SampleType sample;
  };
  const Row rows[] = {{"gray8.png", 1, SampleType::kU8},   {"graya8.png", 2, SampleType::kU8},
                      {"rgb8.png", 3, SampleType::kU8},    {"rgba8.png", 4, SampleType::kU8},
                      {"gray16.png", 1, SampleType::kU16}, {"rgb16.png", 3, SampleType::kU16},
                      {"rgba16.png", 4, SampleType::kU16}, {"gray8.tif", 1, SampleType::kU8},
                      {"rgb16.tif", 3, SampleType::kU16},  {"rgba8.tiff", 4, SampleType::kU8},
                      {"rgbf.tif", 3, SampleType::kF32}};
  for (const Row& row : rows) {
    INFO(row.name);
    const auto spec = spec_of(701, 403, row.channels, row.sample);
    auto raw = random_bytes(spec.shape.row_bytes() * spec.shape.height, row.channels);
    if (row.sample == SampleType::kF32)
      for (std::size_t i = 0; i < raw.size(); i += 4) {
        const float v = raw[i] / 255.0f;
        std::memcpy(raw.data() + i, &v, 4);
      }
    write_picture(dir / row.name, spec, bytes_of(raw));
    PictureFile file = open_picture(dir / row.name);
    CHECK(file.info.shape == spec.shape);
    CHECK((file.info.alpha == AlphaKind::kStraight) == spec.alpha);
    CHECK(file.info.space == &spaces::kSrgb);
    CHECK(samples_of<std::uint8_t>(file) == raw);
    file.rows->rewind();
    CHECK(samples_of<std::uint8_t>(file) == raw);
  }
}

TEST_CASE("another decoder reads our PNG the same", "[io][picture]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgb;
  for (int y = 0; y < 300; ++y)
    for (int x = 0; x < 1000; ++x)
      for (int c = 0; c < 3; ++c) rgb.push_back(static_cast<std::uint8_t>((x * (c + 1) + y) / 7));
  write_rgb(dir / "a.png", 1000, 300, rgb);
  const auto rgba = read_with_libpng(dir / "a.png");
  bool same = true;
  for (std::size_t i = 0; i < 300000; ++i)
    for (std::size_t c = 0; c < 3; ++c) same &= rgba[4 * i + c] == rgb[3 * i + c];
  CHECK(same);
  CHECK(std::filesystem::file_size(dir / "a.png") < rgb.size() / 4);
}

TEST_CASE("class maps are palette pictures with their names inside", "[io][picture]") {
  const TempDir dir;
  PictureSpec spec = spec_of(3, 1, 1);
  spec.labels = true;
  spec.legend = {{1, "ruby", "#9b1b30"}, {2, "lead, \"old\"", "#3c3d40"}};
  for (const char* name : {"map.png", "map.tif"}) {
    INFO(name);
    write_picture(dir / name, spec, bytes_of(std::vector<std::uint8_t>{0, 2, 1}));
    ReadOptions options;
    options.palette_indices = true;
    PictureFile file = open_picture(dir / name, options);
    CHECK(samples_of<std::uint8_t>(file) == std::vector<std::uint8_t>{0, 2, 1});
    if (std::string(name) == "map.png") CHECK(file.facts.legend == spec.legend);
  }
  const auto rgba = read_with_libpng(dir / "map.png");
  CHECK(std::vector<std::uint8_t>(rgba.begin(), rgba.end()) ==
        std::vector<std::uint8_t>{0, 0, 0, 0, 0x3c, 0x3d, 0x40, 255, 0x9b, 0x1b, 0x30, 255});
}

TEST_CASE("pictures of few colors hold their numbers, as a class map does", "[io][picture]") {
  const TempDir dir;
  const std::vector<Color> colors{css_color("#9b1b30"), {&spaces::kSrgb, {-4, 127.5, 300}}};
  const auto numbers = bytes_of(std::vector<std::uint8_t>{1, 2, 2, 0, 1, 2});
  const std::vector<std::uint8_t> ruby{0x9b, 0x1b, 0x30}, clipped{0, 128, 255};
  for (const bool alpha : {false, true}) {
    INFO(alpha);
    write_picture(dir / "few.png", indexed_spec({3, 2}, colors, alpha), numbers);
    PictureFile file = open_picture(dir / "few.png");
    CHECK(file.info.space == &spaces::kSrgb);
    CHECK(file.facts.legend.empty());
    std::vector<std::uint8_t> wanted;
    for (const std::byte number : numbers) {
      const std::vector<std::uint8_t> black(3);
      const auto& color = number == std::byte{0} ? black : number == std::byte{1} ? ruby : clipped;
      wanted.insert(wanted.end(), color.begin(), color.end());
      if (alpha) wanted.push_back(number == std::byte{0} ? 0 : 255);
    }
    CHECK(samples_of<std::uint8_t>(file) == wanted);
  }
  // Encoded once, rows serve both kinds of files.
  const auto map = create_picture(dir / "map.png", class_map_spec({3, 2}, {{2, "b", "#000000"}}));
  const auto few = create_picture(dir / "few.png", indexed_spec({3, 2}, colors, false));
  CHECK(map->encode(0, 2, numbers).bytes == few->encode(0, 2, numbers).bytes);
}

TEST_CASE("PNG of few bits, palettes and interlacing are read", "[io][picture]") {
  const TempDir dir;
  // Gray of 2 bits: codes 0 1 2 3 are 0 85 170 255.
  write_other_png(dir / "g2.png", {4, 2, PNG_COLOR_TYPE_GRAY, 2}, {0x1b, 0xe4});
  PictureFile g2 = open_picture(dir / "g2.png");
  CHECK(samples_of<std::uint8_t>(g2) ==
        std::vector<std::uint8_t>{0, 85, 170, 255, 255, 170, 85, 0});
  CHECK(g2.facts.bits == 2);
  const png_color palette[] = {{10, 20, 30}, {40, 50, 60}, {70, 80, 90}};
  for (const bool interlaced : {false, true}) {
    write_other_png(dir / "p4.png", {3, 1, PNG_COLOR_TYPE_PALETTE, 4, interlaced}, {0x21, 0x00},
                    [&](png_structp png, png_infop info) { png_set_PLTE(png, info, palette, 3); });
    PictureFile colors = open_picture(dir / "p4.png");
    CHECK(samples_of<std::uint8_t>(colors) ==
          std::vector<std::uint8_t>{70, 80, 90, 40, 50, 60, 10, 20, 30});
    ReadOptions options;
    options.palette_indices = true;
    PictureFile codes = open_picture(dir / "p4.png", options);
    CHECK(samples_of<std::uint8_t>(codes) == std::vector<std::uint8_t>{2, 1, 0});
  }
  const auto rgb = random_bytes(37 * 29 * 3);
  write_other_png(dir / "i.png", {37, 29, PNG_COLOR_TYPE_RGB, 8, true}, rgb);
  PictureFile interlaced = open_picture(dir / "i.png");
  CHECK(interlaced.facts.holds_picture);
  CHECK(interlaced.rows->rereads_quickly());
  CHECK_FALSE(g2.rows->rereads_quickly());
  CHECK(samples_of<std::uint8_t>(interlaced) == rgb);
  interlaced.rows->rewind();
  CHECK(samples_of<std::uint8_t>(interlaced) == rgb);
}

TEST_CASE("JPEG comes back close, gray and color, with its orientation applied", "[io][picture]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgb;
  for (int y = 0; y < 40; ++y)
    for (int x = 0; x < 64; ++x)
      for (const int v : {4 * x, 6 * y, 128}) rgb.push_back(static_cast<std::uint8_t>(v));
  write_rgb(dir / "c.jpg", 64, 40, rgb);
  PictureFile color = open_picture(dir / "c.jpg");
  const auto back = samples_of<std::uint8_t>(color);
  double worst = 0;
  for (std::size_t i = 0; i < rgb.size(); ++i)
    worst = std::max(worst, std::abs(double(back[i]) - rgb[i]));
  CHECK(worst < 12);
  CHECK(color.facts.lossy);
  color.rows->rewind();
  CHECK(samples_of<std::uint8_t>(color) == back);

  // An Exif block that says orientation 6, put behind the start marker.
  std::string jpeg = text_of_file(dir / "c.jpg");
  const std::string tiff("MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\0\0\0\0", 26);
  const std::string payload = std::string("Exif\0\0", 6) + tiff;
  const char length[] = {'\0', static_cast<char>(payload.size() + 2)};
  jpeg.insert(2, std::string("\xff\xe1", 2) + std::string(length, 2) + payload);
  put_text(dir / "turned.jpg", jpeg);
  PictureFile turned = open_picture(dir / "turned.jpg");
  CHECK(turned.facts.orientation == 6);
  CHECK(turned.rows->rereads_quickly());  // it holds what it turns
  CHECK_FALSE(color.rows->rereads_quickly());
  CHECK(turned.info.shape.width == 40);
  CHECK(turned.info.shape.height == 64);
  const auto upright = samples_of<std::uint8_t>(turned);
  // Turned a quarter clockwise, the lower left corner is the upper left one.
  CHECK(upright[0] == back[39 * 64 * 3]);
  CHECK(upright[39 * 3] == back[0]);
}

TEST_CASE("all eight orientations put a small picture upright", "[io][picture]") {
  // Stored as 1 2 3 / 4 5 6.
  const std::vector<std::byte> stored = bytes_of(std::vector<std::uint8_t>{1, 2, 3, 4, 5, 6});
  const std::vector<std::uint8_t> wanted[8] = {
      {1, 2, 3, 4, 5, 6}, {3, 2, 1, 6, 5, 4}, {6, 5, 4, 3, 2, 1}, {4, 5, 6, 1, 2, 3},
      {1, 4, 2, 5, 3, 6}, {4, 1, 5, 2, 6, 3}, {6, 3, 5, 2, 4, 1}, {3, 6, 2, 5, 1, 4}};
  for (int o = 1; o <= 8; ++o) {
    INFO("orientation " << o);
    const auto upright = turn_upright(
        std::make_unique<MemorySource>(RasterShape{3, 2, 1, SampleType::kU8}, stored), o);
    std::vector<std::uint8_t> got(6);
    upright->read_rows(upright->shape().height, reinterpret_cast<std::byte*>(got.data()));
    CHECK(got == wanted[o - 1]);
  }
}

TEST_CASE("TIFF strips and tiles, interleaved and planar, are read", "[io][picture]") {
  const TempDir dir;
  const std::uint32_t w = 100, h = 70;
  const auto rgb = random_bytes(w * h * 3);
  for (const bool tiled : {false, true})
    for (const bool planar : {false, true})
      for (const int compression :
           {COMPRESSION_NONE, COMPRESSION_LZW, COMPRESSION_ADOBE_DEFLATE, COMPRESSION_PACKBITS}) {
        INFO("tiled " << tiled << " planar " << planar << " compression " << compression);
        TIFF* tiff = TIFFOpen((dir / "t.tif").c_str(), "w");
        TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, w);
        TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, h);
        TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 3);
        TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
        TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
        TIFFSetField(tiff, TIFFTAG_COMPRESSION, compression);
        TIFFSetField(tiff, TIFFTAG_PLANARCONFIG,
                     planar ? PLANARCONFIG_SEPARATE : PLANARCONFIG_CONTIG);
        const std::uint32_t step = planar ? 1 : 3;
        const auto sample = [&](std::uint32_t x, std::uint32_t y, std::uint32_t s,
                                std::uint32_t p) {
          return rgb[(y * w + x) * 3 + (planar ? p : s)];
        };
        if (tiled) {
          TIFFSetField(tiff, TIFFTAG_TILEWIDTH, 32);
          TIFFSetField(tiff, TIFFTAG_TILELENGTH, 16);
          for (std::uint16_t p = 0; p < (planar ? 3 : 1); ++p)
            for (std::uint32_t ty = 0; ty < h; ty += 16)
              for (std::uint32_t tx = 0; tx < w; tx += 32) {
                std::vector<std::uint8_t> tile(32 * 16 * step);
                for (std::uint32_t y = ty; y < std::min(h, ty + 16); ++y)
                  for (std::uint32_t x = tx; x < std::min(w, tx + 32); ++x)
                    for (std::uint32_t s = 0; s < step; ++s)
                      tile[((y - ty) * 32 + x - tx) * step + s] = sample(x, y, s, p);
                TIFFWriteTile(tiff, tile.data(), tx, ty, 0, p);
              }
        } else {
          TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, 9);
          for (std::uint16_t p = 0; p < (planar ? 3 : 1); ++p)
            for (std::uint32_t y = 0; y < h; ++y) {
              std::vector<std::uint8_t> row(w * step);
              for (std::uint32_t x = 0; x < w; ++x)
                for (std::uint32_t s = 0; s < step; ++s) row[x * step + s] = sample(x, y, s, p);
              TIFFWriteScanline(tiff, row.data(), y, p);
            }
        }
        TIFFClose(tiff);
        PictureFile file = open_picture(dir / "t.tif");
        CHECK(file.rows->rereads_quickly() == (compression == COMPRESSION_NONE));
        CHECK(samples_of<std::uint8_t>(file) == rgb);
        file.rows->rewind();
        CHECK(samples_of<std::uint8_t>(file) == rgb);
        // In parts that begin and end within strips and between them.
        file.rows->rewind();
        std::vector<std::uint8_t> parts(rgb.size());
        auto* row = reinterpret_cast<std::byte*>(parts.data());
        for (const std::uint32_t count : {4u, 5u, 9u, 14u, 22u, 1u, 8u, 7u}) {
          file.rows->read_rows(count, row);
          row += count * file.rows->shape().row_bytes();
        }
        CHECK(parts == rgb);
      }
}

TEST_CASE("a written space is read back as that space", "[io][picture]") {
  const TempDir dir;
  for (const char* id : {"lab", "hsv", "oklch", "gray-709", "display-p3"})
    for (const char* name : {"s.tif", "s.png"}) {
      INFO(id << " in " << name);
      const Space& space = space_named(id);
      const bool tiff = std::string(name) == "s.tif";
      PictureSpec spec = spec_of(5, 4, static_cast<std::uint32_t>(space.channel_count),
                                 tiff ? SampleType::kF32 : SampleType::kU16);
      spec.alpha = false;
      spec.space = &space;
      write_picture(dir / name, spec, std::vector<std::byte>(spec.shape.row_bytes() * 4));
      const PictureFile file = open_picture(dir / name);
      CHECK(file.info.space == &space);
      CHECK(file.facts.space_from == "note of this program");
    }
}

TEST_CASE("files that are no pictures are refused with the reason", "[io][picture]") {
  const TempDir dir;
  write_rgb(dir / "good.png", 400, 300, random_bytes(400 * 300 * 3));
  write_rgb(dir / "good.jpg", 400, 300, random_bytes(400 * 300 * 3));
  write_rgb(dir / "good.tif", 400, 300, random_bytes(400 * 300 * 3));
  for (const char* name : {"good.png", "good.jpg", "good.tif"}) {
    const std::string whole = text_of_file(dir / name);
    const std::string half = dir / ("half-" + std::string(name));
    put_text(half, whole.substr(0, whole.size() / 2));
    INFO(name);
    CHECK_THROWS_WITH(
        [&] {
          PictureFile file = open_picture(half);
          samples_of<std::uint8_t>(file);
        }(),
        Catch::Contains("damaged"));
  }
  std::string flipped = text_of_file(dir / "good.png");
  flipped[flipped.size() / 2] = static_cast<char>(flipped[flipped.size() / 2] ^ 0x40);
  put_text(dir / "flipped.png", flipped);
  CHECK_THROWS_WITH(
      [&] {
        PictureFile file = open_picture(dir / "flipped.png");
        samples_of<std::uint8_t>(file);
      }(),
      Catch::Contains("damaged PNG"));
  put_text(dir / "empty.png", "");
  put_text(dir / "text.png", "this is no picture at all");
  put_text(dir / "zero.png",
           std::string("\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\0\0\0\0\x05\x08\x02\0\0\0", 29));
  CHECK_THROWS_WITH(open_picture(dir / "none.png"), Catch::Contains("none.png: no such file"));
  CHECK_THROWS_WITH(open_picture(dir / "empty.png"), Catch::Contains("is empty"));
  CHECK_THROWS_WITH(open_picture(dir / "text.png"), Catch::Contains("is not a picture"));
  CHECK_THROWS_WITH(open_picture(dir / "zero.png"), Catch::Contains("zero.png"));
  CHECK_THROWS_WITH(open_picture(dir.path()), Catch::Contains("is a folder"));
  REQUIRE(::mkfifo((dir / "pipe").c_str(), 0600) == 0);
  CHECK_THROWS_WITH(open_picture(dir / "pipe"),
                    Catch::Contains("is a pipe or a device, which can be read only once") &&
                        Catch::Contains("save the picture to a file"));
  ReadOptions small;
  small.max_pixels = 100;
  CHECK_THROWS_WITH(open_picture(dir / "good.png", small),
                    Catch::Contains("400x300 pixels, more than --max-pixels 100"));
}

TEST_CASE("a file that claims more pixels than it can hold is refused at once", "[io][picture]") {
  const TempDir dir;
  const std::vector<std::uint8_t> flat(3 * 3000 * 2000, 77);
  for (const std::string name : {"flat.png", "flat.jpg", "flat.tif"}) {
    // As dense as it gets, and all of it is there.
    write_picture(dir / name, spec_of(3000, 2000, 3), bytes_of(flat));
    CHECK(open_picture(dir / name).info.shape.pixels() == 6'000'000);
  }
  // The height in the header of a PNG, with its checksum, and in that of a JPEG.
  write_picture(dir / "tall.png", spec_of(3, 2, 3), std::vector<std::byte>(18));
  std::string png = text_of_file(dir / "tall.png");
  png[20] = '\x70';
  put_text(dir / "tall.png", with_check_sums(png));
  CHECK_THROWS_WITH(open_picture(dir / "tall.png"),
                    Catch::Contains("tall.png: says that it has 3x1879048194 pixels, more than") &&
                        Catch::Contains("bytes can hold; the file is damaged or cut off"));
  write_picture(dir / "big.jpg", spec_of(8, 8, 1), std::vector<std::byte>(64));
  std::string jpeg = text_of_file(dir / "big.jpg");
  const std::size_t frame = jpeg.find("\xff\xc0");
  REQUIRE(frame != std::string::npos);
  for (std::size_t i = 5; i < 9; ++i) jpeg[frame + i] = '\xfd';
  put_text(dir / "big.jpg", jpeg);
  CHECK_THROWS_WITH(open_picture(dir / "big.jpg"),
                    Catch::Contains("big.jpg: says that it has 65021x65021 pixels"));
}

TEST_CASE("labels and numbers are never written lossily", "[io][picture]") {
  const TempDir dir;
  PictureSpec labels = spec_of(2, 2, 1);
  labels.labels = true;
  CHECK_THROWS_WITH(create_picture(dir / "m.jpg", labels),
                    Catch::Contains("would change the labels"));
  PictureSpec lab = spec_of(2, 2, 3);
  lab.space = &spaces::kLab;
  CHECK_THROWS_WITH(create_picture(dir / "m.jpg", lab),
                    Catch::Contains("not keep the numbers of lab"));
  CHECK_THROWS_WITH(create_picture(dir / "m.png", spec_of(2, 2, 3, SampleType::kF32)),
                    Catch::Contains("a PNG cannot hold floats"));
  CHECK_THROWS_WITH(create_picture(dir / "m.jpg", spec_of(2, 2, 3, SampleType::kU16)),
                    Catch::Contains("8 bits only"));
  CHECK_THROWS_WITH(create_picture(dir / "m.jpg", spec_of(2, 2, 4)), Catch::Contains("no alpha"));
  CHECK_THROWS_WITH(create_picture(dir / "m.bmp", spec_of(2, 2, 3)), Catch::Contains("'.bmp'"));
  CHECK(dir.files().empty());
}

TEST_CASE("masks are read at 128, other values are said, wrong ones refused", "[io][mask]") {
  const TempDir dir;
  write_picture(dir / "m.png", spec_of(3, 1, 1), bytes_of(std::vector<std::uint8_t>{0, 128, 127}));
  std::vector<std::string> warnings;
  const Mask mask = read_mask(dir / "m.png", 3, 1, warnings);
  CHECK_FALSE(mask.at(0));
  CHECK(mask.at(1));
  CHECK_FALSE(mask.at(2));
  REQUIRE(warnings.size() == 1);
  CHECK_THAT(warnings[0], Catch::Contains("other values than 0 and 255"));
  CHECK_THROWS_WITH(read_mask(dir / "m.png", 4, 1, warnings), Catch::Contains("the mask is 3x1"));
  write_rgb(dir / "c.png", 3, 1, random_bytes(9));
  CHECK_THROWS_WITH(read_mask(dir / "c.png", 3, 1, warnings), Catch::Contains("is not a mask"));
  write_picture(dir / "l.jpg", spec_of(3, 1, 1), std::vector<std::byte>(3));
  CHECK_THROWS_WITH(read_mask(dir / "l.jpg", 3, 1, warnings), Catch::Contains("lossy"));
}

TEST_CASE("TIFFs of inks are refused, those of many channels are not", "[io][tiff]") {
  const TempDir dir;
  const auto write = [&](const char* name, std::uint16_t channels, std::uint16_t photometric) {
    std::vector<std::uint8_t> row(2u * channels);
    for (std::size_t i = 0; i < row.size(); ++i) row[i] = static_cast<std::uint8_t>(10 * i);
    write_other_tiff(dir / name, {2, 1, channels, 8, SAMPLEFORMAT_UINT, photometric}, row);
  };
  write("inks.tif", 4, PHOTOMETRIC_SEPARATED);
  CHECK_THROWS_WITH(open_picture(dir / "inks.tif", {}),
                    Catch::Contains("inks.tif: a TIFF with CMYK samples, which this program does "
                                    "not read"));
  for (const std::uint16_t channels : {2, 4, 7}) {
    write("many.tif", channels, PHOTOMETRIC_MINISBLACK);
    PictureFile file = open_picture(dir / "many.tif", {});
    CHECK(file.facts.layout == std::to_string(channels) + " channels");
    CHECK_FALSE(file.info.has_color());
    CHECK(samples_of<std::uint8_t>(file).back() == 10 * (2 * channels - 1));
  }
}
