#include "core/pixel/label.h"

#include <cstring>

namespace chalcedony {

void store_labels(const Label* labels, std::size_t n, SampleType sample,
                  std::byte* __restrict stored) {
  if (sample != SampleType::kU8) {
    std::memcpy(stored, labels, n * sizeof(Label));
    return;
  }
  for (std::size_t i = 0; i < n; ++i) stored[i] = static_cast<std::byte>(labels[i]);
}

void read_labels(const std::byte* stored, std::size_t n, SampleType sample,
                 Label* __restrict labels) {
  if (sample != SampleType::kU8) {
    std::memcpy(labels, stored, n * sizeof(Label));
    return;
  }
  for (std::size_t i = 0; i < n; ++i) labels[i] = std::to_integer<Label>(stored[i]);
}

void flag_labels(const Label* labels, std::size_t n, std::uint8_t* __restrict flags) {
  for (std::size_t i = 0; i < n; ++i) flags[i] = labels[i] != 0;
}

}  // namespace chalcedony
