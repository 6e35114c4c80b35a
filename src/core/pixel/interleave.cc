#include "core/pixel/interleave.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <functional>
#include <limits>
#include <type_traits>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/pixel/interleave.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#ifndef CHALCEDONY_CORE_PIXEL_INTERLEAVE_CC_
#define CHALCEDONY_CORE_PIXEL_INTERLEAVE_CC_
namespace chalcedony {
// Added to a code before it is cut off, which rounds half up. A byte and its fraction have a place
// of their own in the bits of a float when 256 is added as well; what is less than 2^-16 below the
// half goes up with it.
constexpr float kHalf = 0.5f, kByteHalf = 256.5f;
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// value = number * factor + offset; `kSame` where both are the same, as in 8-bit RGB. Worked out
// once: what is written might alias the scales.
template <bool kSame, class D>
class Scaled {
 public:
  using V = hn::Vec<D>;
  Scaled(D d, const SampleScale& scale)
      : factor_(hn::Set(d, static_cast<float>(scale.factor))),
        offset_(hn::Set(d, static_cast<float>(scale.offset))),
        inverse_(hn::Set(d, static_cast<float>(1.0 / scale.factor))) {}

  HWY_INLINE V value(V number) const {
    return kSame ? number : hn::Add(hn::Mul(number, factor_), offset_);
  }
  HWY_INLINE V number(V value) const {
    return kSame ? value : hn::Mul(hn::Sub(value, offset_), inverse_);
  }

 private:
  V factor_, offset_, inverse_;
};

bool all_same(const std::array<SampleScale, 3>& scale) {
  return std::all_of(scale.begin(), scale.end(), [](const SampleScale& one) {
    return std::equal_to<>()(one.factor, 1.0) && std::equal_to<>()(one.offset, 0.0);
  });
}

template <class Sample, class D, class V>
HWY_INLINE auto to_number(D d, V samples) {
  if constexpr (std::is_same_v<Sample, float>) {
    return samples;
  } else {
    return hn::ConvertTo(d, hn::PromoteTo(hn::RebindToSigned<D>(), samples));
  }
}

// Whole vectors only; returns how many pixels are done.
template <class Sample>
HWY_INLINE std::size_t read_rgb(const std::byte* stored, std::uint32_t channels,
                                const std::array<SampleScale, 3>& scale, const Planes& planes,
                                std::size_t n) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const hn::Rebind<Sample, D> ds;
  const std::size_t lanes = hn::Lanes(d);
  const Scaled<false, D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  const auto* samples = reinterpret_cast<const Sample*>(stored);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes, samples += lanes * channels) {
    hn::Vec<decltype(ds)> sample[4];
    if (channels == 3) {
      hn::LoadInterleaved3(ds, samples, sample[0], sample[1], sample[2]);
    } else {
      hn::LoadInterleaved4(ds, samples, sample[0], sample[1], sample[2], sample[3]);
    }
    for (std::size_t c = 0; c < 3; ++c)
      hn::StoreU(scales[c].value(to_number<Sample>(d, sample[c])), d, planes[c] + i);
  }
  return i;
}

