// Deflate in independent stripes that join into one zlib stream.
#ifndef CHALCEDONY_IO_PICTURE_DEFLATE_H_
#define CHALCEDONY_IO_PICTURE_DEFLATE_H_

#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

namespace chalcedony {

/// One stripe of a deflate stream and the Adler-32 checksum of what it holds.
struct DeflatedStripe {
  std::vector<std::byte> bytes;
  std::uint32_t adler = 1;
  std::uint64_t size = 0;  // before compression
};

/// Compresses a stripe without looking at its neighbors, so that stripes can be made at once on
/// several threads. A stripe that is not the last ends on a byte border; the last one ends the
/// stream.
///
/// Source    RFC 1951; the joint of stripes is the empty stored block of a sync flush
DeflatedStripe deflate_stripe(std::span<const std::byte> data, bool last);

/// The checksum of two runs of bytes, one after the other.
std::uint32_t join_adler(std::uint32_t first, std::uint32_t second, std::uint64_t second_size);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_DEFLATE_H_
