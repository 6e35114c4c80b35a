#include "io/picture/deflate.h"

#include <isa-l.h>
#include <zlib.h>

#include <algorithm>
#include <memory>
#include <stdexcept>

namespace chalcedony {
namespace {

// When ISA-L 2.30 makes Huffman tables for a stripe of few different symbols, it looks at memory it
// has not set, and makes one of several streams, by where its state lies. Stripes that shrink much
// are therefore deflated with its fixed tables (level 0), small ones by zlib.
constexpr std::size_t kSmall = 65536;
constexpr std::size_t kMuch = 3;  // times smaller

bool deflate_quickly(std::span<const std::byte> data, bool last, unsigned level,
                     std::vector<std::byte>& deflated) {
  // Incompressible data grows by 5 bytes in each 64 KiB, and by the flush at the end.
  const std::size_t most = data.size() + data.size() / 8192 + 1024;
  const auto out = std::make_unique_for_overwrite<std::byte[]>(most);
  // This is looked at before it is written, see above.
  std::vector<std::uint8_t> level_memory(level == 0 ? 0 : ISAL_DEF_LVL1_DEFAULT);
  isal_zstream stream;
  isal_deflate_init(&stream);
  stream.level = level;
  stream.level_buf = level_memory.data();
  stream.level_buf_size = static_cast<std::uint32_t>(level_memory.size());
  stream.flush = last ? NO_FLUSH : SYNC_FLUSH;
  stream.end_of_stream = last ? 1 : 0;
  stream.next_in = reinterpret_cast<std::uint8_t*>(const_cast<std::byte*>(data.data()));
  stream.avail_in = static_cast<std::uint32_t>(data.size());
  stream.next_out = reinterpret_cast<std::uint8_t*>(out.get());
  stream.avail_out = static_cast<std::uint32_t>(most);
  if (isal_deflate(&stream) != COMP_OK || stream.avail_in != 0) return false;
  deflated.assign(out.get(), out.get() + stream.total_out);
  return true;
}

/// Whether bytes of a part of the data are mostly like the one before, so that it will shrink much.
bool looks_flat(std::span<const std::byte> data) {
  constexpr std::size_t kLooked = 16384;
  const std::span<const std::byte> part =
      data.subspan(data.size() / 2, std::min(kLooked, data.size() / 2));
  std::size_t alike = 0;
  for (std::size_t i = 1; i < part.size(); ++i) alike += part[i] == part[i - 1];
  return alike > part.size() / 4 * 3;
}

/// By runs of equal bytes, which are what flat colors and labels are made of.
bool deflate_runs(std::span<const std::byte> data, bool last, std::vector<std::byte>& deflated) {
  constexpr int kLevel = 1, kBareWindow = -15, kMostMemory = 9;
  z_stream stream{};
  if (deflateInit2(&stream, kLevel, Z_DEFLATED, kBareWindow, kMostMemory, Z_RLE) != Z_OK)
    return false;
  deflated.resize(deflateBound(&stream, data.size()) + 16);
  stream.next_in = reinterpret_cast<Bytef*>(const_cast<std::byte*>(data.data()));
  stream.avail_in = static_cast<uInt>(data.size());
  stream.next_out = reinterpret_cast<Bytef*>(deflated.data());
  stream.avail_out = static_cast<uInt>(deflated.size());
  const int result = deflate(&stream, last ? Z_FINISH : Z_SYNC_FLUSH);
  const bool done = result == (last ? Z_STREAM_END : Z_OK) && stream.avail_in == 0;
  deflated.resize(stream.total_out);
  deflateEnd(&stream);
  return done;
}

}  // namespace

DeflatedStripe deflate_stripe(std::span<const std::byte> data, bool last) {
  DeflatedStripe stripe;
  stripe.size = data.size();
  auto* bytes = reinterpret_cast<std::uint8_t*>(const_cast<std::byte*>(data.data()));
  stripe.adler = isal_adler32(1, bytes, data.size());
  bool done = false;
  if (data.size() < kSmall) {
    done = deflate_runs(data, last, stripe.bytes);
  } else {
    const auto shrank_much = [&] { return stripe.bytes.size() < data.size() / kMuch; };
    // The likelier level first: the other one is seldom needed then.
    if (looks_flat(data)) done = deflate_quickly(data, last, 0, stripe.bytes) && shrank_much();
    if (!done) {
      done = deflate_quickly(data, last, 1, stripe.bytes);
      if (done && shrank_much()) done = deflate_quickly(data, last, 0, stripe.bytes);
    }
  }
  if (!done) throw std::logic_error("a stripe did not fit its deflate buffer");
  return stripe;
}

std::uint32_t join_adler(std::uint32_t first, std::uint32_t second, std::uint64_t second_size) {
  return static_cast<std::uint32_t>(
      adler32_combine(first, second, static_cast<z_off_t>(second_size)));
}

}  // namespace chalcedony
