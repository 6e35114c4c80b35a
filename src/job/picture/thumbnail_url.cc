#include "job/picture/thumbnail_url.h"

#include <cstddef>
#include <cstring>
#include <vector>

#include "io/file/temporary_folder.h"
#include "io/file/whole_file.h"
#include "io/picture/create_picture.h"
#include "io/text/base64.h"

namespace chalcedony {

std::string data_url(const std::string& type, const std::filesystem::path& file) {
  return "data:image/" + type + ";base64," + base64(read_file(file));
}

std::string thumbnail_url(const Thumbnail& thumbnail, ThumbnailColors colors) {
  PictureSpec spec;
  spec.shape = {thumbnail.width, thumbnail.height, 3, SampleType::kU8};
  spec.jpeg_quality = 82;
  std::vector<std::byte> samples(thumbnail.rgb.size());
  std::memcpy(samples.data(), thumbnail.rgb.data(), thumbnail.rgb.size());
  const bool exact = colors == ThumbnailColors::kExact;
  const TemporaryFolder folder;
  const std::filesystem::path file = folder / (exact ? "small.png" : "small.jpg");
  write_picture(file, spec, samples);
  return data_url(exact ? "png" : "jpeg", file);
}

}  // namespace chalcedony
