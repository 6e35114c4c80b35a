#include "core/pixel/road.h"

#include <catch2/catch.hpp>
#include <cstring>
#include <numeric>
#include <random>

#include "core/error.h"
#include "core/pixel/kept_rows.h"
#include "core/pixel/memory_source.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

MemorySource random_picture(std::uint32_t width, std::uint32_t height) {
  std::mt19937 random(width + height);
  std::vector<std::byte> samples(std::size_t{width} * height);
  for (auto& s : samples) s = static_cast<std::byte>(random() & 255);
  return MemorySource({width, height, 1, SampleType::kU8}, samples);
}

unsigned at(const std::byte* row, std::int64_t x) { return std::to_integer<unsigned>(row[x]); }

/// The sums of 3x3 neighborhoods, edges repeated, through the road.
std::vector<unsigned> box_sums(RowSource& source, unsigned threads) {
  const RasterShape shape = source.shape();
  RoadOptions options;
  options.threads = threads;
  options.halo = 1;
  std::vector<unsigned> out;
  const auto make_worker = [&] {
    return [width = static_cast<std::int64_t>(shape.width)](const Band& band) {
      std::vector<unsigned> sums;
      for (std::uint32_t r = 0; r < band.rows(); ++r)
        for (std::int64_t x = 0; x < width; ++x) {
          unsigned sum = 0;
          for (int dy = -1; dy <= 1; ++dy)
            for (int dx = -1; dx <= 1; ++dx)
              sum += at(band.row(std::int64_t{band.first_row()} + r + dy),
                        std::clamp<std::int64_t>(x + dx, 0, width - 1));
          sums.push_back(sum);
        }
      return sums;
    };
  };
  travel(source, options, make_worker, [&](const std::vector<unsigned>& sums) {
    out.insert(out.end(), sums.begin(), sums.end());
  });
  return out;
}

std::vector<unsigned> plain_box_sums(RowSource& source) {
  const RasterShape shape = source.shape();
  source.rewind();
  std::vector<std::byte> all(shape.row_bytes() * shape.height);
  source.read_rows(shape.height, all.data());
  source.rewind();
  std::vector<unsigned> out;
  const auto w = static_cast<std::int64_t>(shape.width),
             h = static_cast<std::int64_t>(shape.height);
  for (std::int64_t y = 0; y < h; ++y)
    for (std::int64_t x = 0; x < w; ++x) {
      unsigned sum = 0;
      for (std::int64_t dy = -1; dy <= 1; ++dy)
        for (std::int64_t dx = -1; dx <= 1; ++dx)
          sum += at(all.data() + std::clamp<std::int64_t>(y + dy, 0, h - 1) * w,
                    std::clamp<std::int64_t>(x + dx, 0, w - 1));
      out.push_back(sum);
    }
  return out;
}

}  // namespace

TEST_CASE("a 3x3 neighborhood through the road equals the plain one, for any threads",
          "[core][pixel][road]") {
  for (const auto& [width, height] :
       {std::pair{1u, 1u}, std::pair{3000u, 150u}, std::pair{7u, 40000u}, std::pair{200000u, 5u}}) {
    MemorySource source = random_picture(width, height);
    const auto wanted = plain_box_sums(source);
    for (const unsigned threads : {1u, 2u, 3u}) {
      source.rewind();
      INFO(width << "x" << height << ", " << threads << " threads");
      CHECK(box_sums(source, threads) == wanted);
    }
  }
}

TEST_CASE("a second pass sees the same rows, and results come in order", "[core][pixel][road]") {
  MemorySource source = random_picture(1000, 2000);
  for (int pass = 0; pass < 2; ++pass) {
    source.rewind();
    std::uint64_t sum = 0, rows = 0;
    std::uint64_t last_progress = 0;
    RoadOptions options;
    options.threads = 3;
    options.bands_each = pass == 0 ? 1 : 32;  // more than the picture has
    options.progress = [&](std::uint64_t done) {
      CHECK(done > last_progress);
      last_progress = done;
    };
    struct Part {
      std::uint32_t first, rows;
      std::uint64_t sum;
    };
    const auto make_worker = [] {
      return [](const Band& band) {
        Part part{band.first_row(), band.rows(), 0};
        for (std::size_t i = 0; i < band.rows() * band.shape().row_bytes(); ++i)
          part.sum += std::to_integer<unsigned>(band.own_rows()[i]);
        return part;
      };
    };
    travel(source, options, make_worker, [&](const Part& part) {
      CHECK(part.first == rows);
      rows += part.rows;
      sum += part.sum;
    });
    CHECK(rows == 2000);
    CHECK(last_progress == 2000);
    static std::uint64_t first_sum = sum;
    CHECK(sum == first_sum);
  }
}

TEST_CASE("an error in a worker and a stop from outside end the road", "[core][pixel][road]") {
  MemorySource source = random_picture(2000, 2000);
  const auto failing = [] {
    return [](const Band& band) -> int {
      if (band.first_row() > 500) throw InputError("damaged", "copy it again");
      return 0;
    };
  };
  CHECK_THROWS_AS(travel(source, {}, failing, [](int) {}), InputError);
  source.rewind();
  std::atomic<bool> stop{false};
  RoadOptions options;
  options.stop = &stop;
  const auto working = [] { return [](const Band&) { return 0; }; };
  CHECK_THROWS_AS(travel(source, options, working, [&](int) { stop = true; }), Interrupted);
}

TEST_CASE("bands depend on the picture alone and stay small", "[core][pixel][road]") {
  CHECK(rows_per_band({6000, 4000, 3, SampleType::kU8}, 0) == 21);
  CHECK(rows_per_band({1000000, 5, 3, SampleType::kU8}, 0) == 1);
  CHECK(rows_per_band({10, 5, 3, SampleType::kU8}, 0) == 5);
  CHECK(rows_per_band({100000, 5000, 3, SampleType::kU8}, 40) == 80);
}

TEST_CASE("kept rows come again without being decoded, if there is room", "[core][pixel]") {
  /// Counts how often its rows are asked for.
  class Counting : public MemorySource {
   public:
    using MemorySource::MemorySource;
    void read_rows(std::uint32_t count, std::byte* rows) override {
      read += count;
      MemorySource::read_rows(count, rows);
    }
    std::uint32_t read = 0;
  };
  const RasterShape shape{4, 5, 1, SampleType::kU8};
  const auto samples = bytes_of(random_bytes(20));
  for (const std::size_t room : {20u, 19u}) {
    auto source = std::make_unique<Counting>(shape, samples);
    const Counting& counting = *source;
    KeptRows rows(std::move(source), room);
    std::vector<std::byte> first(20), second(20);
    rows.read_rows(2, first.data());
    rows.rewind();  // a pass that did not end keeps nothing
    rows.read_rows(3, first.data());
    rows.read_rows(2, first.data() + 12);
    rows.rewind();
    rows.read_rows(5, second.data());
    CHECK(first == samples);
    CHECK(second == samples);
    CHECK(counting.read == (room == 20 ? 7 : 12));
  }
}
