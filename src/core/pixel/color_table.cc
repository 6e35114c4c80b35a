#include "core/pixel/color_table.h"

#include <sys/mman.h>

#include <algorithm>
#include <limits>
#include <new>

#include "core/pixel/planes.h"

namespace chalcedony {
namespace {

constexpr std::size_t kAhead = 64;
constexpr std::size_t kColors = std::size_t{1} << 24;
constexpr std::size_t kBytes = kColors * sizeof(std::uint32_t);

/// The four bits of r, g and b that twelve packed bits hold.
constexpr auto kUnpacked = [] {
  std::array<std::array<std::uint8_t, 3>, 4096> unpacked{};
  for (std::size_t packed = 0; packed < unpacked.size(); ++packed)
    for (std::size_t bit = 0; bit < 12; ++bit)
      unpacked[packed][2 - bit % 3] = static_cast<std::uint8_t>(unpacked[packed][2 - bit % 3] |
                                                                (packed >> bit & 1) << (bit / 3));
  return unpacked;
}();

}  // namespace

bool ColorCounter::fits(const PictureInfo& info) {
  return info.shape.sample == SampleType::kU8 &&
         (info.color_channels() == 3 || info.color_channels() == 1) &&
         info.alpha != AlphaKind::kPremultiplied &&
         info.shape.pixels() <= std::numeric_limits<std::uint32_t>::max();
}

void ColorCounter::Release::operator()(std::uint32_t* counters) const {
  ::munmap(counters, kBytes);
}

// The system makes a page of zeros only when it is touched, and large pages where it can, which
// spares most of the time of finding them.
ColorCounter::ColorCounter() {
  void* memory =
      ::mmap(nullptr, kBytes, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
  if (memory == MAP_FAILED) throw std::bad_alloc();
  counters_.reset(static_cast<std::uint32_t*>(memory));
  ::madvise(memory, kBytes, MADV_HUGEPAGE);
}

void ColorCounter::add_stored(const std::byte* stored, std::uint32_t channels, std::size_t n) {
  // Counters are fetched some pixels ahead; they lie all over the memory.
  std::array<std::uint32_t, kAhead> packed;
  for (std::size_t done = 0; done < n; done += kAhead) {
    const std::size_t size = std::min(kAhead, n - done);
    for (std::size_t i = 0; i < size; ++i, stored += channels) {
      packed[i] = pack(stored, channels);
      __builtin_prefetch(counters_.get() + packed[i], 1);
    }
    for (std::size_t i = 0; i < size; ++i) ++counters_[packed[i]];
  }
}

ColorPlaces::ColorPlaces(ColorCounter&& counter) : counter_(std::move(counter)) {
  std::uint32_t place = 0;
  for (std::size_t color = 0; color < kColors; ++color)
    if (counter_.counters_[color] != 0) counter_.counters_[color] = place++;
}

void ColorPlaces::find(const std::byte* stored, std::uint32_t channels, std::size_t n,
                       std::uint32_t* places) const {
  const std::uint32_t* const of_color = counter_.counters_.get();
  for (std::size_t i = 0; i < n; ++i, stored += channels)
    places[i] = of_color[ColorCounter::pack(stored, channels)];
}

void ColorCounter::add(std::span<const std::uint32_t> packed) {
  for (const std::uint32_t color : packed) ++counters_[color];
}

ColorTable ColorCounter::table() const {
  ColorTable table;
  for (std::size_t color = 0; color < kColors; ++color) {
    const std::uint32_t count = counters_[color];
    if (count == 0) continue;
    table.counts.push_back(count);
    const auto &high = kUnpacked[color >> 12], &low = kUnpacked[color & 4095];
    for (std::size_t c = 0; c < 3; ++c)
      table.rgb.push_back(static_cast<std::byte>(high[c] << 4 | low[c]));
  }
  table.colors = table.counts.size();
  const std::size_t rows = (table.counts.size() + kBlockPixels - 1) / kBlockPixels;
  table.counts.resize(rows * kBlockPixels);
  table.rgb.resize(3 * rows * kBlockPixels);
  table.shape = {static_cast<std::uint32_t>(kBlockPixels), static_cast<std::uint32_t>(rows), 3,
                 SampleType::kU8};
  return table;
}

}  // namespace chalcedony
