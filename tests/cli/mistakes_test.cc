// What each command says of a mistake: one line that names it, and no result that is half done.
#include <catch2/catch.hpp>
#include <filesystem>
#include <set>
#include <string>
#include <vector>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

struct Mistake {
  std::string line;
  const char* says;
};

/// 0,1,2 and so on.
std::string numbers_below(int end) {
  std::string list = "0";
  for (int i = 1; i < end; ++i) list += "," + std::to_string(i);
  return list;
}

/// Everything but results, which is where the mistakes are made.
void write_wrong_pictures(const TempDir& dir) {
  write_stripes(dir / "stripes.png");
  write_rgb(dir / "small.png", 4, 3, random_bytes(36));
  write_picture(dir / "gray.png", spec_of(20, 10, 1), bytes_of(random_bytes(200)));
  write_picture(dir / "clear.png", spec_of(20, 10, 4), bytes_of(random_bytes(800)));
  write_picture(dir / "photo.jpg", spec_of(20, 10, 3), bytes_of(random_bytes(600)));
  write_picture(dir / "floats.tif", spec_of(20, 10, 1, SampleType::kF32),
                bytes_of(std::vector<float>(200, 0.25f)));
  PictureSpec hsv = spec_of(20, 10, 3);
  hsv.space = &spaces::kHsv;
  write_picture(dir / "hsv.png", hsv, bytes_of(random_bytes(600)));
  std::vector<std::uint8_t> labels(200, 1);
  std::fill_n(labels.begin(), 90, std::uint8_t{2});
  write_labels(dir / "map.png", 20, labels, {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}});
  write_labels(dir / "none.png", 20, std::vector<std::uint8_t>(200, 0));
  put_text(dir / "options.yaml", "space: lab\n");
  std::filesystem::create_directory(dir / "empty");
}

/// Runs the line of each row with results in `out`, and expects `code`.
void check_mistakes(const std::vector<Mistake>& mistakes, int code) {
  const TempDir dir;
  write_wrong_pictures(dir);
  for (const char* const method : {"minimum-distance", "nearest-neighbor"})
    REQUIRE(run_tool(dir, words_of("train stripes.png --sample red=0,0,8,10 --sample blue=9,0,5,10 "
                                   "--figures none --write model -o " +
                                   std::string(method) + " --method " + method))
                .exit_code == 0);
  const auto before = dir.files();
  for (const Mistake& mistake : mistakes) {
    INFO(mistake.line);
    check_error(run_tool(dir, words_of(mistake.line)), code, mistake.says);
    for (const std::string& name : dir.files())
      if (!before.contains(name))
        CHECK_THAT(name, Catch::EndsWith("how.json") || Catch::EndsWith(".pictures.jsonl"));
    std::filesystem::remove_all(dir / "out");
  }
}

}  // namespace

