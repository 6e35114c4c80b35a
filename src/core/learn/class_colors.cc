#include "core/learn/class_colors.h"

namespace chalcedony {

ClassColors::Sum& ClassColors::of(std::size_t sample_class) {
  if (sample_class >= classes_.size()) classes_.resize(sample_class + 1);
  return classes_[sample_class];
}

void ClassColors::add_sum(std::size_t sample_class, const Sum& sum) {
  Sum& own = of(sample_class);
  own.pixels += sum.pixels;
  for (std::size_t c = 0; c < 3; ++c) own.oklab[c] += sum.oklab[c];
}

void ClassColors::add(std::size_t sample_class, const std::array<double, 3>& oklab) {
  add_sum(sample_class, {1, oklab});
}

void ClassColors::add(const ClassColors& other, const std::vector<std::size_t>& class_of) {
  for (std::size_t c = 0; c < other.classes_.size(); ++c) add_sum(class_of[c], other.classes_[c]);
}

ClassColors& ClassColors::operator+=(const ClassColors& later) {
  for (std::size_t c = 0; c < later.classes_.size(); ++c) add_sum(c, later.classes_[c]);
  return *this;
}

std::optional<Color> ClassColors::mean(std::size_t sample_class) const {
  if (sample_class >= classes_.size() || classes_[sample_class].pixels == 0) return std::nullopt;
  const Sum& sum = classes_[sample_class];
  Color color{&spaces::kOklab, sum.oklab};
  for (double& value : color.value) value /= static_cast<double>(sum.pixels);
  return color;
}

}  // namespace chalcedony
