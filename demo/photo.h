// Large photo-like pictures for measuring: smooth light, texture and grain, with a limited number
// of distinct colors.
#ifndef CHALCEDONY_DEMO_PHOTO_H_
#define CHALCEDONY_DEMO_PHOTO_H_

#include <cstdint>
#include <filesystem>

namespace chalcedony::demo {

struct PhotoPlan {
  std::uint32_t width = 6000;
  std::uint32_t height = 4000;
  std::uint32_t colors = 300'000;  // most distinct colors, before a lossy format changes them
  std::uint64_t seed = 7;
};

/// Draws a photo-like picture row by row into a file whose format its name tells.
void write_photo(const std::filesystem::path& path, const PhotoPlan& plan);

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_PHOTO_H_
