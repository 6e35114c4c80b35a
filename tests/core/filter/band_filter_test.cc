// Filters against a plain second way: every pixel's window walked pixel by pixel.
#include "core/filter/band_filter.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/filter/mean.h"
#include "core/filter/median.h"
#include "core/filter/median_of_few.h"
#include "core/filter/running_gaussian.h"
#include "core/filter/symmetric_sums.h"
#include "core/filter/value_kinds.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/mirrored.h"
#include "core/pixel/road.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// A gray picture of floats in 0-1, with alpha.
struct Gray {
  std::uint32_t width, height;
  std::vector<float> value, alpha;
};

/// `levels` different values; a fifth of the pixels transparent, when asked.
Gray random_gray(std::uint32_t width, std::uint32_t height, int levels, bool holes) {
  std::mt19937 random(width * 31 + height);
  Gray gray{width, height, {}, {}};
  for (std::uint32_t i = 0; i < width * height; ++i) {
    gray.value.push_back(static_cast<float>(random() % static_cast<unsigned>(levels)) /
                         static_cast<float>(levels - 1));
    gray.alpha.push_back(holes && random() % 5 == 0 ? 0.0f : 1.0f);
  }
  return gray;
}

std::vector<float> filtered(const Gray& gray, const Filter& filter) {
  std::vector<float> samples;
  for (std::size_t i = 0; i < gray.value.size(); ++i)
    samples.insert(samples.end(), {gray.value[i], gray.alpha[i]});
  PictureInfo info;
  info.shape = {gray.width, gray.height, 2, SampleType::kF32};
  info.alpha = AlphaKind::kStraight;
  info.full_scale = 1;
  MemorySource source(info.shape, bytes_of(samples));
  const BlockWriter stored(info);
  RoadOptions road;
  road.halo = halo_of(filter);
  std::vector<float> out;
  const auto make_worker = [&] {
    return [&, band_filter = BandFilter(info, {}, filter, stored)](const Band& band) mutable {
      std::vector<std::byte> rows(band.rows() * info.shape.row_bytes());
      band_filter.run(band, rows.data());
      return rows;
    };
  };
  travel(source, road, make_worker, [&](const std::vector<std::byte>& rows) {
    const auto* const pairs = reinterpret_cast<const float*>(rows.data());
    for (std::size_t i = 0; i < rows.size() / (2 * sizeof(float)); ++i) {
      CHECK(pairs[2 * i + 1] == gray.alpha[out.size()]);  // alpha stays as it is
      out.push_back(pairs[2 * i]);
    }
  });
  return out;
}

/// The values around each pixel that lend, with how far away they are.
template <class Summary>
std::vector<float> walked(const Gray& gray, double reach, ElementShape shape, Summary summary) {
  std::vector<float> out;
  const int r = static_cast<int>(reach);
  for (int y = 0; y < static_cast<int>(gray.height); ++y)
    for (int x = 0; x < static_cast<int>(gray.width); ++x) {
      std::vector<std::pair<float, double>> around;
      for (int dy = -r; dy <= r; ++dy)
        for (int dx = -r; dx <= r; ++dx) {
          if (shape == ElementShape::kDisk && dx * dx + dy * dy > reach * reach) continue;
          const std::size_t at = std::size_t{mirrored(y + dy, gray.height)} * gray.width +
                                 mirrored(x + dx, gray.width);
          if (gray.alpha[at] > 0) around.push_back({gray.value[at], std::hypot(dx, dy)});
        }
      const std::size_t here = out.size();
      out.push_back(gray.alpha[here] > 0 ? summary(around) : gray.value[here]);
    }
  return out;
}

using Neighbors = std::vector<std::pair<float, double>>;

float mean_of(const Neighbors& around) {
  double sum = 0;
  for (const auto& [value, distance] : around) sum += value;
  return static_cast<float>(sum / static_cast<double>(around.size()));
}
float median_of(const Neighbors& around) {
  std::vector<float> values;
  for (const auto& [value, distance] : around) values.push_back(value);
  std::sort(values.begin(), values.end());
  return values[(values.size() - 1) / 2];
}
float least_of(const Neighbors& around) {
  return std::min_element(around.begin(), around.end())->first;
}
float greatest_of(const Neighbors& around) {
  return std::max_element(around.begin(), around.end())->first;
}

