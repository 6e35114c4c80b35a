// One channel of some rows with a margin of their neighborhood: what filters work on.
#ifndef CHALCEDONY_CORE_FILTER_TILE_H_
#define CHALCEDONY_CORE_FILTER_TILE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

class Tile {
 public:
  Tile() = default;
  Tile(std::size_t width, std::size_t height) { resize(width, height); }

  /// What it holds afterwards is left over from before.
  void resize(std::size_t width, std::size_t height) {
    width_ = width;
    height_ = height;
    values_.resize(width * height);
  }

  std::size_t width() const { return width_; }
  std::size_t height() const { return height_; }
  float* row(std::size_t y) { return values_.data() + y * width_; }
  const float* row(std::size_t y) const { return values_.data() + y * width_; }

 private:
  std::size_t width_ = 0, height_ = 0;
  std::vector<float> values_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_TILE_H_
