#include "job/cluster/group_lookup.h"

#include <numeric>

#include "core/learn/model.h"

namespace chalcedony {
namespace {

std::vector<std::uint8_t> classes_of_points(const Grouping& grouping, std::size_t points) {
  const std::vector<Label> numbers = class_numbers(grouping.model);
  std::vector<std::uint8_t> classes(points);
  for (std::size_t i = 0; i < points; ++i)
    classes[i] = static_cast<std::uint8_t>(numbers[grouping.labels[i] - 1u]);
  return classes;
}

}  // namespace

GroupLookup::GroupLookup(ColorPoints& colors, const std::vector<Grouping>& groupings) {
  std::optional<ColorCounter> counted = colors.take_counted_colors();
  if (!counted) return;
  const Points points = colors.points();
  if (groupings.size() == 1) {
    class_of_color_.emplace(std::move(*counted), classes_of_points(groupings[0], points.size));
    return;
  }
  groupings_ = groupings.size();
  classes_.resize(points.size * groupings_);
  for (std::size_t g = 0; g < groupings_; ++g) {
    const std::vector<std::uint8_t> own = classes_of_points(groupings[g], points.size);
    for (std::size_t i = 0; i < points.size; ++i) classes_[i * groupings_ + g] = own[i];
  }
  std::vector<std::uint32_t> places(points.size);
  std::iota(places.begin(), places.end(), 0u);
  place_of_color_.emplace(std::move(*counted), places);
}

void GroupLookup::find_places(const std::byte* stored, std::uint32_t channels, std::size_t n,
                              std::uint32_t* places) const {
  if (place_of_color_) place_of_color_->find(stored, channels, n, places);
}

void GroupLookup::labels(std::size_t g, const std::byte* stored, std::uint32_t channels,
                         std::size_t n, const std::uint32_t* places, std::uint8_t* labels) const {
  if (class_of_color_) {
    class_of_color_->find(stored, channels, n, labels);
    return;
  }
  const std::uint8_t* const classes = classes_.data() + g;
  for (std::size_t i = 0; i < n; ++i) labels[i] = classes[places[i] * groupings_];
}

}  // namespace chalcedony