TEST_CASE("options that contradict each other are wrong usage", "[cli][usage]") {
  check_mistakes(
      {{"assess map.png --reference map.png --stratified lead=3,ruby=3 --count 9 -o out/",
        "--stratified with numbers already says how many are drawn; leave --count and --fraction"},
       {"balance stripes.png --flat fit --dark gray.png -o out/",
        "--dark goes with a blank, not with a fitted surface; leave it out"},
       {"balance stripes.png --on lightness --curve power -o out/",
        "--on lightness needs --target or --like to bend to; as in --target 50"},
       {"balance stripes.png small.png --save c.json -o out/",
        "--save writes the curves of one picture; give one input"},
       {"cluster stripes.png --model m.json --k 3 -o out/",
        "--k is for finding groups, and --model has them; leave one of the two out"},
       {"cluster stripes.png --model m.json --order lightness -o out/",
        "--order is for finding groups, and --model has them; leave one of the two out"},
       {"convert stripes.png --to lab --gamut map -o out/",
        "--gamut map is for r g b, and lab holds every color; leave it out"},
       {"histogram stripes.png --disc -o out/", "--disc is of a hue and another channel"},
       {"histogram stripes.png --matrix -o out/",
        "--matrix is of joint histograms, and none is asked for; add --joint A,B"},
       {"histogram stripes.png --channels lab --joint-bins 9,9 -o out/",
        "--joint-bins is of joint histograms, and none is asked for; add --joint A,B"},
       {"histogram stripes.png --joint hsv.h,hsv.s --bins 9 -o out/",
        "--bins is of channel histograms, and none is asked for; add --channels LIST"},
       {"histogram stripes.png --cube 4 --peaks 2 -o out/",
        "--peaks is of channel and joint histograms, and none is asked for; add --channels LIST or "
        "--joint A,B"},
       {"join gray.png gray.png gray.png --plane r=gray.png -o out.png",
        "a plane is given as an input and by --plane; give it once"},
       {"mask stripes.png --where \"lab.l > 3\" --auto lab.l -o out/",
        "--where, --like and --auto each say which pixels; give one of them"},
       {"mask stripes.png --where \"lab.l > {a} and lab.a > {b} and lab.b > {c}\" --vary a=1..2/2 "
        "--vary b=1..2/2 --vary c=1..2/2 -o out/",
        "--vary may be given twice, not more often; vary two numbers at a time"},
       {"reframe stripes.png --crop 0,0,4,4 --enlarge lanczos -o out.png",
        "--enlarge means nothing here: --crop alone makes no new pixels; leave it out"},
       {"similar small.png --to stripes.png --cube 4 --joint hsv.h,hsv.s -o out/",
        "--cube, --joint and --channels each say what is compared; give one of them"},
       {"slice stripes.png --channel lab.l --equal 3 --quantiles 3 -o out/",
        "slice takes one of --cuts, --range, --equal and --quantiles"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --method minimum-distance "
        "--priors even -o out/",
        "--priors are for maximum-likelihood only; leave them out, or give --method"}},
      2);
}

