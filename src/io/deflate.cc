#include "io/deflate.h"

#include <isa-l.h>
#include <zlib.h>

#include <stdexcept>

namespace chalcedony {

DeflatedStripe deflate_stripe(std::span<const std::byte> data, bool last) {
  DeflatedStripe stripe;
  stripe.size = data.size();
  auto* bytes = reinterpret_cast<std::uint8_t*>(const_cast<std::byte*>(data.data()));
  stripe.adler = isal_adler32(1, bytes, data.size());
  // Incompressible data grows by 5 bytes in each 64 KiB, and by the flush at the end.
  stripe.bytes.resize(data.size() + data.size() / 8192 + 1024);
  std::vector<std::uint8_t> level_memory(ISAL_DEF_LVL1_DEFAULT);
  isal_zstream stream;
  isal_deflate_init(&stream);
  stream.level = 1;
  stream.level_buf = level_memory.data();
  stream.level_buf_size = static_cast<std::uint32_t>(level_memory.size());
  stream.flush = last ? NO_FLUSH : SYNC_FLUSH;
  stream.end_of_stream = last ? 1 : 0;
  stream.next_in = bytes;
  stream.avail_in = static_cast<std::uint32_t>(data.size());
  stream.next_out = reinterpret_cast<std::uint8_t*>(stripe.bytes.data());
  stream.avail_out = static_cast<std::uint32_t>(stripe.bytes.size());
  if (isal_deflate(&stream) != COMP_OK || stream.avail_in != 0)
    throw std::logic_error("a stripe did not fit its deflate buffer");
  stripe.bytes.resize(stream.total_out);
  return stripe;
}

std::uint32_t join_adler(std::uint32_t first, std::uint32_t second, std::uint64_t second_size) {
  return static_cast<std::uint32_t>(
      adler32_combine(first, second, static_cast<z_off_t>(second_size)));
}

}  // namespace chalcedony
