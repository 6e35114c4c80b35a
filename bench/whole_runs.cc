// `chalcedony-whole-runs PROGRAM FLOOR WORK-FOLDER MODELS ROWS PICTURE...`: times whole commands
// against a floor that only decodes the same picture, in turn, and reads their peak memory. Prints
// a Markdown table: medians of 7 pairs, without figures. ROWS: only rows whose name begins so;
// empty for all.
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <string>
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
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2),
                   values.end());
  return values[values.size() / 2];
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 7) return 2;
  const std::string program = argv[1], floor = argv[2], made = argv[3], models = argv[4],
                    only = argv[5];
  const std::string out = made + "/results";
  std::filesystem::create_directories(made);
  const std::string six_colors = made + "/six.txt";
  std::ofstream(six_colors) << "#4b3abe\n#625b44\n#548a7f\n#3d67a0\n#423373\n#44241c\n";
  fmt::print(
      "| picture | command | floor | seconds | of floor | peak MB |\n|---|---|---|---|---|---|\n");
  for (int i = 6; i < argc; ++i) {
    const std::string picture = argv[i];
    const std::vector<std::string> decode{floor, "decode", picture};
    const std::vector<std::string> copy{floor, "copy", picture, out + "/floor.png"};
    const std::vector<std::string> copy_jpeg{floor, "copy", picture, out + "/floor.jpg"};
    const std::string map = made + "/map.png";
    run({floor, "map", picture, map});
    const std::vector<std::string> labels{floor, "labels", map, map};
    const std::vector<std::string> groups{floor, "groups", picture, out + "/floor-map.png",
                                          out + "/floor.png"};
    const std::vector<std::string> mask{floor, "mask", picture, out + "/floor-mask.png"};
    const std::vector<std::string> floats{floor, "floats", picture, out + "/floor.tif"};
    const std::vector<std::string> class_map{floor, "map", picture, out + "/floor-map.png"};
    const auto classify_by = [&](const char* method) {
      return std::vector<std::string>{
          program, "classify", picture,   "--model", models + "/" + method + ".model.json",
          "-o",    out,        "--write", "classes"};
    };
    const std::string wide = made + "/wide.png";
    run({floor, "wide", picture, wide});
    const std::vector<std::string> copy_wide{floor, "copy", wide, out + "/floor.png"};
    const std::string speckled = made + "/speckled.png";
    run({floor, "speckle", speckled, "6000", "4000"});
    const std::vector<std::string> speckles{floor, "decode", speckled};
    const auto open_by = [&](const char* radius) {
      return std::vector<std::string>{
          program, "tidy", speckled,  "--steps", std::string("open ") + radius,
          "-o",    out,    "--write", "tidy"};
    };
    const std::vector<std::string> open_by_1 = open_by("1");
    const auto smooth_by = [&](const char* filter, const char* window, const char* radius) {
      return std::vector<std::string>{
          program,    "smooth", picture, "--filter",         filter, "--window", window,
          "--radius", radius,   "-o",    out + "/smooth.png"};
    };
    const auto gaussian_by = [&](const char* radius) {
      return std::vector<std::string>{program,    "smooth", picture, "--filter",         "gaussian",
                                      "--radius", radius,   "-o",    out + "/smooth.png"};
    };
    const std::vector<std::string> mean_by_2 = smooth_by("mean", "box", "2");
    const std::vector<std::string> median_by_20 = smooth_by("median", "box", "20");
    const std::vector<std::string> maximum_by_2 = smooth_by("maximum", "box", "2");
    const std::vector<std::string> gaussian_by_5 = gaussian_by("5");
    struct Row {
      const char* name;
      std::vector<std::string> words;
      const std::vector<std::string>* floor;
    };
    const std::vector<Row> rows{
        {"inspect", {program, "inspect", picture}, &decode},
        {"inspect in hsv and lab", {program, "inspect", picture, "--space", "hsv,lab"}, &decode},
        {"diff of a picture and itself",
         {program, "diff", picture, picture, "-o", out, "--write", "statistics"},
         &decode},
        {"histogram, 3 channels",
         {program, "histogram", picture, "-o", out, "--figures", "none"},
         &decode},
        {"histogram, hsv.h with hsv.s",
         {program, "histogram", picture, "--joint", "hsv.h,hsv.s", "-o", out, "--figures", "none"},
         &decode},
        {"mask of a hue range, mask only",
         {program, "mask", picture, "--where", "hsv.h in 200..260 and hsv.s >= 40", "-o", out,
          "--write", "mask"},
         &mask},
        {"mask of the colors near one, mask only",
         {program, "mask", picture, "--where", "near(#a01c2e, 20)", "-o", out, "--write", "mask"},
         &mask},
        {"measure, a million regions, one thread",
         {program, "measure", speckled, "--threads", "1"},
         &speckles},
        {"tidy, open 25 against open 1", open_by("25"), &open_by_1},
        {"smooth, mean in a box of 2", mean_by_2, &copy},
        {"smooth, median in a disk of 2", smooth_by("median", "disk", "2"), &copy},
        {"smooth, opening by a disk of 4", smooth_by("opening", "disk", "4"), &copy},
        {"smooth, mean box 25 against 2", smooth_by("mean", "box", "25"), &mean_by_2},
        {"smooth, median box 40 against 20", smooth_by("median", "box", "40"), &median_by_20},
        {"smooth, Gaussian of 2", gaussian_by("2"), &copy},
        {"smooth, Gaussian 25 against 5", gaussian_by("25"), &gaussian_by_5},
        {"smooth, maximum box 25 against 2", smooth_by("maximum", "box", "25"), &maximum_by_2},
        {"reframe to half the size",
         {program, "reframe", picture, "--scale", "0.5", "-o", out + "/half.png"},
         &decode},
        {"reframe turned by 10 degrees",
         {program, "reframe", picture, "--turn", "10", "-o", out + "/turned.png"},
         &copy},
        {"balance to common medians",
         {program, "balance", picture, "-o", out + "/balanced.png", "--figures", "none"},
         &copy},
        {"classify, minimum-distance", classify_by("minimum-distance"), &class_map},
        {"classify, parallelepiped", classify_by("parallelepiped"), &class_map},
        {"classify, maximum-likelihood", classify_by("maximum-likelihood"), &class_map},
        {"classify, nearest-neighbor", classify_by("nearest-neighbor"), &class_map},
        {"convert to lab float TIFF",
         {program, "convert", picture, "--to", "lab", "--depth", "float", "-o", out + "/lab.tif"},
         &floats},
        {"assess, all pixels of that map and itself",
         {program, "assess", map, "--reference", map, "-o", out, "--write", "matrix"},
         &labels},
        {"cluster, 8 groups by k-means",
         {program, "cluster", picture, "--k", "8", "-o", out, "--write", "classes,recolored"},
         &groups},
        {"cluster, mixtures of 1..10, 3 restarts",
         {program, "cluster", picture, "--method", "gaussian-mixture", "--k", "1..10", "--restarts",
          "3", "-o", out, "--write", "classes,recolored"},
         &groups},
        {"palette, 6 colors",
         {program, "palette", picture, "-o", out, "--figures", "none"},
         &decode},
        {"convert of a PNG in rec2020, mapped into srgb",
         {program, "convert", wide, "--to", "srgb", "--gamut", "map", "-o", out + "/mapped.png"},
         &copy_wide},
        {"palette applied, 6 colors",
         {program, "palette", picture, "--apply", six_colors, "-o", out, "--figures", "none"},
         &copy},
        {"convert to display-p3 PNG",
         {program, "convert", picture, "--to", "display-p3", "-o", out + "/p3.png"},
         &copy},
        {"convert to display-p3 JPEG",
         {program, "convert", picture, "--to", "display-p3", "-o", out + "/p3.jpg"},
         &copy_jpeg}};
    for (const Row& row : rows) {
      if (!std::string(row.name).starts_with(only)) continue;
      std::vector<double> ratios, seconds;
      double peak = 0;
      for (int pair = 0; pair < 7; ++pair) {
        const double base = run_afresh(*row.floor, out).seconds;
        const Run one = run_afresh(row.words, out);
        ratios.push_back(one.seconds / base);
        seconds.push_back(one.seconds);
        peak = std::max(peak, one.megabytes);
      }
      fmt::print("| {} | {} | {} | {:.2f} | {:.2f} | {:.0f} |\n",
                 std::filesystem::path(picture).filename().string(), row.name, (*row.floor)[1],
                 median(seconds), median(ratios), peak);
    }
  }
}
