// Filtered rows against the standard's arithmetic, byte by byte, and what deflate makes of stripes.
#include "io/picture/png_row_filter.h"

#include <zlib.h>

#include <catch2/catch.hpp>
#include <cstdlib>

#include "io/picture/deflate.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

using Bytes = std::vector<std::uint8_t>;

/// Filter 1 (Sub) and 2 (Up) of the standard, and the smaller of the two by the sum of their sizes.
Bytes plain_filter(const Bytes& row, const Bytes& above, std::size_t pixel_bytes) {
  Bytes best;
  long least = -1;
  for (const std::uint8_t kind : {1, 2}) {
    if (kind == 2 && above.empty()) continue;
    Bytes out{kind};
    long sum = 0;
    for (std::size_t i = 0; i < row.size(); ++i) {
      const int left = i >= pixel_bytes ? row[i - pixel_bytes] : 0;
      out.push_back(static_cast<std::uint8_t>(row[i] - (kind == 1 ? left : above[i])));
      sum += std::abs(static_cast<std::int8_t>(out.back()));
    }
    if (least >= 0 && sum >= least) continue;
    least = sum;
    best = out;
  }
  return best;
}

Bytes inflated(const std::vector<std::byte>& deflated, std::size_t size) {
  Bytes out(size);
  z_stream stream{};
  REQUIRE(inflateInit2(&stream, -15) == Z_OK);
  stream.next_in = reinterpret_cast<Bytef*>(const_cast<std::byte*>(deflated.data()));
  stream.avail_in = static_cast<uInt>(deflated.size());
  stream.next_out = out.data();
  stream.avail_out = static_cast<uInt>(size);
  CHECK(inflate(&stream, Z_FINISH) == Z_STREAM_END);
  CHECK(stream.total_out == size);
  inflateEnd(&stream);
  return out;
}

}  // namespace

TEST_CASE("rows of PNG are filtered as the standard says", "[io][png]") {
  for (const std::size_t pixel_bytes : {1u, 3u, 4u, 8u})
    for (const std::size_t pixels : {1u, 5u, 21u, 100u, 333u}) {
      const std::size_t n = pixels * pixel_bytes;
      const Bytes noise = random_bytes(2 * n);
      const Bytes above(noise.begin(), noise.begin() + static_cast<std::ptrdiff_t>(n));
      Bytes row(noise.begin() + static_cast<std::ptrdiff_t>(n), noise.end());
      for (const bool like_above : {false, true}) {
        if (like_above)
          for (std::size_t i = 0; i < n; ++i) row[i] = static_cast<std::uint8_t>(above[i] + i % 3);
        INFO(pixel_bytes << " bytes a pixel, " << pixels << " pixels");
        Bytes out(n + 1);
        PngRowFilter filter(n, pixel_bytes, false);
        filter.filter(row.data(), above.data(), out.data());
        CHECK(out == plain_filter(row, above, pixel_bytes));
        filter.filter(row.data(), nullptr, out.data());
        CHECK(out == plain_filter(row, {}, pixel_bytes));
      }
    }
}

TEST_CASE("stripes of every kind inflate to what they were", "[io][png]") {
  constexpr std::size_t kSize = 300'000;
  const Bytes noise = random_bytes(kSize);
  Bytes flat(kSize, 7), runs(kSize), deceiving = noise;
  for (std::size_t i = 0; i < kSize; ++i) runs[i] = noise[i / 40];
  // The middle, by which a stripe is judged, is flat and nothing else is.
  std::fill(deceiving.begin() + kSize / 2, deceiving.begin() + kSize / 2 + 20'000, 3);
  for (const Bytes& data : {noise, flat, runs, deceiving}) {
    const auto bytes = bytes_of(data);
    const DeflatedStripe stripe = deflate_stripe(bytes, true);
    CHECK(inflated(stripe.bytes, kSize) == data);
    CHECK(stripe.size == kSize);
    CHECK(stripe.adler == adler32(1, data.data(), static_cast<uInt>(kSize)));
    CHECK(deflate_stripe(bytes, true).bytes == stripe.bytes);
  }
  CHECK(deflate_stripe(bytes_of(runs), true).bytes.size() < kSize / 8);
  CHECK(deflate_stripe(bytes_of(deceiving), true).bytes.size() < kSize);
}
