// `tune` of several pictures on one page.
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"
#include "tests/support/tune_page.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

struct Size {
  std::uint32_t width, height;
};
const std::array<Size, 3> kSizes{{{30, 20}, {18, 24}, {30, 20}}};

/// t0.png to t2.png of different sizes and light, a red half and a blue one, with their classes;
/// the last has a class by another name.
void write_three_sizes(const TempDir& dir) {
  for (std::size_t p = 0; p < kSizes.size(); ++p) {
    const auto [width, height] = kSizes[p];
    const auto noise = random_bytes(3 * width * height, static_cast<unsigned>(p + 1));
    std::vector<std::uint8_t> rgb, labels;
    for (std::size_t i = 0; i < width * height; ++i) {
      const bool red = i % width < width / 2;
      const std::array<int, 3> codes{red ? 190 : 30, 40, red ? 50 : 170};
      for (std::size_t c = 0; c < 3; ++c)
        rgb.push_back(
            static_cast<std::uint8_t>(codes[c] + 15 * static_cast<int>(p) + noise[3 * i + c] % 16));
      labels.push_back(red ? 1 : 2);
    }
    const std::string name = "t" + std::to_string(p);
    write_rgb(dir / (name + ".png"), width, height, rgb);
    write_labels(dir / (name + ".classes.png"), width, labels,
                 {{1, "red", "#c02040"}, {2, p < 2 ? "blue" : "navy", "#2030b0"}});
  }
}

const Words kTogether =
    words_of("tune t0.png t1.png t2.png --together --classes *.classes.png -o out");

std::uint64_t taken_of(const TempDir& dir, const std::string& picture, const Words& how) {
  return summary_of(
      run_tool(dir, with({"mask", picture, "--summary", "json"}, how)))["inputs"][0]["selected"];
}

}  // namespace

TEST_CASE("one page holds the pixels of all pictures, each in its frame", "[cli][tune][together]") {
  const TempDir dir;
  write_three_sizes(dir);
  const json told = summary_of(run_tool(dir, with(kTogether, {"--summary", "json"})));
  CHECK(told["outputs"] == json({"out/tune.html"}));
  REQUIRE(told["inputs"].size() == 3);
  CHECK(told["inputs"][1]["classes_from"] == "t1.classes.png");
  CHECK(told["inputs"][1]["counted"] == 18 * 24);
  const std::string page = text_of_file(dir / "out/tune.html");
  const json begun = page_json(page, "begun");
  CHECK(begun["stem"] == "tune");
  CHECK(begun["mask"] == "chalcedony mask t0.png t1.png t2.png");
  std::vector<std::string> names;
  for (const json& one : begun["classes"]) names.push_back(one["name"]);
  CHECK(names == std::vector<std::string>{"red", "blue", "navy"});
  const std::vector<std::uint8_t> kinds = bytes_on(dir / "out/tune.html", "kinds"),
                                  rgb = bytes_on(dir / "out/tune.html", "rgb"),
                                  classes = bytes_on(dir / "out/tune.html", "class-of");
  const std::size_t wide = begun["width"];
  REQUIRE(kinds.size() == 3 * wide * begun["height"].get<std::size_t>());
  std::size_t in_frames = 0;
  std::set<std::size_t> seen;
  for (std::size_t p = 0; p < 3; ++p) {
    const json& frame = begun["frames"][p];
    CHECK(frame["name"] == "t" + std::to_string(p) + ".png");
    const std::vector<std::uint8_t> picture = bytes_in(dir / frame["name"].get<std::string>());
    for (std::size_t y = 0; y < kSizes[p].height; ++y)
      for (std::size_t x = 0; x < kSizes[p].width; ++x) {
        const std::size_t at =
            (frame["top"].get<std::size_t>() + y) * wide + frame["left"].get<std::size_t>() + x;
        REQUIRE(seen.insert(at).second);
        const std::size_t kind =
            kinds[3 * at] + (kinds[3 * at + 1] << 8) + (kinds[3 * at + 2] << 16);
        REQUIRE(kind < classes.size());
        for (std::size_t c = 0; c < 3; ++c)
          REQUIRE(rgb[3 * kind + c] == picture[3 * (y * kSizes[p].width + x) + c]);
        const bool red = x < kSizes[p].width / 2;
        REQUIRE(classes[kind] == (red ? 1 : p < 2 ? 2 : 3));
        ++in_frames;
      }
  }
  CHECK(in_frames == 30 * 20 + 18 * 24 + 30 * 20);
  // The gaps do not count.
  for (std::size_t at = 0; at < kinds.size() / 3; ++at)
    if (!seen.contains(at)) {
      REQUIRE(kinds[3 * at] + kinds[3 * at + 1] + kinds[3 * at + 2] == 3 * 255);
    }
  REQUIRE(run_tool(dir, with(kTogether, {"--threads", "1"})).exit_code == 0);
  CHECK(text_of_file(dir / "out/tune.html") == page);
}