TEST_CASE("values that mean nothing are wrong usage", "[cli][usage]") {
  check_mistakes(
      {{"balance stripes.png --black low -o out/",
        "--black: 'low' is no value and no percentile; write it as 12 or as 0.5%"},
       {"balance stripes.png --white 101% -o out/",
        "--white: there is no percentile 101%; give one above 0, up to 100%"},
       {"convert clear.png --to srgb -o out.jpg", "a JPEG holds no alpha"},
       {"inspect empty", "empty: the folder holds no PNG, JPEG, TIFF or WebP"},
       {"join 1 2 3 -o out.png",
        "every plane is a number, so the picture has no size; give a file for one of them"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --scatter lab.l,lab.z -o out/",
        "--scatter: the model has no feature 'lab.z'; did you mean 'lab.l'?"},
       {"demo stripes.png -o out/", "demo takes no input; name only -o"},
       {"explain stripes.png --at 1,1", "explain needs --model; name a model.json"},
       {"inspect stripes.png -o out/ --write colours", "--write: there is no result 'colours'"},
       {"histogram stripes.png -o out/ --write channels,cube",
        "--write: 'cube' comes with --cube; give that too, or leave 'cube' out"},
       {"histogram stripes.png -o out/ --write joint",
        "--write: 'joint' comes with --joint or --merge; give that too, or leave 'joint' out"},
       {"histogram stripes.png --joint hsv.h,hsv.s -o out/ --write channels",
        "--write: no 'channels' are counted here by themselves; name them with --channels, or "
        "leave 'channels' out"},
       {"palette stripes.png --apply glass.txt -o out/ --write css",
        "--write: there is no 'css' with --apply; leave one of the two out"},
       {"cluster stripes.png --k 2 -o out/ --write certainty",
        "--write: 'certainty' comes with --method gaussian-mixture or --model; give that too, or "
        "leave 'certainty' out"},
       {"cluster stripes.png --k 2 -o out/ --write criteria",
        "--write: 'criteria' are of a range of numbers of groups; give one, as in --k 2..8, or "
        "leave 'criteria' out"},
       {"assess gray.png --reference gray.png -o out/ --write sampled",
        "--write: 'sampled' comes with --count, --fraction, --stratified or --every; give that "
        "too, or leave 'sampled' out"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --method mahalanobis "
        "--write methods -o out/",
        "--write: 'methods' comes with --method all; give that too, or leave 'methods' out"},
       {"inspect stripes.png -o \"\"", "--output: the path is empty; name a folder or a file"},
       {"join gray.png gray.png gray.png -o out",
        "join needs -o with the name of a picture; as in -o joined.png"},
       {"histogram stripes.png --channels lab.l,lab.l -o out/",
        "channel lab.l is listed twice; name each channel once"},
       {"histogram stripes.png --let \"x = lab.a in 3..3\" --channels x -o out/",
        "expected a range from low to high before this"},
       {"mask stripes.png --auto hsv.h -o out/",
        "--auto: hsv.h is a hue, which goes round and has no upper part"},
       {"mask stripes.png --where \"lab.l in 50..20\" -o out/",
        "expected the lower end of the interval first; only a hue runs through 360 to 0"},
       {"mask stripes.png --where \"lab.l near\" -o out/",
        "expected a comparison (< <= > >= = != or 'in')"},
       {"mask stripes.png --where \"lab.l > {a\" --vary a=1..9/3 -o out/",
        "a brace is open in the selection; write variables as in {low}"},
       {"mask stripes.png --where \"lab.l > {a}\" --vary a=1..9/3 --vary a=1..9/3 -o out/",
        "'a' is varied twice; give each variable once"},
       {"mask stripes.png --where \"lab.l > 3\" --vary a=1..9/3 -o out/",
        "'a' is varied, but the selection has no {a}; put it where the number is to vary"},
       {"mask stripes.png --where \"lab.l > {low}\" -o out/",
        "--where: the selection has {low}, which does not vary; say what it takes, as in --vary "
        "low=10..50/5"},
       {"mask stripes.png --where \"lab.l > {a}\" --vary a=1..x/3 -o out/",
        "'a=1..x/3' has no number at 'x'"},
       {"mask stripes.png --where \"lab.l > {a}\" --vary a=1..9/1 -o out/",
        "'a=1..9/1' takes no whole number of 2 to 100 values"},
       {"similar small.png --to stripes.png --channels file.0 -o out/",
        "--channels: file.0 has no usual range to compare over; name channels of a space"},
       {"mask stripes.png --where \"lab.l > 3\" --background sky -o out/",
        "--background: 'sky' is neither transparent, gray, dimmed, a color nor the name of"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --scatter lab.l -o out/",
        "--scatter: 'lab.l' is not two features; write it as in lab.a,lab.b"},
       {"slice stripes.png --channel lab.l --cuts 10,5 -o out/",
        "--cuts: 5 does not lie above the value before it; write the cuts in rising order"},
       {"slice stripes.png --channel lab.l --cuts 10 -o out/",
        "--cuts needs two values or more; as in --cuts 0,50,100"},
       {"slice stripes.png --channel hsv.h --quantiles 3 -o out/",
        "--quantiles: a hue has no lowest value to begin with; give --cuts"},
       {"slice stripes.png --channel lab.l --cuts " + numbers_below(66) + " -o out/",
        "there are 65 slices, more than 64; give fewer"},
       {"sheet stripes.png --channels srgb.r,srgb.g,srgb.b,lab.l,lab.a,lab.b,lch.l,lch.c,lch.h,"
        "hsv.h,hsv.s,hsv.v,hsl.h,hsl.s,hsl.l,oklab.l,oklab.a,oklab.b,oklch.l,oklch.c,oklch.h,luv.l,"
        "luv.u,luv.v -o out/",
        "--channels: 24 planes are too many for one page; show up to 23 at once"},
       {"tidy map.png --steps \"erode 1.5 box\" -o out/",
        "the radius must be whole; only a disk may have parts of a pixel"},
       {"tidy map.png --steps \"erode 2 line 30\" -o out/",
        "'30' is no angle of a line; give 0, 45, 90 or 135"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --features \"mode5(lab.l)\" -o "
        "out/",
        "is nothing that is taken around a pixel; write mean5(...) or deviation5(...)"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --features \"mean5(hsv.h)\" -o "
        "out/",
        "a hue is an angle, of which no mean is taken around a pixel"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 "
        "--features \"mean5(lab.l),mean5(lab.l)\" -o out/",
        "feature mean5(lab.l) is listed twice; name each once"}},
      2);
}

