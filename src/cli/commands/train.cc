// `chalcedony train`: a model from sample regions.
#include "job/learn/train.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <filesystem>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/feature/feature_names.h"
#include "core/feature/features.h"
#include "core/learn/classifier.h"
#include "core/nearest_name.h"
#include "core/split_list.h"
#include "job/learn/sample_files.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"

namespace chalcedony::cli {
namespace {

void declare_train(po::options_description& options) {
  add_repeated_option(options, "samples", "FILE|FOLDER",
                      "sample regions as GeoJSON, a table of points (x, y, class), or a picture "
                      "of labels; those that are called after each input, or one for each in their "
                      "order, or a folder or a pattern of such. Of suggested samples "
                      "those that were checked, as FILE:1,3,8=lead or FILE:all");
  add_option<std::string>(options, "from", "FILE",
                          "a model.json: train with its samples too, on the inputs of the same "
                          "names");
  add_repeated_option(options, "painted", "FILE|FOLDER",
                      "a copy of the input with samples painted over it, one opaque color for "
                      "each class; one for each input, called after it or in their order, or a "
                      "folder or a pattern of such");
  add_repeated_option(options, "sample", "NAME=PLACE",
                      "a sample of one input: X,Y (a pixel), X,Y,RADIUS or X,Y,W,H; may be "
                      "repeated");
  add_repeated_option(options, "class", "NAME=COLOR",
                      "the color of a class, and the name of that color in labels and painted "
                      "copies; may be repeated");
  add_option<std::string>(options, "colors", "distinct|means",
                          "color of a class that was given none: one easy to tell from the others, "
                          "or the mean of its sample pixels (default distinct)");
  add_option<std::string>(options, "method", "METHOD",
                          "minimum-distance (default), parallelepiped, mahalanobis, "
                          "maximum-likelihood or nearest-neighbor; all: every one of them, "
                          "compared on held-out samples");
  add_option<std::string>(options, "boxes", "range|N",
                          "for parallelepiped: how far the box of a class reaches, to the ends of "
                          "its samples (default) or N standard deviations from their mean");
  add_option<std::string>(options, "neighbors", "N",
                          "for nearest-neighbor: how many samples vote (default 7)");
  add_option<std::string>(options, "priors", "even|samples|NAME=P,...",
                          "how frequent the classes are, for maximum-likelihood (default even)");
  add_option<std::string>(options, "features", "LIST",
                          "channels to look at (default lab.l,lab.a,lab.b); mean5(lab.l) and "
                          "deviation5(lab.l) are of the 5 x 5 pixels around each");
  add_option<std::string>(options, "scaling", "none|spread|range",
                          "what features are divided by before distances: nothing, their standard "
                          "deviation or their range over the samples (default: spread when their "
                          "units differ, else none)");
  add_flag(options, "keep-samples",
           "write the sample pixels as a table, which train takes in place of pictures");
  add_option<std::string>(options, "trim", "D",
                          "leave out sample pixels more than D robust standard deviations from "
                          "the median of their class in any feature");
  add_option<std::string>(options, "holdout", "SHARE",
                          "hold out so much of the samples, 0.05 to 0.9, to test the model on "
                          "(default 0; 0.3 with --method all)");
  add_option<std::string>(options, "scatter", "A,B",
                          "the features of the scatter figure (default: the two most telling)");
}

/// Errors    UsageError when an option of one method is given with another
void check_for(const TrainOptions& options, const std::string& option, const std::string& method) {
  if (options.method != method && options.method != kAllMethods)
    throw UsageError(option + " are for " + method + " only",
                     "leave them out, or give --method " + method);
}

void read_priors(const std::string& text, TrainOptions& options) {
  check_for(options, "--priors", "maximum-likelihood");
  if (text == "even" || text == "samples") {
    options.rules.priors = text == "even" ? Priors::kEven : Priors::kSamples;
    return;
  }
  if (text.find('=') == std::string::npos)
    throw UsageError("--priors: '" + text + "' is not known",
                     "use even, samples, or numbers as in ruby=0.3,lead=0.7");
  options.rules.priors = Priors::kGiven;
  for (const std::string& item : split_list(text)) {
    const auto [name, number] = named_value("--priors", item);
    options.rules.given_priors.emplace_back(name, number_in("--priors", number, {0, 1e9}));
  }
}

double read_boxes(const po::variables_map& given, const TrainOptions& options) {
  constexpr double kMostDeviations = 100;
  check_for(options, "--boxes", "parallelepiped");
  const auto text = given["boxes"].as<std::string>();
  return text == "range"
             ? 0
             : number_in("--boxes", text, {.low = 0, .high = kMostDeviations, .with_high = true});
}

/// Each value without what of its samples was checked, which is noted for all of its files.
std::vector<std::filesystem::path> read_sample_files(const std::vector<std::string>& texts,
                                                     SampleSources& sources) {
  std::vector<std::filesystem::path> files;
  for (const std::string& text : texts) {
    const auto named = sample_file_part(text);
    files.push_back(named ? named->file : std::filesystem::path(text));
    if (!named || named->part.empty()) continue;
    const CheckedGuesses checked =
        read_option("--samples", [&] { return parse_checked_guesses(named->part); });
    for (const auto& file : files_meant(named->file, is_picture_or_samples))
      if (!sources.checked.emplace(file, checked).second)
        throw UsageError("--samples: " + file.string() + " is given twice",
                         "name all samples that were checked behind it once");
  }
  return files;
}

std::vector<std::filesystem::path> paths_of(const po::variables_map& given, const char* option) {
  const auto texts = texts_of(given, option);
  return {texts.begin(), texts.end()};
}

/// The painted copy of each picture.
std::vector<std::filesystem::path> painted_copies(
    const po::variables_map& given, const std::vector<std::filesystem::path>& pictures,
    const Context& context) {
  const std::vector<std::filesystem::path> named = paths_of(given, "painted");
  const auto refuse = [&] {
    throw UsageError("there are " + std::to_string(pictures.size()) + " inputs and " +
                         std::to_string(named.size()) + " painted copies",
                     "give one --painted for each input");
  };
  std::vector<std::filesystem::path> copies;
  if (named.empty()) return copies;
  if (named.size() != pictures.size() && std::all_of(named.begin(), named.end(), names_one_file))
    refuse();
  for (const auto& of_one : sample_files_named(named, pictures, true, *context.ledger)) {
    if (of_one.size() != 1) refuse();
    copies.push_back(of_one.front());
  }
  return copies;
}

/// `pictures`: the inputs that are no tables.
SampleSources read_sources(const po::variables_map& given,
                           const std::vector<std::filesystem::path>& pictures,
                           const Context& context) {
  SampleSources sources;
  if (given.count("samples"))
    sources.files = sample_files_named(read_sample_files(texts_of(given, "samples"), sources),
                                       pictures, given.count("from") == 0, *context.ledger);
  sources.painted = painted_copies(given, pictures, context);
  for (const auto& text : texts_of(given, "sample"))
    sources.places.push_back(named_value("--sample", text));
  for (const auto& text : texts_of(given, "class")) {
    const auto [name, color] = named_value("--class", text);
    sources.colors.emplace_back(name, css_color_option("--class", color));
  }
  if (given.count("from")) sources.model = given["from"].as<std::string>();
  if (sources.empty() && !pictures.empty())
    throw UsageError("train needs --samples, --painted, --sample or --from",
                     "say where samples of the classes are");
  if (!sources.places.empty() && pictures.size() > 1)
    throw UsageError("--sample is a place on one picture", "give --samples for several");
  return sources;
}

double read_holdout(const po::variables_map& given, const TrainOptions& options) {
  constexpr double kDefault = 0.3;
  if (!given.count("holdout")) return options.method == kAllMethods ? kDefault : 0;
  return number_in("--holdout", given["holdout"].as<std::string>(),
                   {.low = 0.05, .high = 0.9, .with_low = true, .with_high = true});
}

void read_scatter(const std::string& text, TrainOptions& options) {
  const std::vector<std::string> names = split_list(text);
  if (names.size() != 2)
    throw UsageError("--scatter: '" + text + "' is not two features",
                     "write it as in lab.a,lab.b; a hue is two, as in lch.h.cos");
  std::vector<std::string> known;
  for (const Feature& feature : features_of(options.features)) known.push_back(feature.name());
  const auto place = [&](const std::string& name) {
    const auto at = std::find(known.begin(), known.end(), name);
    if (at == known.end())
      throw UsageError("--scatter: the model has no feature '" + name + "'",
                       suggest_name(name, known));
    return static_cast<std::size_t>(at - known.begin());
  };
  options.scatter = {place(names[0]), place(names[1])};
}

Json do_train(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  constexpr double kMostTrim = 1000;
  constexpr std::uint64_t kMostNeighbors = 1000;
  TrainOptions options;
  options.shared = shared;
  std::vector<std::filesystem::path> pictures = shared.inputs;
  std::erase_if(pictures, is_table_name);
  options.sources = read_sources(given, pictures, context);
  std::vector<std::string> methods = classifier_methods();
  methods.emplace_back(kAllMethods);
  options.method = one_of("--method", text_of(given, "method", options.method), methods);
  if (given.count("boxes")) options.rules.box_spread = read_boxes(given, options);
  if (given.count("neighbors")) {
    check_for(options, "--neighbors", "nearest-neighbor");
    options.rules.neighbors =
        whole_number("--neighbors", given["neighbors"].as<std::string>(), 1, kMostNeighbors);
  }
  if (given.count("features"))
    options.features = read_option("--features", [&] {
      return feature_channels_named(given["features"].as<std::string>(), options.shared.names);
    });
  else if (shared.names.bare_space)
    options.features = channels_of(*shared.names.bare_space);
  if (given.count("priors")) read_priors(given["priors"].as<std::string>(), options);
  options.rules.scaling = scaling_option(given);
  if (given.count("trim"))
    options.trim = number_in("--trim", given["trim"].as<std::string>(),
                             {.low = 0, .high = kMostTrim, .with_high = true});
  options.held_share = read_holdout(given, options);
  if (options.held_share > 0 && pictures.size() < shared.inputs.size())
    throw UsageError("samples are held out by their places, and a table of samples has none",
                     "train on pictures, or leave --holdout and --method all out");
  options.keep_samples = given.count("keep-samples") > 0;
  options.mean_colors =
      one_of("--colors", text_of(given, "colors", "distinct"), {"distinct", "means"}) == "means";
  if (given.count("scatter")) read_scatter(given["scatter"].as<std::string>(), options);
  return run_train(options, context);
}

void print_worst_pair(const Json& pairs, std::ostream& out) {
  const Json* worst = nullptr;
  for (const Json& pair : pairs)
    if (pair.contains("jeffries_matusita") &&
        (!worst || pair["jeffries_matusita"] < (*worst)["jeffries_matusita"]))
      worst = &pair;
  if (!worst) return;
  constexpr double kLeastBound = 0.001;  // percent; a smaller bound says no more
  out << fmt::format(
      "  hardest to tell apart: {} and {}, Jeffries-Matusita {:.3f} of 2, at most "
      "{} confused\n",
      (*worst)["first"], (*worst)["second"], (*worst)["jeffries_matusita"],
      rough_percent(std::max(kLeastBound, (*worst)["confusion_bound_percent"].get<double>())));
}

/// "99.2 % of 1,234 right (kappa 0.98); most confused: amber taken for lead, 2.1 % of it".
std::string score_text(const Json& score) {
  if (!score.contains("overall_percent")) return "none";
  std::string text =
      fmt::format("{:.2f} % of {} right", score["overall_percent"], counted(score["pixels"]));
  if (score.contains("kappa")) text += fmt::format(" (kappa {:.3f})", score["kappa"]);
  if (!score.contains("most_confused")) return text;
  const Json& worst = score["most_confused"];
  return text + fmt::format("; most confused: {} of {} {}", rough_percent(worst["percent"]),
                            worst["class"],
                            worst["taken_for"] == "unclassified"
                                ? "left unclassified"
                                : "taken for " + worst["taken_for"].get<std::string>());
}

void print_methods(const Json& model, std::ostream& out) {
  if (!model.contains("methods")) return;
  out << "all methods on the held-out samples; the best one is model.json:\n";
  for (const Json& method : model["methods"])
    out << fmt::format("  {}: {}\n", method["method"],
                       method.contains("problem") ? method["problem"].get<std::string>()
                                                  : score_text(method["held_out"]));
}

/// What the samples say about the choice of features.
void print_advice(const Json& model, std::ostream& out) {
  for (const Json& lone : model["advice"]["lone_features"])
    out << fmt::format(
        "  only {} tells {} and {} apart: Jeffries-Matusita {:.2f} with it, {:.2f} without\n",
        lone["feature"], lone["first"], lone["second"], lone["with"], lone["without"]);
  if (!model["advice"].contains("needless_lightness")) return;
  const Json& needless = model["advice"]["needless_lightness"];
  std::vector<std::string> features;
  for (const Json& name : needless["features"])
    if (features.empty() || features.back() != name) features.push_back(name);
  out << fmt::format(
      "  lightness is not needed: the pair hardest to tell apart has {:.3f} with it and {:.3f} "
      "without; --features {} would not see shading\n",
      needless["with"], needless["without"], fmt::join(features, ","));
}

void print_scaling(const Json& model, std::ostream& out) {
  if (model["scaling"] == "none") return;
  std::vector<std::string> divisors;
  for (const Json& divisor : model["divisors"]) divisors.push_back(fmt::format("{:.4g}", divisor));
  out << fmt::format("  features are divided by their {} over the samples: {}\n",
                     model["scaling"] == "spread" ? "standard deviation" : "range",
                     fmt::join(divisors, ", "));
}

void print_train(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    if (!p.contains("regions")) {
      std::uint64_t pixels = 0;
      for (const Json& c : p["classes"]) pixels += c["pixels"].get<std::uint64_t>();
      out << fmt::format("{}: {} that were kept\n", p["file"], plural(pixels, "sample pixel"));
      continue;
    }
    out << fmt::format("{}: {} from {}\n", p["file"], plural(p["regions"], "sample region"),
                       p["samples"]);
    if (p["left_out"] > 0)
      out << fmt::format("  left out: {} that do not count or lack a feature\n",
                         plural(p["left_out"], "sample pixel"));
  }
  const Json& model = summary["model"];
  TextTable table(model["classes"]);
  table.words("class", "name").words("color", "color").counts("pixels", "pixels");
  for (std::size_t f = 0; f < model["features"].size(); ++f)
    table.values_of(model["features"][f], fmt::format("mean/{}", f));
  out << fmt::format("{}, class means:\n", model["method"]);
  table.print(out);
  print_scaling(model, out);
  if (model.contains("trimmed_pixels"))
    out << fmt::format("  trimmed: {}\n", plural(model["trimmed_pixels"], "sample pixel"));
  print_worst_pair(model["separability"], out);
  print_advice(model, out);
  out << fmt::format("  the samples themselves: {}\n", score_text(model["samples"]));
  if (model.contains("held_out"))
    out << fmt::format("  held-out samples: {}\n", score_text(model["held_out"]));
  print_methods(model, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kTrain;
const Command kTrain{
    .name = "train",
    .summary = "a model from sample regions",
    .operands = "INPUT... --samples FILE|FOLDER...",
    .purpose =
        "Learns classes from sample regions: the mean, spread and covariance of each class's "
        "features. Says which classes are hardest to tell apart before anything is mapped.",
    .examples =
        {{"train panel-a.png --samples panel-a.samples.geojson -o out/",
          "a model of five glasses and lead"},
         {"train panel-a.png --sample lead=0,100,4,120 --sample ruby=210,160,40,40 --sample "
          "cobalt=300,140,20,20 --colors means --method parallelepiped --features lab.a,lab.b "
          "--boxes "
          "3 -o out/",
          "boxes around three classes, without lightness, so that shading does not matter; each in "
          "the "
          "color of its samples"},
         {"train panel-a.png panel-b.png --samples panel-a.samples.geojson --samples "
          "panel-b.samples.geojson --method all --trim 4 -o out/",
          "every method on two pictures, compared on samples that were held out"}},
    .results = train_results,
    .declare = declare_train,
    .run = do_train,
    .print = print_train,
    .traits = {Trait::kJoinsInputs, Trait::kSkipsBad, Trait::kDraws, Trait::kReadsSamples,
               Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
