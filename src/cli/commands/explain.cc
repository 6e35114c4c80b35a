// `chalcedony explain`: why a pixel fell where it did.
#include "job/map/explain.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostPixels = 1000;

void declare_explain(po::options_description& options) {
  add_option<std::string>(options, "model", "FILE", "the model.json that train wrote");
  add_repeated_option(options, "at", "X,Y", "explain this pixel; may be repeated");
  add_option<std::string>(options, "first", "N",
                          "explain the first N counted pixels, row by row (with --region: of it)");
}

Json do_explain(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  if (!given.count("model")) throw UsageError("explain needs --model", "name a model.json");
  if (given.count("at") == given.count("first"))
    throw UsageError("explain needs --at or --first", "say which pixels, as in --at 120,80");
  ExplainOptions options;
  options.shared = shared;
  options.model = given["model"].as<std::string>();
  for (const auto& text : texts_of(given, "at")) options.at.push_back(point_in("--at", text));
  if (given.count("first"))
    options.first = whole_number("--first", given["first"].as<std::string>(), 1, kMostPixels);
  return run_explain(options, context);
}

std::string number(const Json& value) { return fmt::format("{:.6g}", value); }

/// One number of a term of every class, in line.
std::vector<std::string> column_of(const Json& classes, std::size_t term, const char* field,
                                   int digits) {
  std::vector<double> values;
  for (const Json& one : classes) values.push_back(one["terms"][term][field]);
  std::vector<std::string> texts = aligned_numbers(values, digits);
  std::size_t width = 0;
  for (const std::string& text : texts) width = std::max(width, text.size());
  for (std::string& text : texts) text.insert(0, width - text.size(), ' ');
  return texts;
}

/// What one feature adds to each class: "-9.013\u00b2 = 81.24", "-9.013 x 18.82 = -169.7",
/// "in 22..35 (0.6)".
std::vector<std::string> term_texts(const Json& classes, std::size_t term) {
  std::vector<std::string> texts;
  if (classes[0]["terms"][term].contains("low")) {
    const std::vector<std::string> parts = column_of(classes, term, "part", 4);
    for (std::size_t c = 0; c < classes.size(); ++c) {
      const Json& box = classes[c]["terms"][term];
      texts.push_back(fmt::format("{} {:.4g}..{:.4g} ({})", box["part"] <= 1 ? "in" : "not in",
                                  box["low"], box["high"], parts[c]));
    }
    return texts;
  }
  const std::vector<std::string> differences = column_of(classes, term, "difference", 5),
                                 weighted = column_of(classes, term, "weighted", 5),
                                 parts = column_of(classes, term, "part", 6);
  for (std::size_t c = 0; c < classes.size(); ++c)
    texts.push_back(differences == weighted
                        ? fmt::format("{}\u00b2 = {}", differences[c], parts[c])
                        : fmt::format("{} x {} = {}", differences[c], weighted[c], parts[c]));
  return texts;
}

/// How near the pixel is beside the samples of the class.
std::string reach_text(const Json& one) {
  if (!one.contains("within_percent")) return "";
  if (one["within_percent"].is_null()) return "beyond";
  return fmt::format("{:g} %", one["within_percent"]);
}

std::string probability_text(const Json& one) {
  constexpr double kLeast = 1e-6;  // percent
  const double percent = 100 * one["probability"].get<double>();
  return percent < kLeast ? "0 %" : fmt::format("{:.4g} %", percent);
}

/// A row for each class, with the columns that the method has.
void print_classes(const Json& classes, std::ostream& out) {
  const Json& any = classes.front();
  const bool boxes = any.contains("inside");
  TextTable table(classes);
  table.words("class", "class");
  for (std::size_t t = 0; t < any["terms"].size(); ++t) {
    const std::vector<std::string> texts = term_texts(classes, t);
    auto next = texts.begin();
    table.cells(any["terms"][t]["feature"], [&](const Json&) { return *next++; });
  }
  if (any.contains("votes")) table.counts("votes", "votes");
  if (boxes) {
    table.words("box", [](const Json& one) { return one["inside"] ? "inside" : "outside"; });
  } else if (!any["terms"].empty()) {
    table.numbers("sum", "sum", 6);
  }
  table.numbers(boxes ? "half-widths" : "distance", "distance", 5);
  if (any.contains("log_prior"))
    table.numbers("ln det", "log_determinant", 5)
        .numbers("ln prior", "log_prior", 5)
        .numbers("score", "score", 6)
        .cells("probability", probability_text);
  table.cells("reach", reach_text).print(out, 4);
}

