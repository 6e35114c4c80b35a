// Which pictures a report takes as they are, and which it makes smaller.
#include "job/report/report_images.h"

#include <catch2/catch.hpp>

#include "io/file/whole_file.h"
#include "io/text/base64.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

InlinedImage inlined(const std::filesystem::path& file) {
  const auto image = inlined_image(file, Context{});
  REQUIRE(image.has_value());
  return *image;
}

bool as_it_is(const std::filesystem::path& file) {
  return inlined(file).source == "data:image/png;base64," + base64(read_text_file(file));
}

/// Noise, so that the file is no small one.
void write_noise(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height) {
  write_rgb(path, width, height, random_bytes(std::size_t{3} * width * height));
}

}  // namespace

TEST_CASE("pages of figures stand in a report as they are, of any height", "[job][report]") {
  const TempDir dir;
  write_noise(dir / "a.histogram.png", 1280, 800);
  write_noise(dir / "a.sheet.figure.png", 1280, 458);
  for (const char* page : {"a.histogram.png", "a.sheet.figure.png"}) {
    CHECK(inlined(dir / page).is_figure);
    CHECK(as_it_is(dir / page));
  }
}

TEST_CASE("pictures as wide as a page are made smaller", "[job][report]") {
  const TempDir dir;
  write_noise(dir / "a.png", 1280, 458);
  write_noise(dir / "b.figure.png", 1280, 900);
  for (const char* picture : {"a.png", "b.figure.png"}) {
    const InlinedImage image = inlined(dir / picture);
    CHECK_FALSE(image.is_figure);
    CHECK(image.source.starts_with("data:image/jpeg;base64,"));
  }
  write_noise(dir / "small.png", 60, 40);
  CHECK(as_it_is(dir / "small.png"));
  CHECK_FALSE(inlined(dir / "small.png").is_figure);
  CHECK_FALSE(inlined_image(dir / "none.png", Context{}).has_value());
}
