#include "core/pixel/interleave.h"

#include <algorithm>
#include <cmath>
#include <cstring>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/pixel/interleave.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

template <class D, class V8>
HWY_INLINE auto to_value(D d, V8 codes, float factor, float offset) {
  const hn::RebindToSigned<D> di;
  const auto number = hn::ConvertTo(d, hn::PromoteTo(di, codes));
  return hn::Add(hn::Mul(number, hn::Set(d, factor)), hn::Set(d, offset));
}

// Whole vectors only; returns how many pixels are done.
std::size_t read_rgb8(const std::uint8_t* stored, std::uint32_t channels,
                      const std::array<SampleScale, 3>& scale, const Planes& planes,
                      std::size_t n) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  const std::size_t lanes = hn::Lanes(d);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes) {
    hn::Vec<decltype(d8)> code[4];
    if (channels == 3) {
      hn::LoadInterleaved3(d8, stored + i * 3, code[0], code[1], code[2]);
    } else {
      hn::LoadInterleaved4(d8, stored + i * 4, code[0], code[1], code[2], code[3]);
    }
    for (std::size_t c = 0; c < 3; ++c) {
      const auto value = to_value(d, code[c], static_cast<float>(scale[c].factor),
                                  static_cast<float>(scale[c].offset));
      hn::StoreU(value, d, planes[c] + i);
    }
  }
  return i;
}

// Clipped, then rounded half up, as write_codes does.
template <class D>
HWY_INLINE auto to_code(D d, const float* plane, float factor, float offset, float full) {
  const hn::RebindToSigned<D> di;
  const auto value = hn::LoadU(d, plane);
  auto code = hn::Mul(hn::Sub(value, hn::Set(d, offset)), hn::Set(d, factor));
  code = hn::IfThenElseZero(hn::Eq(code, code), code);
  code = hn::Min(hn::Max(code, hn::Zero(d)), hn::Set(d, full));
  return hn::ConvertTo(di, hn::Add(code, hn::Set(d, 0.5f)));
}

std::size_t write_rgb8(const ConstPlanes& planes, std::size_t n,
                       const std::array<SampleScale, 3>& scale, std::uint8_t* stored) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  const std::size_t lanes = hn::Lanes(d);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes) {
    hn::Vec<decltype(d8)> code[3];
    for (std::size_t c = 0; c < 3; ++c)
      code[c] =
          hn::DemoteTo(d8, to_code(d, planes[c] + i, static_cast<float>(1.0 / scale[c].factor),
                                   static_cast<float>(scale[c].offset), 255.0f));
    hn::StoreInterleaved3(code[0], code[1], code[2], d8, stored + i * 3);
  }
  return i;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(read_rgb8);
HWY_EXPORT(write_rgb8);

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

void write_floats(const float* plane, std::size_t n, std::uint32_t channels, std::uint32_t channel,
                  SampleScale scale, std::byte* stored) {
  float* samples = reinterpret_cast<float*>(stored) + channel;
  const float factor = static_cast<float>(1.0 / scale.factor);
  const float offset = static_cast<float>(scale.offset);
  for (std::size_t i = 0; i < n; ++i) {
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
      return write_floats(plane, n, channels, channel, scale, stored);
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
  if (sample == SampleType::kU8 && (channels == 3 || channels == 4))
    done = HWY_DYNAMIC_DISPATCH(read_rgb8)(reinterpret_cast<const std::uint8_t*>(stored), channels,
                                           scale, planes, n);
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
  if (sample == SampleType::kU8 && channels == 3)
    done =
        HWY_DYNAMIC_DISPATCH(write_rgb8)(planes, n, scale, reinterpret_cast<std::uint8_t*>(stored));
  for (std::uint32_t c = 0; c < 3; ++c)
    write_from(planes[c], done, n, channels, sample, c, scale[c], stored);
}

}  // namespace chalcedony
#endif