TEST_CASE("of many pictures fewer pixels are seen of each", "[cli][tune][together]") {
  const TempDir dir;
  Words words{"tune", "--together", "--view", "100", "-o", "out", "--summary", "json"};
  for (int i = 0; i < 4; ++i) {
    words.push_back("w" + std::to_string(i) + ".png");
    write_rgb(dir / words.back(), 150, 40, random_bytes(150 * 40 * 3));
  }
  const json told = summary_of(run_tool(dir, words));
  // With every second pixel they would be 4 x 75 x 20, fewer than 100 x 100; all are too many.
  for (const json& one : told["inputs"]) CHECK(one["every"] == 2);
  const json begun = page_json(text_of_file(dir / "out/tune.html"), "begun");
  CHECK(begun["frames"][3]["step"] == 2);
  CHECK(begun["frames"][3]["width"] == 75);
  CHECK(begun["frames"][3]["height"] == 20);
  // Alike pictures are of alike kinds.
  CHECK(begun["kinds"] == told["inputs"][0]["kinds"]);
  // Seven of them are too many for that.
  for (int i = 4; i < 7; ++i) {
    words.push_back("w" + std::to_string(i) + ".png");
    write_rgb(dir / words.back(), 150, 40, random_bytes(150 * 40 * 3));
  }
  const json more = summary_of(run_tool(dir, words));
  for (const json& one : more["inputs"]) CHECK(one["every"] == 3);
}