TEST_CASE("brackets within brackets have an end", "[cli][usage]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const std::string deep = std::string(400, '(') + "lab.l" + std::string(400, ')');
  check_error(run_tool(dir, {"mask", "stripes.png", "--where", deep + " > 3", "-o", "out/"}), 2,
              "expected fewer brackets and the like within one another");
  check_nothing_in(dir, "out");
}

TEST_CASE("pictures that do not fit what is asked are refused", "[cli]") {
  check_mistakes(
      {{"assess map.png --reference small.png -o out/",
        "small.png: is 4x3, the map 20x10; give labels of the same picture"},
       {"balance hsv.png -o out/", "hsv.png: holds hsv, and balance works on srgb; convert it"},
       {"cluster stripes.png --k 2 --within none.png -o out/", "no pixel"},
       {"cluster small.png --k 2 --method gaussian-mixture --region 0,0,1,2 -o out/",
        "there are too few pixels for a mixture"},
       {"diff stripes.png small.png -o out/",
        "small.png: is 4x3, stripes.png is 20x10; give two pictures of one size"},
       {"diff stripes.png gray.png --within none.png -o out/",
        "no pixel counts in both pictures; choose another --region or --within"},
       {"explain stripes.png --model minimum-distance/model.json --first 3 --within none.png -o "
        "out/",
        "has no pixel that counts and has every feature of the model"},
       {"inspect stripes.png lab",
        "lab: no such file; check its name, or write its option in front"},
       {"inspect stripes.png x/lab", "x/lab: no such file; check its name and folder"},
       {"inspect stripes.png --at 99,3", "--at 99,3 lies outside the picture, which is 20x10"},
       {"inspect stripes.png --region 1.2,1.2,0.1,0.1", "holds no pixel center; make it larger"},
       {"join gray.png gray.png small.png -o out.png",
        "small.png: is 4x3, and gray.png is 20x10; give planes of one size"},
       {"join gray.png gray.png stripes.png -o out.png",
        "is not gray, so which of its channels is meant is not clear; name one, as in "
        "stripes.png:srgb.r"},
       {"mask stripes.png --where \"lab.l > 3\" --within photo.jpg -o out/",
        "photo.jpg: a lossy picture cannot be a mask, its edges are blurred"},
       {"mask stripes.png --where \"lab.l > 3\" --within clear.png -o out/",
        "clear.png: is not a mask, which is 8-bit gray"},
       {"measure floats.tif -o out/", "floats.tif: holds floats, no labels"},
       {"smooth map.png --filter mean --radius 1 -o out.png",
        "map.png: is a mask or a class map, whose numbers are no colors"},
       {"smooth hsv.png --filter mean --radius 1 -o out.png",
        "hsv.png: holds hsv, and the mean of two hues is not the hue between them"},
       {"slice stripes.png --channel lab.l --quantiles 9 --region 0,0,4,4 -o out/",
        "has too few different values of lab.l for 9 parts of as many pixels"},
       {"train stripes.png --painted photo.jpg -o out/",
        "photo.jpg: was compressed with losses, so its strokes have no exact colors"},
       {"train stripes.png --painted stripes.png -o out/",
        "has no strokes that differ from the picture"},
       {"train stripes.png --sample a=0,0,2,2 --sample b=4,4,2,2 --within none.png -o out/",
        "class 'a' has no sample pixels that count; draw larger samples of it"},
       {"report empty -o out.html",
        "empty: holds no how.json, and neither does a folder below it"}},
      1);
}