#if HWY_TARGET != HWY_SCALAR
// The same for 8-bit samples: the pixels of a vector are moved apart, so that four begin with each
// 16 bytes, and each sample into a word of its own.
template <std::uint32_t kChannels, bool kSame>
HWY_INLINE std::size_t read_rgb_bytes(const std::byte* stored,
                                      const std::array<SampleScale, 3>& scale, const Planes& planes,
                                      std::size_t n) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const hn::RebindToSigned<D> di;
  const hn::Repartition<std::uint8_t, D> d8;
  const std::size_t lanes = hn::Lanes(d);
  const Scaled<kSame, D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  std::int32_t place[kPlanePadding] = {};
  for (std::size_t i = 0; i < lanes; ++i)
    place[i] = static_cast<std::int32_t>(i / 4 * kChannels + i % 4 % kChannels);
  const auto words = hn::SetTableIndices(di, place);
  alignas(16) std::uint8_t from[3][16];
  for (std::uint32_t c = 0; c < 3; ++c)
    for (std::uint32_t i = 0; i < 16; ++i)
      from[c][i] = static_cast<std::uint8_t>(i % 4 == 0 ? i / 4 * kChannels + c : 128);
  const auto reds = hn::LoadDup128(d8, from[0]), greens = hn::LoadDup128(d8, from[1]),
             blues = hn::LoadDup128(d8, from[2]);
  const auto read = [&](const std::uint8_t* samples, std::size_t i) {
    const auto together = hn::BitCast(di, hn::LoadU(d8, samples));
    const auto apart =
        hn::BitCast(d8, kChannels == 4 ? together : hn::TableLookupLanes(together, words));
    const auto store = [&](std::size_t c, auto bytes) {
      const auto sample = hn::BitCast(di, hn::TableLookupBytesOr0(apart, bytes));
      hn::StoreU(scales[c].value(hn::ConvertTo(d, sample)), d, planes[c] + i);
    };
    store(0, reds);
    store(1, greens);
    store(2, blues);
  };
  const auto* samples = reinterpret_cast<const std::uint8_t*>(stored);
  std::size_t i = 0;
  for (; kChannels * (n - i) >= 4 * lanes; i += lanes) read(samples + kChannels * i, i);
  // A vector would reach beyond the last ones.
  for (; i + lanes <= n; i += lanes) {
    std::uint8_t last[4 * kPlanePadding] = {};
    std::memcpy(last, samples + kChannels * i, kChannels * lanes);
    read(last, i);
  }
  return i;
}
#endif

// Clipped to 0 to `full`; 0 for what is not a number.
template <class D>
HWY_INLINE hn::Vec<D> clipped(D d, hn::Vec<D> number, float full) {
  // Of what is not a number the second is taken.
  return hn::Min(hn::Max(number, hn::Zero(d)), hn::Set(d, full));
}

template <class Sample, class D>
HWY_INLINE auto to_sample(D d, hn::Vec<D> number) {
  if constexpr (std::is_same_v<Sample, float>) {
    return hn::IfThenElseZero(hn::Eq(number, number), number);
  } else {
    const auto code = clipped(d, number, static_cast<float>(hwy::LimitsMax<Sample>()));
    const auto whole = hn::ConvertTo(hn::RebindToSigned<D>(), hn::Add(code, hn::Set(d, kHalf)));
    return hn::DemoteTo(hn::Rebind<Sample, D>(), whole);
  }
}

template <class Sample>
HWY_INLINE std::size_t write_rgb(const ConstPlanes& planes, std::size_t n,
                                 const std::array<SampleScale, 3>& scale, std::byte* stored) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const hn::Rebind<Sample, D> ds;
  const std::size_t lanes = hn::Lanes(d);
  const Scaled<false, D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  const float *const r = planes[0], *const g = planes[1], *const b = planes[2];
  auto* samples = reinterpret_cast<Sample*>(stored);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes, samples += 3 * lanes)
    hn::StoreInterleaved3(to_sample<Sample>(d, scales[0].number(hn::LoadU(d, r + i))),
                          to_sample<Sample>(d, scales[1].number(hn::LoadU(d, g + i))),
                          to_sample<Sample>(d, scales[2].number(hn::LoadU(d, b + i))), ds, samples);
  return i;
}

// The same, with a byte rounded as it is everywhere.
template <class Sample, class D>
HWY_INLINE auto rounded_sample(D d, hn::Vec<D> number) {
  if constexpr (sizeof(Sample) == 1) {
    const hn::RebindToSigned<D> di;
    const auto code = hn::Add(clipped(d, number, 255.0f), hn::Set(d, kByteHalf));
    const auto byte = hn::And(hn::ShiftRight<15>(hn::BitCast(di, code)), hn::Set(di, 0xff));
    return hn::DemoteTo(hn::Rebind<Sample, D>(), byte);
  } else {
    return to_sample<Sample>(d, number);
  }
}

