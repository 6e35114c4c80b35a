// JPEG through libjpeg's interface. The library reports errors by a jump, so every call sits in a
// function that holds nothing with a destructor.
#include "io/picture/jpeg_errors.h"
// After it, as it needs jpeglib.h.
#include <jerror.h>

#include <cstring>
#include <map>
#include <memory>
#include <vector>

#include "core/error.h"
#include "io/metadata/exif.h"
#include "io/picture/picture_codec.h"

namespace chalcedony {
namespace {

/// Lost data is an error here: a picture whose lower half is gray is worse than none.
void on_message(j_common_ptr info, int level) {
  if (level >= 0) return;
  const int code = info->err->msg_code;
  if (code == JWRN_JPEG_EOF || code == JWRN_HIT_MARKER || code == JWRN_HUFF_BAD_CODE)
    jump_out(info);
}

constexpr int kExifMarker = JPEG_APP0 + 1;
constexpr int kProfileMarker = JPEG_APP0 + 2;

class JpegSource : public RowSource {
 public:
  explicit JpegSource(const std::filesystem::path& path) : path_(path) {
    info_.err = jpeg_std_error(&errors_.manager);
    errors_.manager.error_exit = jump_out;
    errors_.manager.emit_message = on_message;
    open();
  }
  ~JpegSource() override { close(); }

  const RasterShape& shape() const override { return shape_; }
  const jpeg_decompress_struct& info() const { return info_; }

  void rewind() override {
    close();
    open();
  }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    if (!read(count, rows)) fail();
  }

 private:
  [[noreturn]] void fail() const {
    throw InputError(std::string("damaged JPEG: ") + errors_.message,
                     "copy or export the file again");
  }

  void open() {
    file_ = std::fopen(path_.c_str(), "rb");
    if (!file_) throw InputError("cannot be opened", "check its name and folder");
    if (!read_header()) {
      close();
      fail();
    }
    if (info_.num_components != 1 && info_.num_components != 3) {
      close();
      throw InputError("a CMYK JPEG, which this program does not read",
                       "export it as an RGB picture");
    }
    shape_ = {info_.image_width, info_.image_height,
              static_cast<std::uint32_t>(info_.num_components), SampleType::kU8};
  }

  void close() {
    if (created_) jpeg_destroy_decompress(&info_);
    created_ = started_ = false;
    if (file_) std::fclose(file_);
    file_ = nullptr;
  }

  bool read_header() {
    if (setjmp(errors_.target)) return false;
    jpeg_create_decompress(&info_);
    created_ = true;
    jpeg_stdio_src(&info_, file_);
    jpeg_save_markers(&info_, kExifMarker, 0xffff);
    jpeg_save_markers(&info_, kProfileMarker, 0xffff);
    jpeg_read_header(&info_, TRUE);
    if (info_.num_components == 3) info_.out_color_space = JCS_RGB;
    return true;
  }

  bool read(std::uint32_t count, std::byte* rows) {
    if (setjmp(errors_.target)) return false;
    if (!started_) {
      jpeg_start_decompress(&info_);
      started_ = true;
    }
    JSAMPROW row = reinterpret_cast<JSAMPROW>(rows);
    const std::size_t row_bytes = std::size_t{shape_.width} * shape_.channels;
    const JDIMENSION end = info_.output_scanline + count;
    while (info_.output_scanline < end) {
      JSAMPROW list[8];
      for (JDIMENSION i = 0; i < 8; ++i) list[i] = row + i * row_bytes;
      const JDIMENSION left = end - info_.output_scanline;
      row += jpeg_read_scanlines(&info_, list, left < 8 ? left : 8) * row_bytes;
    }
    return true;
  }

  std::filesystem::path path_;
  std::FILE* file_ = nullptr;
  jpeg_decompress_struct info_{};
  JumpingErrors errors_{};
  RasterShape shape_;
  bool created_ = false;
  bool started_ = false;
};

std::span<const std::byte> marker_after(const jpeg_decompress_struct& info, int marker,
                                        std::string_view signature) {
  for (auto* m = info.marker_list; m; m = m->next) {
    const std::string_view data(reinterpret_cast<const char*>(m->data), m->data_length);
    if (m->marker == marker && data.starts_with(signature))
      return std::as_bytes(std::span(data)).subspan(signature.size());
  }
  return {};
}

/// The profile of a file, put together from its numbered parts.
///
/// Source    ICC.1:2010, B.4
std::vector<std::byte> profile_in(const jpeg_decompress_struct& info) {
  using namespace std::string_view_literals;
  constexpr std::string_view kSignature = "ICC_PROFILE\0"sv;
  std::map<int, std::span<const std::byte>> parts;
  for (auto* m = info.marker_list; m; m = m->next) {
    const std::string_view data(reinterpret_cast<const char*>(m->data), m->data_length);
    if (m->marker != kProfileMarker || !data.starts_with(kSignature)) continue;
    const auto bytes = std::as_bytes(std::span(data)).subspan(kSignature.size());
    if (bytes.size() > 2) parts[std::to_integer<int>(bytes[0])] = bytes.subspan(2);
  }
  std::vector<std::byte> profile;
  for (const auto& [number, part] : parts) profile.insert(profile.end(), part.begin(), part.end());
  return profile;
}

}  // namespace

PictureFile open_jpeg(const std::filesystem::path& path, const ReadOptions& options) {
  auto source = std::make_unique<JpegSource>(path);
  const jpeg_decompress_struct& info = source->info();
  check_size(info.image_width, info.image_height, options);
  check_file_holds(info.image_width, info.image_height, 1, path);

  PictureFile file;
  file.facts.format = info.progressive_mode ? "progressive JPEG" : "JPEG";
  file.facts.layout = info.num_components == 1 ? "gray" : "RGB";
  file.facts.lossy = true;
  file.facts.holds_picture = info.progressive_mode != 0;
  file.info.shape = source->shape();
  using namespace std::string_view_literals;
  if (info.saw_JFIF_marker && info.X_density > 1 && info.Y_density > 1) {
    // JFIF counts its units from 1 where Exif counts from 2.
    file.facts.carried.pixels_per_meter_x = per_meter(info.X_density, info.density_unit + 1);
    file.facts.carried.pixels_per_meter_y = per_meter(info.Y_density, info.density_unit + 1);
  }
  take_exif(file, marker_after(info, kExifMarker, "Exif\0\0"sv));
  file.stated.profile = profile_in(info);
  file.rows = std::move(source);
  return file;
}

}  // namespace chalcedony
