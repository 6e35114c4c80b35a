// Corrections of colors by patches: light that is known, and a second way to see that none is
// nearer.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <random>
#include <vector>

#include "core/balance/color_correction.h"
#include "core/balance/color_corrector.h"
#include "core/balance/patch_layout.h"
#include "core/balance/patch_sums.h"
#include "core/color/css_color.h"
#include "core/color/srgb.h"
#include "core/error.h"

using namespace chalcedony;

namespace {

using Triple = std::array<double, 3>;

Triple light_of(const Triple& lab) { return Color{&spaces::kLab, lab}.in(spaces::kXyzD50); }

const std::vector<Triple> kLabs{{95, 0, 1},    {34, 50, 24},  {70, 20, 64},
                                {84, -4, 70},  {46, -44, 14}, {66, -10, -30},
                                {32, 14, -50}, {50, -1, -2},  {20, 0, 0}};

constexpr Affine kLamplight{{{{0.96, 0.1, -0.02}, {0.05, 0.8, 0.03}, {0.01, 0.04, 0.5}}}, {}};

/// Patches in light that takes them through a matrix, each found a little off.
std::vector<KnownPatch> patches_in(const Affine& light, double off) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> any(-1, 1);
  std::vector<KnownPatch> patches;
  for (const Triple& lab : kLabs) {
    KnownPatch patch{image_of(light, light_of(lab)), light_of(lab)};
    for (double& value : patch.found) value *= 1 + off * any(random);
    patches.push_back(patch);
  }
  return patches;
}

/// The light that a camera took for `light` if `tone` undoes what it did.
double bent_by(const CameraTone& tone, double light) {
  double low = -2, high = 2;
  for (int step = 0; step < 60; ++step) {
    const double middle = (low + high) / 2;
    (tone.at(middle) < light ? low : high) = middle;
  }
  return low;
}

/// Patches in light that takes them through a matrix, and then bent channel by channel.
template <class Bend>
std::vector<KnownPatch> patches_bent(const Affine& light, const Bend& bend) {
  auto patches = patches_in(light, 0);
  for (KnownPatch& patch : patches) {
    Triple rgb = Color{&spaces::kXyzD50, patch.found}.in(spaces::kSrgbLinear);
    for (double& channel : rgb) channel = 255 * bend(channel / 255);
    patch.found = Color{&spaces::kSrgbLinear, rgb}.in(spaces::kXyzD50);
  }
  return patches;
}

/// The sum that is to be least, by the conversion of the program.
double squares(const std::vector<KnownPatch>& patches, const ColorCorrection& correction) {
  double sum = 0;
  for (const KnownPatch& patch : patches) {
    const Triple mapped = Color{&spaces::kXyzD50, correction.of(patch.found)}.in(spaces::kLab);
    const Triple known = Color{&spaces::kXyzD50, patch.known}.in(spaces::kLab);
    for (std::size_t c = 0; c < 3; ++c) sum += (mapped[c] - known[c]) * (mapped[c] - known[c]);
  }
  return sum;
}

constexpr auto kMatrix = CorrectionKind::kMatrix;
constexpr auto kTone = CorrectionKind::kToneAndMatrix;

double largest(const std::vector<double>& values) {
  return *std::max_element(values.begin(), values.end());
}

}  // namespace

TEST_CASE("light that was a matrix is taken back exactly", "[core][balance]") {
  const auto patches = patches_in(kLamplight, 0);
  const ColorCorrection correction = fitted_correction(patches, kMatrix);
  const Affine wanted = inverse(kLamplight);
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j)
      CHECK(correction.matrix.m[i][j] == Approx(wanted.m[i][j]).margin(1e-6));
  CHECK(largest(differences_from_known(patches, ColorCorrection())) > 5);
  CHECK(largest(differences_from_known(patches, correction)) < 1e-4);
  CHECK(largest(left_out_differences(patches, correction, kMatrix)) < 1e-3);
}