TEST_CASE("limits of a page of several pictures take of each what mask takes",
          "[cli][tune][together][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_three_sizes(dir);
  REQUIRE(run_tool(dir, kTogether).exit_code == 0);
  const json found = found_on_tune(dir, dir / "out/tune.html", R"(
const inEach = () => [...part("pictures").children].map(one => [one.textContent, one.title]);
found.buttons = part("whole").textContent;
found.captions = [...document.querySelectorAll(".caption")].map(one => one.textContent);
current().limits = { "hsv.v": [null, 80], "hsv.h": [300, 40] };
draw();
found.told = inEach();
found.heading = [part("in-each").textContent];
found.named = [];
part("shares").children[0].click();
type("hsv.v", "high", "80");
found.known = inEach();
const [, , last] = frames;
over([last.left + 3.5, last.top + 4.5], [last.left + 9.5, last.top + 12.5]);
found.under = part("under").textContent;
const gap = [frames[0].left + frames[0].width + 0.5, 0.5];
over(gap);
found.gap = part("under").textContent;
part("pictures").children[1].click();
const room = stage.getBoundingClientRect(), [, its] = frames, kRounded = 1 / zoom;
const first = positionAt({ clientX: room.left, clientY: room.top }), end = positionAt({ clientX: room.right, clientY: room.bottom });
found.near = [zoom > 1.5 * wholeZoom(), first[0] <= its.left + kRounded, end[0] >= its.left + its.width - kRounded,
  first[1] <= its.top + kRounded, end[1] >= its.top + its.height - kRounded];
part("name").value = "rest";
part("name").dispatchEvent(new Event("input"));
part("another").requestSubmit(part("add"));
type("hsv.h", "low", "180");
found.map = inEach();
found.heading.push(part("in-each").textContent);
found.labels = frames.map(({ left, top, width, height }) => Array.from({ length: width * height },
  (_, i) => labels[kindOf[(top + Math.floor(i / width)) * size.width + left + i % width]]));
found.saved = part("save").download;
found.command = part("command").textContent;
)");
  CHECK_THAT(found["buttons"].get<std::string>(), Catch::StartsWith("All pictures"));
  CHECK(found["captions"] == json({"t0.png", "t1.png", "t2.png"}));
  const auto pixels_of = [](const json& one) {
    return std::stoull(one[1].get<std::string>());  // below a thousand
  };
  for (std::size_t p = 0; p < 3; ++p) {
    const std::string picture = "t" + std::to_string(p) + ".png";
    CHECK(pixels_of(found["told"][p]) ==
          taken_of(dir, picture, {"--where", "hsv.v <= 80 and hsv.h in 300..40"}));
    CHECK_THAT(found["told"][p][0].get<std::string>(), Catch::StartsWith(picture + " "));
    CHECK_THAT(found["known"][p][0].get<std::string>(), Catch::EndsWith(" of known red"));
  }
  // What is brighter than the limit is in the last picture.
  CHECK_THAT(found["known"][0][0].get<std::string>(), !Catch::Contains(", 0.00 %"));
  CHECK(pixels_of(found["told"][2]) < pixels_of(found["told"][0]));
  CHECK_THAT(found["under"].get<std::string>(), Catch::StartsWith("t2.png x 9, y 12, hsv.h "));
  CHECK(found["gap"] == "");
  CHECK(found["heading"] == json({"Taken in each picture; press one to see it near:",
                                  "Its part of each map; press one to see it near:"}));
  CHECK(found["near"] == json({true, true, true, true, true}));
  CHECK(found["saved"] == "tune.slices.yaml");
  CHECK_THAT(found["command"].get<std::string>(),
             Catch::StartsWith("chalcedony slice t0.png t1.png t2.png --where \"red="));
  CHECK(found["wider"] <= 0);
  // What is saved makes these maps.
  put_text(dir / "tune.slices.yaml", found["file"].get<std::string>());
  REQUIRE(run_tool(dir, words_of("slice t0.png t1.png t2.png --config tune.slices.yaml -o maps"))
              .exit_code == 0);
  for (std::size_t p = 0; p < 3; ++p) {
    const std::vector<std::uint8_t> labels =
        labels_in(dir / ("maps/t" + std::to_string(p) + ".slices.png"));
    CHECK(json(labels) == found["labels"][p]);
    CHECK(pixels_of(found["map"][p]) ==
          static_cast<std::uint64_t>(std::count(labels.begin(), labels.end(), 2)));
  }
}

TEST_CASE("tune refuses pictures that fit on no page together, and leaves nothing",
          "[cli][tune][together]") {
  const TempDir dir;
  write_three_sizes(dir);
  const auto refused = [&](const Words& words, int code, const std::string& message) {
    check_error(run_tool(dir, words), code, message);
    check_nothing_in(dir, "out");
  };
  refused(with(kTogether, {"--shard", "1/2"}), 2,
          "--together makes one page of all pictures, so --shard means nothing here; leave one of "
          "them out");
  refused(with(kTogether, {"--resume"}), 2, "so --resume means nothing here");
  Words many = kTogether;
  for (int i = 0; i < 34; ++i) {
    many.push_back("more" + std::to_string(i) + ".png");
    write_rgb(dir / many.back(), 2, 1, random_bytes(6));
  }
  refused(many, 2,
          "--together: there are 37 pictures, more than 36 on a page; name those that "
          "differ most");
  put_text(dir / "t1.png", "no picture");
  refused(kTogether, 1, "t1.png");
  write_picture(dir / "t1.png", spec_of(18, 24, 1), bytes_of(random_bytes(18 * 24)));
  refused(with(kTogether, {"--channels", "file.2"}), 1, "t1.png");
  // Two maps of 200 classes each, all with other names.
  for (const int p : {0, 2}) {
    std::vector<LegendEntry> classes;
    for (unsigned c = 1; c <= 200; ++c)
      classes.push_back({c, std::to_string(p) + "/" + std::to_string(c), "#808080"});
    write_labels(dir / ("t" + std::to_string(p) + ".classes.png"), 30,
                 std::vector<std::uint8_t>(30 * 20, 1), classes);
  }
  refused(words_of("tune t0.png t2.png --together --classes *.classes.png -o out"), 1,
          "*.classes.png: the pictures have 400 classes together, more than 255; tune fewer "
          "pictures at once");
}