// The only channel of pixels.
template <class Sample>
HWY_INLINE std::size_t write_only(const float* plane, std::size_t n, const SampleScale& scale,
                                  std::byte* stored) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const Scaled<false, D> scaled(d, scale);
  auto* samples = reinterpret_cast<Sample*>(stored);
  std::size_t i = 0;
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d))
    hn::StoreU(rounded_sample<Sample>(d, scaled.number(hn::LoadU(d, plane + i))),
               hn::Rebind<Sample, D>(), samples + i);
  return i;
}

// Three channels beside a fourth, which stays as it is.
template <class Sample>
HWY_INLINE std::size_t write_three_of_four(const ConstPlanes& planes, std::size_t n,
                                           const std::array<SampleScale, 3>& scale,
                                           std::byte* stored) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const hn::Rebind<Sample, D> ds;
  const std::size_t lanes = hn::Lanes(d);
  const Scaled<false, D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  const float *const r = planes[0], *const g = planes[1], *const b = planes[2];
  auto* samples = reinterpret_cast<Sample*>(stored);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes, samples += 4 * lanes) {
    hn::Vec<decltype(ds)> red, green, blue, fourth;
    hn::LoadInterleaved4(ds, samples, red, green, blue, fourth);
    red = rounded_sample<Sample>(d, scales[0].number(hn::LoadU(d, r + i)));
    green = rounded_sample<Sample>(d, scales[1].number(hn::LoadU(d, g + i)));
    blue = rounded_sample<Sample>(d, scales[2].number(hn::LoadU(d, b + i)));
    hn::StoreInterleaved4(red, green, blue, fourth, ds, samples);
  }
  return i;
}

#if HWY_TARGET != HWY_SCALAR
// The three of three 8-bit samples. With kByteHalf added, the code stands above 15 bits of
// fraction; the three of a pixel are put into one word, whose lowest bytes are then moved together.
template <bool kSame>
HWY_INLINE std::size_t write_rgb_bytes(const ConstPlanes& planes, std::size_t n,
                                       const std::array<SampleScale, 3>& scale, std::byte* stored) {
  using D = hn::CappedTag<float, kPlanePadding>;
  const D d;
  const hn::RebindToSigned<D> di;
  const hn::Repartition<std::uint8_t, D> d8;
  const std::size_t lanes = hn::Lanes(d);
  const Scaled<kSame, D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  const float *const r = planes[0], *const g = planes[1], *const b = planes[2];
  // Three bytes of four in each 16, then three words of four in all.
  alignas(16) constexpr std::uint8_t kBytes[16] = {0,  1,  2,  4,  5,   6,   8,   9,
                                                   10, 12, 13, 14, 128, 128, 128, 128};
  const auto bytes = hn::LoadDup128(d8, kBytes);
  std::int32_t place[kPlanePadding] = {};
  for (std::size_t i = 0; i < 3 * lanes / 4; ++i) place[i] = static_cast<std::int32_t>(i + i / 3);
  const auto words = hn::SetTableIndices(di, place);
  const auto bits = [&](const float* plane, const Scaled<kSame, D>& scaled) {
    const auto code = clipped(d, scaled.number(hn::LoadU(d, plane)), 255.0f);
    return hn::BitCast(di, hn::Add(code, hn::Set(d, kByteHalf)));
  };
  const auto write = [&](std::size_t i, std::uint8_t* samples) {
    const auto red = hn::ShiftRight<15>(bits(r + i, scales[0]));
    const auto green = hn::ShiftRight<7>(bits(g + i, scales[1]));
    const auto blue = hn::ShiftLeft<1>(bits(b + i, scales[2]));
    const auto two = hn::OrAnd(hn::And(red, hn::Set(di, 0xff)), green, hn::Set(di, 0xff00));
    const auto apart = hn::BitCast(d8, hn::OrAnd(two, blue, hn::Set(di, 0xff0000)));
    const auto together = hn::BitCast(di, hn::TableLookupBytesOr0(apart, bytes));
    hn::StoreU(hn::BitCast(d8, hn::TableLookupLanes(together, words)), d8, samples);
  };
  auto* samples = reinterpret_cast<std::uint8_t*>(stored);
  std::size_t i = 0;
  for (; 3 * (n - i) >= 4 * lanes; i += lanes) write(i, samples + 3 * i);
  // A vector would reach beyond the last ones.
  for (; i + lanes <= n; i += lanes) {
    std::uint8_t last[4 * kPlanePadding];
    write(i, last);
    std::memcpy(samples + 3 * i, last, 3 * lanes);
  }
  return i;
}
#endif

