// Every command over every kind of picture and of labels there is, at the built program: it does
// its work or says in one line why not, and what it says it wrote is there.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <limits>
#include <nlohmann/json.hpp>
#include <set>
#include <string>
#include <vector>

#include "tests/support/other_writers.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kKindsWidth = 24, kKindsHeight = 16;

/// The samples of four flat parts, each a little uneven; `alpha` has holes.
std::vector<double> shares_of_full(std::uint32_t width, std::uint32_t height,
                                   std::uint32_t channels) {
  const bool alpha = channels == 2 || channels == 4;
  std::vector<double> samples;
  for (std::uint32_t y = 0; y < height; ++y)
    for (std::uint32_t x = 0; x < width; ++x)
      for (std::uint32_t c = 0; c < channels; ++c) {
        const std::uint32_t part = 2 * (2 * y / height) + 2 * x / width;
        if (alpha && c + 1 == channels) {
          samples.push_back(x == 3 ? 0 : x == 4 ? 0.5 : 1);
        } else {
          samples.push_back(((part + 1) * (c + 2) * 37 % 220 + (x * 7 + y * 3 + c) % 9) / 255.0);
        }
      }
  return samples;
}

template <class Sample>
std::vector<std::byte> stored(const std::vector<double>& shares, double full) {
  std::vector<Sample> samples;
  for (const double share : shares) samples.push_back(static_cast<Sample>(share * full));
  return bytes_of(samples);
}

void write_kind(const TempDir& dir, const std::string& name, const PictureSpec& spec) {
  const RasterShape& shape = spec.shape;
  const auto shares = shares_of_full(shape.width, shape.height, shape.channels);
  write_picture(dir / name, spec,
                shape.sample == SampleType::kU8    ? stored<std::uint8_t>(shares, 255)
                : shape.sample == SampleType::kU16 ? stored<std::uint16_t>(shares, 65535)
                                                   : stored<float>(shares, 1));
}

/// A float picture some of whose pixels are no numbers or far beyond full scale.
void write_broken_floats(const TempDir& dir, const std::string& name) {
  std::vector<float> samples;
  for (const double share : shares_of_full(kKindsWidth, kKindsHeight, 3))
    samples.push_back(static_cast<float>(share));
  samples[0] = std::numeric_limits<float>::quiet_NaN();
  samples[100] = std::numeric_limits<float>::infinity();
  samples[200] = -1e30f;
  samples[300] = 1e30f;
  write_picture(dir / name, spec_of(kKindsWidth, kKindsHeight, 3, SampleType::kF32),
                bytes_of(samples));
}

/// Of samples that our own writers do not write, with all their bits in use.
void write_by_others(const TempDir& dir, const std::string& name, const TiffLayout& layout) {
  const std::size_t row_bytes = (std::size_t{kKindsWidth} * layout.channels * layout.bits + 7) / 8;
  write_other_tiff(dir / name, layout, random_bytes(row_bytes * kKindsHeight));
}

/// Depth, channels, space, container and size as they come.
void write_all_kinds(const TempDir& dir) {
  for (const std::uint32_t channels : {1u, 2u, 3u, 4u})
    for (const SampleType sample : {SampleType::kU8, SampleType::kU16, SampleType::kF32})
      write_kind(dir,
                 std::to_string(channels) + "x" + std::to_string(8 * bytes_per_sample(sample)) +
                     (sample == SampleType::kF32 ? ".tif" : ".png"),
                 spec_of(kKindsWidth, kKindsHeight, channels, sample));
  for (const Space* space : {&spaces::kLab, &spaces::kHsv, &spaces::kYcbcr, &spaces::kOklch})
    for (const SampleType sample : {SampleType::kU8, SampleType::kU16}) {
      PictureSpec spec = spec_of(kKindsWidth, kKindsHeight, 3, sample);
      spec.space = space;
      write_kind(dir,
                 std::string(space->id) + std::to_string(8 * bytes_per_sample(sample)) + ".png",
                 spec);
    }
  write_kind(dir, "five.tif", spec_of(kKindsWidth, kKindsHeight, 5, SampleType::kU16));
  write_kind(dir, "photo.jpg", spec_of(kKindsWidth, kKindsHeight, 3));
  write_kind(dir, "web.webp", spec_of(kKindsWidth, kKindsHeight, 3));
  write_kind(dir, "pixel.png", spec_of(1, 1, 3));
  write_kind(dir, "row.png", spec_of(kKindsWidth, 1, 3));
  write_kind(dir, "column.tif", spec_of(1, kKindsHeight, 4, SampleType::kU16));
  write_rgb(dir / "flat.png", kKindsWidth, kKindsHeight,
            std::vector<std::uint8_t>(kKindsWidth * kKindsHeight * 3, 128));
  write_picture(dir / "clear.png", spec_of(kKindsWidth, kKindsHeight, 4),
                std::vector<std::byte>(kKindsWidth * kKindsHeight * 4));
  write_broken_floats(dir, "broken.tif");
  write_by_others(dir, "half.tif",
                  {kKindsWidth, kKindsHeight, 3, 16, SAMPLEFORMAT_IEEEFP, PHOTOMETRIC_RGB});
  write_by_others(dir, "bits4.tif", {kKindsWidth, kKindsHeight, 1, 4});
  write_by_others(dir, "lab.tif",
                  {kKindsWidth, kKindsHeight, 3, 8, SAMPLEFORMAT_UINT, PHOTOMETRIC_CIELAB});
}

