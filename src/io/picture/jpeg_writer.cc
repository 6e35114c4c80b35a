// JPEG through libjpeg's interface, without chroma subsampling: colors are what is looked at.
#include <span>
#include <string_view>
#include <vector>

#include "core/error.h"
#include "io/file/atomic_file.h"
#include "io/metadata/icc_writer.h"
#include "io/picture/jpeg_errors.h"
#include "io/picture/picture_encoder.h"

namespace chalcedony {
namespace {

class JpegWriter : public PictureWriter {
 public:
  JpegWriter(const std::filesystem::path& path, const PictureSpec& spec)
      : file_(path), spec_(spec) {
    info_.err = jpeg_std_error(&errors_.manager);
    errors_.manager.error_exit = jump_out;
    prepare_markers();
    if (!start()) {
      jpeg_destroy_compress(&info_);
      fail();
    }
  }
  ~JpegWriter() override { jpeg_destroy_compress(&info_); }

  EncodedRows encode(std::uint32_t, std::uint32_t rows,
                     std::vector<std::byte> samples) const override {
    return {rows, std::move(samples), 1, 0, {}};
  }
  void append(const EncodedRows& rows) override {
    if (!write(rows.rows, rows.bytes.data())) fail();
  }
  void finish() override {
    if (!complete()) fail();
    file_.commit();
  }

 private:
  [[noreturn]] void fail() const {
    throw OutputError("cannot be written",
                      "check that the folder may be written and the disk has room",
                      file_.path().string());
  }

  /// Made beforehand: nothing with a destructor may be made behind the jump.
  void prepare_markers() {
    using namespace std::string_view_literals;
    if (const auto data = exif_data_of(spec_); !data.empty()) {
      exif_ = as_bytes("Exif\0\0"sv);
      exif_.insert(exif_.end(), data.begin(), data.end());
    }
    if (spec_.space == &spaces::kSrgb) return;  // as Exif says
    const auto data = icc_profile_for(spec_);
    if (data.empty()) return;
    profile_ = as_bytes("ICC_PROFILE\0\x01\x01"sv);  // part 1 of 1
    profile_.insert(profile_.end(), data.begin(), data.end());
  }

  static std::vector<std::byte> as_bytes(std::string_view text) {
    const auto bytes = std::as_bytes(std::span(text));
    return {bytes.begin(), bytes.end()};
  }

  bool start() {
    if (setjmp(errors_.target)) return false;
    jpeg_create_compress(&info_);
    jpeg_stdio_dest(&info_, file_.stream());
    info_.image_width = spec_.shape.width;
    info_.image_height = spec_.shape.height;
    info_.input_components = static_cast<int>(spec_.shape.channels);
    info_.in_color_space = spec_.shape.channels == 1 ? JCS_GRAYSCALE : JCS_RGB;
    jpeg_set_defaults(&info_);
    jpeg_set_quality(&info_, spec_.jpeg_quality, TRUE);
    for (int c = 0; c < info_.num_components; ++c)
      info_.comp_info[c].h_samp_factor = info_.comp_info[c].v_samp_factor = 1;
    set_density();
    jpeg_start_compress(&info_, TRUE);
    write_marker(JPEG_APP0 + 1, exif_.data(), exif_.size());
    write_marker(JPEG_APP0 + 2, profile_.data(), profile_.size());
    return true;
  }

  void set_density() {
    constexpr double kMetersPerInch = 0.0254;
    if (!spec_.carried.has_resolution()) return;
    const double x = spec_.carried.pixels_per_meter_x * kMetersPerInch,
                 y = spec_.carried.pixels_per_meter_y * kMetersPerInch;
    if (x > 65535 || y > 65535) return;
    info_.density_unit = 1;  // inches
    info_.X_density = static_cast<UINT16>(x + 0.5);
    info_.Y_density = static_cast<UINT16>(y + 0.5);
  }

  void write_marker(int marker, const std::byte* data, std::size_t size) {
    if (size > 0 && size < 65534)
      jpeg_write_marker(&info_, marker, reinterpret_cast<const JOCTET*>(data),
                        static_cast<unsigned>(size));
  }

  bool write(std::uint32_t rows, const std::byte* samples) {
    if (setjmp(errors_.target)) return false;
    auto* row = reinterpret_cast<JSAMPLE*>(const_cast<std::byte*>(samples));
    for (std::uint32_t r = 0; r < rows; ++r, row += spec_.shape.row_bytes())
      jpeg_write_scanlines(&info_, &row, 1);
    return true;
  }

  bool complete() {
    if (setjmp(errors_.target)) return false;
    jpeg_finish_compress(&info_);
    return true;
  }

  AtomicFile file_;
  PictureSpec spec_;
  std::vector<std::byte> exif_, profile_;
  jpeg_compress_struct info_{};
  JumpingErrors errors_{};
};

}  // namespace

std::unique_ptr<PictureWriter> create_jpeg(const std::filesystem::path& path,
                                           const PictureSpec& spec) {
  return std::make_unique<JpegWriter>(path, spec);
}

}  // namespace chalcedony
