// PNG through libspng: rows are inflated one by one; interlaced pictures are held whole.
#include <spng.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <cstring>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/error.h"
#include "io/metadata/exif.h"
#include "io/metadata/space_note.h"
#include "io/picture/packed_samples.h"
#include "io/picture/picture_codec.h"

namespace chalcedony {
namespace {

struct CloseFile {
  void operator()(std::FILE* file) const { std::fclose(file); }
};
struct FreeContext {
  void operator()(spng_ctx* context) const { spng_ctx_free(context); }
};

[[noreturn]] void fail(int error) {
  throw InputError(std::string("damaged PNG: ") + spng_strerror(error),
                   "copy or export the file again");
}

void check(int error) {
  if (error != SPNG_OK) fail(error);
}

/// How the stored pixels are delivered.
struct Delivery {
  RasterShape shape;
  AlphaKind alpha = AlphaKind::kNone;
  int format = SPNG_FMT_PNG;
  int flags = 0;
  std::string layout;
  bool unpack_indices = false;  // palette codes of 1, 2 or 4 bits, to a byte each
};

Delivery delivery_of(const spng_ihdr& header, bool has_transparency, bool indices) {
  Delivery d;
  const bool deep = header.bit_depth == 16;
  d.shape = {header.width, header.height, 1, deep ? SampleType::kU16 : SampleType::kU8};
  switch (header.color_type) {
    case SPNG_COLOR_TYPE_GRAYSCALE:
      d.layout = "gray";
      d.format = deep ? SPNG_FMT_PNG : SPNG_FMT_G8;
      if (has_transparency) {
        d.shape.channels = 2;
        d.format = deep ? SPNG_FMT_GA16 : SPNG_FMT_GA8;
      }
      break;
    case SPNG_COLOR_TYPE_TRUECOLOR:
      d.layout = "RGB";
      d.shape.channels = has_transparency ? 4 : 3;
      if (has_transparency) d.format = deep ? SPNG_FMT_RGBA16 : SPNG_FMT_RGBA8;
      break;
    case SPNG_COLOR_TYPE_INDEXED:
      d.layout = "palette";
      if (indices) {
        d.unpack_indices = header.bit_depth < 8;
        has_transparency = false;
      } else {
        d.shape.channels = has_transparency ? 4 : 3;
        d.format = has_transparency ? SPNG_FMT_RGBA8 : SPNG_FMT_RGB8;
      }
      break;
    case SPNG_COLOR_TYPE_GRAYSCALE_ALPHA:
      d.layout = "gray with alpha";
      d.shape.channels = 2;
      d.alpha = AlphaKind::kStraight;
      break;
    default:
      d.layout = "RGB with alpha";
      d.shape.channels = 4;
      d.alpha = AlphaKind::kStraight;
  }
  if (has_transparency && d.alpha == AlphaKind::kNone) {
    d.alpha = AlphaKind::kStraight;
    d.flags = SPNG_DECODE_TRNS;
    d.layout += " with transparent colors";
  }
  return d;
}

class PngSource : public RowSource {
 public:
  explicit PngSource(const std::filesystem::path& path) : path_(path) { open(); }

  const RasterShape& shape() const override { return delivery_.shape; }
  spng_ctx* context() { return context_.get(); }
  const spng_ihdr& header() const { return header_; }
  const Delivery& delivery() const { return delivery_; }
  bool interlaced() const { return header_.interlace_method != 0; }

  /// Settles how pixels are delivered; once, before the first row.
  void deliver(const Delivery& delivery) { delivery_ = delivery; }

  void rewind() override {
    next_row_ = 0;
    if (!interlaced() && started_) {
      open();
      started_ = false;
    }
  }

  bool rereads_quickly() const override { return interlaced(); }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    if (!started_) start();
    const std::size_t row_bytes = delivery_.shape.row_bytes();
    for (std::uint32_t r = 0; r < count; ++r, ++next_row_, rows += row_bytes) {
      if (interlaced()) {
        std::memcpy(rows, held_.data() + next_row_ * stored_row_bytes_, row_bytes);
      } else {
        read_row(rows);
      }
    }
  }