std::size_t read_color(const std::byte* stored, std::uint32_t channels, SampleType sample,
                       const std::array<SampleScale, 3>& scale, const Planes& planes,
                       std::size_t n) {
  switch (sample) {
    case SampleType::kU8:
#if HWY_TARGET == HWY_SCALAR
      return 0;
#else
      if (channels == 4) return read_rgb_bytes<4, false>(stored, scale, planes, n);
      return all_same(scale) ? read_rgb_bytes<3, true>(stored, scale, planes, n)
                             : read_rgb_bytes<3, false>(stored, scale, planes, n);
#endif
    case SampleType::kU16:
      return read_rgb<std::uint16_t>(stored, channels, scale, planes, n);
    default:
      return read_rgb<float>(stored, channels, scale, planes, n);
  }
}

std::size_t write_gray(const float* plane, std::size_t n, SampleType sample,
                       const SampleScale& scale, std::byte* stored) {
  return with_sample(sample, [&]<class Sample>(Sample)
                                 HWY_ATTR { return write_only<Sample>(plane, n, scale, stored); });
}

std::size_t write_color_of_four(const ConstPlanes& planes, std::size_t n, SampleType sample,
                                const std::array<SampleScale, 3>& scale, std::byte* stored) {
  return with_sample(sample, [&]<class Sample>(Sample) HWY_ATTR {
    return write_three_of_four<Sample>(planes, n, scale, stored);
  });
}

