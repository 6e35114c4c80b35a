// JPEG through libjpeg's interface, without chroma subsampling: colors are what is looked at.
#include <cstdio>
// jpeglib.h needs stdio before it.
#include <jpeglib.h>

#include <csetjmp>

#include "core/error.h"
#include "io/atomic_file.h"
#include "io/picture_encoder.h"

namespace chalcedony {
namespace {

struct JumpingErrors {
  jpeg_error_mgr manager;
  std::jmp_buf target;
};

[[noreturn]] void jump_out(j_common_ptr info) {
  std::longjmp(reinterpret_cast<JumpingErrors*>(info->err)->target, 1);
}

class JpegWriter : public PictureWriter {
 public:
  JpegWriter(const std::filesystem::path& path, const PictureSpec& spec)
      : file_(path), spec_(spec) {
    info_.err = jpeg_std_error(&errors_.manager);
    errors_.manager.error_exit = jump_out;
    if (!start()) {
      jpeg_destroy_compress(&info_);
      fail();
    }
  }
  ~JpegWriter() override { jpeg_destroy_compress(&info_); }

  EncodedRows encode(std::uint32_t, std::uint32_t rows,
                     std::vector<std::byte> samples) const override {
    return {rows, std::move(samples), 1, 0};
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
    jpeg_start_compress(&info_, TRUE);
    return true;
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
  jpeg_compress_struct info_{};
  JumpingErrors errors_{};
};

}  // namespace

std::unique_ptr<PictureWriter> create_jpeg(const std::filesystem::path& path,
                                           const PictureSpec& spec) {
  return std::make_unique<JpegWriter>(path, spec);
}

}  // namespace chalcedony
