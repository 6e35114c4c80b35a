#include "core/filter/window.h"

#include <cmath>

namespace chalcedony {

Window::Window(const Element& element) {
  const auto reach = static_cast<long>(std::floor(element.radius));
  for (long dy = -reach; dy <= reach; ++dy) {
    const double half =
        element.shape == ElementShape::kBox
            ? static_cast<double>(reach)
            : std::sqrt(element.radius * element.radius - static_cast<double>(dy * dy));
    half_widths_.push_back(static_cast<std::size_t>(half));
    pixels_ += 2 * half_widths_.back() + 1;
    is_box_ = is_box_ && half_widths_.back() == half_widths_.front();
  }
}

}  // namespace chalcedony
