#include "core/stats/distinct_rows.h"

#include <algorithm>

#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

constexpr std::size_t kFewPlaces = 1024;  // places are a power of two

}  // namespace

DistinctRows::DistinctRows(std::size_t words) : words_(words), places_(kFewPlaces) {}

std::uint32_t DistinctRows::add(const std::uint32_t* row) {
  std::uint32_t& place = place_of(row);
  if (place != 0) return place - 1;
  const auto number = static_cast<std::uint32_t>(size());
  place = number + 1;
  rows_.insert(rows_.end(), row, row + words_);
  if (2 * size() > places_.size()) grow();
  return number;
}

std::uint64_t DistinctRows::hash_of(const std::uint32_t* row) const {
  std::uint64_t hash = 0;
  for (std::size_t w = 0; w < words_; ++w) hash = mixed_bits(hash ^ row[w]);
  return hash;
}

std::uint32_t& DistinctRows::place_of(const std::uint32_t* row) {
  const std::size_t last = places_.size() - 1;
  std::size_t at = hash_of(row) & last;
  while (places_[at] != 0 && !std::equal(row, row + words_, this->row(places_[at] - 1)))
    at = (at + 1) & last;
  return places_[at];
}

void DistinctRows::grow() {
  places_.assign(2 * places_.size(), 0);
  for (std::size_t i = 0; i < size(); ++i) place_of(row(i)) = static_cast<std::uint32_t>(i + 1);
}

}  // namespace chalcedony