/// What is wrong with pictures together, and not with one of them.
const std::vector<std::string> kOfSeveral{"too few", "class 'a'", "cannot be inverted",
                                          "no class in common"};

/// Whether an error names one of the files of the command, or is of several.
bool says_where(const std::string& error, const Words& words) {
  return std::any_of(words.begin(), words.end(),
                     [&](const std::string& word) {
                       return error.find("chalcedony: error: " + word + ": ") != error.npos;
                     }) ||
         std::any_of(kOfSeveral.begin(), kOfSeveral.end(),
                     [&](const std::string& message) { return error.find(message) != error.npos; });
}

/// Runs a command over a picture, which `PICTURE` stands for among the words.
void check_run(const TempDir& dir, const std::string& picture, Words words) {
  std::replace(words.begin(), words.end(), std::string("PICTURE"), picture);
  std::string line;
  for (const std::string& word : words) line += " " + word;
  INFO(line);
  const Outcome run = run_tool(dir, with(words, {"-o", "out/", "--summary", "json"}));
  INFO(run.err);
  if (run.exit_code == 0) {
    const json done = json::parse(run.out);
    for (const json& output : done["outputs"]) {
      INFO(output);
      CHECK(std::filesystem::file_size(dir / output.get<std::string>()) > 0);
    }
  } else {
    CHECK(run.exit_code == 1);  // the words are right
    const Words said = split(run.err, '\n');
    CHECK(std::count_if(said.begin(), said.end(), [](const std::string& error) {
            return error.starts_with("chalcedony: error: ");
          }) == 1);
    CHECK(says_where(run.err, words));
  }
  for (const std::string& name : dir.files()) {
    if (!name.starts_with("out/")) continue;
    CHECK_THAT(name, !Catch::Contains(".part"));
    if (run.exit_code != 0)
      CHECK_THAT(name, Catch::EndsWith("how.json") || Catch::EndsWith(".jsonl"));
  }
  std::filesystem::remove_all(dir / "out");
}

/// Every line over every picture, in a folder with a model.
void check_all(const std::vector<std::string>& lines) {
  const TempDir dir;
  write_all_kinds(dir);
  const std::set<std::string> pictures = dir.files();
  CHECK(pictures.size() == 32);
  CHECK(run_tool(dir, words_of("train 3x8.png --sample a=0,0,12,8 --sample b=12,8,12,8 "
                               "--figures none --write model -o ./"))
            .exit_code == 0);
  for (const std::string& line : lines)
    for (const std::string& picture : pictures) check_run(dir, picture, words_of(line));
}

/// Masks and class maps, and pictures that may be taken for them.
void write_all_labels(const TempDir& dir) {
  const std::vector<std::uint8_t> none(kKindsWidth * kKindsHeight, 0),
      all(kKindsWidth * kKindsHeight, 255);
  std::vector<std::uint8_t> some = none, classes;
  std::vector<std::uint16_t> high;
  for (std::uint32_t i = 0; i < kKindsWidth * kKindsHeight; ++i) {
    some[i] = i * 7 % 11 < 5 || i % kKindsWidth == 0 ? 255 : 0;
    classes.push_back(static_cast<std::uint8_t>(i * 5 % 13 < 3 ? 0 : 1 + 2 * i / some.size()));
    high.push_back(static_cast<std::uint16_t>(300 * classes.back()));
  }
  write_labels(dir / "none.png", kKindsWidth, none);
  write_labels(dir / "all.png", kKindsWidth, all);
  write_labels(dir / "some.png", kKindsWidth, some);
  write_labels(dir / "classes.png", kKindsWidth, classes,
               {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}, {9, "amber", "#d68e18"}});
  write_labels(dir / "pixel.png", 1, {255});
  write_labels(dir / "row.tif", kKindsWidth, std::vector<std::uint8_t>(kKindsWidth, 1),
               {{1, "lead", ""}});
  write_picture(
      dir / "high.png",
      class_map_spec({kKindsWidth, kKindsHeight}, {{300, "lead", "#303030"}, {600, "ruby", ""}}),
      bytes_of(high));
  write_picture(dir / "deep.tif", label_spec({kKindsWidth, kKindsHeight}, SampleType::kU16),
                bytes_of(high));
  write_stripes(dir / "colors.png");
  write_kind(dir, "gray.png", spec_of(kKindsWidth, kKindsHeight, 1));
  write_kind(dir, "photo.png", spec_of(kKindsWidth, kKindsHeight, 3));
  write_kind(dir, "photo.jpg", spec_of(kKindsWidth, kKindsHeight, 3));
  write_kind(dir, "clear.png", spec_of(kKindsWidth, kKindsHeight, 4));
  write_kind(dir, "float.tif", spec_of(kKindsWidth, kKindsHeight, 1, SampleType::kF32));
}

}  // namespace

