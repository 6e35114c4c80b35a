// `chalcedony train`: a model from sample regions.
#include "job/train.h"

#include <fmt/format.h>

#include <algorithm>
#include <ostream>

#include "cli/command.h"
#include "cli/outputs_text.h"
#include "cli/shared_flags.h"
#include "cli/text_table.h"
#include "core/error.h"
#include "core/learn/classifier.h"

namespace chalcedony::cli {
namespace {

void declare(po::options_description& options) {
  add_repeated_option(options, "samples", "FILE",
                      "sample regions as GeoJSON; one for each input, in their order");
  add_repeated_option(options, "sample", "NAME=PLACE",
                      "a sample of one input: X,Y (a pixel), X,Y,RADIUS or X,Y,W,H; may be "
                      "repeated");
  add_option<std::string>(options, "method", "METHOD",
                          "minimum-distance, parallelepiped, mahalanobis or maximum-likelihood "
                          "(default minimum-distance)");
  add_option<std::string>(options, "boxes", "range|N",
                          "for parallelepiped: how far the box of a class reaches, to the ends of "
                          "its samples (default) or N standard deviations from their mean");
  add_option<std::string>(options, "priors", "even|samples|NAME=P,...",
                          "how frequent the classes are, for maximum-likelihood (default even)");
  add_option<std::string>(options, "features", "LIST",
                          "channels to look at (default lab.l,lab.a,lab.b)");
}

void read_priors(const std::string& text, TrainOptions& options) {
  if (options.method != "maximum-likelihood")
    throw UsageError("--priors are for maximum-likelihood only",
                     "leave them out, or give --method maximum-likelihood");
  if (text == "even" || text == "samples") {
    options.priors = text == "even" ? Priors::kEven : Priors::kSamples;
    return;
  }
  if (text.find('=') == std::string::npos)
    throw UsageError("--priors: '" + text + "' is not known",
                     "use even, samples, or numbers as in ruby=0.3,lead=0.7");
  options.priors = Priors::kGiven;
  for (const std::string& item : split_list(text)) {
    const auto [name, number] = named_value("--priors", item);
    options.given_priors.emplace_back(name, number_between("--priors", number, 0, 1e9));
  }
}

double read_boxes(const po::variables_map& given, const TrainOptions& options) {
  constexpr double kMostDeviations = 100;
  if (options.method != "parallelepiped")
    throw UsageError("--boxes are for parallelepiped only",
                     "leave them out, or give --method parallelepiped");
  const auto text = given["boxes"].as<std::string>();
  return text == "range" ? 0 : number_between("--boxes", text, 0, kMostDeviations);
}

Json run(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  TrainOptions options;
  options.shared = shared;
  if (!given.count("samples") && !given.count("sample"))
    throw UsageError("train needs --samples or --sample", "say where samples of the classes are");
  for (const auto& file : texts_of(given, "samples")) options.samples.emplace_back(file);
  for (const auto& text : texts_of(given, "sample"))
    options.places.push_back(named_value("--sample", text));
  if (!options.places.empty() && shared.inputs.size() > 1)
    throw UsageError("--sample is a place on one picture", "give --samples for several");
  if (given.count("samples") && options.samples.size() != shared.inputs.size())
    throw UsageError("there are " + std::to_string(shared.inputs.size()) + " inputs and " +
                         std::to_string(options.samples.size()) + " sample files",
                     "give one --samples for each input");
  options.method =
      one_of("--method", text_of(given, "method", options.method), classifier_methods());
  if (given.count("boxes")) options.box_spread = read_boxes(given, options);
  if (given.count("features"))
    options.features = channels_option("--features", given["features"].as<std::string>());
  if (given.count("priors")) read_priors(given["priors"].as<std::string>(), options);
  return run_train(options, context);
}

void print_worst_pair(const Json& pairs, std::ostream& out) {
  const Json* worst = nullptr;
  for (const Json& pair : pairs)
    if (pair.contains("jeffries_matusita") &&
        (!worst || pair["jeffries_matusita"] < (*worst)["jeffries_matusita"]))
      worst = &pair;
  if (!worst) return;
  out << fmt::format(
      "  hardest to tell apart: {} and {}, Jeffries-Matusita {:.3f} of 2, at most "
      "{:.2g} % confused\n",
      (*worst)["first"].get<std::string>(), (*worst)["second"].get<std::string>(),
      (*worst)["jeffries_matusita"].get<double>(),
      (*worst)["confusion_bound_percent"].get<double>());
}

void print(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} from {}\n", p["file"].get<std::string>(),
                       plural(p["regions"].get<std::uint64_t>(), "sample region"),
                       p["samples"].get<std::string>());
    if (p["left_out"].get<std::uint64_t>() > 0)
      out << fmt::format("  left out: {} that do not count or lack a feature\n",
                         plural(p["left_out"].get<std::uint64_t>(), "sample pixel"));
  }
  const Json& model = summary["model"];
  std::vector<std::string> header{"class", "color", "pixels"};
  for (const Json& feature : model["features"]) header.push_back(feature.get<std::string>());
  TextTable table(header);
  for (const Json& c : model["classes"]) {
    std::vector<std::string> row{c["name"].get<std::string>(), c["color"].get<std::string>(),
                                 counted(c["pixels"].get<std::uint64_t>())};
    for (const Json& mean : c["mean"]) row.push_back(fmt::format("{:.4g}", mean.get<double>()));
    table.add(row);
  }
  out << fmt::format("{}, class means:\n", model["method"].get<std::string>());
  table.print(out);
  print_worst_pair(model["separability"], out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kTrain;
const Command kTrain{
    "train",
    "a model from sample regions",
    "INPUT... --samples FILE...",
    "Learns classes from sample regions: the mean, spread and covariance of each class's features. "
    "Says which classes are hardest to tell apart before anything is mapped.",
    {{"train panel-a.png --samples panel-a.samples.geojson -o out/",
      "a model of five glasses and lead"},
     {"train panel-a.png --sample lead=0,100,4,120 --sample ruby=210,160,40,40 --sample "
      "cobalt=300,140,20,20 --method parallelepiped --features lab.a,lab.b --boxes 3 -o out/",
      "boxes around three classes, without lightness, so that shading does not matter"},
     {"train panel-a.png panel-b.png --samples panel-a.samples.geojson --samples "
      "panel-b.samples.geojson -o out/",
      "one model from two pictures"}},
    true,
    train_results,
    declare,
    run,
    print};

}  // namespace chalcedony::cli