TEST_CASE("no matrix nearby brings the patches nearer", "[core][balance]") {
  const auto patches = patches_in(kLamplight, 0.06);
  const ColorCorrection correction = fitted_correction(patches, kMatrix);
  const double least = squares(patches, correction);
  CHECK(least > 1);
  std::mt19937 random(3);
  std::normal_distribution<double> any;
  // Nearer and farther; what the conversion's floats round is much less than what is gained.
  for (const double step : {0.1, 0.01, 0.002})
    for (int turn = 0; turn < 200; ++turn) {
      ColorCorrection other = correction;
      for (auto& row : other.matrix.m)
        for (double& value : row) value += step * any(random);
      CHECK(squares(patches, other) > least - 1e-3);
    }
}

TEST_CASE("a patch that is left out is judged by the others alone", "[core][balance]") {
  const auto patches = patches_in(kLamplight, 0.06);
  const ColorCorrection of_all = fitted_correction(patches, kMatrix);
  const auto left_out = left_out_differences(patches, of_all, kMatrix);
  REQUIRE(left_out.size() == patches.size());
  for (std::size_t i = 0; i < patches.size(); ++i) {
    auto others = patches;
    others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
    CHECK(left_out[i] ==
          Approx(differences_from_known({patches[i]}, fitted_correction(others, kMatrix)).front()));
  }
  const auto used = differences_from_known(patches, of_all);
  double sum_used = 0, sum_left_out = 0;
  for (std::size_t i = 0; i < used.size(); ++i) sum_used += used[i], sum_left_out += left_out[i];
  CHECK(sum_left_out > sum_used);
  // Two of four patches lie in one plane with black and a third.
  std::vector<KnownPatch> few{patches[0], patches[7], patches[1], patches[6]};
  few[1].found = few[0].found;
  for (double& value : few[1].found) value /= 3;
  const auto of_few = left_out_differences(few, fitted_correction(few, kMatrix), kMatrix);
  CHECK(std::isfinite(of_few[0]));
  CHECK(std::isnan(of_few[2]));
}

TEST_CASE("patches that leave the matrix open are refused", "[core][balance]") {
  auto patches = patches_in(kLamplight, 0);
  patches.resize(3);
  CHECK_THROWS_WITH(fitted_correction(patches, kMatrix),
                    "has 3 patches to correct by, and it takes 4; add patches of known color");
  std::vector<KnownPatch> grays;
  for (const double l : {20.0, 40.0, 60.0, 80.0, 95.0})
    grays.push_back({image_of(kLamplight, light_of({l, 0, 0})), light_of({l, 0, 0})});
  CHECK_THROWS_WITH(fitted_correction(grays, kMatrix),
                    Catch::StartsWith("the colors of the patches lie in one plane, as grays "
                                      "alone do; add patches of other hues"));
}

TEST_CASE("the tone curve of a camera is found and undone", "[core][balance]") {
  const CameraTone wanted{{0.35, -0.6, 0.15}};
  const auto patches =
      patches_bent(kLamplight, [&](double light) { return bent_by(wanted, light); });
  const ColorCorrection by_matrix = fitted_correction(patches, kMatrix);
  const ColorCorrection correction = fitted_correction(patches, kTone);
  for (std::size_t k = 0; k < CameraTone::kTerms; ++k)
    CHECK(correction.tone.bend[k] == Approx(wanted.bend[k]).margin(1e-4));
  CHECK(largest(differences_from_known(patches, by_matrix)) > 3);
  CHECK(largest(differences_from_known(patches, correction)) < 1e-2);
  CHECK(largest(left_out_differences(patches, correction, kTone)) < 5e-2);
}

TEST_CASE("a curve that is not of the kind fitted is undone for the greater part",
          "[core][balance]") {
  // Contrast put on codes: a sine about the middle.
  const auto patches = patches_bent(kLamplight, [](double light) {
    const double code = srgb_encoded(light);
    return srgb_decoded(code - 0.05 * std::sin(2 * std::acos(-1.0) * code));
  });
  const auto mean_left_out = [&](CorrectionKind kind) {
    const auto off = left_out_differences(patches, fitted_correction(patches, kind), kind);
    return std::accumulate(off.begin(), off.end(), 0.0) / static_cast<double>(off.size());
  };
  CHECK(mean_left_out(kMatrix) > 2);
  CHECK(mean_left_out(kTone) < mean_left_out(kMatrix) / 3);
}

