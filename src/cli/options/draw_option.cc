#include "cli/options/draw_option.h"

#include <cstdint>

#include "cli/options/option_values.h"
#include "core/error.h"
#include "core/split_list.h"

namespace chalcedony::cli {
namespace {

void read_strata(const std::string& how, DrawDesign& draw) {
  if (how == "equal" || how == "proportional") {
    draw.design = how == "equal" ? SampleDesign::kEqual : SampleDesign::kProportional;
    return;
  }
  if (how.find('=') == std::string::npos)
    throw UsageError("--stratified: '" + how + "' is not known",
                     "use equal, proportional, or numbers as in ruby=50,lead=30");
  draw.design = SampleDesign::kGiven;
  for (const std::string& item : split_list(how)) {
    const auto [name, number] = named_value("--stratified", item);
    draw.given.emplace_back(name, whole_number("--stratified", number, 0, UINT32_MAX));
  }
}

}  // namespace

void declare_draw(po::options_description& options, const std::string& otherwise) {
  const std::string count = "draw so many pixels (default: " + otherwise + ")";
  add_option<std::string>(options, "count", "N", count.c_str());
  add_option<std::string>(options, "fraction", "F", "draw this part of the pixels, 0 to 1");
  add_option<std::string>(options, "stratified", "equal|proportional|NAME=N,...",
                          "draw from each class of the map apart");
  add_option<std::string>(options, "every", "N",
                          "take a pixel every N rows and columns, from a random start");
}

DrawDesign draw_option(const po::variables_map& given) {
  DrawDesign draw;
  const bool counted = given.count("count"), part = given.count("fraction");
  if (counted && part)
    throw UsageError("--count and --fraction say the same in two ways", "give one of them");
  if (counted)
    draw.count = whole_number("--count", given["count"].as<std::string>(), 1, UINT32_MAX);
  if (part)
    draw.fraction = number_in("--fraction", given["fraction"].as<std::string>(),
                              {.low = 0, .high = 1, .with_high = true});
  if (counted || part) draw.design = SampleDesign::kRandom;
  if (given.count("stratified")) {
    read_strata(given["stratified"].as<std::string>(), draw);
    const bool numbers = draw.design == SampleDesign::kGiven;
    if (numbers && (counted || part))
      throw UsageError("--stratified with numbers already says how many are drawn",
                       "leave --count and --fraction out");
    if (!numbers && !counted && !part)
      throw UsageError("--stratified needs a number of pixels", "add --count N or --fraction F");
  }
  if (given.count("every")) {
    if (draw.design != SampleDesign::kAll)
      throw UsageError("--every is a way to draw of its own",
                       "leave --count, --fraction and --stratified out");
    draw.design = SampleDesign::kGrid;
    draw.every = static_cast<std::uint32_t>(
        whole_number("--every", given["every"].as<std::string>(), 1, 100000));
  }
  return draw;
}

}  // namespace chalcedony::cli
