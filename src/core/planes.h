// Planar float storage: three channels side by side, one array each.
#ifndef CHALCEDONY_CORE_PLANES_H_
#define CHALCEDONY_CORE_PLANES_H_

#include <array>
#include <cstddef>
#include <memory>
#include <new>

namespace chalcedony {

/// Pixels in the largest Block: three float planes of it, and three that are computed from them,
/// fit into a first cache of 32 KB beside what is stored.
inline constexpr std::size_t kBlockPixels = 1024;

/// Every plane has room for its pixels rounded up to a multiple of this many floats, so vector
/// code needs no tail: it may read and write what lies between.
inline constexpr std::size_t kPlanePadding = 16;

using ConstPlanes = std::array<const float*, 3>;
using Planes = std::array<float*, 3>;

/// `count` zeroed float planes of kBlockPixels each, aligned for any vector.
class PlaneBuffer {
 public:
  explicit PlaneBuffer(std::size_t count = 3) : floats_(allocate(count)), count_(count) {}

  std::size_t count() const { return count_; }
  float* plane(std::size_t i) { return floats_.get() + i * kStride; }
  const float* plane(std::size_t i) const { return floats_.get() + i * kStride; }
  Planes planes(std::size_t first = 0) {
    return {plane(first), plane(first + 1), plane(first + 2)};
  }

 private:
  static constexpr std::size_t kAlignment = 64;
  // A whole number of padding units beyond the pixels keeps the planes off each other's cache sets.
  static constexpr std::size_t kStride = kBlockPixels + kPlanePadding;

  struct Release {
    void operator()(float* floats) const {
      ::operator delete[](floats, std::align_val_t{kAlignment});
    }
  };
  static std::unique_ptr<float[], Release> allocate(std::size_t count) {
    const std::size_t floats = count * kStride;
    auto* memory =
        static_cast<float*>(::operator new[](floats * sizeof(float), std::align_val_t{kAlignment}));
    for (std::size_t i = 0; i < floats; ++i) memory[i] = 0.0f;
    return std::unique_ptr<float[], Release>(memory);
  }

  std::unique_ptr<float[], Release> floats_;
  std::size_t count_;
};

/// The planes without the pixels before `first`.
template <class Float>
std::array<Float*, 3> from_pixel(const std::array<Float*, 3>& planes, std::size_t first) {
  return {planes[0] + first, planes[1] + first, planes[2] + first};
}

inline ConstPlanes read_only(const Planes& planes) { return {planes[0], planes[1], planes[2]}; }

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PLANES_H_
