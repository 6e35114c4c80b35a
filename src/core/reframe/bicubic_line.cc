#include "core/reframe/bicubic_line.h"

#include <algorithm>
#include <array>
#include <type_traits>

#include "core/reframe/resampling.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/reframe/bicubic_line.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Where some new pixels lie, and what they take of the old ones around them.
struct Places {
  static constexpr std::size_t kMost = 64;

  std::array<std::int64_t, kMost> left, top;             // the old pixel before each
  std::array<std::array<float, kMost>, 4> across, down;  // weights of its four columns and rows

  // A loop over arrays, of which the compiler makes vectors.
  HWY_INLINE void find(const PictureLine& line, std::size_t first, std::size_t n) {
    for (std::size_t i = 0; i < n; ++i) {
      const double x = line.x_of(first + i), y = line.y_of(first + i);
      left[i] = static_cast<std::int64_t>(x);
      top[i] = static_cast<std::int64_t>(y);
      const auto columns = bicubic_weights(x - static_cast<double>(left[i])),
                 rows = bicubic_weights(y - static_cast<double>(top[i]));
      for (std::size_t k = 0; k < 4; ++k) {
        across[k][i] = columns[k];
        down[k][i] = rows[k];
      }
    }
  }
};

template <class D, class Sample>
HWY_INLINE hn::Vec<D> floats(D d, const Sample* samples) {
  if constexpr (std::is_same_v<Sample, float>) {
    return hn::LoadU(d, samples);
  } else {
    const auto loaded = hn::LoadU(hn::Rebind<Sample, D>(), samples);
    return hn::ConvertTo(d, hn::PromoteTo(hn::RebindToSigned<D>(), loaded));
  }
}

// Samples of the four columns side by side: of three colors they fill three quarters of a vector.
template <std::size_t kColors>
inline constexpr std::size_t kColumns = kColors == 1 ? 4 : 16;

// The four rows of every place added up, sample by sample.
template <std::size_t kColors, class Sample>
HWY_INLINE void add_rows(const Sample* old, std::size_t width, const Places& places, std::size_t n,
                         float* columns) {
  const hn::CappedTag<float, kColumns<kColors>> d;
  for (std::size_t i = 0; i < n; ++i, columns += kColumns<kColors>) {
    const Sample* const corner = old + (static_cast<std::size_t>(places.top[i] - 1) * width +
                                        static_cast<std::size_t>(places.left[i] - 1)) *
                                           kColors;
    for (std::size_t v = 0; v < kColumns<kColors>; v += hn::Lanes(d)) {
      auto sum = hn::Zero(d);
      for (std::size_t k = 0; k < 4; ++k)
        sum = hn::Add(sum, hn::Mul(hn::Set(d, places.down[k][i]),
                                   floats(d, corner + k * width * kColors + v)));
      hn::StoreU(sum, d, columns + v);
    }
  }
}

template <class Sample, class D>
HWY_INLINE hn::Vec<D> rounded(D d, hn::Vec<D> value, float most) {
  if constexpr (std::is_floating_point_v<Sample>) return value;
  return hn::Add(hn::Min(hn::Max(value, hn::Zero(d)), hn::Set(d, most)), hn::Set(d, 0.5f));
}

// The four columns of every place added up, the outer ones and the inner ones first; as
// sample_of().
template <std::size_t kColors, class Sample>
HWY_INLINE void add_columns(const float* columns, const Places& places, std::size_t n, float most,
                            std::size_t out_channels, Sample* out) {
  const hn::CappedTag<float, 4> d;
  std::array<float, 4> pixel;
  for (std::size_t i = 0; i < n; ++i, columns += kColumns<kColors>, out += out_channels) {
    for (std::size_t c = 0; c < kColors; c += hn::Lanes(d)) {
      hn::Vec<decltype(d)> parts[4];
      for (std::size_t k = 0; k < 4; ++k)
        parts[k] =
            hn::Mul(hn::Set(d, places.across[k][i]), hn::LoadU(d, columns + k * kColors + c));
      const auto sum = hn::Add(hn::Add(parts[0], parts[3]), hn::Add(parts[1], parts[2]));
      hn::StoreU(rounded<Sample>(d, sum, most), d, pixel.data() + c);
    }
    for (std::size_t c = 0; c < kColors; ++c) out[c] = static_cast<Sample>(pixel[c]);
  }
}

template <class Sample, std::size_t kColors>
void line_of(const Sample* old, std::size_t width, const PictureLine& line, std::size_t first,
             std::size_t n, float most, std::size_t out_channels, Sample* out) {
  Places places;
  // Of the last place a few more are read.
  std::array<float, (Places::kMost + 1) * kColumns<kColors>> columns{};
  for (std::size_t done = 0; done < n; done += Places::kMost) {
    const std::size_t size = std::min(Places::kMost, n - done);
    places.find(line, first + done, size);
    add_rows<kColors>(old, width, places, size, columns.data());
    add_columns<kColors>(columns.data(), places, size, most, out_channels,
                         out + done * out_channels);
  }
}

void line_of_any(const std::byte* old, const RasterShape& shape, const PictureLine& line,
                 std::size_t first, std::size_t n, float most, std::size_t out_channels,
                 std::byte* out) {
  with_sample(shape.sample, [&]<class Sample>(Sample) HWY_ATTR {
    const auto* from = reinterpret_cast<const Sample*>(old);
    auto* to = reinterpret_cast<Sample*>(out);
    if (shape.channels == 1) {
      line_of<Sample, 1>(from, shape.width, line, first, n, most, out_channels, to);
    } else {
      line_of<Sample, 3>(from, shape.width, line, first, n, most, out_channels, to);
    }
  });
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