TEST_CASE("a tone curve that is fitted rises whatever the patches say", "[core][balance]") {
  // Patches whose order is turned about.
  auto patches = patches_in(kLamplight, 0);
  for (std::size_t i = 0; i < patches.size() / 2; ++i)
    std::swap(patches[i].known, patches[patches.size() - 1 - i].known);
  const ColorCorrection correction = fitted_correction(patches, kTone);
  CHECK(correction.tone.rises());
  CHECK(squares(patches, correction) <= squares(patches, fitted_correction(patches, kMatrix)));
  double last = -1;
  for (int i = -50; i <= 150; ++i) {
    const double light = correction.tone.at(i / 100.0);
    if (i > -50) CHECK(light > last);
    last = light;
  }
  patches.resize(7);
  CHECK_THROWS_WITH(
      fitted_correction(patches, kTone),
      "has 7 patches to correct by, and it takes 8; add patches of known color, or leave "
      "--tone out");
}

TEST_CASE("tone curves on planes are those in double", "[core][balance]") {
  const CameraTone tone{{0.35, -0.6, 0.15}};
  CHECK(tone.rises());
  CHECK_FALSE(CameraTone{{-0.95, 0, 0}}.rises());
  CHECK(tone.at(0) == 0);
  CHECK(tone.at(1) == Approx(1));
  CHECK(tone.at(-0.3) == -tone.at(0.3));
  constexpr std::size_t kLights = 301;
  PlaneBuffer light, undone;
  const auto at = [](std::size_t i) {
    return static_cast<float>(static_cast<double>(i) * 1.3 - 70);
  };
  for (std::size_t i = 0; i < kLights; ++i)
    for (std::size_t c = 0; c < 3; ++c) light.plane(c)[i] = at(i);
  undo_tone(tone, read_only(light.planes()), undone.planes(), kLights);
  for (std::size_t i = 0; i < kLights; ++i)
    CHECK(undone.plane(i % 3)[i] == Approx(255 * tone.at(at(i) / 255.0)).margin(1e-4));
  // Straight ones change nothing but by rounding; slopes are those of small steps.
  for (const double x : {-0.4, 0.02, 0.3, 0.99, 1.7}) {
    CHECK(CameraTone{}.at(x) == Approx(x));
    for (std::size_t k = 0; k < CameraTone::kTerms; ++k) {
      CameraTone more = tone, fewer = tone;
      more.bend[k] += 1e-6;
      fewer.bend[k] -= 1e-6;
      CHECK(tone.slopes_by_bend(x)[k] == Approx((more.at(x) - fewer.at(x)) / 2e-6).margin(1e-7));
    }
  }
}

TEST_CASE("the light of patches is summed where they count", "[core][balance]") {
  constexpr std::uint32_t kWidth = 4;
  PlaneBuffer color, xyz;
  Block block;
  block.picture_width = kWidth;
  block.first_pixel = kWidth;  // the second row and the third
  block.size = 2 * kWidth;
  for (std::size_t i = 0; i < block.size; ++i)
    for (std::size_t c = 0; c < 3; ++c) {
      color.plane(c)[i] = i == 1 && c == 2 ? 255.0f : 100.0f;
      xyz.plane(c)[i] = static_cast<float>(i + 10 * c);
    }
  std::vector<std::uint8_t> counted(block.size, 1);
  counted[2] = 0;
  block.color = read_only(color.planes());
  block.counted = counted.data();
  // The first patch reaches into the row before; the second has pixels of two rows.
  const std::vector<SampleRun> runs{{2, 4, 0}, {4, 7, 0}, {7, 8, 1}, {8, 9, 1}};
  PatchSums sums(2, 255);
  sums.add(block, read_only(xyz.planes()), runs);
  CHECK(sums[0].pixels == 2);
  CHECK(sums[0].full == 1);
  CHECK(sums[0].mean() == Triple{0.5, 10.5, 20.5});
  CHECK(sums[1].pixels == 2);
  CHECK(sums[1].full == 0);
  CHECK(sums[1].mean() == Triple{3.5, 13.5, 23.5});
  CHECK(sums[1].variance(0) == 0.25);  // of 3 and 4
  CHECK(sums[1].variance(3) == 0);     // of a plane there is none of
  PatchSums twice = sums;
  twice += sums;
  CHECK(twice[0].pixels == 4);
  CHECK(twice[0].full == 2);
  CHECK(twice[1].mean() == sums[1].mean());
}

