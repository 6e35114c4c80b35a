// The threshold that parts a histogram in two.
#ifndef CHALCEDONY_CORE_STATS_OTSU_H_
#define CHALCEDONY_CORE_STATS_OTSU_H_

#include <cstddef>
#include <cstdint>
#include <span>

namespace chalcedony {

struct TwoParts {
  std::size_t first_above = 0;  // bins from this one on are the upper part; 0 when there is one bin
  double parted = 0;            // variance between the parts, of the whole variance: 0 to 1
};

/// The threshold of greatest variance between the parts; in the middle where several are equal.
///
/// Source    Otsu (1979), IEEE Transactions on Systems, Man, and Cybernetics 9(1), 62-66
TwoParts part_in_two(std::span<const std::uint64_t> counts);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_OTSU_H_
