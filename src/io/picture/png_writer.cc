// PNG (W3C, third edition): rows are filtered and deflated in stripes on several threads, each
// stripe an IDAT chunk of its own.
#include <isa-l.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <memory>
#include <string>
#include <utility>

#include "core/color/css_color.h"
#include "core/error.h"
#include "io/file/atomic_file.h"
#include "io/metadata/big_endian.h"
#include "io/metadata/icc_writer.h"
#include "io/metadata/space_note.h"
#include "io/picture/deflate.h"
#include "io/picture/picture_encoder.h"
#include "io/picture/png_row_filter.h"

namespace chalcedony {
namespace {

enum ColorType : std::uint8_t { kGray = 0, kRgb = 2, kIndexed = 3, kGrayAlpha = 4, kRgba = 6 };

std::vector<std::byte> chunk(std::string_view type, const std::vector<std::byte>& data) {
  std::vector<std::byte> out;
  out.reserve(data.size() + 12);
  append_number(out, static_cast<std::uint32_t>(data.size()), 4);
  append_text(out, type);
  out.insert(out.end(), data.begin(), data.end());
  const auto* checked = reinterpret_cast<const unsigned char*>(out.data() + 4);
  append_number(out, crc32_gzip_refl(0, checked, data.size() + 4), 4);
  return out;
}

std::vector<std::byte> international_text(std::string_view keyword, std::string_view text) {
  std::vector<std::byte> data;
  append_text(data, keyword);
  data.insert(data.end(), 5,
              std::byte{0});  // end of keyword, not compressed, no language, no translation
  append_text(data, text);
  return chunk("iTXt", data);
}

/// The two bytes of every sample change places, four samples at a time.
void to_big_endian(std::vector<std::byte>& samples) {
  static_assert(std::endian::native == std::endian::little);
  constexpr std::uint64_t kLow = 0x00ff00ff00ff00ff;
  std::size_t i = 0;
  for (std::uint64_t four; i + sizeof four <= samples.size(); i += sizeof four) {
    std::memcpy(&four, samples.data() + i, sizeof four);
    four = (four & kLow) << 8 | (four >> 8 & kLow);
    std::memcpy(samples.data() + i, &four, sizeof four);
  }
  for (; i + 1 < samples.size(); i += 2) std::swap(samples[i], samples[i + 1]);
}

class PngWriter : public PictureWriter {
 public:
  PngWriter(const std::filesystem::path& path, const PictureSpec& spec) : file_(path), spec_(spec) {
    write_header();
  }

  EncodedRows encode(std::uint32_t first_row, std::uint32_t rows,
                     std::vector<std::byte> samples) const override {
    if (spec_.shape.sample == SampleType::kU16) to_big_endian(samples);
    const std::size_t row_bytes = spec_.shape.row_bytes();
    PngRowFilter filter(row_bytes, spec_.shape.pixel_bytes(),
                        spec_.labels || color_type() == kIndexed);
    const std::size_t filtered_bytes = (row_bytes + 1) * rows;
    const auto filtered = std::make_unique_for_overwrite<std::byte[]>(filtered_bytes);
    const auto* row = reinterpret_cast<const std::uint8_t*>(samples.data());
    auto* out = reinterpret_cast<std::uint8_t*>(filtered.get());
    for (std::uint32_t r = 0; r < rows; ++r, row += row_bytes, out += row_bytes + 1)
      filter.filter(row, r > 0 ? row - row_bytes : nullptr, out);
    DeflatedStripe stripe =
        deflate_stripe({filtered.get(), filtered_bytes}, first_row + rows == spec_.shape.height);
    if (first_row == 0) {
      // The zlib header of RFC 1950: deflate with a 32 KiB window, fastest level.
      const std::array header{std::byte{0x78}, std::byte{0x01}};
      stripe.bytes.insert(stripe.bytes.begin(), header.begin(), header.end());
    }
    return {rows, chunk("IDAT", stripe.bytes), stripe.adler, stripe.size, std::move(samples)};
  }

  void append(const EncodedRows& rows) override {
    adler_ = join_adler(adler_, rows.adler, rows.raw_size);
    file_.write(rows.bytes);
  }

  void finish() override {
    std::vector<std::byte> adler;
    append_number(adler, adler_, 4);
    file_.write(chunk("IDAT", adler));
    file_.write(chunk("IEND", {}));
    file_.commit();
  }