 private:
  void open() {
    context_.reset(spng_ctx_new(0));
    file_.reset(std::fopen(path_.c_str(), "rb"));
    if (!file_ || !context_) throw InputError("cannot be opened", "check its name and folder");
    check(spng_set_option(context_.get(), SPNG_KEEP_UNKNOWN_CHUNKS, 1));
    check(spng_set_png_file(context_.get(), file_.get()));
    check(spng_get_ihdr(context_.get(), &header_));
  }

  void start() {
    started_ = true;
    const int flags = delivery_.flags;
    std::size_t size = 0;
    if (interlaced()) {
      check(spng_decoded_image_size(context_.get(), delivery_.format, &size));
      held_.resize(size);
      check(spng_decode_image(context_.get(), held_.data(), size, delivery_.format, flags));
      stored_row_bytes_ = size / header_.height;
      if (delivery_.unpack_indices) unpack_held();
    } else {
      check(spng_decode_image(context_.get(), nullptr, 0, delivery_.format,
                              flags | SPNG_DECODE_PROGRESSIVE));
      check(spng_decoded_image_size(context_.get(), delivery_.format, &size));
      stored_row_bytes_ = size / header_.height;
      packed_.resize(stored_row_bytes_);
    }
  }

  void read_row(std::byte* row) {
    std::byte* target = delivery_.unpack_indices ? packed_.data() : row;
    const int error = spng_decode_row(context_.get(), target, stored_row_bytes_);
    const bool last = next_row_ + 1 == header_.height;
    if (error != SPNG_OK && !(error == SPNG_EOI && last)) fail(error);
    // The rows are complete before the last checksum has been read.
    if (last) check(spng_decode_chunks(context_.get()));
    if (delivery_.unpack_indices) unpack(packed_.data(), row);
  }

  void unpack(const std::byte* packed, std::byte* row) const {
    unpack_samples(packed, header_.bit_depth, header_.width, 1, row);
  }

  void unpack_held() {
    std::vector<std::byte> rows(std::size_t{header_.width} * header_.height);
    for (std::uint32_t y = 0; y < header_.height; ++y)
      unpack(held_.data() + y * stored_row_bytes_, rows.data() + std::size_t{y} * header_.width);
    held_ = std::move(rows);
    stored_row_bytes_ = header_.width;
  }

