// What was seen at a slant, made upright.
#include "core/reframe/straightened_rows.h"

#include <Eigen/Dense>
#include <catch2/catch.hpp>

#include "core/pixel/memory_source.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

const FourCorners kSlanted{{{12.5, 9}, {88, 20.25}, {79, 61}, {20, 70.5}}};

/// The projective map of the unit square onto four points by solving its eight equations.
Eigen::Matrix3d solved_map(const FourCorners& to) {
  constexpr std::array<std::array<double, 2>, 4> kSquare{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}};
  Eigen::Matrix<double, 8, 8> equations = Eigen::Matrix<double, 8, 8>::Zero();
  Eigen::Matrix<double, 8, 1> values;
  for (int i = 0; i < 4; ++i) {
    const auto [u, v] = kSquare[static_cast<std::size_t>(i)];
    const auto [x, y] = to[static_cast<std::size_t>(i)];
    equations.row(2 * i) << u, v, 1, 0, 0, 0, -u * x, -v * x;
    equations.row(2 * i + 1) << 0, 0, 0, u, v, 1, -u * y, -v * y;
    values.segment<2>(2 * i) << x, y;
  }
  const Eigen::Matrix<double, 8, 1> m = equations.fullPivLu().solve(values);
  Eigen::Matrix3d map;
  map << m[0], m[1], m[2], m[3], m[4], m[5], m[6], m[7], 1;
  return map;
}

PictureInfo slanted_info(SampleType sample, std::uint32_t channels) {
  PictureInfo info;
  info.shape = {100, 80, channels, sample};
  info.full_scale = full_scale_of(sample);
  return info;
}

template <class Sample>
std::unique_ptr<RowSource> held(const PictureInfo& info, const std::vector<Sample>& samples) {
  const auto bytes = std::as_bytes(std::span(samples));
  return std::make_unique<MemorySource>(info.shape,
                                        std::vector<std::byte>(bytes.begin(), bytes.end()));
}

template <class Sample>
std::vector<Sample> all_rows(StraightenedRows& rows) {
  std::vector<Sample> samples(rows.shape().pixels() * rows.shape().channels);
  rows.read_rows(rows.shape().height, reinterpret_cast<std::byte*>(samples.data()));
  return samples;
}

}  // namespace

TEST_CASE("the map of a square onto four corners solves its equations", "[core][reframe]") {
  const FourCorners lopsided{{{0, 0}, {30, 5}, {41, 60}, {-7, 22}}};
  for (const FourCorners& corners : {kSlanted, lopsided}) {
    const SquareMap map(corners);
    const Eigen::Matrix3d solved = solved_map(corners);
    for (double u = 0; u <= 1; u += 0.125)
      for (double v = 0; v <= 1; v += 0.125) {
        const Eigen::Vector3d place = solved * Eigen::Vector3d(u, v, 1);
        CHECK(map.at(u, v).x == Approx(place[0] / place[2]).margin(1e-9));
        CHECK(map.at(u, v).y == Approx(place[1] / place[2]).margin(1e-9));
      }
    CHECK(map.at(1, 1).x == Approx(corners[2].x));
    CHECK(map.at(1, 1).y == Approx(corners[2].y));
  }
}

TEST_CASE("a ramp that was seen at a slant is even again", "[core][reframe]") {
  // Each pixel shows how far along the rectangle it lies, by the inverse of the solved map.
  const PictureInfo info = slanted_info(SampleType::kF32, 3);
  const Eigen::Matrix3d back = solved_map(kSlanted).inverse();
  std::vector<float> picture;
  for (int y = 0; y < 80; ++y)
    for (int x = 0; x < 100; ++x) {
      const Eigen::Vector3d place = back * Eigen::Vector3d(x + 0.5, y + 0.5, 1);
      for (const double value : {place[0] / place[2], place[1] / place[2], 0.25})
        picture.push_back(static_cast<float>(value));
    }
  StraightenedRows rows(held(info, picture), info, kSlanted, {});
  CHECK(rows.info().alpha == AlphaKind::kNone);  // nothing beside the picture is seen
  CHECK(rows.shape().width == 68);               // the means of 76.33 and 59.76
  CHECK(rows.shape().height == 52);              // and of 61.95 and 41.73
  const auto upright = all_rows<float>(rows);
  for (std::uint32_t y = 0; y < 52; ++y)
    for (std::uint32_t x = 0; x < 68; ++x) {
      const float* const pixel = &upright[(y * 68 + x) * 3];
      CHECK(pixel[0] == Approx((x + 0.5) / 68).margin(2e-4));
      CHECK(pixel[1] == Approx((y + 0.5) / 52).margin(2e-4));
      CHECK(pixel[2] == Approx(0.25).margin(1e-6));
    }
  rows.rewind();
  CHECK(all_rows<float>(rows) == upright);
}

