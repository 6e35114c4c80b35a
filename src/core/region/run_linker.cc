#include "core/region/run_linker.h"

#include <algorithm>
#include <utility>

namespace chalcedony {

RunLinker::RunLinker(std::uint32_t width, Connectivity connectivity, bool with_zero)
    : width_(width), connectivity_(connectivity), with_zero_(with_zero), finder_(width) {}

void RunLinker::start_row(const Label* labels) {
  if (started_) ++y_;
  started_ = true;
  std::swap(runs_, above_);
  runs_.clear();
  finder_.set(labels);
  for (std::size_t x = 0; x < width_;) {
    const std::size_t end = finder_.end_of(x);
    if (labels[x] != 0 || with_zero_)
      runs_.push_back(
          {y_, static_cast<std::uint32_t>(x), static_cast<std::uint32_t>(end), labels[x], 0});
    x = end;
  }
}

std::uint32_t RunLinker::new_part() {
  parent_.push_back(static_cast<std::uint32_t>(parent_.size()));
  return parent_.back();
}

std::uint32_t RunLinker::first_part(std::uint32_t part) {
  while (parent_[part] != part) {
    parent_[part] = parent_[parent_[part]];
    part = parent_[part];
  }
  return part;
}

void RunLinker::join(std::uint32_t a, std::uint32_t b) {
  a = first_part(a);
  b = first_part(b);
  parent_[std::max(a, b)] = std::min(a, b);
}

std::vector<std::uint32_t> RunLinker::region_numbers() {
  std::vector<std::uint32_t> numbers(parent_.size());
  std::uint32_t next = 0;
  for (std::uint32_t part = 0; part < numbers.size(); ++part) {
    const std::uint32_t first = first_part(part);
    numbers[part] = first == part ? next++ : numbers[first];
  }
  return numbers;
}

}  // namespace chalcedony
