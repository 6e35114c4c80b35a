// Hashes and states of files, bytes as text, tables of colors and samples on disk.
#include "io/file/file_state.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <filesystem>

#include "core/error.h"
#include "io/document/color_table_file.h"
#include "io/document/sample_table_file.h"
#include "io/file/temporary_folder.h"
#include "io/text/base64.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("base64 as in RFC 4648, section 10", "[io][base64]") {
  CHECK(base64("") == "");
  CHECK(base64("f") == "Zg==");
  CHECK(base64("fo") == "Zm8=");
  CHECK(base64("foo") == "Zm9v");
  CHECK(base64("foob") == "Zm9vYg==");
  CHECK(base64("fooba") == "Zm9vYmE=");
  CHECK(base64("foobar") == "Zm9vYmFy");
  CHECK(base64("\xff\xfe\xfd") == "//79");
}

TEST_CASE("content hashes are those of XXH3 with 128 bits", "[io][hash]") {
  const TempDir dir;
  put_text(dir / "empty", "");
  // The published value for no input and seed 0.
  CHECK(content_hash(dir / "empty") == "99aa06d3014798d86001c324468d497f");
  // Parts that are read one after the other make the hash of the whole.
  std::string large(1'000'003, 'x');
  for (std::size_t i = 0; i < large.size(); i += 7) large[i] = static_cast<char>(i);
  put_text(dir / "a", large);
  put_text(dir / "b", large);
  CHECK(content_hash(dir / "a") == content_hash(dir / "b"));
  large[999'999] = static_cast<char>(large[999'999] ^ 1);
  put_text(dir / "b", large);
  CHECK(content_hash(dir / "a") != content_hash(dir / "b"));
  CHECK_THROWS_WITH(content_hash(dir / "none"), Catch::Contains("none: cannot be read"));
}

TEST_CASE("a file is unchanged by size and time, or by its content", "[io][hash]") {
  const TempDir dir;
  put_text(dir / "a", "twelve bytes");
  const FileState before = state_of(dir / "a");
  CHECK(before.bytes == 12);
  CHECK(is_unchanged(dir / "a", before, false));
  CHECK(is_unchanged(dir / "a", before, true));
  const auto time = std::filesystem::last_write_time(dir / "a");
  std::filesystem::last_write_time(dir / "a", time + std::chrono::seconds(5));
  CHECK_FALSE(is_unchanged(dir / "a", before, false));
  CHECK(is_unchanged(dir / "a", before, true));
  put_text(dir / "a", "TWELVE bytes");
  std::filesystem::last_write_time(dir / "a", time);
  CHECK(is_unchanged(dir / "a", before, false));
  CHECK_FALSE(is_unchanged(dir / "a", before, true));
  put_text(dir / "a", "more than twelve");
  CHECK_FALSE(is_unchanged(dir / "a", before, false));
  std::filesystem::remove(dir / "a");
  CHECK_FALSE(is_unchanged(dir / "a", before, false));
  CHECK_FALSE(is_unchanged(dir / "a", before, true));
}

TEST_CASE("a temporary folder is gone at the end, with what is in it", "[io]") {
  std::filesystem::path file;
  {
    const TemporaryFolder folder;
    file = folder / "a";
    put_text(file, "x");
    CHECK(std::filesystem::exists(file));
  }
  CHECK_FALSE(std::filesystem::exists(file.parent_path()));
}

TEST_CASE("tables of colors there and back, in their order", "[io][colors]") {
  const TempDir dir;
  StoredColors colors;
  colors.space = &spaces::kDisplayP3;
  colors.rgb = {200, 1, 2, 0, 255, 7, 0, 0, 9};
  colors.pixels = {3, 5'000'000'000, 1};
  write_color_table(dir / "c.csv", colors);
  CHECK(text_of_file(dir / "c.csv") ==
        "display-p3.r,display-p3.g,display-p3.b,pixels\r\n0,0,9,1\r\n0,255,7,5000000000\r\n"
        "200,1,2,3\r\n");
  const StoredColors read = read_color_table(dir / "c.csv");
  CHECK(read.space == &spaces::kDisplayP3);
  CHECK(read.all_pixels() == 5'000'000'004);
  CHECK(read.rgb == std::vector<std::uint8_t>{0, 0, 9, 0, 255, 7, 200, 1, 2});
  // As a spreadsheet saves it.
  for (const char* text : {"srgb.r;srgb.g;srgb.b;pixels\r\n1;2;3;4\r\n",
                           "\xef\xbb\xbfsrgb.r\tsrgb.g\tsrgb.b\tpixels\n1\t2\t3\t4\n"}) {
    put_text(dir / "c.csv", text);
    const StoredColors saved = read_color_table(dir / "c.csv");
    CHECK(saved.rgb == std::vector<std::uint8_t>{1, 2, 3});
    CHECK(saved.pixels == std::vector<std::uint64_t>{4});
  }
  for (const char* text :
       {"srgb.r;srgb.g;srgb.b;pixels\n1,2,3,4\n", "", "a,b\n", "lab.l,lab.a,lab.b,pixels\n",
        "srgb.r,srgb.g,srgb.b,pixels\n1,2\n", "srgb.r,srgb.g,srgb.b,pixels\n1,2,3,0\n",
        "srgb.r,srgb.g,srgb.b,pixels\n1,2,3,4,5\n", "srgb.r,srgb.g,srgb.b,pixels\n256,2,3,4\n"}) {
    put_text(dir / "c.csv", text);
    INFO(text);
    CHECK_THROWS_WITH(read_color_table(dir / "c.csv"), Catch::Contains("is no table of colors"));
  }
}

TEST_CASE("tables of samples there and back, number for number", "[io][samples]") {
  const TempDir dir;
  const std::vector<Channel> features = channels_named("lab.a,lab.b");
  SampleTable samples(2);
  const std::vector<std::array<float, 2>> rows{
      {0.1f, -1e-7f}, {123.456f, 3.0f}, {0.1f, -1e-7f}, {-0.33333334f, 7.5f}};
  for (std::size_t i = 0; i < rows.size(); ++i) samples.add(i / 3, rows[i].data(), i + 1);
  samples.join_equal_rows();
  write_sample_table(dir / "s.csv", {{"ru,by", "#ff0000"}, {"lead", "#303030"}}, features, samples);
  const StoredSamples read = read_sample_table(dir / "s.csv", features);
  REQUIRE(read.classes.size() == 2);
  CHECK(read.classes[0].name == "ru,by");
  CHECK(read.classes[1].color == "#303030");
  for (std::size_t c = 0; c < 2; ++c) {
    CHECK(read.samples.of(c).values == samples.of(c).values);
    CHECK(read.samples.of(c).counts == samples.of(c).counts);
    CHECK(read.samples.added(c) == samples.added(c));
  }
  CHECK_THROWS_WITH(read_sample_table(dir / "s.csv", channels_named("lab.l")),
                    Catch::Contains("has the features lab.a,lab.b"));
}