TEST_CASE("what is made upright is the same bytes by every instruction set",
          "[core][reframe][simd]") {
  const PictureInfo info = slanted_info(SampleType::kU8, 3);
  const std::vector<std::uint8_t> picture = random_bytes(info.shape.pixels() * 3);
  const auto upright = [&] {
    StraightenedRows rows(held(info, picture), info, kSlanted, {});
    return all_rows<std::uint8_t>(rows);
  };
  const auto best = upright();
  for_each_instruction_set([&](const char* name) {
    INFO(name);
    CHECK(upright() == best);
  });
}

TEST_CASE("the corners of a picture itself change nothing", "[core][reframe]") {
  const PictureInfo info = slanted_info(SampleType::kU8, 1);
  std::vector<std::uint8_t> picture;
  for (int i = 0; i < 8000; ++i) picture.push_back(static_cast<std::uint8_t>(i * 37 % 256));
  const FourCorners whole{{{0, 0}, {100, 0}, {100, 80}, {0, 80}}};
  for (const bool nearest : {false, true}) {
    StraightenedRows rows(held(info, picture), info, whole, {nearest});
    CHECK(all_rows<std::uint8_t>(rows) == picture);
  }
}

TEST_CASE("beside the picture is nothing, or the fill", "[core][reframe]") {
  const PictureInfo info = slanted_info(SampleType::kU8, 1);
  const std::vector<std::uint8_t> picture(8000, 90);
  const FourCorners beyond{{{-20, 0}, {100, 0}, {100, 80}, {-20, 80}}};
  StraightenedRows blank(held(info, picture), info, beyond, {});
  CHECK(blank.info().alpha == AlphaKind::kStraight);
  const auto rows = all_rows<std::uint8_t>(blank);
  CHECK(rows[1] == 0);
  CHECK(rows[2 * 60] == 90);
  CHECK(rows[2 * 60 + 1] == 255);
  StraightenedRows filled(held(info, picture), info, beyond, {false, {{7, 7, 7}}});
  CHECK(filled.info().alpha == AlphaKind::kNone);
  CHECK(all_rows<std::uint8_t>(filled)[0] == 7);
  // Labels stay labels.
  StraightenedRows labels(held(info, picture), info, beyond, {true, {{0, 0, 0}}});
  for (const std::uint8_t label : all_rows<std::uint8_t>(labels))
    CHECK((label == 0 || label == 90));
}

TEST_CASE("corners are read as people write them", "[core][reframe]") {
  const FourCorners corners = parse_corners(" 12.5,9  88,20.25 79,61 20,70.5");
  for (std::size_t i = 0; i < 4; ++i) {
    CHECK(corners[i].x == kSlanted[i].x);
    CHECK(corners[i].y == kSlanted[i].y);
  }
  for (const char* text : {"", "1,2 3,4 5,6", "0,0 9,0 9,9 0,9 4,4", "0,0 9 9,9 0,9",
                           "0,0 9,x 9,9 0,9", "0,0 9,0 9,9 0,inf"})
    CHECK_THROWS_WITH(parse_corners(text), Catch::Contains("is not four corners"));
  // The wrong way round, crossed, with a corner inside, all in one line.
  for (const char* text : {"0,0 0,9 9,9 9,0", "0,0 9,9 9,0 0,9", "0,0 9,0 2,2 0,9",
                           "0,0 1,1 2,2 3,3", "0,0 0,0 9,9 0,9"})
    CHECK_THROWS_WITH(parse_corners(text), Catch::Contains("do not go round clockwise"));
}
