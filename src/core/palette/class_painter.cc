#include "core/palette/class_painter.h"

namespace chalcedony {
ClassPainter::ClassPainter(const std::vector<std::string>& colors)
    : ClassPainter(css_colors(colors), {&spaces::kSrgb, {0, 0, 0}}) {}

ClassPainter::ClassPainter(const std::vector<Color>& colors, const Color& none) : planes_(3) {
  const auto add = [&](const Color& color) {
    const std::array<double, 3> srgb = color.in(spaces::kSrgb);
    colors_.push_back(
        {static_cast<float>(srgb[0]), static_cast<float>(srgb[1]), static_cast<float>(srgb[2])});
  };
  add(none);
  for (const Color& color : colors) add(color);
}

template <class Number>
ConstPlanes ClassPainter::painted(const Number* labels, std::size_t n) {
  const Planes out = planes_.planes();
  for (std::size_t i = 0; i < n; ++i) {
    const std::array<float, 3>& color = colors_[labels[i]];
    for (std::size_t c = 0; c < 3; ++c) out[c][i] = color[c];
  }
  return read_only(out);
}

ConstPlanes ClassPainter::paint(const std::uint8_t* labels, std::size_t n) {
  return painted(labels, n);
}
ConstPlanes ClassPainter::paint(const Label* labels, std::size_t n) { return painted(labels, n); }

ConstPlanes ClassPainter::paint_over(const ConstPlanes& picture, const Label* labels, float share,
                                     std::size_t n) {
  painted(labels, n);
  for (std::size_t c = 0; c < 3; ++c) {
    const float* const __restrict under = picture[c];
    float* const __restrict plane = planes_.plane(c);
    for (std::size_t i = 0; i < n; ++i) {
      const float part = labels[i] == 0 ? 0.0f : share;
      plane[i] = under[i] + part * (plane[i] - under[i]);
    }
  }
  return read_only(planes_.planes());
}

}  // namespace chalcedony