  std::filesystem::path path_;
  std::unique_ptr<std::FILE, CloseFile> file_;
  std::unique_ptr<spng_ctx, FreeContext> context_;
  spng_ihdr header_{};
  Delivery delivery_;
  bool started_ = false;
  std::uint32_t next_row_ = 0;
  std::size_t stored_row_bytes_ = 0;
  std::vector<std::byte> held_;
  std::vector<std::byte> packed_;
};

/// What the text chunks of our own say.
void read_texts(spng_ctx* context, PictureFile& file) {
  std::uint32_t count = 0;
  if (spng_get_text(context, nullptr, &count) != SPNG_OK) return;
  std::vector<spng_text> texts(count);
  if (spng_get_text(context, texts.data(), &count) != SPNG_OK) return;
  for (const spng_text& text : texts) {
    const std::string_view keyword(text.keyword);
    if (keyword == kSpaceKeyword) {
      file.stated.noted = space_of_note({text.text, text.length});
      file.facts.plane = plane_of_note({text.text, text.length});
    }
    if (keyword == kLegendKeyword) file.facts.legend = parse_legend({text.text, text.length});
    if (keyword == kDescriptionKeyword)
      file.facts.carried.description.assign(text.text, text.length);
    if (keyword == kTimeKeyword) file.facts.carried.captured.assign(text.text, text.length);
  }
}

/// The fewest bits that sBIT calls significant in a channel of color.
int significant_bits(spng_ctx* context, const spng_ihdr& header) {
  spng_sbit bits{};
  if (spng_get_sbit(context, &bits) != SPNG_OK) return 0;
  const bool gray = header.color_type == SPNG_COLOR_TYPE_GRAYSCALE ||
                    header.color_type == SPNG_COLOR_TYPE_GRAYSCALE_ALPHA;
  return gray ? bits.grayscale_bits : std::min({bits.red_bits, bits.green_bits, bits.blue_bits});
}

/// The four code points of cICP, which libspng does not know; none when there is no such chunk.
///
/// Source    PNG, third edition, 11.3.2.6
std::optional<std::array<std::uint8_t, 4>> code_points(spng_ctx* context) {
  std::uint32_t count = 0;
  if (spng_get_unknown_chunks(context, nullptr, &count) != SPNG_OK) return std::nullopt;
  std::vector<spng_unknown_chunk> chunks(count);
  if (spng_get_unknown_chunks(context, chunks.data(), &count) != SPNG_OK) return std::nullopt;
  for (const spng_unknown_chunk& chunk : chunks)
    if (std::memcmp(chunk.type, "cICP", 4) == 0 && chunk.length == 4) {
      std::array<std::uint8_t, 4> codes{};
      std::memcpy(codes.data(), chunk.data, codes.size());
      return codes;
    }
  return std::nullopt;
}

/// Pixels per meter, where the file says that it means meters.
void read_resolution(spng_ctx* context, CarriedFacts& carried) {
  spng_phys size{};
  if (spng_get_phys(context, &size) != SPNG_OK || size.unit_specifier != 1) return;
  carried.pixels_per_meter_x = size.ppu_x;
  carried.pixels_per_meter_y = size.ppu_y;
}

/// Gamma and primaries, in units of 1/100000.
void read_gamma(spng_ctx* context, StatedColor& stated) {
  constexpr double kUnit = 100000;
  std::uint32_t gamma = 0;
  if (spng_get_gama_int(context, &gamma) == SPNG_OK) stated.gamma = gamma / kUnit;
  spng_chrm_int c{};
  if (spng_get_chrm_int(context, &c) != SPNG_OK) return;
  const auto place = [](std::uint32_t x, std::uint32_t y) {
    return Chromaticity{x / kUnit, y / kUnit};
  };
  stated.primaries = Primaries{place(c.red_x, c.red_y), place(c.green_x, c.green_y),
                               place(c.blue_x, c.blue_y), place(c.white_point_x, c.white_point_y)};
}

void read_color(spng_ctx* context, StatedColor& stated) {
  stated.code_points = code_points(context);
  spng_iccp profile{};
  if (spng_get_iccp(context, &profile) == SPNG_OK) {
    const auto bytes = std::as_bytes(std::span(profile.profile, profile.profile_len));
    stated.profile.assign(bytes.begin(), bytes.end());
  }
  std::uint8_t intent = 0;
  stated.srgb_chunk = spng_get_srgb(context, &intent) == SPNG_OK;
  read_gamma(context, stated);
}

}  // namespace

PictureFile open_png(const std::filesystem::path& path, const ReadOptions& options) {
  auto source = std::make_unique<PngSource>(path);
  spng_ctx* context = source->context();
  const spng_ihdr& header = source->header();
  check_size(header.width, header.height, options);
  check_file_holds(header.width, header.height, 1, path);
  spng_trns transparency{};
  const bool has_transparency = spng_get_trns(context, &transparency) == SPNG_OK;
  source->deliver(delivery_of(header, has_transparency, options.palette_indices));

  PictureFile file;
  file.facts.format = "PNG";
  file.facts.layout = source->delivery().layout;
  file.facts.bits = header.bit_depth;
  file.facts.holds_picture = source->interlaced();
  file.info.shape = source->shape();
  file.info.alpha = source->delivery().alpha;
  file.info.full_scale = full_scale_of(file.info.shape.sample);
  read_texts(context, file);
  read_color(context, file.stated);
  read_resolution(context, file.facts.carried);
  file.facts.significant_bits = significant_bits(context, header);
  spng_exif stored{};
  if (spng_get_exif(context, &stored) == SPNG_OK)
    take_exif(file, {reinterpret_cast<const std::byte*>(stored.data), stored.length});
  file.rows = std::move(source);
  return file;
}

}  // namespace chalcedony
