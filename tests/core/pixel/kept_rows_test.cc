// Rows kept for a second pass: decoded once, lent from where they are kept.
#include "core/pixel/kept_rows.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <memory>
#include <vector>

#include "core/error.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/road.h"

using namespace chalcedony;

namespace {

constexpr RasterShape kShape{300, 1000, 1, SampleType::kU8};

std::vector<std::byte> samples() {
  std::vector<std::byte> out(kShape.pixels());
  for (std::size_t i = 0; i < out.size(); ++i) out[i] = static_cast<std::byte>(i * i / 7);
  return out;
}

/// Says how many rows were decoded, and fails at one if asked to.
class Decoder : public RowSource {
 public:
  explicit Decoder(std::uint32_t& decoded, std::uint32_t bad_row = kShape.height)
      : decoded_(decoded), bad_row_(bad_row) {}
  const RasterShape& shape() const override { return kShape; }
  void read_rows(std::uint32_t count, std::byte* rows) override {
    if (row_ + count > bad_row_) throw InputError("is damaged", "");
    picture_.read_rows(count, rows);
    row_ += count;
    decoded_ += count;
  }
  void rewind() override {
    picture_.rewind();
    row_ = 0;
  }

 private:
  MemorySource picture_{kShape, samples()};
  std::uint32_t& decoded_;
  std::uint32_t bad_row_, row_ = 0;
};

/// All rows that a road of bands sees.
std::vector<std::byte> travelled(RowSource& source, std::uint32_t halo) {
  std::vector<std::byte> out;
  RoadOptions options;
  options.halo = halo;
  const auto make_worker = [] {
    return [](const Band& band) {
      const std::byte* const rows = band.own_rows();
      return std::vector<std::byte>(rows, rows + band.rows() * band.shape().row_bytes());
    };
  };
  travel(source, options, make_worker,
         [&](std::vector<std::byte>&& rows) { out.insert(out.end(), rows.begin(), rows.end()); });
  return out;
}

}  // namespace

TEST_CASE("kept rows are decoded once and come again", "[core][pixel]") {
  const std::uint32_t halo = GENERATE(0u, 3u);
  std::uint32_t decoded = 0;
  KeptRows kept(std::make_unique<Decoder>(decoded), kShape.pixels());
  for (int pass = 0; pass < 3; ++pass) {
    CHECK(travelled(kept, halo) == samples());
    kept.rewind();
  }
  CHECK(decoded == kShape.height);
}

TEST_CASE("rows are lent from where they are kept", "[core][pixel]") {
  std::uint32_t decoded = 0;
  KeptRows kept(std::make_unique<Decoder>(decoded), kShape.pixels());
  CHECK(kept.lends());
  const std::byte* const first = kept.lend_rows(10);
  const std::byte* const next = kept.lend_rows(5);
  CHECK(next == first + 10 * kShape.row_bytes());
  std::vector<std::byte> rows(kShape.row_bytes());
  kept.read_rows(1, rows.data());
  CHECK(std::equal(rows.begin(), rows.end(), samples().begin() + 15 * kShape.width));
  // A pass that is left early begins anew.
  kept.rewind();
  CHECK(travelled(kept, 0) == samples());
  CHECK(decoded == 16 + kShape.height);
  kept.rewind();
  CHECK(kept.lend_rows(10) == first);
}

TEST_CASE("a picture that is too large to keep is decoded each time", "[core][pixel]") {
  std::uint32_t decoded = 0;
  KeptRows kept(std::make_unique<Decoder>(decoded), kShape.pixels() - 1);
  CHECK_FALSE(kept.lends());
  CHECK(kept.lend_rows(1) == nullptr);
  CHECK(decoded == 0);
  for (int pass = 0; pass < 2; ++pass) {
    CHECK(travelled(kept, 0) == samples());
    kept.rewind();
  }
  CHECK(decoded == 2 * kShape.height);
}

TEST_CASE("damage in kept rows is said, and nothing waits for it", "[core][pixel]") {
  std::uint32_t decoded = 0;
  KeptRows kept(std::make_unique<Decoder>(decoded, 500), kShape.pixels());
  CHECK_THROWS_AS(travelled(kept, 0), InputError);
}
