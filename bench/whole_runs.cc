// `chalcedony-whole-runs PROGRAM FLOOR WORK-FOLDER MODELS ROWS PICTURE...`: times whole commands
// against a floor that only decodes the same picture, in turn, and reads their peak memory. Prints
// a Markdown table: medians of 8 pairs, without figures. ROWS: only rows whose name begins so;
// empty for all.
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <boost/program_options/parsers.hpp>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace {

struct Run {
  double seconds = 0;
  double megabytes = 0;
};

Run run(const std::vector<std::string>& words) {
  const auto start = std::chrono::steady_clock::now();
  const pid_t child = ::fork();
  if (child == 0) {
    ::dup2(::open("/dev/null", O_WRONLY), STDOUT_FILENO);
    std::vector<char*> argv;
    for (const auto& word : words) argv.push_back(const_cast<char*>(word.c_str()));
    argv.push_back(nullptr);
    ::execv(argv[0], argv.data());
    ::_exit(127);
  }
  int status = 0;
  rusage usage{};
  ::wait4(child, &status, 0, &usage);
  if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) {
    fmt::print(stderr, "failed: {}\n", fmt::join(words, " "));
    std::exit(1);
  }
  const std::chrono::duration<double> passed = std::chrono::steady_clock::now() - start;
  return {passed.count(), static_cast<double>(usage.ru_maxrss) / 1024};
}

/// A run that finds the folder of its results empty: replacing a file may wait for the disk.
Run run_afresh(const std::vector<std::string>& words, const std::string& results) {
  std::filesystem::remove_all(results);
  std::filesystem::create_directories(results);
  return run(words);
}

double median(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  const std::size_t upper = values.size() / 2, lower = (values.size() - 1) / 2;
  return (values[lower] + values[upper]) / 2;
}

/// A command and what it is measured against, as they are typed. What stands in braces is filled
/// in.
struct Row {
  std::string_view name, command, floor;
};

constexpr std::string_view kDecode = "{floor} decode {picture}",
                           kCopy = "{floor} copy {picture} {out}/floor.png",
                           kCopyJpeg = "{floor} copy {picture} {out}/floor.jpg",
                           kGroups = "{floor} groups {picture} {out}/floor-map.png {out}/floor.png",
                           kMap = "{floor} map {picture} {out}/floor-map.png",
                           kMask = "{floor} mask {picture} {out}/floor-mask.png";

constexpr Row kRows[]{
    {"inspect", "{program} inspect {picture}", kDecode},
    {"inspect in hsv and lab", "{program} inspect {picture} --space hsv,lab", kDecode},
    {"diff of a picture and itself",
     "{program} diff {picture} {picture} -o {out} --write statistics", kDecode},
    {"histogram, 3 channels", "{program} histogram {picture} -o {out} --figures none", kDecode},
    {"histogram, hsv.h with hsv.s",
     "{program} histogram {picture} --joint hsv.h,hsv.s -o {out} --figures none", kDecode},
    {"mask of a hue range, mask only",
     "{program} mask {picture} --where 'hsv.h in 200..260 and hsv.s >= 40' -o {out} --write mask",
     kMask},
    {"slice by four selections, map only",
     "{program} slice {picture} --where 'red=hsv.h in 340..20 and hsv.s >= 40' --where 'blue=hsv.h "
     "in 200..260 and hsv.s >= 40' --where 'dark=lab.l < 25' --where 'pale=lab.l > 80' -o {out} "
     "--write slices",
     kMap},
    {"mask of the colors near one, mask only",
     "{program} mask {picture} --where 'near(#a01c2e, 20)' -o {out} --write mask", kMask},
    {"measure, a million regions, one thread", "{program} measure {speckled} --threads 1",
     "{floor} decode {speckled}"},
    {"tidy, open 25 against open 1",
     "{program} tidy {speckled} --steps 'open 25' -o {out} --write tidy",
     "{program} tidy {speckled} --steps 'open 1' -o {out} --write tidy"},
    {"smooth, mean in a box of 2",
     "{program} smooth {picture} --filter mean --window box --radius 2 -o {out}/smooth.png", kCopy},
    {"smooth, median in a disk of 2",
     "{program} smooth {picture} --filter median --window disk --radius 2 -o {out}/smooth.png",
     kCopy},
    {"smooth, opening by a disk of 4",
     "{program} smooth {picture} --filter opening --window disk --radius 4 -o {out}/smooth.png",
     kCopy},
    {"smooth, mean box 25 against 2",
     "{program} smooth {picture} --filter mean --window box --radius 25 -o {out}/smooth.png",
     "{program} smooth {picture} --filter mean --window box --radius 2 -o {out}/smooth.png"},
    {"smooth, median box 40 against 20",
     "{program} smooth {picture} --filter median --window box --radius 40 -o {out}/smooth.png",
     "{program} smooth {picture} --filter median --window box --radius 20 -o {out}/smooth.png"},
    {"smooth, Gaussian of 2",
     "{program} smooth {picture} --filter gaussian --radius 2 -o {out}/smooth.png", kCopy},
    {"smooth, Gaussian 25 against 5",
     "{program} smooth {picture} --filter gaussian --radius 25 -o {out}/smooth.png",
     "{program} smooth {picture} --filter gaussian --radius 5 -o {out}/smooth.png"},
    {"smooth, maximum box 25 against 2",
     "{program} smooth {picture} --filter maximum --window box --radius 25 -o {out}/smooth.png",
     "{program} smooth {picture} --filter maximum --window box --radius 2 -o {out}/smooth.png"},
    {"reframe to half the size", "{program} reframe {picture} --scale 0.5 -o {out}/half.png",
     kDecode},
    {"reframe turned by 10 degrees", "{program} reframe {picture} --turn 10 -o {out}/turned.png",
     kCopy},
    {"balance to common medians",
     "{program} balance {picture} -o {out}/balanced.png --figures none", kCopy},
    {"classify, minimum-distance",
     "{program} classify {picture} --model {models}/minimum-distance.model.json -o {out} "
     "--write classes",
     kMap},
    {"classify, parallelepiped",
     "{program} classify {picture} --model {models}/parallelepiped.model.json -o {out} "
     "--write classes",
     kMap},
    {"classify, maximum-likelihood",
     "{program} classify {picture} --model {models}/maximum-likelihood.model.json -o {out} "
     "--write classes",
     kMap},
    {"classify, nearest-neighbor",
     "{program} classify {picture} --model {models}/nearest-neighbor.model.json -o {out} "
     "--write classes",
     kMap},
    {"convert to lab float TIFF",
     "{program} convert {picture} --to lab --depth float -o {out}/lab.tif",
     "{floor} floats {picture} {out}/floor.tif"},
    {"assess, all pixels of that map and itself",
     "{program} assess {map} --reference {map} -o {out} --write matrix",
     "{floor} labels {map} {map}"},
    {"cluster, 8 groups by k-means",
     "{program} cluster {picture} --k 8 -o {out} --write classes,recolored", kGroups},
    {"cluster, mixtures of 1..10, 3 restarts",
     "{program} cluster {picture} --method gaussian-mixture --k 1..10 --restarts 3 -o {out} "
     "--write classes,recolored",
     kGroups},
    {"palette, 6 colors", "{program} palette {picture} -o {out} --figures none", kDecode},
    {"apart, six channels by a class map",
     "{program} apart {picture} --classes {map} -o {out} --figures none", kDecode},
    {"spots, 96 of a layout",
     "{program} spots {picture} --layout 12x8=percent:2,2,96,96 -o {out} --figures none", kDecode},
    {"outline, the page", "{program} outline {picture} -o {out}", kDecode},
    {"tune, the page", "{program} tune {picture} -o {out}", kDecode},
    {"convert of a PNG in rec2020, mapped into srgb",
     "{program} convert {wide} --to srgb --gamut map -o {out}/mapped.png",
     "{floor} copy {wide} {out}/floor.png"},
    {"palette applied, 6 colors",
     "{program} palette {picture} --apply {colors} -o {out} --figures none", kCopy},
    {"convert to display-p3 PNG", "{program} convert {picture} --to display-p3 -o {out}/p3.png",
     kCopy},
    {"convert to display-p3 JPEG", "{program} convert {picture} --to display-p3 -o {out}/p3.jpg",
     kCopyJpeg}};