TEST_CASE("what is asked of a model it does not hold is refused", "[cli][classify]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const std::string train =
      "train stripes.png --sample red=0,0,8,10 --sample blue=9,0,5,10 --figures none --write model "
      "-o ";
  REQUIRE(run_tool(dir, words_of(train + "m/")).exit_code == 0);
  auto model = nlohmann::json::parse(text_of_file(dir / "m/model.json"));
  model["method"] = "maximum";
  put_text(dir / "other.json", model.dump());
  check_error(run_tool(dir, words_of("classify stripes.png --model other.json -o out/")), 1,
              "other.json: the method 'maximum' is not known to this version; did you mean "
              "'maximum-likelihood'?");
  model["method"] = "minimum-distance";
  for (auto& one : model["classes"]) one.erase("reach");
  put_text(dir / "old.json", model.dump());
  check_error(run_tool(dir, words_of("classify stripes.png --model old.json --reject 99 -o out/")),
              1,
              "old.json: the model does not know how far its samples reach; train again with this "
              "version, or leave out --reject");
  check_error(run_tool(dir, words_of(train + "out/ --method maximum-likelihood --priors red=0.2")),
              1,
              "--priors says nothing of class 'blue'; give every class a number, as in blue=0.2");
  check_error(run_tool(dir, words_of("train stripes.png --sample a=0,0,1,1 --sample b=9,0,5,10 "
                                     "--holdout 0.9 --figures none -o out/")),
              1, "class 'a' has no sample pixels left to train with; draw larger samples of it");
  check_error(run_tool(dir, words_of("train stripes.png --sample a=0,0,1,1 --sample b=9,0,5,10 "
                                     "--holdout 0.05 --figures none -o out/")),
              1, "no sample pixels of class 'a' were held out; draw larger samples of it, or hold");
  check_error(run_tool(dir, words_of("train m/samples.csv --holdout 0.5 -o out/")), 2,
              "samples are held out by their places, and a table of samples has none; train on "
              "pictures, or leave --holdout and --method all out");
  check_nothing_in(dir, "out");
}

TEST_CASE("a recipe that is put together wrongly is told by its place", "[cli][run]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const Mistake mistakes[] = {
      {"steps: 3", "r.yaml:2:8: steps are not a list"},
      {"variables: [1]\nsteps: []", "r.yaml:2:12: variables are no list of name: value"},
      {"variables: {low: [1, 2]}\nsteps: []", "the variable 'low' is no plain value"},
      {"steps:\n  - [smooth]", "r.yaml:3:5: a step is no list of key: value"},
      {"steps:\n  - command: inspect\n    files: a.png",
       "r.yaml:4:12: files are not a list; write [FILE, ...]"},
      {"steps:\n  - command: [inspect]", "r.yaml:3:14: is no plain value"},
      {"steps:\n  - command: inspect\n    options: {let: {a: 1}}", "is no plain value"}};
  for (const Mistake& mistake : mistakes) {
    INFO(mistake.line);
    put_text(dir / "r.yaml", "chalcedony: recipe\n" + std::string(mistake.line) + "\n");
    check_error(run_tool(dir, words_of("run r.yaml stripes.png -o out/")), 1, mistake.says);
    check_nothing_in(dir, "out");
  }
}

TEST_CASE("warnings of a run say what was done instead", "[cli]") {
  const TempDir dir;
  std::vector<std::uint8_t> labels(200, 1);
  std::fill_n(labels.begin(), 3, std::uint8_t{2});
  write_labels(dir / "map.png", 20, labels, {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}});
  write_labels(dir / "other.png", 20, labels, {{1, "metal", "#303030"}, {2, "red", "#b0202a"}});
  const Outcome by_number = run_tool(
      dir, words_of("assess map.png --reference other.png --figures none -o a/ --summary json"));
  CHECK(by_number.exit_code == 0);
  CHECK_THAT(by_number.err,
             Catch::Contains("classes of map and reference are matched by number, as "
                             "no names are common"));
  const Outcome few = run_tool(dir, words_of("assess map.png --reference map.png --stratified "
                                             "equal --count 40 --figures none -o b/"));
  CHECK(few.exit_code == 0);
  CHECK_THAT(few.err, Catch::Contains("of 40 pixels can be drawn: some classes have no more"));
  Words many{"histogram"};
  for (int i = 0; i < 21; ++i) {
    const std::string name = "p" + std::to_string(i) + ".png";
    write_stripes(dir / name);
    many.push_back(name);
  }
  const Outcome plain = run_tool(dir, with(many, {"-o", "c/"}));
  CHECK(plain.exit_code == 0);
  CHECK_THAT(plain.err,
             Catch::Contains("more than 20 inputs, so no figures of each are drawn; ask for them "
                             "with --figures png"));
  std::set<std::string> drawn;
  for (const std::string& name : dir.files())
    if (name.starts_with("c/") && name.ends_with(".png")) drawn.insert(name);
  CHECK(drawn == std::set<std::string>{"c/histograms.figure.png"});  // of all together
}

