#include "core/pixel/color_table.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <bit>
#include <limits>
#include <numeric>
#include <span>
#include <utility>

#include "core/pixel/byte_word.h"
#include "core/planes.h"

namespace chalcedony {
namespace {

constexpr std::size_t kNumberedAtOnce = 256;
constexpr std::size_t kLine = 64;   // counters passed over together, where most are 0
constexpr std::size_t kParts = 64;  // of the colors, for several threads
constexpr std::size_t kPart = kColorNumbers / kParts;
static_assert(kPart % kLine == 0);

/// Calls use(first, numbers) for the colors of n stored pixels, some pixels at a time.
template <class Use>
void for_color_numbers(const std::byte* stored, std::uint32_t channels, std::size_t n, Use use) {
  std::array<std::uint32_t, kNumberedAtOnce> numbers;
  for (std::size_t first = 0; first < n; first += kNumberedAtOnce) {
    const std::size_t size = std::min(kNumberedAtOnce, n - first);
    color_numbers(stored + first * channels, channels, size, numbers.data());
    use(first, std::span<const std::uint32_t>(numbers.data(), size));
  }
}

/// Whether kLine bytes are all 0.
bool all_zero(const std::uint8_t* bytes) {
  std::uint64_t any = 0;
  for (std::size_t i = 0; i < kLine; i += kWordBytes) any |= word_at(bytes + i);
  return any == 0;
}

template <class Often>
bool comes_before_color(const Often& often, std::size_t color) {
  return often.color < color;
}

}  // namespace

bool ColorCounter::fits(const PictureInfo& info) {
  return info.shape.sample == SampleType::kU8 && !info.bands &&
         (info.color_channels() == 3 || info.color_channels() == 1) &&
         info.alpha != AlphaKind::kPremultiplied &&
         info.shape.pixels() <= std::numeric_limits<std::uint32_t>::max();
}

ColorCounter::ColorCounter() : counters_(kColorNumbers) {}

void ColorCounter::add_stored(const std::byte* stored, std::uint32_t channels, std::size_t n) {
  for_color_numbers(stored, channels, n,
                    [&](std::size_t, std::span<const std::uint32_t> numbers) { add(numbers); });
}

void ColorCounter::add(std::span<const std::uint32_t> numbers) {
  before_parts_.clear();
  // A pointer of its own: for all the compiler knows, a byte that is written might be part of it.
  std::uint8_t* const counters = counters_.data();
  for (const std::uint32_t color : numbers)
    if (const std::uint8_t pixels = ++counters[color]; pixels <= 1) [[unlikely]]
      note(color, pixels);
}

void ColorCounter::note(std::uint32_t color, std::uint8_t pixels) {
  in_use_[color / kGroup] = true;
  if (pixels != 0) return;
  full_.push_back(color);
  if (full_.size() == kMostFull) settle();
}

/// Calls use(first, used) for every eight colors of which some pixel may have one: the top bit of
/// each byte in `used` says which.
template <class Use>
void ColorCounter::for_each_eight(std::size_t begin, std::size_t end, Use use) const {
  static_assert(kGroup % kLine == 0);
  auto often = std::lower_bound(often_.begin(), often_.end(), begin, comes_before_color<Often>);
  for (std::size_t line = begin; line < end; line += kLine) {
    if (!in_use_[line / kGroup]) continue;
    // A counter that was full may hold 0 once more.
    const bool some_often = often != often_.end() && often->color < line + kLine;
    if (!some_often && all_zero(counters_.data() + line)) continue;
    for (std::size_t first = line; first < line + kLine; first += kWordBytes) {
      std::uint64_t used = used_bytes(word_at(counters_.data() + first));
      for (; often != often_.end() && often->color < first + kWordBytes; ++often)
        used |= std::uint64_t{0x80} << 8 * (often->color - first);
      use(first, used);
    }
  }
}

template <class Use>
void ColorCounter::for_each_color(std::size_t begin, std::size_t end, Use use) const {
  auto often = std::lower_bound(often_.begin(), often_.end(), begin, comes_before_color<Often>);
  for_each_eight(begin, end, [&](std::size_t first, std::uint64_t used) {
    for (; used != 0; used &= used - 1) {
      const std::size_t color = first + static_cast<std::size_t>(std::countr_zero(used)) / 8;
      std::uint32_t pixels = counters_[color];
      if (often != often_.end() && often->color == color) pixels += 256 * often++->times;
      use(color, pixels);
    }
  });
}

void ColorCounter::settle() {
  std::sort(full_.begin(), full_.end());
  std::vector<Often> more;
  for (auto first = full_.begin(); first != full_.end();) {
    const auto end = std::upper_bound(first, full_.end(), *first);
    more.push_back({*first, static_cast<std::uint32_t>(end - first)});
    first = end;
  }
  full_.clear();
  add_often(more);
}

void ColorCounter::add_often(const std::vector<Often>& more) {
  std::vector<Often> all;
  all.reserve(often_.size() + more.size());
  auto old = often_.begin();
  for (Often one : more) {
    for (; old != often_.end() && old->color < one.color; ++old) all.push_back(*old);
    if (old != often_.end() && old->color == one.color) one.times += old++->times;
    all.push_back(one);
  }
  all.insert(all.end(), old, often_.end());
  often_ = std::move(all);
}

void ColorCounter::add(ColorCounter&& other) {
  other.settle();
  before_parts_.clear();
  std::vector<std::vector<std::uint32_t>> full(kParts);
  tbb::parallel_for(std::size_t{0}, kParts, [&](std::size_t part) {
    add_counters(other, part * kPart, (part + 1) * kPart, full[part]);
  });
  for (const auto& of_part : full) full_.insert(full_.end(), of_part.begin(), of_part.end());
  settle();
  add_often(other.often_);
}

void ColorCounter::add_counters(const ColorCounter& other, std::size_t begin, std::size_t end,
                                std::vector<std::uint32_t>& full) {
  for (std::size_t line = begin; line < end; line += kLine) {
    if (!other.in_use_[line / kGroup]) continue;
    in_use_[line / kGroup] = true;
    if (all_zero(other.counters_.data() + line)) continue;
    for (std::size_t color = line; color < line + kLine; ++color) {
      const int pixels = counters_[color] + other.counters_[color];
      if (pixels > 0xff) full.push_back(static_cast<std::uint32_t>(color));
      counters_[color] = static_cast<std::uint8_t>(pixels);
    }
  }
}

void ColorCounter::count_colors() {
  settle();
  if (!before_parts_.empty()) return;
  before_parts_.resize(kParts + 1);
  tbb::parallel_for(std::size_t{0}, kParts, [&](std::size_t part) {
    std::size_t colors = 0;
    for_each_eight(part * kPart, (part + 1) * kPart,
                   [&](std::size_t, std::uint64_t used) { colors += count_top_bits(used); });
    before_parts_[part + 1] = colors;
  });
  std::partial_sum(before_parts_.begin(), before_parts_.end(), before_parts_.begin());
}

std::size_t ColorCounter::colors() {
  count_colors();
  return before_parts_.back();
}

void ColorCounter::for_each_piece(const std::function<void(const ColorPiece&)>& use) {
  count_colors();
  tbb::parallel_for(std::size_t{0}, kParts, [&](std::size_t part) {
    std::array<std::byte, 3 * kBlockPixels> rgb;
    std::array<std::uint32_t, kBlockPixels> pixels;
    ColorPiece piece{before_parts_[part], 0, rgb.data(), pixels.data()};
    for_each_color(part * kPart, (part + 1) * kPart, [&](std::size_t color, std::uint32_t of_it) {
      const auto codes = color_of_number(static_cast<std::uint32_t>(color));
      std::copy(codes.begin(), codes.end(), &rgb[3 * piece.size]);
      pixels[piece.size++] = of_it;
      if (piece.size < kBlockPixels) return;
      use(piece);
      piece.first += piece.size;
      piece.size = 0;
    });
    if (piece.size > 0) use(piece);
  });
}

ColorTable ColorCounter::table() {
  ColorTable table;
  table.colors = colors();
  const std::size_t rows = (table.colors + kBlockPixels - 1) / kBlockPixels;
  table.counts.resize(rows * kBlockPixels);
  std::fill(table.counts.begin() + static_cast<std::ptrdiff_t>(table.colors), table.counts.end(),
            0u);
  table.rgb.resize(3 * rows * kBlockPixels);
  table.shape = {static_cast<std::uint32_t>(kBlockPixels), static_cast<std::uint32_t>(rows), 3,
                 SampleType::kU8};
  for_each_piece([&](const ColorPiece& piece) {
    std::copy_n(piece.pixels, piece.size, table.counts.data() + piece.first);
    std::copy_n(piece.rgb, 3 * piece.size, table.rgb.data() + 3 * piece.first);
  });
  return table;
}

template <class Number>
ZeroedArray<Number> ColorLookup<Number>::numbered(ColorCounter counted,
                                                  std::span<const Number> numbers) {
  counted.count_colors();
  const std::vector<std::size_t>& before = counted.before_parts_;
  const auto fill = [&](ZeroedArray<Number>& found) {
    tbb::parallel_for(std::size_t{0}, kParts, [&](std::size_t part) {
      const Number* next = numbers.data() + before[part];
      counted.for_each_color(part * kPart, (part + 1) * kPart,
                             [&](std::size_t color, std::uint32_t) { found[color] = *next++; });
    });
  };
  if constexpr (std::is_same_v<Number, std::uint8_t>) {
    // A counter is read before its number takes its place.
    fill(counted.counters_);
    return std::move(counted.counters_);
  } else {
    ZeroedArray<Number> found(kColorNumbers);
    fill(found);
    return found;
  }
}

template <class Number>
ColorLookup<Number>::ColorLookup(ColorCounter&& counter, std::span<const Number> numbers)
    : numbers_(numbered(std::move(counter), numbers)) {}

template <class Number>
void ColorLookup<Number>::find(const std::byte* stored, std::uint32_t channels, std::size_t n,
                               Number* found) const {
  const Number* const table = numbers_.data();
  for_color_numbers(stored, channels, n,
                    [&](std::size_t first, std::span<const std::uint32_t> colors) {
                      Number* const to = found + first;
                      for (std::size_t i = 0; i < colors.size(); ++i) to[i] = table[colors[i]];
                    });
}

template class ColorLookup<std::uint8_t>;
template class ColorLookup<std::uint32_t>;

}  // namespace chalcedony