std::size_t write_color(const ConstPlanes& planes, std::size_t n, SampleType sample,
                        const std::array<SampleScale, 3>& scale, std::byte* stored) {
  switch (sample) {
    case SampleType::kU8:
#if HWY_TARGET == HWY_SCALAR
      return 0;
#else
      return all_same(scale) ? write_rgb_bytes<true>(planes, n, scale, stored)
                             : write_rgb_bytes<false>(planes, n, scale, stored);
#endif
    case SampleType::kU16:
      return write_rgb<std::uint16_t>(planes, n, scale, stored);
    default:
      return write_rgb<float>(planes, n, scale, stored);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(read_color);
HWY_EXPORT(write_color);
HWY_EXPORT(write_color_of_four);
HWY_EXPORT(write_gray);

template <class Sample>
void read_strided(const std::byte* stored, std::uint32_t channels, std::uint32_t channel,
                  SampleScale scale, float* plane, std::size_t first, std::size_t n) {
  const Sample* samples = reinterpret_cast<const Sample*>(stored) + channel;
  const float factor = static_cast<float>(scale.factor), offset = static_cast<float>(scale.offset);
  const auto read = [&](std::uint32_t step) {
    for (std::size_t i = first; i < n; ++i)
      plane[i] = static_cast<float>(samples[i * step]) * factor + offset;
  };
  // Compilers make vectors of samples that lie side by side.
  channels == 1 ? read(1) : read(channels);
}

template <class Sample>
void write_codes(const float* plane, std::size_t first, std::size_t n, std::uint32_t channels,
                 std::uint32_t channel, SampleScale scale, std::byte* stored) {
  constexpr bool kByte = sizeof(Sample) == 1;
  constexpr float kFull = std::numeric_limits<Sample>::max(), kAdded = kByte ? kByteHalf : kHalf;
  Sample* samples = reinterpret_cast<Sample*>(stored) + channel;
  const float factor = static_cast<float>(1.0 / scale.factor);
  const float offset = static_cast<float>(scale.offset);
  for (std::size_t i = first; i < n; ++i) {
    float code = (plane[i] - offset) * factor;
    code = code == code ? std::min(std::max(code, 0.0f), kFull) : 0.0f;
    samples[i * channels] = static_cast<Sample>(static_cast<std::int32_t>(code + kAdded));
  }
}

void write_floats(const float* plane, std::size_t first, std::size_t n, std::uint32_t channels,
                  std::uint32_t channel, SampleScale scale, std::byte* stored) {
  float* samples = reinterpret_cast<float*>(stored) + channel;
  const float factor = static_cast<float>(1.0 / scale.factor);
  const float offset = static_cast<float>(scale.offset);
  for (std::size_t i = first; i < n; ++i) {
    const float value = (plane[i] - offset) * factor;
    samples[i * channels] = value == value ? value : 0.0f;
  }
}

void read_from(const std::byte* stored, std::uint32_t channels, SampleType sample,
               std::uint32_t channel, SampleScale scale, float* plane, std::size_t first,
               std::size_t n) {
  with_sample(sample, [&]<class Sample>(Sample) {
    read_strided<Sample>(stored, channels, channel, scale, plane, first, n);
  });
}

void write_from(const float* plane, std::size_t first, std::size_t n, std::uint32_t channels,
                SampleType sample, std::uint32_t channel, SampleScale scale, std::byte* stored) {
  with_sample(sample, [&]<class Sample>(Sample) {
    if constexpr (std::is_same_v<Sample, float>) {
      write_floats(plane, first, n, channels, channel, scale, stored);
    } else {
      write_codes<Sample>(plane, first, n, channels, channel, scale, stored);
    }
  });
}

}  // namespace

void read_plane(const std::byte* stored, std::uint32_t channels, SampleType sample,
                std::uint32_t channel, SampleScale scale, float* plane, std::size_t n) {
  read_from(stored, channels, sample, channel, scale, plane, 0, n);
}

void read_planes(const std::byte* stored, std::uint32_t channels, SampleType sample,
                 const std::array<SampleScale, 3>& scale, const Planes& planes, std::size_t n) {
  std::size_t done = 0;
  if (channels == 3 || channels == 4)
    done = HWY_DYNAMIC_DISPATCH(read_color)(stored, channels, sample, scale, planes, n);
  for (std::uint32_t c = 0; c < 3; ++c)
    read_from(stored, channels, sample, c, scale[c], planes[c], done, n);
}

void write_plane(const float* plane, std::size_t n, std::uint32_t channels, SampleType sample,
                 std::uint32_t channel, SampleScale scale, std::byte* stored) {
  std::size_t done = 0;
  if (channels == 1) done = HWY_DYNAMIC_DISPATCH(write_gray)(plane, n, sample, scale, stored);
  write_from(plane, done, n, channels, sample, channel, scale, stored);
}

void write_planes(const ConstPlanes& planes, std::size_t n, std::uint32_t channels,
                  SampleType sample, const std::array<SampleScale, 3>& scale, std::byte* stored) {
  std::size_t done = 0;
  if (channels == 3) done = HWY_DYNAMIC_DISPATCH(write_color)(planes, n, sample, scale, stored);
  if (channels == 4)
    done = HWY_DYNAMIC_DISPATCH(write_color_of_four)(planes, n, sample, scale, stored);
  for (std::uint32_t c = 0; c < 3; ++c)
    write_from(planes[c], done, n, channels, sample, c, scale[c], stored);
}

}  // namespace chalcedony
#endif
