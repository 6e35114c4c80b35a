// Pictures as other programs write them, by the libraries of their formats: for what our own
// writers never do.
#ifndef CHALCEDONY_TESTS_SUPPORT_OTHER_WRITERS_H_
#define CHALCEDONY_TESTS_SUPPORT_OTHER_WRITERS_H_

#include <cstdio>
// jpeglib.h needs stdio before it.
#include <jpeglib.h>
#include <png.h>
#include <tiffio.h>

#include <cstdint>
#include <filesystem>
#include <vector>

namespace chalcedony::test {

struct PngLayout {
  std::uint32_t width = 1, height = 1;
  int color_type = PNG_COLOR_TYPE_RGB, depth = 8;
  bool interlaced = false;
};

/// `rows` are packed, one after the other; `add_chunks(png, info)` says what else the file holds.
template <class AddChunks>
void write_other_png(const std::filesystem::path& path, const PngLayout& layout,
                     std::vector<std::uint8_t> rows, const AddChunks& add_chunks) {
  std::FILE* file = std::fopen(path.c_str(), "wb");
  png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
  png_infop info = png_create_info_struct(png);
  png_init_io(png, file);
  png_set_IHDR(png, info, layout.width, layout.height, layout.depth, layout.color_type,
               layout.interlaced ? PNG_INTERLACE_ADAM7 : PNG_INTERLACE_NONE,
               PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
  add_chunks(png, info);
  std::vector<png_bytep> starts;
  for (std::uint32_t y = 0; y < layout.height; ++y)
    starts.push_back(rows.data() + y * (rows.size() / layout.height));
  png_set_rows(png, info, starts.data());
  png_write_png(png, info, PNG_TRANSFORM_IDENTITY, nullptr);
  png_destroy_write_struct(&png, &info);
  std::fclose(file);
}

inline void write_other_png(const std::filesystem::path& path, const PngLayout& layout,
                            const std::vector<std::uint8_t>& rows) {
  write_other_png(path, layout, rows, [](png_structp, png_infop) {});
}

/// Interleaved.
struct TiffLayout {
  std::uint32_t width = 1, height = 1;
  std::uint16_t channels = 1, bits = 8, format = SAMPLEFORMAT_UINT;
  std::uint16_t photometric = PHOTOMETRIC_MINISBLACK;
  const char* mode = "w";  // "wl", "wb": its byte order; "w8": BigTIFF
};

/// `rows` are packed, one after the other; `add_tags(tiff)` says what else the file holds.
template <class AddTags>
void write_other_tiff(const std::filesystem::path& path, const TiffLayout& layout,
                      std::vector<std::uint8_t> rows, const AddTags& add_tags) {
  TIFF* tiff = TIFFOpen(path.c_str(), layout.mode);
  TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, layout.width);
  TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, layout.height);
  TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, layout.channels);
  TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, layout.bits);
  TIFFSetField(tiff, TIFFTAG_SAMPLEFORMAT, layout.format);
  TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
  TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, layout.photometric);
  add_tags(tiff);
  for (std::uint32_t y = 0; y < layout.height; ++y)
    TIFFWriteScanline(tiff, rows.data() + y * (rows.size() / layout.height), y, 0);
  TIFFClose(tiff);
}

inline void write_other_tiff(const std::filesystem::path& path, const TiffLayout& layout,
                             const std::vector<std::uint8_t>& rows) {
  write_other_tiff(path, layout, rows, [](TIFF*) {});
}

/// Interleaved samples with little loss; `set_up(jpeg)` says how they are stored, and
/// `add_markers(jpeg)` what else the file holds.
template <class SetUp, class AddMarkers>
void write_other_jpeg(const std::filesystem::path& path, std::uint32_t width, int channels,
                      J_COLOR_SPACE space, std::vector<std::uint8_t> samples, const SetUp& set_up,
                      const AddMarkers& add_markers) {
  std::FILE* file = std::fopen(path.c_str(), "wb");
  jpeg_compress_struct jpeg{};
  jpeg_error_mgr errors{};
  jpeg.err = jpeg_std_error(&errors);
  jpeg_create_compress(&jpeg);
  jpeg_stdio_dest(&jpeg, file);
  const std::size_t row_samples = std::size_t{width} * static_cast<std::size_t>(channels);
  jpeg.image_width = width;
  jpeg.image_height = static_cast<JDIMENSION>(samples.size() / row_samples);
  jpeg.input_components = channels;
  jpeg.in_color_space = space;
  jpeg_set_defaults(&jpeg);
  jpeg_set_quality(&jpeg, 95, TRUE);
  set_up(jpeg);
  jpeg_start_compress(&jpeg, TRUE);
  add_markers(jpeg);
  for (JSAMPROW row = samples.data(); jpeg.next_scanline < jpeg.image_height; row += row_samples)
    jpeg_write_scanlines(&jpeg, &row, 1);
  jpeg_finish_compress(&jpeg);
  jpeg_destroy_compress(&jpeg);
  std::fclose(file);
}

/// 8 x 8 pixels whose samples are all `value`.
template <class AddMarkers>
void write_flat_jpeg(const std::filesystem::path& path, int channels, J_COLOR_SPACE space,
                     std::uint8_t value, const AddMarkers& add_markers) {
  constexpr std::uint32_t kSide = 8;
  write_other_jpeg(
      path, kSide, channels, space,
      std::vector<std::uint8_t>(kSide * kSide * static_cast<std::size_t>(channels), value),
      [](jpeg_compress_struct&) {}, add_markers);
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_OTHER_WRITERS_H_