TEST_CASE("stretches with pixels of patches are known", "[core][balance]") {
  constexpr std::uint32_t kWidth = 8;
  const std::vector<SampleRun> runs{{3, 6, 0}, {9, 16, 1}, {10, 12, 0}, {33, 34, 1}};
  for (std::uint64_t first = 0; first < 40; ++first)
    for (std::uint64_t end = first; end <= 40; ++end) {
      bool some = false;
      for_each_sample_pixel(runs, kWidth, first, end,
                            [&](const SampleRun&, std::uint64_t) { some = true; });
      INFO(first << " to " << end);
      CHECK(has_sample_pixel(runs, kWidth, first, end) == some);
    }
}

TEST_CASE("a layout takes the middle third of each cell, row by row", "[core][balance]") {
  const PatchLayout layout{3, 2, parse_region("10,20,90,24")};
  const SampleSet patches = patches_of_layout(layout, {"a", "b", "c", "d", "e", "f"}, 120, 60);
  REQUIRE(patches.shapes.size() == 6);
  CHECK(patches.classes[4].name == "e");
  // Cells of 30 x 12; e is the second of the second row.
  std::vector<std::uint64_t> pixels(6);
  std::uint64_t first = 0, last = 0;
  for (const SampleRun& run : sample_runs(patches, 120, 60)) {
    pixels[run.sample_class] += run.end - run.begin;
    if (run.sample_class != 4) continue;
    if (first == 0) first = run.begin;
    last = run.end - 1;
  }
  CHECK(pixels == std::vector<std::uint64_t>(6, 40));
  CHECK(first == 36 * 120 + 50);
  CHECK(last == 39 * 120 + 59);
  const auto with = [&](const std::vector<std::string>& names, const char* box) {
    return patches_of_layout({3, 2, parse_region(box)}, names, 120, 60);
  };
  CHECK_THROWS_WITH(with({"a", "b"}, "10,20,90,24"),
                    "has 6 patches, and 2 colors are known; give a line for each patch, "
                    "row by row from the top left");
  CHECK_THROWS_WITH(with({"a", "b", "c", "d", "e", "f"}, "10,20,8,24"),
                    "leaves less than a pixel of each patch across or down; give the rectangle "
                    "that they fill");
  CHECK_THROWS_AS(with({"a", "b", "c", "d", "e", "f"}, "100,20,90,24"), InputError);
}