/// What a window shows of a tile around the pixel (x, y) of the result, but for NaN.
Neighbors values_in(const Tile& values, const Window& window, std::size_t x, std::size_t y) {
  Neighbors around;
  for (std::size_t j = 0; j < window.rows(); ++j) {
    const std::size_t half = window.half_width(j), first = x + window.reach() - half;
    for (std::size_t i = first; i <= first + 2 * half; ++i)
      if (const float v = values.row(y + j)[i]; !std::isnan(v)) around.push_back({v, 0});
  }
  return around;
}

void check_near(const std::vector<float>& found, const std::vector<float>& wanted, float within) {
  REQUIRE(found.size() == wanted.size());
  float largest = 0;
  for (std::size_t i = 0; i < found.size(); ++i)
    largest = std::max(largest, std::abs(found[i] - wanted[i]));
  CHECK(largest <= within);
}

}  // namespace

TEST_CASE("filters agree with windows walked pixel by pixel", "[core][filter]") {
  for (const ElementShape shape : {ElementShape::kDisk, ElementShape::kBox})
    for (const bool holes : {false, true})
      for (const double radius : {1.0, 2.5, 7.0}) {
        CAPTURE(shape, holes, radius);
        // Smaller than the window, too, so that mirrors show mirrors.
        for (const Gray& gray : {random_gray(41, 23, 256, holes), random_gray(5, 3, 1000, holes)}) {
          const Element element{shape, radius, 0};
          check_near(filtered(gray, {FilterKind::kMean, element}),
                     walked(gray, radius, shape, mean_of), 2e-6f);
          check_near(filtered(gray, {FilterKind::kMedian, element}),
                     walked(gray, radius, shape, median_of), 1e-6f);
          check_near(filtered(gray, {FilterKind::kMinimum, element}),
                     walked(gray, radius, shape, least_of), 1e-6f);
          check_near(filtered(gray, {FilterKind::kMaximum, element}),
                     walked(gray, radius, shape, greatest_of), 1e-6f);
        }
      }
}

TEST_CASE("large windows have the medians of their values, of codes as of others",
          "[core][filter]") {
  std::mt19937 random(3);
  for (const ElementShape shape : {ElementShape::kBox, ElementShape::kDisk})
    for (const bool holes : {false, true})
      for (const float step : {1.0f, 1.5f}) {  // 256 values either way, but codes only with 1
        CAPTURE(shape, holes, step);
        const Window window({shape, 17, 0});
        Tile values(34 + 29, 34 + 11), out(29, 11);
        for (std::size_t y = 0; y < values.height(); ++y)
          for (std::size_t x = 0; x < values.width(); ++x)
            values.row(y)[x] =
                holes && random() % 3 == 0 ? NAN : step * static_cast<float>(random() % 256);
        window_median(values, window, out);
        for (std::size_t y = 0; y < out.height(); ++y)
          for (std::size_t x = 0; x < out.width(); ++x)
            REQUIRE(out.row(y)[x] == median_of(values_in(values, window, x, y)));
        Tile nothing(35, 35), one(1, 1);
        std::fill_n(nothing.row(0), 35 * 35, NAN);
        window_median(nothing, window, one);
        CHECK(std::isnan(one.row(0)[0]));
      }
}

TEST_CASE("windows of few pixels have the medians of their values", "[core][filter][simd]") {
  std::mt19937 random(5);
  std::vector<Element> elements;
  for (const double radius : {0.5, 1.0, 1.5, 2.0, 2.3, 3.0, 4.0, 5.0, 6.0})
    elements.push_back({ElementShape::kDisk, radius, 0});
  for (const double radius : {1.0, 2.0, 3.0, 4.0})
    elements.push_back({ElementShape::kBox, radius, 0});
  for (const Element& element : elements)
    for (const std::size_t width :
         {3u, 70u}) {  // less than a vector of any kind, and some with a rest
      const Window window(element);
      REQUIRE(window.pixels() <= kFewInWindow);
      const std::size_t reach = window.reach();
      Tile values(width + 2 * reach, 4 + 2 * reach), out(width, 4);
      for (std::size_t y = 0; y < values.height(); ++y)
        for (std::size_t x = 0; x < values.width(); ++x)
          values.row(y)[x] = static_cast<float>(random() % 40) - 20.5f;
      for_each_instruction_set([&](const char* name) {
        INFO(name << ", " << window.pixels() << " pixels");
        median_of_few(values, window, out);
        for (std::size_t y = 0; y < 4; ++y)
          for (std::size_t x = 0; x < width; ++x)
            REQUIRE(out.row(y)[x] == median_of(values_in(values, window, x, y)));
      });
    }
}

