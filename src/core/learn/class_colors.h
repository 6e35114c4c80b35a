// What the sample pixels of each class look like.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_COLORS_H_
#define CHALCEDONY_CORE_LEARN_CLASS_COLORS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/color/css_color.h"

namespace chalcedony {

/// Sums of colors by class, in double. Add pixels, bands and pictures in order and the result is
/// the same for any number of threads.
class ClassColors {
 public:
  /// Adds a pixel to a class, which is made when it is new.
  void add(std::size_t sample_class, const std::array<double, 3>& oklab);
  /// Adds the pixels of other sums; their class c is our class `class_of[c]`.
  void add(const ClassColors& other, const std::vector<std::size_t>& class_of);
  /// The same of sums of the same classes.
  ClassColors& operator+=(const ClassColors& later);

  /// The mean of its pixels in oklab; none without a pixel.
  std::optional<Color> mean(std::size_t sample_class) const;

 private:
  struct Sum {
    std::uint64_t pixels = 0;
    std::array<double, 3> oklab{};
  };

  Sum& of(std::size_t sample_class);
  void add_sum(std::size_t sample_class, const Sum& sum);

  std::vector<Sum> classes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_COLORS_H_