TEST_CASE("cells between four corners follow them", "[core][balance]") {
  const std::vector<std::string> names{"a", "b", "c", "d", "e", "f"};
  const auto upright = patches_of_layout({3, 2, parse_region("10,20,90,24")}, names, 120, 60);
  const auto by_corners =
      patches_of_layout({3, 2, parse_corners("10,20 100,20 100,44 10,44")}, names, 120, 60);
  CHECK(upright.shapes == by_corners.shapes);
  // A parallelogram: places go straight along its sides.
  const auto askew =
      patches_of_layout({3, 2, parse_corners("20,2 110,11 98,51 8,42")}, names, 120, 60);
  for (std::size_t cell = 0; cell < names.size(); ++cell)
    for (std::size_t corner = 0; corner < 4; ++corner) {
      const double across = cell % 3 + (corner == 1 || corner == 2 ? 2.0 : 1.0) / 3;
      const double down = cell / 3 + (corner >= 2 ? 2.0 : 1.0) / 3;
      const Position& at = askew.shapes[cell].rings.at(0).at(corner);
      INFO(cell << " " << corner);
      CHECK(at.x == Approx(20 + 30 * across - 6 * down));
      CHECK(at.y == Approx(2 + 3 * across + 20 * down));
    }
  // Seen from the side, cells that are farther off are smaller; lines stay lines.
  const auto slanted =
      patches_of_layout({3, 2, parse_corners("5,5 115,20 115,40 5,55")}, names, 120, 60);
  const auto width_of = [&](std::size_t cell) {
    const auto& ring = slanted.shapes[cell].rings.at(0);
    return ring.at(1).x - ring.at(0).x;
  };
  CHECK(width_of(0) > 1.2 * width_of(1));
  CHECK(width_of(1) > 1.2 * width_of(2));
  CHECK(slanted.shapes[1].rings.at(0).at(0).y - 30 ==
        Approx(30 - slanted.shapes[4].rings.at(0).at(3).y));
  CHECK_THROWS_WITH(
      patches_of_layout({3, 2, parse_corners("5,5 121,20 115,40 5,55")}, names, 120, 60),
      "a corner lies outside the picture, which is 120x60; give the corners of what the patches "
      "fill, in its pixels");
  CHECK_THROWS_WITH(patches_of_layout({3, 2, parse_corners("5,5 13,5 13,50 5,50")}, names, 120, 60),
                    Catch::StartsWith("leaves less than a pixel of each patch across or down"));
  // As much of a cell as is asked for; of all of it, cells meet.
  PatchLayout whole{3, 2, parse_region("10,20,90,24"), 1};
  const auto cells = patches_of_layout(whole, names, 120, 60);
  CHECK(cells.shapes[0].rings.at(0) == rectangle_ring(10, 20, 30, 12));
  CHECK(cells.shapes[5].rings.at(0) == rectangle_ring(70, 32, 30, 12));
  whole.inner = 0.5;
  CHECK(patches_of_layout(whole, names, 120, 60).shapes[4].rings.at(0) ==
        rectangle_ring(47.5, 35, 15, 6));
}

TEST_CASE("colors corrected in another space are each corrected there", "[core][balance]") {
  for (const CameraTone& tone : {CameraTone{}, CameraTone{{0.3, -0.5, 0.1}}})
    for (const Space* space : {&spaces::kSrgb, &spaces::kA98Rgb}) {
      const ColorCorrection correction{tone, inverse(kLamplight)};
      constexpr std::size_t kColors = 40;
      PlaneBuffer before, after;
      for (std::size_t i = 0; i < kColors; ++i)
        for (std::size_t c = 0; c < 3; ++c)
          before.plane(c)[i] = static_cast<float>((37 * i + 101 * c) % 256);
      ColorCorrector(correction, *space).run(read_only(before.planes()), after.planes(), kColors);
      for (std::size_t i = 0; i < kColors; ++i) {
        const Triple color{before.plane(0)[i], before.plane(1)[i], before.plane(2)[i]};
        const Triple light = correction.of(Color{space, color}.in(spaces::kXyzD50));
        const Triple wanted = Color{&spaces::kXyzD50, light}.in(*space);
        for (std::size_t c = 0; c < 3; ++c)
          CHECK(after.plane(c)[i] == Approx(wanted[c]).margin(2e-3));
      }
    }
}

TEST_CASE("cells of a layout are called by their rows and columns", "[core][balance]") {
  const auto names = cell_names({12, 8, parse_region("0,0,9,9")});
  REQUIRE(names.size() == 96);
  CHECK(names.front() == "A1");
  CHECK(names[11] == "A12");
  CHECK(names[12] == "B1");
  CHECK(names.back() == "H12");
  const auto many = cell_names({1, 40, parse_region("0,0,9,9")});
  CHECK(many[25] == "Z1");
  CHECK(many[26] == "AA1");
  CHECK(many[39] == "AN1");
}