/// What stands for the places in braces, and the commands that are run for it.
class Bench {
 public:
  Bench(std::string program, std::string floor, std::string made, std::string models)
      : program_(std::move(program)),
        floor_(std::move(floor)),
        made_(std::move(made)),
        models_(std::move(models)) {
    std::filesystem::create_directories(made_);
    std::ofstream(made_ + "/six.txt") << "#4b3abe\n#625b44\n#548a7f\n#3d67a0\n#423373\n#44241c\n";
  }

  /// Measures the rows whose names begin with `only`, and prints a line for each.
  void measure(const std::string& picture, std::string_view only) const {
    for (const std::string_view preparation :
         {"{floor} map {picture} {map}", "{floor} wide {picture} {wide}",
          "{floor} speckle {speckled} 6000 4000"})
      run(words(preparation, picture));
    for (const Row& row : kRows)
      if (row.name.starts_with(only)) measure(row, picture);
  }

 private:
  void measure(const Row& row, const std::string& picture) const {
    constexpr int kPairs = 8;
    const auto command = words(row.command, picture), floor = words(row.floor, picture);
    std::vector<double> ratios, seconds;
    double peak = 0;
    for (int pair = 0; pair < kPairs; ++pair) {
      // What was written is still on its way to the disk when the next one runs: each goes first as
      // often.
      Run base, one;
      if (pair % 2 == 0) base = run_afresh(floor, results());
      one = run_afresh(command, results());
      if (pair % 2 == 1) base = run_afresh(floor, results());
      ratios.push_back(one.seconds / base.seconds);
      seconds.push_back(one.seconds);
      peak = std::max(peak, one.megabytes);
    }
    fmt::print("| {} | {} | {} | {:.2f} | {:.2f} | {:.0f} |\n",
               std::filesystem::path(picture).filename().string(), row.name, floor[1],
               median(seconds), median(ratios), peak);
  }

  std::string results() const { return made_ + "/results"; }

  std::vector<std::string> words(std::string_view typed, const std::string& picture) const {
    const std::string line = fmt::format(
        fmt::runtime(typed), fmt::arg("program", program_), fmt::arg("floor", floor_),
        fmt::arg("models", models_), fmt::arg("out", results()), fmt::arg("picture", picture),
        fmt::arg("map", made_ + "/map.png"), fmt::arg("wide", made_ + "/wide.png"),
        fmt::arg("speckled", made_ + "/speckled.png"), fmt::arg("colors", made_ + "/six.txt"));
    return boost::program_options::split_unix(line);
  }

  std::string program_, floor_, made_, models_;
};

}  // namespace

int main(int argc, char** argv) {
  if (argc < 7) return 2;
  const Bench bench(argv[1], argv[2], argv[3], argv[4]);
  fmt::print(
      "| picture | command | floor | seconds | of floor | peak MB |\n|---|---|---|---|---|---|\n");
  for (int i = 6; i < argc; ++i) bench.measure(argv[i], argv[5]);
}
