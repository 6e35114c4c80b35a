// Pictures of labels: class maps, numbers, flat colors; and labels drawn from sample regions.
#include "io/picture/label_file.h"

#include <catch2/catch.hpp>

#include "core/error.h"
#include "core/learn/sample_labels.h"
#include "core/pixel/label_runs.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/side_by_side.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

template <class Sample>
std::vector<Sample> labels_in(RowSource& rows) {
  std::vector<Sample> labels(rows.shape().row_bytes() * rows.shape().height / sizeof(Sample));
  rows.read_rows(rows.shape().height, reinterpret_cast<std::byte*>(labels.data()));
  return labels;
}

template <class Sample>
std::unique_ptr<RowSource> picture_of(const std::vector<Sample>& labels, std::uint32_t width) {
  const auto height = static_cast<std::uint32_t>(labels.size()) / width;
  const auto sample = sizeof(Sample) == 1 ? SampleType::kU8 : SampleType::kU16;
  return std::make_unique<MemorySource>(RasterShape{width, height, 1, sample}, bytes_of(labels));
}

}  // namespace

TEST_CASE("class maps are read with their classes, as PNG and as TIFF", "[io][labels]") {
  const TempDir dir;
  PictureSpec spec = spec_of(3, 2, 1);
  spec.labels = true;
  spec.legend = {{1, "ruby", "#9b1b30"}, {2, "lead", "#333333"}};
  const std::vector<std::uint8_t> labels{0, 1, 2, 2, 1, 1};
  for (const char* name : {"map.png", "map.tif"}) {
    INFO(name);
    write_picture(dir / name, spec, bytes_of(labels));
    LabelFile file = open_labels(dir / name, 0);
    CHECK(file.legend_from == LegendFrom::kFile);
    CHECK(file.classes == spec.legend);
    CHECK(labels_in<std::uint8_t>(*file.rows) == labels);
  }
}

TEST_CASE("pictures without a list are read by number, 16 bits too", "[io][labels]") {
  const TempDir dir;
  const std::vector<std::uint16_t> labels{0, 300, 7, 65535};
  write_picture(dir / "n.png", spec_of(2, 2, 1, SampleType::kU16), bytes_of(labels));
  LabelFile file = open_labels(dir / "n.png", 0);
  CHECK(file.legend_from == LegendFrom::kNumbers);
  CHECK(file.classes.empty());
  CHECK(labels_in<std::uint16_t>(*file.rows) == labels);
}

TEST_CASE("each exact opaque color is a class, in order of appearance", "[io][labels]") {
  const TempDir dir;
  write_picture(dir / "c.png", spec_of(2, 2, 4),
                bytes_of(std::vector<std::uint8_t>{255, 0, 0, 255, 0, 0, 255, 255,  //
                                                   255, 0, 0, 254, 255, 0, 0, 255}));
  LabelFile file = open_labels(dir / "c.png", 0);
  CHECK(file.legend_from == LegendFrom::kColors);
  CHECK(file.classes ==
        std::vector<LegendEntry>{{1, "#ff0000", "#ff0000"}, {2, "#0000ff", "#0000ff"}});
  CHECK(labels_in<std::uint8_t>(*file.rows) == std::vector<std::uint8_t>{1, 2, 0, 1});
  file.rows->rewind();
  CHECK(labels_in<std::uint8_t>(*file.rows) == std::vector<std::uint8_t>{1, 2, 0, 1});
}

TEST_CASE("what is no picture of labels is refused, with the reason", "[io][labels]") {
  const TempDir dir;
  write_rgb(dir / "photo.png", 20, 20, random_bytes(1200));
  write_rgb(dir / "map.jpg", 8, 8, std::vector<std::uint8_t>(192, 9));
  write_picture(dir / "f.tif", spec_of(1, 1, 1, SampleType::kF32), std::vector<std::byte>(4));
  CHECK_THROWS_WITH(open_labels(dir / "photo.png", 0),
                    Catch::Contains("photo.png: holds more than 255 colors"));
  CHECK_THROWS_WITH(open_labels(dir / "map.jpg", 0), Catch::Contains("map.jpg: is stored lossily"));
  CHECK_THROWS_WITH(open_labels(dir / "f.tif", 0), Catch::Contains("f.tif: holds floats"));
  CHECK_THROWS_WITH(open_labels(dir / "none.png", 0), Catch::Contains("none.png: no such file"));
}

TEST_CASE("runs of labels end where any picture changes", "[core][pixel]") {
  const auto noise = random_bytes(2 * 137);
  std::vector<std::uint16_t> map, reference;
  for (std::size_t i = 0; i < 137; ++i) {
    map.push_back(i > 0 && noise[i] % 8 ? map.back() : noise[i] * 100);
    reference.push_back(i > 0 && noise[137 + i] % 16 ? reference.back() : noise[137 + i]);
  }
  LabelRuns runs(137);
  runs.set(reference.data());
  runs.set(map.data());  // forgets what was set before
  runs.add(reference.data());
  for (std::size_t x = 0; x < 137; ++x) {
    std::size_t end = x + 1;
    while (end < 137 && map[end] == map[x] && reference[end] == reference[x]) ++end;
    CHECK(runs.end_of(x) == end);
  }
  LabelRuns single(1);
  single.set(map.data());
  CHECK(single.end_of(0) == 1);
}

TEST_CASE("pictures side by side share a row, as wide as the widest", "[core][pixel]") {
  std::vector<std::unique_ptr<RowSource>> narrow, mixed;
  narrow.push_back(picture_of<std::uint8_t>({1, 2, 3, 4}, 2));
  narrow.push_back(picture_of<std::uint8_t>({5, 6, 7, 8}, 2));
  const auto both = SideBySide::of_labels(std::move(narrow));
  CHECK(both->shape() == RasterShape{4, 2, 1, SampleType::kU8});
  CHECK(labels_in<std::uint8_t>(*both) == std::vector<std::uint8_t>{1, 2, 5, 6, 3, 4, 7, 8});
  mixed.push_back(picture_of<std::uint8_t>({1, 2, 3, 4}, 2));
  mixed.push_back(picture_of<std::uint16_t>({500, 6, 7, 800}, 2));
  const auto wide = SideBySide::of_labels(std::move(mixed));
  const std::vector<std::uint16_t> expected{1, 2, 500, 6, 3, 4, 7, 800};
  CHECK(labels_in<std::uint16_t>(*wide) == expected);
  wide->rewind();
  CHECK(labels_in<std::uint16_t>(*wide) == expected);
}

TEST_CASE("samples become labels, pixels of two classes become none", "[core][learn]") {
  // Runs of classes 0 and 1 in a picture 4 wide: one overlap of two, one of three.
  const std::vector<SampleRun> runs{{0, 3, 0}, {2, 4, 1}, {4, 6, 0}, {4, 8, 1}, {5, 7, 2}};
  SampleLabels labels(runs, 4, 3);
  const std::vector<std::uint16_t> expected{1, 1, 0, 2, 0, 0, 0, 2, 0, 0, 0, 0};
  CHECK(labels_in<std::uint16_t>(labels) == expected);
  labels.rewind();
  std::vector<std::uint16_t> rows(8);
  labels.read_rows(1, reinterpret_cast<std::byte*>(rows.data()));
  labels.read_rows(1, reinterpret_cast<std::byte*>(rows.data() + 4));
  CHECK(rows == std::vector<std::uint16_t>(expected.begin(), expected.begin() + 8));
}
