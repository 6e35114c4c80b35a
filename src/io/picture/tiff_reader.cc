// TIFF through libtiff: strips and tiles, interleaved and planar, integers of 8 and 16 bits (of one
// channel also 1, 2 and 4), floats of 16 to 64 bits.
#include <algorithm>
#include <cmath>
#include <cstring>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/error.h"
#include "io/picture/picture_codec.h"
#include "io/picture/tiff_handle.h"
#include "io/picture/tiff_metadata.h"
#include "io/picture/tiff_pages.h"
#include "io/picture/tiff_samples.h"

namespace chalcedony {
namespace {

/// Of the others that a library may know, who can say how densely they pack.
bool density_is_known(std::uint16_t compression) {
  return compression == COMPRESSION_NONE || compression == COMPRESSION_LZW ||
         compression == COMPRESSION_ADOBE_DEFLATE || compression == COMPRESSION_DEFLATE ||
         compression == COMPRESSION_PACKBITS;
}

constexpr std::uint16_t kLinearRaw = 34892;  // of DNG, which libtiff has no name for

class TiffSource : public RowSource {
 public:
  TiffSource(std::filesystem::path path, const ReadOptions& options) : path_(std::move(path)) {
    open(options);
    shape_.width = tiff_tag<std::uint32_t>(tiff(), TIFFTAG_IMAGEWIDTH, 0);
    shape_.height = tiff_tag<std::uint32_t>(tiff(), TIFFTAG_IMAGELENGTH, 0);
    check_size(shape_.width, shape_.height, options);
    stored_channels_ = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_SAMPLESPERPIXEL, 1);
    bits_ = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_BITSPERSAMPLE, 1);
    const std::uint64_t pixel_bits = std::uint64_t{stored_channels_} * bits_;
    const auto compression = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_COMPRESSION, COMPRESSION_NONE);
    compressed_ = compression != COMPRESSION_NONE;
    if (density_is_known(compression))
      check_file_holds(shape_.width, shape_.height, std::max<std::uint64_t>(pixel_bits, 1), path_);
    read_layout(options);
  }

  const RasterShape& shape() const override { return shape_; }
  TIFF* tiff() { return planes_.front().get(); }
  std::size_t pages() const { return pages_; }
  std::uint16_t photometric() const { return photometric_; }
  bool is_float() const { return is_float_; }
  bool is_lab() const {
    return photometric_ == PHOTOMETRIC_CIELAB || photometric_ == PHOTOMETRIC_ICCLAB;
  }

  void rewind() override {
    next_row_ = 0;
    tiles_from_ = tiles_end_ = 0;
  }
  bool rereads_quickly() const override { return !compressed_; }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    for (const std::uint32_t end = next_row_ + count; next_row_ < end;) {
      if (const std::uint32_t whole = read_whole_strip(end, rows)) {
        next_row_ += whole;
        rows += whole * shape_.row_bytes();
        continue;
      }
      std::byte* const row = deliver_ ? row_.data() : rows;
      if (tiled_) {
        read_tiled_row(row);
      } else {
        read_strip_row(row);
      }
      if (deliver_) deliver_(row_, rows);
      ++next_row_;
      rows += shape_.row_bytes();
    }
  }

 private:
  [[noreturn]] void fail() const {
    throw InputError("damaged TIFF" + (message_.empty() ? "" : ": " + message_),
                     "copy or export the file again");
  }
  [[noreturn]] static void refuse(const std::string& what, const std::string& advice) {
    throw InputError("a TIFF with " + what + ", which this program does not read", advice);
  }
  [[noreturn]] static void refuse_samples(const std::string& what) {
    refuse(what + " samples", "export it with 8- or 16-bit integer or 32-bit float samples");
  }
  [[noreturn]] static void refuse_colors(const std::string& what) {
    refuse(what, "export it as RGB or gray");
  }

  void open(const ReadOptions& options) {
    planes_.push_back(open_tiff_quietly(path_, message_));
    if (!planes_.front()) fail();
    const std::vector<std::uint64_t> pages = tiff_pages(tiff());
    pages_ = pages.size();
    check_page(options.page, pages_);
    page_ = pages[std::max<std::size_t>(options.page, 1) - 1];
    message_.clear();  // of a directory that is not read
    turn_to_page(tiff());
  }

  void turn_to_page(TIFF* tiff) const {
    if (TIFFCurrentDirOffset(tiff) != page_ && !TIFFSetSubDirectory(tiff, page_)) fail();
  }

  /// One more handle, for a plane of its own.
  void open_plane() {
    planes_.push_back(open_tiff_quietly(path_, message_));
    if (!planes_.back()) fail();
    turn_to_page(planes_.back().get());
  }

  void read_layout(const ReadOptions& options) {
    const auto kind = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_SAMPLEFORMAT, SAMPLEFORMAT_UINT);
    photometric_ = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_MINISBLACK);
    separate_ = tiff_tag<std::uint16_t>(tiff(), TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG) ==
                PLANARCONFIG_SEPARATE;
    tiled_ = TIFFIsTiled(tiff()) != 0;
    is_float_ = kind == SAMPLEFORMAT_IEEEFP;
    // Of L*a*b* photometric_ says which samples have a sign.
    if (!is_float_ && kind != SAMPLEFORMAT_UINT && !is_lab()) refuse_samples("signed or complex");
    const bool known = is_float_ ? bits_ == 16 || bits_ == 32 || bits_ == 64
                                 : bits_ == 8 || bits_ == 16 || is_packed();
    if (!known) refuse_samples(std::to_string(bits_) + "-bit " + (is_float_ ? "float" : "integer"));
    shape_.sample = is_float_ ? SampleType::kF32 : bits_ <= 8 ? SampleType::kU8 : SampleType::kU16;
    shape_.channels = stored_channels_;
    settle_delivery(options);
    if (separate_) check_planes();
    if (separate_ && stored_channels_ > 1)
      while (planes_.size() < stored_channels_) open_plane();
    if (tiled_) {
      tile_width_ = tiff_tag<std::uint32_t>(tiff(), TIFFTAG_TILEWIDTH, 0);
      tile_height_ = tiff_tag<std::uint32_t>(tiff(), TIFFTAG_TILELENGTH, 0);
      if (tile_width_ == 0 || tile_height_ == 0 || tile_width_ * bits_ % 8 != 0) fail();
    }
    row_.resize(stored_row_bytes());
    settle_whole_strips();
  }

  /// The library copies a strip to where it is wanted without a stop on the way, when all of it is
  /// wanted and it is not compressed.
  void settle_whole_strips() {
    if (tiled_ || compressed_ || deliver_ || planes_.size() > 1) return;
    const std::uint32_t height =
        std::min(tiff_tag<std::uint32_t>(tiff(), TIFFTAG_ROWSPERSTRIP, 0), shape_.height);
    const std::uint64_t bytes = std::uint64_t{height} * shape_.row_bytes();
    if (bytes == static_cast<std::uint64_t>(TIFFStripSize(tiff()))) whole_strip_ = height;
  }

  /// Reads the strip that begins at the next row, when it ends before row `end` and is read whole.
  /// Returns how many rows it has, 0 when it was not read.
  std::uint32_t read_whole_strip(std::uint32_t end, std::byte* rows) {
    if (whole_strip_ == 0 || next_row_ % whole_strip_ != 0) return 0;
    const std::uint32_t height = std::min(whole_strip_, shape_.height - next_row_);
    if (next_row_ + height > end) return 0;
    const auto bytes = static_cast<tmsize_t>(height * shape_.row_bytes());
    if (TIFFReadEncodedStrip(tiff(), next_row_ / whole_strip_, rows, bytes) != bytes) fail();
    return height;
  }

  /// Each is read by a handle of its own, and a process may open no more than some 1000 files.
  void check_planes() const {
    constexpr std::uint16_t kMostPlanes = 512;
    if (stored_channels_ > kMostPlanes)
      throw InputError("a TIFF with " + std::to_string(stored_channels_) +
                           " channels, each in a plane of its own; at most " +
                           std::to_string(kMostPlanes) + " are read so",
                       "export it with its channels interleaved");
  }

  /// How rows are handed on, unless they are as they are stored, and what their shape is then.
  void settle_delivery(const ReadOptions& options) {
    if (is_float_ && bits_ != 32) deliver_ = deliver_floats(bits_);
    switch (photometric_) {
      case PHOTOMETRIC_MINISWHITE:
        if (!is_float_) deliver_ = deliver_white_as_0(unpacked_bits(), stored_channels_);
        break;
      case PHOTOMETRIC_MINISBLACK:
      case PHOTOMETRIC_RGB:
        break;
      case PHOTOMETRIC_PALETTE:
        if (!options.palette_indices) read_palette();
        break;
      case PHOTOMETRIC_YCBCR:
        use_rgb_of_jpeg();
        break;
      case PHOTOMETRIC_CIELAB:
      case PHOTOMETRIC_ICCLAB:
        read_lab();
        break;
      case PHOTOMETRIC_SEPARATED:
        refuse_colors("CMYK samples");
      case PHOTOMETRIC_CFA:
      case kLinearRaw:
        refuse("the raw samples of a sensor", "develop it into a TIFF of 16 bits");
      default:
        refuse_colors("samples of kind " + std::to_string(photometric_) +
                      " (PhotometricInterpretation)");
    }
    if (is_packed()) {
      const bool spread = photometric_ != PHOTOMETRIC_PALETTE;
      deliver_ = deliver_packed(bits_, shape_.width, spread,
                                deliver_ ? std::move(deliver_) : deliver_as_stored());
    }
  }

  void read_lab() {
    if (stored_channels_ < 3) fail();
    if (is_float_) return;
    deliver_ = deliver_lab(photometric_ == PHOTOMETRIC_ICCLAB ? TiffLab::kIcc : TiffLab::kCie,
                           bits_, stored_channels_);
    shape_.sample = SampleType::kF32;
  }

  void use_rgb_of_jpeg() {
    if (tiff_tag<std::uint16_t>(tiff(), TIFFTAG_COMPRESSION, 1) != COMPRESSION_JPEG)
      refuse_colors("YCbCr samples");
    TIFFSetField(tiff(), TIFFTAG_JPEGCOLORMODE, JPEGCOLORMODE_RGB);
  }

  void read_palette() {
    std::uint16_t *red = nullptr, *green = nullptr, *blue = nullptr;
    if (!TIFFGetField(tiff(), TIFFTAG_COLORMAP, &red, &green, &blue)) fail();
    const std::size_t size = std::size_t{1} << bits_;
    std::vector<std::uint16_t> rgb;
    for (std::size_t i = 0; i < size; ++i)
      for (const std::uint16_t* channel : {red, green, blue}) rgb.push_back(channel[i]);
    deliver_ = deliver_palette(unpacked_bits(), stored_channels_, std::move(rgb));
    shape_.channels = 3;
    shape_.sample = SampleType::kU16;
  }

  /// Several samples in a byte.
  bool is_packed() const {
    return stored_channels_ == 1 && !is_float_ && (bits_ == 1 || bits_ == 2 || bits_ == 4);
  }
  unsigned unpacked_bits() const { return std::max<unsigned>(bits_, 8); }
  std::size_t sample_bytes() const { return bits_ / 8; }
  /// Of interleaved pixels, from the beginning of a row or a tile on.
  std::size_t bytes_of(std::size_t pixels) const {
    return (pixels * stored_channels_ * bits_ + 7) / 8;
  }
  std::size_t stored_row_bytes() const { return bytes_of(shape_.width); }

  /// Reads the next row as it is stored.
  void read_strip_row(std::byte* row) {
    if (planes_.size() == 1) {
      if (stored_row_bytes() < static_cast<std::size_t>(TIFFScanlineSize(tiff()))) fail();
      if (TIFFReadScanline(tiff(), row, next_row_) != 1) fail();
      return;
    }
    plane_row_.resize(shape_.width * sample_bytes());
    for (std::uint16_t p = 0; p < planes_.size(); ++p) {
      if (TIFFReadScanline(planes_[p].get(), plane_row_.data(), next_row_, p) != 1) fail();
      scatter(plane_row_.data(), p, shape_.width, row);
    }
  }

  /// Copies samples of one plane to their place among the interleaved ones.
  void scatter(const std::byte* samples, std::size_t plane, std::size_t n, std::byte* row) const {
    const std::size_t size = sample_bytes(), step = size * stored_channels_;
    for (std::size_t x = 0; x < n; ++x)
      std::memcpy(row + x * step + plane * size, samples + x * size, size);
  }

  void read_tiled_row(std::byte* row) {
    if (next_row_ < tiles_from_ || next_row_ >= tiles_end_) read_tiles();
    const std::byte* from = tiles_.data() + (next_row_ - tiles_from_) * stored_row_bytes();
    std::copy_n(from, stored_row_bytes(), row);
  }

  void read_tiles() {
    tiles_from_ = next_row_ / tile_height_ * tile_height_;
    tiles_end_ = std::min(tiles_from_ + tile_height_, shape_.height);
    tiles_.resize(std::size_t{tile_height_} * stored_row_bytes());
    tile_.resize(static_cast<std::size_t>(TIFFTileSize(tiff())));
    for (std::uint32_t x = 0; x < shape_.width; x += tile_width_)
      for (std::uint16_t p = 0; p < planes_.size(); ++p) {
        const std::uint32_t number = TIFFComputeTile(tiff(), x, tiles_from_, 0, p);
        if (TIFFReadEncodedTile(tiff(), number, tile_.data(), -1) < 0) fail();
        place_tile(x, p);
      }
  }

  void place_tile(std::uint32_t x, std::size_t plane) {
    const bool interleaved = planes_.size() == 1;
    const std::size_t tile_row =
        interleaved ? bytes_of(tile_width_) : std::size_t{tile_width_} * sample_bytes();
    const std::uint32_t columns = std::min(tile_width_, shape_.width - x);
    if (tile_.size() < tile_height_ * tile_row) fail();
    for (std::uint32_t r = 0; r < tiles_end_ - tiles_from_; ++r) {
      const std::byte* from = tile_.data() + r * tile_row;
      std::byte* to = tiles_.data() + r * stored_row_bytes() + bytes_of(x);
      if (interleaved) {
        std::copy_n(from, bytes_of(columns), to);
      } else {
        scatter(from, plane, columns, to);
      }
    }
  }

  std::filesystem::path path_;
  std::string message_;
  std::vector<TiffHandle> planes_;  // one handle a plane, so that each keeps its own place
  std::size_t pages_ = 1;
  std::uint64_t page_ = 0;  // where its directory begins in the file
  RasterShape shape_;
  std::uint16_t stored_channels_ = 1, bits_ = 8, photometric_ = 0;
  bool is_float_ = false, separate_ = false, tiled_ = false, compressed_ = false;
  std::uint32_t tile_width_ = 0, tile_height_ = 0;
  std::uint32_t next_row_ = 0, tiles_from_ = 0, tiles_end_ = 0;
  std::uint32_t whole_strip_ = 0;  // rows of a strip that may be read whole; 0: none may
  TiffDelivery deliver_;
  std::vector<std::byte> row_, plane_row_, tile_, tiles_;
};