TEST_CASE("a mixture that did not end well is warned of", "[cli][cluster]") {
  const TempDir dir;
  write_rgb(dir / "noise.png", 40, 40, random_bytes(4800));
  const std::string cluster =
      "cluster noise.png --method gaussian-mixture --k 4 --restarts 1 --figures none -o a/ ";
  const Outcome short_run = run_tool(dir, words_of(cluster + "--iterations 1"));
  CHECK(short_run.exit_code == 0);
  CHECK_THAT(short_run.err, Catch::Contains("the mixture of 4 did not settle in 16 iterations"));
  // One pixel of another color is too little for a covariance of its own.
  std::vector<std::uint8_t> grays;
  for (int i = 0; i < 61; ++i)
    grays.insert(grays.end(), 3, static_cast<std::uint8_t>(i == 60 ? 250 : 100 + i % 6));
  write_rgb(dir / "grays.png", 61, 1, grays);
  const Outcome faded =
      run_tool(dir, words_of("cluster grays.png --method gaussian-mixture --features srgb.r --k 2 "
                             "--figures none -o b/"));
  CHECK(faded.exit_code == 0);
  CHECK_THAT(faded.err,
             Catch::Contains("1 of 2 components faded away: they had fewer pixels than a "
                             "covariance needs"));
}

TEST_CASE("stdout that cannot be written is an error", "[cli]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  ToolSettings full;
  full.out = "/dev/full";
  check_error(run_tool(dir, words_of("inspect stripes.png"), full), 1,
              "stdout cannot be written; check where it leads");
}

TEST_CASE("without a stdout and a stderr results are whole and nothing is mixed into them",
          "[cli]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const Words command = words_of("mask stripes.png --where \"hsv.h in 0..40\" -o");
  ToolSettings alone;
  alone.streams = false;
  CHECK(run_tool(dir, with(command, {"said"})).exit_code == 0);
  // The summary is lost, which is an error; the results were written before.
  CHECK(run_tool(dir, with(command, {"alone"}), alone).exit_code == 1);
  CHECK(run_tool(dir, with(command, {"quiet", "-q"}), alone).exit_code == 0);
  for (const char* const name : {"stripes.mask.png", "stripes.cutout.png"}) {
    const std::string whole = text_of_file(dir / (std::string("said/") + name));
    CHECK(!whole.empty());
    CHECK(text_of_file(dir / (std::string("alone/") + name)) == whole);
    CHECK(text_of_file(dir / (std::string("quiet/") + name)) == whole);
  }
  CHECK(run_tool(dir, words_of("inspect none.png"), alone).exit_code == 1);
}

TEST_CASE("memory that runs out is said, and nothing is left", "[cli]") {
  const TempDir dir;
  constexpr std::uint32_t kSide = 9000;
  std::vector<std::uint8_t> mask(std::size_t{kSide} * kSide);
  mask.back() = 255;
  write_labels(dir / "m.png", kSide, mask);
  ToolSettings small;
  small.memory = 200'000'000;
  check_error(run_tool(dir, words_of("tidy m.png --steps \"open 3\" -o out --figures none"), small),
              1, "there is not enough memory; take fewer --threads, or cut the picture into parts");
  check_nothing_in(dir, "out");
}

TEST_CASE("a folder for temporary files that is none is named", "[cli]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  ToolSettings lost;
  lost.temporary = "/nonexistent";
  check_error(run_tool(dir, words_of("histogram stripes.png -o out/"), lost), 1,
              "/nonexistent: no temporary folder can be made in it; let TMPDIR name a folder that "
              "may be written");
}

