#include "core/pixel/interleave.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <type_traits>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/pixel/interleave.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// value = number * factor + offset. Worked out once: what is written might alias the scales.
template <class D>
struct Scaled {
  Scaled(D d, const SampleScale& scale)
      : factor(hn::Set(d, static_cast<float>(scale.factor))),
        offset(hn::Set(d, static_cast<float>(scale.offset))),
        inverse(hn::Set(d, static_cast<float>(1.0 / scale.factor))) {}
  hn::Vec<D> factor, offset, inverse;
};

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
  const Scaled<D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
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
      hn::StoreU(
          hn::Add(hn::Mul(to_number<Sample>(d, sample[c]), scales[c].factor), scales[c].offset), d,
          planes[c] + i);
  }
  return i;
}

// Codes are clipped, then rounded half up, as write_codes does.
template <class Sample, class D>
HWY_INLINE auto to_sample(D d, const float* plane, const Scaled<D>& scale) {
  auto number = hn::Mul(hn::Sub(hn::LoadU(d, plane), scale.offset), scale.inverse);
  number = hn::IfThenElseZero(hn::Eq(number, number), number);
  if constexpr (std::is_same_v<Sample, float>) {
    return number;
  } else {
    const auto full = hn::Set(d, static_cast<float>(hwy::LimitsMax<Sample>()));
    const auto code = hn::Min(hn::Max(number, hn::Zero(d)), full);
    const auto whole = hn::ConvertTo(hn::RebindToSigned<D>(), hn::Add(code, hn::Set(d, 0.5f)));
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
  const Scaled<D> scales[3] = {{d, scale[0]}, {d, scale[1]}, {d, scale[2]}};
  const float *const r = planes[0], *const g = planes[1], *const b = planes[2];
  auto* samples = reinterpret_cast<Sample*>(stored);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes, samples += 3 * lanes)
    hn::StoreInterleaved3(to_sample<Sample>(d, r + i, scales[0]),
                          to_sample<Sample>(d, g + i, scales[1]),
                          to_sample<Sample>(d, b + i, scales[2]), ds, samples);
  return i;
}

std::size_t read_color(const std::byte* stored, std::uint32_t channels, SampleType sample,
                       const std::array<SampleScale, 3>& scale, const Planes& planes,
                       std::size_t n) {
  switch (sample) {
    case SampleType::kU8:
      return read_rgb<std::uint8_t>(stored, channels, scale, planes, n);
    case SampleType::kU16:
      return read_rgb<std::uint16_t>(stored, channels, scale, planes, n);
    default:
      return read_rgb<float>(stored, channels, scale, planes, n);
  }
}

std::size_t write_color(const ConstPlanes& planes, std::size_t n, SampleType sample,
                        const std::array<SampleScale, 3>& scale, std::byte* stored) {
  switch (sample) {
    case SampleType::kU8:
      return write_rgb<std::uint8_t>(planes, n, scale, stored);
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

template <class Sample>
void read_strided(const std::byte* stored, std::uint32_t channels, std::uint32_t channel,
                  SampleScale scale, float* plane, std::size_t first, std::size_t n) {
  const Sample* samples = reinterpret_cast<const Sample*>(stored) + channel;
  const float factor = static_cast<float>(scale.factor), offset = static_cast<float>(scale.offset);
  for (std::size_t i = first; i < n; ++i)
    plane[i] = static_cast<float>(samples[i * channels]) * factor + offset;
}

template <class Sample>
void write_codes(const float* plane, std::size_t first, std::size_t n, std::uint32_t channels,
                 std::uint32_t channel, SampleScale scale, float full, std::byte* stored) {
  Sample* samples = reinterpret_cast<Sample*>(stored) + channel;
  const float factor = static_cast<float>(1.0 / scale.factor);
  const float offset = static_cast<float>(scale.offset);
  for (std::size_t i = first; i < n; ++i) {
    float code = (plane[i] - offset) * factor;
    code = code == code ? std::min(std::max(code, 0.0f), full) : 0.0f;
    samples[i * channels] = static_cast<Sample>(static_cast<std::int32_t>(code + 0.5f));
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
  switch (sample) {
    case SampleType::kU8:
      return read_strided<std::uint8_t>(stored, channels, channel, scale, plane, first, n);
    case SampleType::kU16:
      return read_strided<std::uint16_t>(stored, channels, channel, scale, plane, first, n);
    case SampleType::kF32:
      return read_strided<float>(stored, channels, channel, scale, plane, first, n);
  }
}

void write_from(const float* plane, std::size_t first, std::size_t n, std::uint32_t channels,
                SampleType sample, std::uint32_t channel, SampleScale scale, std::byte* stored) {
  switch (sample) {
    case SampleType::kU8:
      return write_codes<std::uint8_t>(plane, first, n, channels, channel, scale, 255.0f, stored);
    case SampleType::kU16:
      return write_codes<std::uint16_t>(plane, first, n, channels, channel, scale, 65535.0f,
                                        stored);
    case SampleType::kF32:
      return write_floats(plane, first, n, channels, channel, scale, stored);
  }
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
  write_from(plane, 0, n, channels, sample, channel, scale, stored);
}

void write_planes(const ConstPlanes& planes, std::size_t n, std::uint32_t channels,
                  SampleType sample, const std::array<SampleScale, 3>& scale, std::byte* stored) {
  std::size_t done = 0;
  if (channels == 3) done = HWY_DYNAMIC_DISPATCH(write_color)(planes, n, sample, scale, stored);
  for (std::uint32_t c = 0; c < 3; ++c)
    write_from(planes[c], done, n, channels, sample, c, scale[c], stored);
}

}  // namespace chalcedony
#endif
