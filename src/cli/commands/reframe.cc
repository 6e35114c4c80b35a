// `chalcedony reframe`: a picture cropped, turned and scaled.
#include "job/prepare/reframe.h"

#include <fmt/format.h>

#include <cmath>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "core/error.h"
#include "core/read_number.h"

namespace chalcedony::cli {
namespace {

constexpr double kMostFactor = 100;

void declare_reframe(po::options_description& options) {
  add_option<std::string>(options, "corners", "\"X,Y X,Y X,Y X,Y\"",
                          "of a rectangle seen at a slant, the places of its corners, clockwise "
                          "from the top left: it is made upright, in place of --crop and --turn");
  add_option<std::string>(options, "crop", "X,Y,W,H",
                          "first: keep this rectangle, in pixels or as percent:X,Y,W,H");
  add_option<std::string>(options, "turn", "DEGREES",
                          "then: turn clockwise; 90, 180 and 270 change no pixel");
  add_option<std::string>(options, "fill", "COLOR",
                          "what shows beside the picture (default: transparent)");
  add_option<std::string>(options, "scale", "FACTOR", "last: this many times as wide and high");
  add_option<std::string>(options, "size", "WxH",
                          "last: to this size; 640x or x480 keeps the proportions");
  add_option<std::string>(options, "enlarge", "bicubic|lanczos",
                          "how pixels between others are found (default bicubic); fewer pixels are "
                          "averages over the area they cover");
  add_flag(options, "linear-light", "average light, not the numbers that encode it");
}

std::optional<std::uint32_t> side_of(const std::string& text) {
  if (text.empty()) return std::nullopt;
  return static_cast<std::uint32_t>(whole_number("--size", text, 1, 100000));
}

WantedSize size_of(const std::string& text) {
  const std::size_t cross = text.find('x');
  if (cross == std::string::npos || text == "x")
    throw UsageError("--size: '" + text + "' is no size", "write it as 640x480, 640x or x480");
  return {std::nullopt, side_of(text.substr(0, cross)), side_of(text.substr(cross + 1))};
}

double degrees_of(const std::string& text) {
  const auto degrees = read_number<double>(text);
  if (!degrees || !(std::abs(*degrees) <= 360))
    throw UsageError("--turn: '" + text + "' is no angle", "give degrees from -360 to 360");
  return *degrees;
}

Json do_reframe(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  ReframeOptions options;
  options.shared = shared;
  if (given.count("corners")) {
    if (given.count("crop") || given.count("turn"))
      throw UsageError("--corners says what is kept and how it lies",
                       "leave --crop and --turn out");
    options.corners =
        read_option("--corners", [&] { return parse_corners(given["corners"].as<std::string>()); });
  }
  if (given.count("crop"))
    options.crop =
        read_option("--crop", [&] { return parse_region(given["crop"].as<std::string>()); });
  options.turn = degrees_of(text_of(given, "turn", "0"));
  if (given.count("fill"))
    options.fill =
        read_option("--fill", [&] { return css_color(given["fill"].as<std::string>()); });
  if (given.count("scale") && given.count("size"))
    throw UsageError("--scale and --size both say how large", "give one of them");
  if (given.count("size")) options.size = size_of(given["size"].as<std::string>());
  if (given.count("scale"))
    options.size.factor = number_in("--scale", given["scale"].as<std::string>(),
                                    {.low = 0, .high = kMostFactor, .with_high = true});
  options.enlarging = choice_of<Interpolation>(
      "--enlarge", text_of(given, "enlarge", "bicubic"),
      {{"bicubic", Interpolation::kBicubic}, {"lanczos", Interpolation::kLanczos}});
  options.linear_light = given.count("linear-light") > 0;
  if (!options.corners && !options.crop && options.turn == 0 && !given.count("scale") &&
      !given.count("size"))
    throw UsageError("reframe needs --corners, --crop, --turn, --scale or --size",
                     "say what to do, as in --crop percent:10,10,80,80");
  if (options.crop && options.turn == 0 && !given.count("scale") && !given.count("size"))
    refuse_options(given, {"fill", "enlarge", "linear-light"}, "--crop alone makes no new pixels");
  return run_reframe(options, context);
}

void print_reframe(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"])
    out << fmt::format(
        "{}: {} x {} to {} x {} pixels{}\n", p["file"], p["from"]["width"], p["from"]["height"],
        p["width"], p["height"],
        p["labels"].get<bool>() ? "; a mask or class map, so its numbers are kept" : "");
  print_outputs(summary, out);
}

}  // namespace

extern const Command kReframe;
const Command kReframe{
    .name = "reframe",
    .summary = "a picture cropped, turned, made upright and scaled",
    .operands = "INPUT... -o PATH",
    .purpose =
        "Crops, turns and scales pictures, in this order, or makes upright what was seen at a "
        "slant. Masks and class maps are recognised and keep their numbers. With one input, -o "
        "names the file; with several, a folder. What lies beside the picture is transparent, so "
        "that later commands do not count it.",
    .examples = {{"reframe panel-a.png --crop 20,20,300,200 -o part.png", "a rectangle"},
                 {"reframe panel-a.png --corners \"18,12 462,30 448,344 30,352\" --size 640x -o "
                  "upright.png",
                  "what lies between four corners as a rectangle, 640 pixels wide"},
                 {"reframe panel-a.png panel-a.reference.png --scale 0.5 -o half/",
                  "a picture and its class map at half the size"}},
    .declare = declare_reframe,
    .run = do_reframe,
    .print = print_reframe,
    .refuses = {{"region", "within", "alpha", "hue-floor", "let", "figures", "write"},
                "reframe moves all pixels; --crop keeps a part of them"},
};

}  // namespace chalcedony::cli
