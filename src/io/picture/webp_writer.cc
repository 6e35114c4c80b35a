// WebP through libwebp, without loss, as colors are what is looked at; the picture is held whole.
#include <webp/encode.h>
#include <webp/mux.h>

#include <memory>
#include <vector>

#include "core/error.h"
#include "io/file/atomic_file.h"
#include "io/metadata/icc_writer.h"
#include "io/picture/picture_encoder.h"

namespace chalcedony {
namespace {

struct FreePicture {
  void operator()(WebPPicture* picture) const { WebPPictureFree(picture); }
};
struct FreeMux {
  void operator()(WebPMux* mux) const { WebPMuxDelete(mux); }
};

class WebpWriter : public PictureWriter {
 public:
  WebpWriter(const std::filesystem::path& path, const PictureSpec& spec)
      : file_(path), spec_(spec) {
    rows_.reserve(spec.shape.row_bytes() * spec.shape.height);
  }

  EncodedRows encode(std::uint32_t, std::uint32_t rows,
                     std::vector<std::byte> samples) const override {
    return {rows, std::move(samples), 1, 0, {}};
  }

  void append(const EncodedRows& rows) override {
    rows_.insert(rows_.end(), rows.bytes.begin(), rows.bytes.end());
  }

  void finish() override {
    WebPMemoryWriter memory;
    WebPMemoryWriterInit(&memory);
    const std::unique_ptr<WebPMemoryWriter, void (*)(WebPMemoryWriter*)> clear(
        &memory, WebPMemoryWriterClear);
    encode_into(memory);
    write_with_chunks({memory.mem, memory.size});
    file_.commit();
  }

 private:
  [[noreturn]] void fail() const {
    throw OutputError("cannot be encoded as WebP", "write a .png or a .tif", file_.path().string());
  }

  void encode_into(WebPMemoryWriter& memory) {
    constexpr int kLevel = 3;  // of 0 to 9: larger files sooner, or smaller ones later
    WebPConfig config;
    WebPPicture picture;
    if (!WebPConfigInit(&config) || !WebPConfigLosslessPreset(&config, kLevel) ||
        !WebPPictureInit(&picture))
      fail();
    config.exact = 1;  // colors below transparency too
    const std::unique_ptr<WebPPicture, FreePicture> free(&picture);
    picture.use_argb = 1;
    picture.width = static_cast<int>(spec_.shape.width);
    picture.height = static_cast<int>(spec_.shape.height);
    picture.writer = WebPMemoryWrite;
    picture.custom_ptr = &memory;
    const auto* const bytes = reinterpret_cast<const std::uint8_t*>(rows_.data());
    const int step = static_cast<int>(spec_.shape.row_bytes());
    const auto import = spec_.alpha ? WebPPictureImportRGBA : WebPPictureImportRGB;
    if (!import(&picture, bytes, step) || !WebPEncode(&config, &picture)) fail();
  }

  /// The space for other programs, and what is carried over.
  void write_with_chunks(const WebPData& encoded) {
    const std::unique_ptr<WebPMux, FreeMux> mux(WebPMuxCreate(&encoded, 0));
    if (!mux) fail();
    set_chunk(*mux, "EXIF", exif_data_of(spec_));
    if (spec_.space != &spaces::kSrgb) set_chunk(*mux, "ICCP", icc_profile_for(spec_));
    WebPData whole{};
    if (WebPMuxAssemble(mux.get(), &whole) != WEBP_MUX_OK) fail();
    const std::unique_ptr<WebPData, void (*)(WebPData*)> clear(&whole, WebPDataClear);
    file_.write(std::as_bytes(std::span(whole.bytes, whole.size)));
  }

  void set_chunk(WebPMux& mux, const char* name, const std::vector<std::byte>& bytes) const {
    if (bytes.empty()) return;
    const WebPData data{reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()};
    constexpr int kCopy = 1;
    if (WebPMuxSetChunk(&mux, name, &data, kCopy) != WEBP_MUX_OK) fail();
  }

  AtomicFile file_;
  PictureSpec spec_;
  std::vector<std::byte> rows_;
};

}  // namespace

std::unique_ptr<PictureWriter> create_webp(const std::filesystem::path& path,
                                           const PictureSpec& spec) {
  return std::make_unique<WebpWriter>(path, spec);
}

}  // namespace chalcedony
