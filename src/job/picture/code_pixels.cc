#include "job/picture/code_pixels.h"

#include <algorithm>

#include "core/pixel/color_table.h"

namespace chalcedony {
namespace {

constexpr std::size_t kCodes = CodeCounts::Counts().size();

PictureInfo row_of_codes(PictureInfo info) {
  info.shape.width = kCodes;
  info.shape.height = 1;
  return info;
}

}  // namespace

bool codes_tell(const CountedPicture& picture, const std::vector<Channel>& channels) {
  const PictureInfo& info = picture.file.info;
  return all_pixels_count(picture) && ColorCounter::fits(info) &&
         std::all_of(channels.begin(), channels.end(),
                     [&](const Channel& c) { return deciding_sample(c, info).has_value(); });
}

CodePixels::CodePixels(const PictureInfo& info, const std::vector<Channel>& channels,
                       double hue_floor)
    : plan_(row_of_codes(info), channels, hue_floor),
      stored_(kCodes * info.shape.channels),
      reader_(plan_.info(), count_all()),
      evaluator_(plan_) {
  for (std::size_t i = 0; i < stored_.size(); ++i)
    stored_[i] = static_cast<std::byte>(i / info.shape.channels);
  block_ = reader_.read(stored_.data(), 0, kCodes);
  evaluator_.evaluate(block_);
}

}  // namespace chalcedony