/// What the samples of a pixel are, for people: so many colors, alpha aside.
std::string layout_of(const TiffSource& source, std::uint32_t colors, const PictureFile& file,
                      const ReadOptions& options) {
  const auto of_colors = [&]() -> std::string {
    if (source.photometric() == PHOTOMETRIC_PALETTE) return "palette";
    if (colors != 1 && colors != 3) return std::to_string(colors) + " channels";
    if (colors == 1) return "gray";
    if (source.is_lab()) return "L*a*b*";
    const Space& space = file.stated.noted ? *file.stated.noted : options.assumed();
    return space.is_rgb ? "RGB" : "three channels";
  };
  return of_colors() + (file.info.alpha != AlphaKind::kNone ? " with alpha" : "");
}

}  // namespace

PictureFile open_tiff(const std::filesystem::path& path, const ReadOptions& options) {
  auto source = std::make_unique<TiffSource>(path, options);
  TIFF* tiff = source->tiff();
  PictureFile file;
  file.facts.format = TIFFIsBigTIFF(tiff) ? "BigTIFF" : "TIFF";
  file.facts.pages = source->pages();
  if (options.page == 0 && source->pages() > 1)
    file.facts.warnings.push_back("holds " + std::to_string(source->pages()) +
                                  " pictures, of which the first is read; give --page for others");
  file.facts.bits = tiff_tag<std::uint16_t>(tiff, TIFFTAG_BITSPERSAMPLE, 1);
  const auto compression = tiff_tag<std::uint16_t>(tiff, TIFFTAG_COMPRESSION, COMPRESSION_NONE);
  file.facts.lossy = compression == COMPRESSION_JPEG;
  file.facts.orientation = tiff_tag<std::uint16_t>(tiff, TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
  if (file.facts.orientation < 1 || file.facts.orientation > 8) file.facts.orientation = 1;
  file.info.shape = source->shape();
  file.info.full_scale = full_scale_of(file.info.shape.sample);
  const bool only_colors = source->photometric() == PHOTOMETRIC_PALETTE && !options.palette_indices;
  file.info.alpha = only_colors ? AlphaKind::kNone : tiff_alpha(tiff);
  file.facts.floats = source->is_float();
  file.facts.converted = source->is_lab() && !source->is_float();
  if (source->is_lab()) file.stated.stored = tiff_lab_space(tiff);
  const std::uint32_t colors = file.info.color_channels();
  const bool is_color = colors == 1 || colors == 3;
  if (!is_color && colors < 3) file.info.bands = ColorBands{{0, 0, 0}, false};
  if (!is_color && colors > 3) file.info.bands = ColorBands{{0, 1, 2}, false};
  take_tiff_metadata(path, tiff, file);
  file.facts.layout = layout_of(*source, colors, file, options);
  file.rows = std::move(source);
  return file;
}

}  // namespace chalcedony
