// Curves of classes in channels, read from the SVG form of their figure.
#include "figure/class_histogram_figure.h"

#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// One value for each of two classes.
ClassHistogram two_values(float first, float second) {
  ClassHistogram histogram(Binning(0, 100, 10), 2);
  std::vector<float> values(kBlockPixels);
  std::vector<std::uint8_t> classes(kBlockPixels);
  Block block;
  block.size = block.counted_size = 2;
  values[0] = first;
  values[1] = second;
  classes[0] = 1;
  classes[1] = 2;
  histogram.add(block, values.data(), classes.data());
  return histogram;
}

}  // namespace

TEST_CASE("each channel has a panel with a curve for each class", "[figure]") {
  const ClassHistogram histogram = two_values(20, 70);
  const auto svg_of = [&](std::size_t channels, std::optional<double> of_each = {}) {
    std::vector<ShownChannel> shown;
    for (std::size_t i = 0; i < channels; ++i)
      shown.push_back({channel_named("hsv.s"), &histogram, 12.34, of_each});
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_class_histogram_figure(plot, path, "pane.png", shown,
                                 {{"ruby", "#a01c2e"}, {"lead", "#3c3d40"}});
    });
  };
  const std::string one = svg_of(1);
  for (const char* text :
       {"Classes of pane.png", "hsv.s (%), overlap 12.3 %", "ruby", "lead", "100"})
    CHECK(has_text(one, text));
  CHECK_THAT(one, Catch::Contains("160,  28,  46") && Catch::Contains(" 60,  61,  64"));
  const std::string several = svg_of(1, 5.67);
  CHECK(has_text(several, "hsv.s (%), overlap 12.3 %, in each 5.7 %"));
  CHECK_THAT(several, Catch::Contains("in each: of the pictures by themselves"));
  CHECK_THAT(svg_of(11, 5.67), Catch::Contains("; the first 6 of 11 channels"));
  CHECK_THAT(svg_of(11), Catch::Contains("; the first 9 of 11 channels"));
}