TEST_CASE("pictures of too much or too little are refused", "[cli]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  write_rgb(dir / "noise.png", 20, 20, random_bytes(1200));
  // 20 x 20 strokes, each of another color.
  std::vector<std::uint8_t> strokes;
  for (int y = 0; y < 60; ++y)
    for (int x = 0; x < 60; ++x)
      for (const int v : {1 + x / 3, 1 + y / 3, 200})
        strokes.push_back(static_cast<std::uint8_t>(v));
  write_rgb(dir / "painted.png", 60, 60, strokes);
  write_rgb(dir / "black.png", 60, 60, std::vector<std::uint8_t>(60 * 60 * 3));
  write_rgb(dir / "gray.png", 4, 4, std::vector<std::uint8_t>(48, 90));
  constexpr std::uint32_t kSide = 514;  // 257 x 257 dots
  std::vector<std::uint8_t> dots(kSide * kSide);
  for (std::uint32_t y = 0; y < kSide; y += 2)
    for (std::uint32_t x = 0; x < kSide; x += 2) dots[y * kSide + x] = 255;
  write_labels(dir / "dots.png", kSide, dots);
  put_text(dir / "lead.geojson",
           R"({"type": "FeatureCollection", "features": [{"type": "Feature", "properties":
           {"class": "lead"}, "geometry": {"type": "Point", "coordinates": [9, 4]}}]})");
  const Mistake mistakes[] = {
      {"measure noise.png -o out/",
       "noise.png: holds more than 255 colors, so it is no picture of"},
      {"measure dots.png --numbers -o out/",
       "dots.png: has 66049 regions, more than 16 bits can number; drop the smallest ones"},
      {"train black.png --painted painted.png -o out/",
       "painted.png: differs from the picture in 400 colors; paint with one opaque color for each"},
      {"cluster gray.png --let \"x = lab.l / (lab.l - lab.l)\" --features x --k 2 -o out/",
       "no pixel has a number for every feature; choose other --features"},
      {"balance stripes.png --flat fit --region 3,3,1,1 -o out/",
       "the pixels that count do not tell how the light falls over the picture"},
      {"mask stripes.png --like lead.geojson:leed -o out/",
       "lead.geojson: has no samples of the class 'leed'; did you mean 'lead'?"}};
  for (const Mistake& mistake : mistakes) {
    INFO(mistake.line);
    check_error(run_tool(dir, words_of(mistake.line)), 1, mistake.says);
    check_nothing_in(dir, "out");
  }
}

TEST_CASE("tables that were edited are not added up", "[cli][histogram]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  REQUIRE(run_tool(dir, words_of("histogram stripes.png --figures none -o a/")).exit_code == 0);
  std::string table = text_of_file(dir / "a/stripes.histogram.csv");
  table.replace(table.find("0,0,1,0,") + 6, 1, "many");
  put_text(dir / "b.csv", table);
  check_error(run_tool(dir, words_of("histogram --merge a/stripes.histogram.csv b.csv -o out/")), 1,
              "b.csv: has the count 'many'; give a table as it was written");
  check_nothing_in(dir, "out");
}

TEST_CASE("results are made again only where their record stands", "[cli][how]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  REQUIRE(run_tool(dir, words_of("mask stripes.png --where \"lab.l > 40\" --figures none -o a/"))
              .exit_code == 0);
  auto how = nlohmann::ordered_json::parse(text_of_file(dir / "a/how.json"));
  how["runs"][0]["program"] = "0.0.1";
  put_text(dir / "a/how.json", how.dump());
  const Outcome again = run_tool(dir, words_of("run a/how.json -o b/"));
  CHECK(again.exit_code == 0);
  CHECK_THAT(again.err, Catch::Contains("'mask' was run by version 0.0.1, this is ") &&
                            Catch::Contains("; results may differ"));
  how["runs"][0]["from"] = "../nowhere";
  put_text(dir / "a/how.json", how.dump());
  check_error(run_tool(dir, words_of("run a/how.json -o out/")), 1,
              "the folder where the command was typed is not there any more, ");
  how["runs"][0] = {{"command", "mask"}};
  put_text(dir / "a/how.json", how.dump());
  check_error(run_tool(dir, words_of("run a/how.json -o out/")), 1,
              "how.json: is damaged: what it holds are no runs; make the results anew");
  check_nothing_in(dir, "out");
}
