#include "io/document/palette_swatches.h"
#include "io/picture/create_picture.h"

#include <array>
#include <cmath>
#include <cstddef>

#include "io/text/number_text.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kWidth = 1200, kHeight = 200;
constexpr std::uint32_t kTextWidth = 84;  // a color narrower than this holds no text

std::string text_at(std::uint32_t x, std::uint32_t y, const std::string& color,
                    const std::string& text) {
  return "    <text x=\"" + std::to_string(x) + "\" y=\"" + std::to_string(y) + "\" fill=\"" +
         color + "\">" + text + "</text>\n";
}

}  // namespace

std::vector<std::uint32_t> swatch_ends(const Palette& palette, std::uint32_t width) {
  std::vector<std::uint32_t> ends;
  double percent = 0;
  for (const PaletteColor& color : palette) {
    percent += color.percent;
    ends.push_back(static_cast<std::uint32_t>(std::lround(percent / 100 * width)));
  }
  if (!ends.empty()) ends.back() = width;
  return ends;
}

std::string swatches_svg(const Palette& palette) {
  std::string text = "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 " +
                     std::to_string(kWidth) + " " + std::to_string(kHeight) +
                     "\" font-family=\"sans-serif\" font-size=\"15\">\n";
  const auto ends = swatch_ends(palette, kWidth);
  std::uint32_t left = 0;
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const PaletteColor& one = palette[i];
    const std::string hex = css_hex(one.color()), share = percent_text(one.percent);
    text += "  <g>\n    <title>" + one.name + ", " + hex + ", " + share + "</title>\n";
    text += "    <rect x=\"" + std::to_string(left) + "\" width=\"" +
            std::to_string(ends[i] - left) + "\" height=\"" + std::to_string(kHeight) +
            "\" fill=\"" + hex + "\"/>\n";
    if (ends[i] - left >= kTextWidth) {
      const std::string ink = one.takes_black() ? "#000000" : "#ffffff";
      text += text_at(left + 10, kHeight - 34, ink, hex);
      text += text_at(left + 10, kHeight - 14, ink, share);
    }
    text += "  </g>\n";
    left = ends[i];
  }
  return text + "</svg>\n";
}

void write_swatches(const std::filesystem::path& path, const Palette& palette) {
  const auto ends = swatch_ends(palette, kWidth);
  std::vector<std::byte> row;
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const auto srgb = css_color(css_hex(palette[i].color())).in(spaces::kSrgb);
    while (row.size() < std::size_t{3} * ends[i])
      for (const double v : srgb) row.push_back(static_cast<std::byte>(std::lround(v)));
  }
  std::vector<std::byte> samples;
  for (std::uint32_t y = 0; y < kHeight; ++y) samples.insert(samples.end(), row.begin(), row.end());
  PictureSpec spec;
  spec.shape = {kWidth, kHeight, 3, SampleType::kU8};
  write_picture(path, spec, samples);
}

}  // namespace chalcedony