TEST_CASE("every filter gives the same values with every instruction set", "[core][filter][simd]") {
  for (const FilterKind kind : {FilterKind::kMean, FilterKind::kGaussian, FilterKind::kMedian,
                                FilterKind::kMinimum, FilterKind::kMaximum, FilterKind::kOpening})
    for (const ElementShape shape : {ElementShape::kDisk, ElementShape::kBox})
      for (const bool holes : {false, true}) {
        const Gray gray = random_gray(77, 12, 256, holes);
        const Filter filter{kind, {shape, 2, 0}};
        const auto best = filtered(gray, filter);
        for_each_instruction_set([&](const char* name) {
          INFO(name << ", filter " << static_cast<int>(kind));
          CHECK(filtered(gray, filter) == best);
        });
      }
}

TEST_CASE("the kinds of values are known wherever they are", "[core][filter][simd]") {
  struct Odd {
    float value;
    bool nan, other;
  };
  for (const Odd& odd :
       {Odd{0, false, false}, Odd{255, false, false}, Odd{NAN, true, false}, Odd{256, false, true},
        Odd{-1, false, true}, Odd{100.5f, false, true}, Odd{INFINITY, false, true}})
    for (const std::size_t width : {3u, 70u})
      for (const std::size_t at : {std::size_t{0}, width - 1, width + 1, 2 * width - 1}) {
        Tile values(width, 2);
        for (std::size_t i = 0; i < 2 * width; ++i)
          values.row(0)[i] = i == at ? odd.value : static_cast<float>(i);
        for_each_instruction_set([&](const char* name) {
          INFO(name << ", " << odd.value << " at " << at << " of " << 2 * width);
          CHECK(kinds_of(values).nan == odd.nan);
          CHECK(kinds_of(values).others == odd.other);
        });
      }
}

TEST_CASE("sums weighed alike on both sides are those added up one by one",
          "[core][filter][simd]") {
  const std::vector<float> weights{0.5f, 0.1875f, 0.0625f};
  std::vector<float> values;
  for (int i = 0; i < 200; ++i) values.push_back(static_cast<float>(i * i % 64));  // sums are exact
  for (const std::ptrdiff_t step : {1, 5})
    for (const std::size_t n : {std::size_t{1}, std::size_t{7}, std::size_t{150}}) {
      std::vector<float> wanted;
      for (std::size_t x = 0; x < n; ++x) {
        const float* const here = values.data() + 20 + x;
        wanted.push_back(0.5f * here[0] + 0.1875f * (here[-step] + here[step]) +
                         0.0625f * (here[-2 * step] + here[2 * step]));
      }
      for_each_instruction_set([&](const char* name) {
        INFO(name << ", " << n << " places");
        std::vector<float> sums(n + 1, -1.0f);
        symmetric_sums(values.data() + 20, step, weights, n, sums.data());
        CHECK(sums.back() == -1.0f);
        sums.pop_back();
        CHECK(sums == wanted);
      });
    }
}

TEST_CASE("opening and closing are erosion and dilation in turn", "[core][filter]") {
  const Element element{ElementShape::kDisk, 2, 0};
  for (const bool holes : {false, true}) {
    const Gray gray = random_gray(33, 21, 256, holes);
    Gray eroded = gray, dilated = gray;
    eroded.value = walked(gray, 2, element.shape, least_of);
    dilated.value = walked(gray, 2, element.shape, greatest_of);
    check_near(filtered(gray, {FilterKind::kOpening, element}),
               walked(eroded, 2, element.shape, greatest_of), 1e-6f);
    check_near(filtered(gray, {FilterKind::kClosing, element}),
               walked(dilated, 2, element.shape, least_of), 1e-6f);
  }
}

