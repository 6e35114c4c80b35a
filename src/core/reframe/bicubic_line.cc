#include "core/reframe/bicubic_line.h"

#include <algorithm>
#include <array>

#include "core/reframe/resampling.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/reframe/bicubic_line.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Weighted sums of four samples that lie side by side. Where there are no vectors of four they are
// an array: the arithmetic is the same.
#if HWY_TARGET == HWY_SCALAR
using FourSums = std::array<float, 4>;
HWY_INLINE FourSums no_sums() { return {}; }
template <class Sample>
HWY_INLINE void add(const Sample* samples, float weight, FourSums& sums) {
  for (std::size_t i = 0; i < 4; ++i) sums[i] += weight * static_cast<float>(samples[i]);
}
HWY_INLINE void store(const FourSums& sums, float* to) { std::copy(sums.begin(), sums.end(), to); }
#else
using D = hn::FixedTag<float, 4>;
using FourSums = hn::Vec<D>;
HWY_INLINE FourSums no_sums() { return hn::Zero(D()); }
HWY_INLINE FourSums floats(const float* samples) { return hn::LoadU(D(), samples); }
template <class Sample>
HWY_INLINE FourSums floats(const Sample* samples) {
  const auto loaded = hn::LoadU(hn::Rebind<Sample, D>(), samples);
  return hn::ConvertTo(D(), hn::PromoteTo(hn::RebindToSigned<D>(), loaded));
}
template <class Sample>
HWY_INLINE void add(const Sample* samples, float weight, FourSums& sums) {
  sums = hn::Add(sums, hn::Mul(hn::Set(D(), weight), floats(samples)));
}
HWY_INLINE void store(const FourSums& sums, float* to) { hn::StoreU(sums, D(), to); }
#endif

// The rows are added first, all samples of the four columns at once.
template <class Sample, std::size_t kColors>
void line_of(const Sample* old, std::size_t width, const PictureLine& line, std::size_t first,
             std::size_t n, float most, std::size_t out_channels, Sample* out) {
  for (std::size_t i = 0; i < n; ++i, out += out_channels) {
    const double x = line.x_of(first + i), y = line.y_of(first + i);
    const auto left = static_cast<std::int64_t>(x), top = static_cast<std::int64_t>(y);
    const auto across = bicubic_weights(x - static_cast<double>(left)),
               down = bicubic_weights(y - static_cast<double>(top));
    const Sample* row =
        old +
        (static_cast<std::size_t>(top - 1) * width + static_cast<std::size_t>(left - 1)) * kColors;
    FourSums sums[kColors];
    for (FourSums& four : sums) four = no_sums();
    for (std::size_t j = 0; j < 4; ++j, row += width * kColors)
      for (std::size_t v = 0; v < kColors; ++v) add(row + 4 * v, down[j], sums[v]);
    std::array<float, 4 * kColors> columns;
    for (std::size_t v = 0; v < kColors; ++v) store(sums[v], &columns[4 * v]);
    for (std::size_t c = 0; c < kColors; ++c) {
      const float outer = across[0] * columns[c] + across[3] * columns[3 * kColors + c];
      const float inner = across[1] * columns[kColors + c] + across[2] * columns[2 * kColors + c];
      out[c] = sample_of<Sample>(outer + inner, most);
    }
  }
}

template <class Sample>
void line_of_samples(const std::byte* old, const RasterShape& shape, const PictureLine& line,
                     std::size_t first, std::size_t n, float most, std::size_t out_channels,
                     std::byte* out) {
  const auto* from = reinterpret_cast<const Sample*>(old);
  auto* to = reinterpret_cast<Sample*>(out);
  if (shape.channels == 1) {
    line_of<Sample, 1>(from, shape.width, line, first, n, most, out_channels, to);
  } else {
    line_of<Sample, 3>(from, shape.width, line, first, n, most, out_channels, to);
  }
}

void line_of_any(const std::byte* old, const RasterShape& shape, const PictureLine& line,
                 std::size_t first, std::size_t n, float most, std::size_t out_channels,
                 std::byte* out) {
  switch (shape.sample) {
    case SampleType::kU8:
      return line_of_samples<std::uint8_t>(old, shape, line, first, n, most, out_channels, out);
    case SampleType::kU16:
      return line_of_samples<std::uint16_t>(old, shape, line, first, n, most, out_channels, out);
    case SampleType::kF32:
      return line_of_samples<float>(old, shape, line, first, n, most, out_channels, out);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(line_of_any);
}  // namespace

void bicubic_line(const std::byte* old, const RasterShape& shape, const PictureLine& line,
                  std::size_t first, std::size_t n, float most, std::size_t out_channels,
                  std::byte* out) {
  HWY_DYNAMIC_DISPATCH(line_of_any)(old, shape, line, first, n, most, out_channels, out);
}

}  // namespace chalcedony
#endif