void print_decision(const Json& pixel, std::ostream& out) {
  print_classes(pixel["classes"], out);
  if (pixel["classes"].front().contains("log_prior"))
    out << "    score = ln prior - (ln det + sum) / 2; the highest wins\n";
  if (pixel["classes"].front().contains("within_percent"))
    out << "    reach: as near as so many of the class's samples; beyond: farther than all\n";
}

void print_neighbors(const Json& pixel, std::ostream& out) {
  if (!pixel.contains("neighbors")) return;
  TextTable(pixel["neighbors"])
      .words("neighbor", "class")
      .numbers("distance", "distance", 6)
      .counts("sample pixels", "pixels")
      .print(out, 4);
}

/// How the two best were compared.
std::string margin_text(const Json& pixel, const std::string& method) {
  if (!pixel.contains("runner_up")) return "no other class";
  const std::string second = pixel["runner_up"].get<std::string>();
  const double margin = pixel["margin"].get<double>();
  if (method == "nearest-neighbor")
    return fmt::format("{} more than {}", plural(static_cast<std::uint64_t>(margin), "vote"),
                       second);
  if (method == "maximum-likelihood")
    return fmt::format("its score is {:.6g} above that of {}", margin, second);
  if (method == "parallelepiped")
    return fmt::format("{:.4g} half-widths less than {}", margin, second);
  return fmt::format("the sum is {:.6g} less than that of {}",
                     method == "mahalanobis" ? 2 * margin : margin, second);
}

void print_explain(const Json& summary, std::ostream& out) {
  const std::string method = summary["method"].get<std::string>();
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}, {}:\n", p["file"], method);
    std::size_t number_of_pixel = 0;
    for (const Json& pixel : p["pixels"]) {
      std::string features;
      for (const Json& feature : pixel["features"]) {
        features += fmt::format("{}{} {}", features.empty() ? "" : ", ", feature["name"],
                                number(feature["value"]));
        if (feature["divided"] != feature["value"])
          features += fmt::format(" (divided: {})", number(feature["divided"]));
      }
      out << fmt::format("  {}. pixel {},{}: {}\n", ++number_of_pixel, pixel["x"], pixel["y"],
                         features);
      print_decision(pixel, out);
      print_neighbors(pixel, out);
      out << fmt::format("    so: {} ({})\n", pixel["class"], margin_text(pixel, method));
    }
    // The features of every pixel are the same.
    std::vector<std::string> features;
    for (const Json& feature : p["pixels"][0]["features"]) features.push_back(feature["name"]);
    print_whites(features, out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kExplain;
const Command kExplain{
    .name = "explain",
    .summary = "why a pixel got its class: the arithmetic step by step",
    .operands = "INPUT... --model FILE --at X,Y...",
    .purpose =
        "Shows how a model comes to the class of single pixels: the features, for every class the "
        "differences, squares and sums, box tests, densities or votes, then the winner and by how "
        "much. Numbers of a class are in the model's own measure, as docs/models.md defines it.",
    .examples = {{"explain panel-b.png --model glass.model.json --at 210,160 --at 12,100",
                  "two pixels of another panel"},
                 {"explain panel-c.png --model glass.model.json --region 40,40,20,20 --first 3 "
                  "--summary json",
                  "the first three pixels of a region, for a program"},
                 {"explain panel-b.png --model glass.model.json --at 210,160 -o out/",
                  "the same as a file, and the pixel among the classes as a figure"}},
    .results = explain_results,
    .declare = declare_explain,
    .run = do_explain,
    .print = print_explain,
    .refuses = {{"let"}, "the model holds what its channels are"},
};

}  // namespace chalcedony::cli