TEST_CASE("every kind of picture can be looked at", "[cli][every-kind]") {
  check_all({"inspect PICTURE --space oklch", "inspect PICTURE --full-scale 200",
             "histogram PICTURE --joint hsv.h,hsv.s --peaks 2 --figures none",
             "histogram PICTURE --space lab --figures none",
             "similar PICTURE --to 3x8.png --distance transport --figures none",
             "diff PICTURE PICTURE --tolerance 1 --figures none"});
}

TEST_CASE("every kind of picture can be prepared", "[cli][every-kind]") {
  check_all({"reframe PICTURE --scale 0.5", "reframe PICTURE --turn 10",
             "smooth PICTURE --filter median --radius 1", "balance PICTURE --figures none",
             "balance PICTURE --flat fit --on lightness --figures none"});
}

TEST_CASE("every kind of picture can be converted, and taken apart", "[cli][every-kind]") {
  check_all({"convert PICTURE --to lab", "convert PICTURE --to oklch --depth float",
             "convert PICTURE --to srgb --depth 8 --dither",
             "convert PICTURE --to display-p3 --gamut map", "split PICTURE --channels hsv"});
}

TEST_CASE("every kind of picture can be selected from", "[cli][every-kind]") {
  check_all({"mask PICTURE --where \"hsv.h in 340..20 or lab.l < 40\" --figures none",
             "mask PICTURE --where \"near(#b5563a, 12)\" --figures none",
             "mask PICTURE --auto lab.l --figures none",
             "mask PICTURE --like 0,0,8,8 --by gaussian --figures none",
             "slice PICTURE --channel lab.l --quantiles 3 --figures none",
             "slice PICTURE --where \"a=hsv.h in 340..20\" --where \"b=near(#b5563a, 12)\"",
             "tune PICTURE --where \"hsv.h in 340..20 and lab.l >= 40\"", "outline PICTURE"});
}

TEST_CASE("every kind of picture can be grouped", "[cli][every-kind]") {
  check_all({"cluster PICTURE --k 2 --figures none",
             "cluster PICTURE --k 2 --method gaussian-mixture --restarts 1 --figures none",
             "palette PICTURE --colors 3 --figures none",
             "palette PICTURE --unique --figures none"});
}

TEST_CASE("every kind of picture can be learned from and mapped", "[cli][every-kind]") {
  check_all({"train PICTURE --sample a=0,0,12,8 --sample b=12,8,12,8 --method all --figures none",
             "classify PICTURE --model model.json --reject 99 --figures none",
             "explain PICTURE --model model.json --at 0,0 --figures none"});
}

TEST_CASE("every kind of labels can be worked on", "[cli][every-kind]") {
  const TempDir dir;
  write_all_labels(dir);
  const std::set<std::string> labels = dir.files();
  CHECK(labels.size() == 14);
  for (const char* const line :
       {"measure PICTURE --figures none",
        "measure PICTURE --image photo.png --outlines --numbers --figures none",
        "tidy PICTURE --steps \"drop 2; fill 2; open 1; close 1\" --figures none",
        "tidy PICTURE --steps \"majority 1; keep 1\" --figures none",
        "assess PICTURE --reference classes.png --figures none",
        "assess classes.png --reference PICTURE --count 20 --figures none",
        "histogram photo.png --within PICTURE --figures none",
        "mask photo.png --where \"lab.l > 30\" --within PICTURE --figures none",
        "outline photo.png --map PICTURE", "tune photo.png --classes PICTURE",
        "truth PICTURE --image photo.png --count 5", "reframe PICTURE --scale 0.5",
        "inspect PICTURE"})
    for (const std::string& picture : labels) check_run(dir, picture, words_of(line));
}
