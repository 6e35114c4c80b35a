// Every space against its formula in double, and back again.
#include "core/color/conversion.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <random>

#include "core/color/css_color.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/plain_color.h"
#include "tests/support/tables.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Random 8-bit colors, with the corners, grays and near-grays that are hard.
std::vector<Triple> probe_colors() {
  std::vector<Triple> colors;
  for (int r = 0; r <= 255; r += 51)
    for (int g = 0; g <= 255; g += 51)
      for (int b = 0; b <= 255; b += 51) colors.push_back({double(r), double(g), double(b)});
  for (int v = 0; v < 256; ++v) colors.push_back({double(v), double(v), std::min(255.0, v + 1.0)});
  std::mt19937 random(5);
  for (int i = 0; i < 20000; ++i)
    colors.push_back({double(random() % 256), double(random() % 256), double(random() % 256)});
  return colors;
}

/// Runs a conversion over any number of colors, a Block at a time.
std::vector<Triple> converted(const Conversion& conversion, const std::vector<Triple>& colors) {
  std::vector<Triple> out;
  PlaneBuffer in, result;
  for (std::size_t first = 0; first < colors.size(); first += kBlockPixels) {
    const std::size_t n = std::min(kBlockPixels, colors.size() - first);
    for (std::size_t i = 0; i < n; ++i)
      for (std::size_t c = 0; c < 3; ++c) in.plane(c)[i] = static_cast<float>(colors[first + i][c]);
    conversion.run(read_only(in.planes()), result.planes(), n);
    for (std::size_t i = 0; i < n; ++i)
      out.push_back({result.plane(0)[i], result.plane(1)[i], result.plane(2)[i]});
  }
  return out;
}

/// The contract's bound for a channel of a space.
double bound(const Space& space) {
  const bool fine = space.id == "oklab" || space.id == "oklch" || space.id.substr(0, 3) == "xyz" ||
                    space.id == "xyy";
  return fine ? 1e-5 : 1e-3;
}

/// Error of one color: hue is judged as chroma times the angle in radians.
double error_of(const Space& space, const Triple& got, const Triple& wanted) {
  double worst = 0;
  for (std::size_t c = 0; c < space.channel_count; ++c) {
    double error = std::abs(got[c] - wanted[c]);
    if (static_cast<int>(c) == space.hue) {
      error = std::min(error, 360 - error) * 0.017453292519943295;
      const double chroma = space.hue == 2 ? wanted[1] : wanted[1] * wanted[2] / 100;
      error *= chroma;
    }
    worst = std::max(worst, error);
  }
  return worst;
}

}  // namespace

TEST_CASE("every space agrees with its formula in double", "[core][color][conversion]") {
  const auto colors = probe_colors();
  for (const Space* space : all_spaces()) {
    if (space->internal) continue;
    DYNAMIC_SECTION(space->id) {
      const auto got = converted(Conversion(spaces::kSrgb, *space), colors);
      double worst = 0;
      for (std::size_t i = 0; i < colors.size(); ++i) {
        Triple wanted = plain_from_srgb(std::string(space->id), colors[i]);
        Triple mine = got[i];
        // hwb has no chroma of its own: the spread stands for it.
        if (space->id == "hwb") {
          const double spread = 100 - wanted[1] - wanted[2];
          const double turn = std::abs(mine[0] - wanted[0]);
          worst = std::max(worst, std::min(turn, 360 - turn) * 0.01745 * spread);
          mine[0] = wanted[0] = 0;
        }
        worst = std::max(worst, error_of(*space, mine, wanted));
      }
      INFO(space->id << " differs by " << worst);
      CHECK(worst <= bound(*space));
    }
  }
}

TEST_CASE("8-bit colors come back exactly from every space that keeps color",
          "[core][color][conversion]") {
  std::vector<Triple> colors = probe_colors();
  // A lattice that meets every code of every channel.
  for (int r = 0; r < 256; r += 5)
    for (int g = 0; g < 256; g += 3)
      for (int b = 0; b < 256; b += 5) colors.push_back({double(r), double(g), double(b)});
  for (const Space* space : all_spaces()) {
    if (space->internal || space->channel_count == 1) continue;
    DYNAMIC_SECTION(space->id) {
      const auto there = converted(Conversion(spaces::kSrgb, *space), colors);
      const auto back = converted(Conversion(*space, spaces::kSrgb), there);
      std::size_t changed = 0;
      for (std::size_t i = 0; i < colors.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) changed += std::lround(back[i][c]) != colors[i][c];
      CHECK(changed == 0);
    }
  }
}

TEST_CASE("the examples of CSS Color 4 come out to the last printed digit",
          "[core][color][conversion]") {
  for (const auto& row : table("color-samples.csv")) {
    INFO(row[0] << " " << row[4]);
    const Color color{&space_named(row[0]),
                      {std::stod(row[1]), std::stod(row[2]), std::stod(row[3])}};
    // Half a unit of the last printed digit moves a code by less than half.
    const auto code = css_color(row[4]).in(spaces::kSrgb), got = color.in(spaces::kSrgb);
    for (std::size_t c = 0; c < 3; ++c) CHECK(got[c] == Approx(code[c]).margin(0.9));
    const auto back = css_color(row[4]).in(*color.space);
    // The sRGB of the table is rounded to 8 bits, which moves Lab by up to about 0.4.
    const double slack = color.space->id == "oklab" ? 0.004 : 0.7;
    for (std::size_t c = 0; c < 3; ++c) CHECK(back[c] == Approx(color.value[c]).margin(slack));
  }
}

TEST_CASE("oklab agrees with its author's table", "[core][color][conversion]") {
  for (const auto& row : table("oklab-table.csv")) {
    const auto lab = convert_color(spaces::kXyzD65, spaces::kOklab,
                                   {std::stod(row[0]), std::stod(row[1]), std::stod(row[2])});
    for (std::size_t c = 0; c < 3; ++c)
      CHECK(lab[c] == Approx(std::stod(row[3 + c])).margin(0.0016));
  }
}

TEST_CASE("neighboring affine steps are joined, and a way to itself is no way",
          "[core][color][conversion]") {
  CHECK(Conversion(spaces::kLab, spaces::kLab).is_identity());
  CHECK(Conversion(spaces::kSrgb, spaces::kSrgbClipped, KnownValues::kInRange).is_identity());
  const auto path = conversion_path(spaces::kHsv, spaces::kOklab);
  std::vector<std::string_view> names;
  for (const Space* space : path) names.push_back(space->id);
  CHECK(names == std::vector<std::string_view>{"hsv", "srgb-clipped", "srgb", "srgb-linear",
                                               "xyz-d65", "oklab"});
}

TEST_CASE("every instruction set gives the same bits", "[core][color][conversion][simd]") {
  const auto colors = probe_colors();
  for (const Space* space : all_spaces()) {
    const Conversion there(spaces::kSrgb, *space), back(*space, spaces::kSrgb);
    const auto first = converted(there, colors);
    const auto first_back = converted(back, first);
    for_each_instruction_set([&](const char* name) {
      const auto other = converted(there, colors);
      const auto other_back = converted(back, other);
      INFO(space->id << " on " << name);
      CHECK(std::memcmp(first.data(), other.data(), first.size() * sizeof(Triple)) == 0);
      CHECK(std::memcmp(first_back.data(), other_back.data(), first.size() * sizeof(Triple)) == 0);
    });
  }
}