 private:
  ColorType color_type() const {
    const bool legend = !spec_.legend.empty() && spec_.shape.sample == SampleType::kU8;
    if (legend || !spec_.palette.empty()) return kIndexed;
    switch (spec_.shape.channels) {
      case 1:
        return kGray;
      case 2:
        return kGrayAlpha;
      case 3:
        return kRgb;
      default:
        return kRgba;
    }
  }

  void write_header() {
    constexpr std::array<unsigned char, 8> signature{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    file_.write(std::as_bytes(std::span(signature)));
    std::vector<std::byte> header;
    append_number(header, spec_.shape.width, 4);
    append_number(header, spec_.shape.height, 4);
    header.push_back(static_cast<std::byte>(8 * bytes_per_sample(spec_.shape.sample)));
    header.push_back(static_cast<std::byte>(color_type()));
    header.insert(header.end(), 3, std::byte{0});
    file_.write(chunk("IHDR", header));
    if (!spec_.labels) write_space();
    write_carried();
    if (color_type() == kIndexed) write_palette();
    if (!spec_.legend.empty())
      file_.write(international_text(kLegendKeyword, legend_text(spec_.legend)));
  }

  void write_space() {
    if (spec_.plane) {
      file_.write(international_text(kSpaceKeyword, plane_note(*spec_.plane, spec_.shape.sample)));
    } else if (spec_.space == &spaces::kSrgb) {
      file_.write(chunk("sRGB", {std::byte{1}}));  // relative colorimetric
    } else {
      write_profile();
      file_.write(international_text(kSpaceKeyword, space_note(*spec_.space, spec_.shape.sample)));
    }
  }

  /// For other programs, which do not know our note.
  void write_profile() {
    const std::vector<std::byte> profile = icc_profile_for(spec_);
    if (profile.empty()) return;
    std::vector<std::byte> data;
    append_text(data, spec_.space->id);
    data.insert(data.end(), 2, std::byte{0});  // end of the name; deflate
    const DeflatedStripe stripe = deflate_stripe(profile, true);
    data.insert(data.end(), {std::byte{0x78}, std::byte{0x01}});
    data.insert(data.end(), stripe.bytes.begin(), stripe.bytes.end());
    append_number(data, stripe.adler, 4);
    file_.write(chunk("iCCP", data));
  }

  void write_carried() {
    const CarriedFacts& carried = spec_.carried;
    if (carried.has_resolution()) {
      std::vector<std::byte> data;
      append_number(data, static_cast<std::uint32_t>(std::lround(carried.pixels_per_meter_x)), 4);
      append_number(data, static_cast<std::uint32_t>(std::lround(carried.pixels_per_meter_y)), 4);
      data.push_back(std::byte{1});  // meters
      file_.write(chunk("pHYs", data));
    }
    if (!carried.description.empty())
      file_.write(international_text(kDescriptionKeyword, carried.description));
    if (!carried.captured.empty()) file_.write(international_text(kTimeKeyword, carried.captured));
  }

  /// Entry 0 is no class, or no color: black, and transparent where there is such.
  void write_palette() {
    std::vector<std::byte> palette(3, std::byte{0});
    const auto put = [&](std::size_t index, const Color& color) {
      palette.resize(std::max<std::size_t>(palette.size(), 3 * (index + 1)));
      const auto rgb = color.in(spaces::kSrgb);
      for (std::size_t c = 0; c < 3; ++c)
        palette[3 * index + c] =
            static_cast<std::byte>(std::lround(std::clamp(rgb[c], 0.0, 255.0)));
    };
    for (const LegendEntry& entry : spec_.legend) put(entry.index, css_color(entry.color));
    for (std::size_t i = 0; i < spec_.palette.size(); ++i) put(i + 1, spec_.palette[i]);
    file_.write(chunk("PLTE", palette));
    if (spec_.labels || spec_.alpha) file_.write(chunk("tRNS", {std::byte{0}}));
  }

  AtomicFile file_;
  PictureSpec spec_;
  std::uint32_t adler_ = 1;
};

}  // namespace

std::unique_ptr<PictureWriter> create_png(const std::filesystem::path& path,
                                          const PictureSpec& spec) {
  return std::make_unique<PngWriter>(path, spec);
}

}  // namespace chalcedony
