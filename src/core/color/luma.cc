// The spaces that are affine in clipped sRGB, or nearly so: ycbcr, cmy and the grays.
#include "core/color/space.h"
#include "core/color/srgb.h"

namespace chalcedony {
namespace {

/// The weights of red and blue in luma; green has the rest.
struct LumaWeights {
  double red, blue;
};
constexpr LumaWeights kBt601{0.299, 0.114};    // ITU-R BT.601-7, 2.5.1
constexpr LumaWeights kBt709{0.2126, 0.0722};  // ITU-R BT.709-6, item 3.2

/// Full-range YCbCr in 0-255 with neutral chroma at 128 (ITU-T T.871 for BT.601).
constexpr Affine ycbcr(LumaWeights w) {
  const double green = 1 - w.red - w.blue, to_cb = 0.5 / (1 - w.blue), to_cr = 0.5 / (1 - w.red);
  return Affine{{{{w.red, green, w.blue},
                  {-w.red * to_cb, -green * to_cb, 0.5},
                  {0.5, -green * to_cr, -w.blue * to_cr}}},
                {0, 128, 128}};
}

/// The same weighted sum in all three planes.
constexpr Affine gray(double red, double green, double blue) {
  const std::array<double, 3> row{red, green, blue};
  return Affine{{{row, row, row}}, {}};
}
constexpr Affine gray(LumaWeights w) { return gray(w.red, 1 - w.red - w.blue, w.blue); }

constexpr Space affine_space(std::string_view id, std::string_view title,
                             std::array<ChannelInfo, 3> channels, const Affine& from_srgb) {
  return Space{.id = id,
               .title = title,
               .channels = channels,
               .parent = "srgb-clipped",
               .from_parent = Step(from_srgb),
               .to_parent = Step(inverse(from_srgb)),
               .of_clipped = true};
}

/// A gray turned back into a color has equal r g b, which is what its three planes hold already.
constexpr Space gray_space(std::string_view id, std::string_view title, Steps from_srgb) {
  return Space{.id = id,
               .title = title,
               .channels = {{{id, Unit::kOf255, 0, 255}, {}, {}}},
               .channel_count = 1,
               .parent = "srgb-clipped",
               .from_parent = from_srgb,
               .to_parent = {},
               .of_clipped = true};
}

constexpr std::array<ChannelInfo, 3> kYcbcrChannels{
    {{"y", Unit::kOf255, 0, 255}, {"cb", Unit::kOf255, 0, 255}, {"cr", Unit::kOf255, 0, 255}}};
constexpr std::array<ChannelInfo, 3> kCmyChannels{
    {{"c", Unit::kPercent, 0, 100}, {"m", Unit::kPercent, 0, 100}, {"y", Unit::kPercent, 0, 100}}};

/// Cyan, magenta and yellow are what red, green and blue lack.
constexpr Affine kCmy =
    then(scale(-100.0 / 255.0), Affine{{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}, {100, 100, 100}});

/// The middle row of linear sRGB to XYZ: relative luminance.
constexpr Affine luminance() {
  const auto y = rgb_to_xyz(kSrgbPrimaries).m[1];
  return gray(y[0], y[1], y[2]);
}

}  // namespace

namespace spaces {
constinit const Space kYcbcr =
    affine_space("ycbcr", "YCbCr, BT.601 full range", kYcbcrChannels, ycbcr(kBt601));
constinit const Space kYcbcr709 =
    affine_space("ycbcr-709", "YCbCr, BT.709 full range", kYcbcrChannels, ycbcr(kBt709));
constinit const Space kCmy = affine_space("cmy", "CMY of sRGB", kCmyChannels, chalcedony::kCmy);
constinit const Space kGray = gray_space("gray", "BT.601 luma", Step(gray(kBt601)));
constinit const Space kGray709 = gray_space("gray-709", "BT.709 luma", Step(gray(kBt709)));
constinit const Space kGrayLinear =
    gray_space("gray-linear", "relative luminance, sRGB-encoded",
               {Step(decode_srgb), Step(luminance()), Step(encode_srgb)});
}  // namespace spaces
}  // namespace chalcedony
