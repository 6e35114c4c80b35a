// Rows of numbers of which many are alike, each kept once.
#ifndef CHALCEDONY_CORE_STATS_DISTINCT_ROWS_H_
#define CHALCEDONY_CORE_STATS_DISTINCT_ROWS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Rows of so many 32-bit words each, alike when all their bits are; numbered in the order in which
/// they first come.
///
/// Cost      4 bytes a word and 8 to 16 bytes a row that is unlike all others
class DistinctRows {
 public:
  explicit DistinctRows(std::size_t words);

  /// The number of a row: a new one, or that of one like it.
  std::uint32_t add(const std::uint32_t* row);

  std::size_t size() const { return rows_.size() / words_; }
  const std::uint32_t* row(std::size_t i) const { return rows_.data() + i * words_; }

 private:
  std::uint64_t hash_of(const std::uint32_t* row) const;
  /// Where the number of a row stands, or can.
  std::uint32_t& place_of(const std::uint32_t* row);
  void grow();

  std::size_t words_;
  std::vector<std::uint32_t> rows_;
  std::vector<std::uint32_t> places_;  // open addressing: numbers from 1 on; 0 is free
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_DISTINCT_ROWS_H_
