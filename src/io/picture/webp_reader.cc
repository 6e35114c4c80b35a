// WebP through libwebp: 8 bits, without or with loss; the picture is held whole.
#include <webp/decode.h>
#include <webp/demux.h>

#include <cstring>
#include <memory>
#include <string>
#include <vector>

#include "core/error.h"
#include "io/file/whole_file.h"
#include "io/metadata/exif.h"
#include "io/picture/picture_codec.h"

namespace chalcedony {
namespace {

struct CloseDemuxer {
  void operator()(WebPDemuxer* demuxer) const { WebPDemuxDelete(demuxer); }
};

[[noreturn]] void fail() { throw InputError("damaged WebP", "copy or export the file again"); }

class WebpSource : public RowSource {
 public:
  explicit WebpSource(std::string file) : file_(std::move(file)) {
    if (WebPGetFeatures(data(), file_.size(), &features_) != VP8_STATUS_OK) fail();
    if (features_.has_animation)
      throw InputError("an animated WebP, which this program does not read",
                       "export one of its pictures");
    shape_ = {static_cast<std::uint32_t>(features_.width),
              static_cast<std::uint32_t>(features_.height), features_.has_alpha ? 4u : 3u,
              SampleType::kU8};
  }

  const RasterShape& shape() const override { return shape_; }
  const WebPBitstreamFeatures& features() const { return features_; }
  const std::string& file() const { return file_; }

  void rewind() override { next_row_ = 0; }
  bool rereads_quickly() const override { return true; }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    if (decoded_.empty()) decode();
    const std::size_t row_bytes = shape_.row_bytes();
    std::memcpy(rows, decoded_.data() + next_row_ * row_bytes, count * row_bytes);
    next_row_ += count;
  }

 private:
  const std::uint8_t* data() const { return reinterpret_cast<const std::uint8_t*>(file_.data()); }

  void decode() {
    const std::size_t row_bytes = shape_.row_bytes();
    decoded_.resize(row_bytes * shape_.height);
    const auto decode_into = features_.has_alpha ? WebPDecodeRGBAInto : WebPDecodeRGBInto;
    if (!decode_into(data(), file_.size(), decoded_.data(), decoded_.size(),
                     static_cast<int>(row_bytes)))
      fail();
    file_ = {};
  }

  std::string file_;
  WebPBitstreamFeatures features_{};
  RasterShape shape_;
  std::vector<std::uint8_t> decoded_;
  std::size_t next_row_ = 0;
};

/// A chunk beside the picture; empty when there is none.
std::vector<std::byte> chunk_in(const std::string& file, const char* name) {
  const WebPData data{reinterpret_cast<const std::uint8_t*>(file.data()), file.size()};
  const std::unique_ptr<WebPDemuxer, CloseDemuxer> demuxer(WebPDemux(&data));
  WebPChunkIterator chunk{};
  std::vector<std::byte> bytes;
  if (demuxer && WebPDemuxGetChunk(demuxer.get(), name, 1, &chunk)) {
    const auto* const from = reinterpret_cast<const std::byte*>(chunk.chunk.bytes);
    bytes.assign(from, from + chunk.chunk.size);
    WebPDemuxReleaseChunkIterator(&chunk);
  }
  return bytes;
}

}  // namespace

PictureFile open_webp(const std::filesystem::path& path, const ReadOptions& options) {
  auto source = std::make_unique<WebpSource>(read_file(path));
  check_size(source->shape().width, source->shape().height, options);
  constexpr int kLossy = 1;
  PictureFile file;
  file.facts.format = "WebP";
  file.facts.lossy = source->features().format == kLossy;
  file.facts.layout = source->features().has_alpha ? "RGB with alpha" : "RGB";
  file.facts.holds_picture = true;
  file.info.shape = source->shape();
  file.info.alpha = source->features().has_alpha ? AlphaKind::kStraight : AlphaKind::kNone;
  take_exif(file, chunk_in(source->file(), "EXIF"));
  file.stated.profile = chunk_in(source->file(), "ICCP");
  file.rows = std::move(source);
  return file;
}

}  // namespace chalcedony