TEST_CASE("a Gaussian weighs by distance and keeps what is even", "[core][filter]") {
  const double deviation = 1.3;
  const auto gaussian = [&](const Neighbors& around) {
    double sum = 0, lent = 0;
    for (const auto& [value, distance] : around) {
      const double weight = std::exp(-distance * distance / (2 * deviation * deviation));
      sum += weight * value;
      lent += weight;
    }
    return static_cast<float>(sum / lent);
  };
  const Filter filter{FilterKind::kGaussian, {ElementShape::kDisk, deviation, 0}};
  CHECK(halo_of(filter) == 6);
  for (const bool holes : {false, true}) {
    const Gray gray = random_gray(40, 30, 256, holes);
    check_near(filtered(gray, filter), walked(gray, 6, ElementShape::kBox, gaussian), 1e-5f);
  }
  Gray even = random_gray(30, 20, 2, true);
  std::fill(even.value.begin(), even.value.end(), 0.25f);
  check_near(filtered(even, filter), even.value, 1e-6f);
}

TEST_CASE("a Gaussian that reaches far is as near as its cosines come to it", "[core][filter]") {
  for (const double deviation : {4.5, 20.0}) {
    const std::vector<float> weights = gaussian_weights(deviation);
    const std::size_t reach = weights.size() - 1;
    REQUIRE(reach > kFarReach);
    // Wider and narrower than the lines that are worked on together.
    for (const std::size_t width : {3, 8, 29}) {
      Tile values(width + 2 * reach, 11 + 2 * reach), out(width, 11);
      std::mt19937 random(7);
      for (std::size_t y = 0; y < values.height(); ++y)
        for (std::size_t x = 0; x < values.width(); ++x)
          values.row(y)[x] = static_cast<float>(random() % 1000) / 999;
      std::vector<std::vector<float>> all;
      for_each_instruction_set([&](const char*) {
        RunningGaussian(weights).sums(values, out);
        all.emplace_back(out.row(0), out.row(0) + width * 11);
      });
      for (const auto& one : all) CHECK(one == all.front());
      for (std::size_t y = 0; y < 11; ++y)
        for (std::size_t x = 0; x < width; ++x) {
          double sum = 0;
          for (std::size_t dy = 0; dy <= 2 * reach; ++dy)
            for (std::size_t dx = 0; dx <= 2 * reach; ++dx)
              sum += static_cast<double>(weights[dy > reach ? dy - reach : reach - dy]) *
                     static_cast<double>(weights[dx > reach ? dx - reach : reach - dx]) *
                     static_cast<double>(values.row(y + dy)[x + dx]);
          REQUIRE(std::abs(static_cast<double>(out.row(y)[x]) - sum) < 8e-5);
        }
    }
  }
  const Filter filter{FilterKind::kGaussian, {ElementShape::kDisk, 9, 0}};
  Gray even = random_gray(70, 50, 2, true);
  std::fill(even.value.begin(), even.value.end(), 0.25f);
  check_near(filtered(even, filter), even.value, 1e-6f);
  // A lone pixel keeps its value, whatever the others are.
  Gray lone = random_gray(70, 50, 256, false);
  std::fill(lone.alpha.begin(), lone.alpha.end(), 0.0f);
  lone.alpha[25 * 70 + 35] = 1;
  check_near(filtered(lone, filter), lone.value, 1e-5f);
}

TEST_CASE("pixels that do not count stay and lend nothing", "[core][filter]") {
  Gray gray{5, 1, {0.0f, 0.0f, NAN, 1.0f, 1.0f}, {1, 1, 1, 1, 1}};
  const auto out = filtered(gray, {FilterKind::kMean, {ElementShape::kBox, 1, 0}});
  CHECK(out[1] == 0);  // the NaN beside it is left out
  CHECK(std::isnan(out[2]) == false);
  CHECK(out[3] == 1);
}

TEST_CASE("a mirror shows itself again and again", "[core][pixel]") {
  CHECK(mirrored(-1, 4) == 0);
  CHECK(mirrored(4, 4) == 3);
  CHECK(mirrored(-5, 4) == 3);
  CHECK(mirrored(9, 4) == 1);
  CHECK(mirrored(-7, 1) == 0);
}
