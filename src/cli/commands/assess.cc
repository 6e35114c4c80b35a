// `chalcedony assess`: how right a class map is.
#include "job/assess/assess.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/draw_option.h"
#include "cli/options/option_values.h"
#include "cli/text/accuracy_text.h"
#include "cli/text/assess_lesson.h"
#include "cli/text/assess_versus.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/assess/labels.h"
#include "core/error.h"
#include "job/run/input_list.h"

namespace chalcedony::cli {
namespace {

void declare_assess(po::options_description& options) {
  add_option<std::string>(
      options, "reference", "FILE|FOLDER",
      "what is so: a class map, a picture of flat colors, GeoJSON samples, or a table of pixels "
      "as truth writes it; of several maps a folder of these, or a pattern as \"*.reference.png\"");
  add_repeated_option(options, "match", "OURS=THEIRS",
                      "a class of the map is this class of the reference; may be repeated");
  declare_draw(options, "take all");
  add_option<std::string>(options, "model", "FILE",
                          "leave out the pixels that trained this model.json");
  add_repeated_option(options, "versus", "MAP|FOLDER",
                      "hold another map of the same picture against the first; may be repeated");
  add_option<std::string>(options, "level", "PERCENT",
                          "how sure the confidence intervals are (default 95)");
  add_option<std::string>(options, "plan", "PERCENT",
                          "say how many pixels make the overall accuracy known to within this");
  add_option<std::string>(options, "show", "N",
                          "work the figures out step by step, from the first N drawn pixels");
}

Json do_assess(const po::variables_map& given, const SharedOptions& shared,
               const Context& context) {
  AssessOptions options;
  options.shared = shared;
  if (!given.count("reference"))
    throw UsageError("assess needs --reference", "name what the maps are held against");
  options.reference = given["reference"].as<std::string>();
  for (const auto& text : texts_of(given, "versus")) options.versus.push_back(text);
  if (options.versus.size() > kMostVersus)
    throw UsageError("--versus: a map is held against " + std::to_string(kMostVersus) +
                         " others at most, and " + std::to_string(options.versus.size()) +
                         " are given",
                     "compare them in several runs");
  if (given.count("model")) options.model = given["model"].as<std::string>();
  for (const auto& text : texts_of(given, "match"))
    options.match.push_back(named_value("--match", text));
  options.draw = draw_option(given);
  options.level = number_in("--level", text_of(given, "level", "95"), {0, 100}) / 100;
  if (given.count("plan"))
    options.plan = number_in("--plan", given["plan"].as<std::string>(), {0, 50}) / 100;
  if (given.count("show")) {
    options.show = whole_number("--show", given["show"].as<std::string>(), 1, 1000);
    if (!options.draw.draws() && !is_table_name(options.reference))
      throw UsageError("--show tells of drawn pixels, and none are drawn", "add --count N");
  }
  return run_assess(options, context);
}

/// The rows of the error matrix with their totals, the totals of its columns, and the producer's
/// accuracies.
Json matrix_rows(const Json& p) {
  const Json& classes = p["classes"];
  Json rows = Json::array();
  for (std::size_t r = 0; r < p["matrix"].size(); ++r) {
    const bool listed = r < classes.size();
    std::uint64_t total = 0;
    for (const Json& cell : p["matrix"][r]) total += cell.get<std::uint64_t>();
    if (!listed && total == 0) continue;
    rows.push_back({{"name", listed ? classes[r]["name"] : Json("unclassified")},
                    {"cells", p["matrix"][r]},
                    {"total", total}});
    if (listed) rows.back()["users"] = share_text(classes[r], "users");
  }
  Json totals = Json::array(), producers = Json::array();
  for (const Json& c : classes) {
    totals.push_back(c["reference"]);
    producers.push_back(share_text(c, "producers"));
  }
  rows.push_back({{"name", "total"}, {"cells", totals}, {"total", p["assessed"]}});
  rows.push_back({{"name", "producer's"}, {"cells", producers}});
  return rows;
}

void print_matrix(const Json& p, std::ostream& out) {
  const Json rows = matrix_rows(p);
  TextTable table(rows);
  table.words("mapped as", "name");
  for (std::size_t c = 0; c < p["classes"].size(); ++c)
    table.cells(p["classes"][c]["name"], [&](const Json& row) {
      const Json& cell = row["cells"][c];
      return cell.is_string() ? cell.get<std::string>() : counted(cell);
    });
  table.counts("total", "total").cells("user's", [](const Json& row) {
    return row.value("users", "");
  });
  out << "  error matrix; rows: what the map says, columns: the reference\n";
  table.print(out);
}

void print_class_accuracies(const Json& p, std::ostream& out) {
  TextTable table(p["classes"]);
  table.words("class", "name");
  const auto add = [&](const char* heading, const char* field) {
    table.cells(heading, [&](const Json& c) { return share_text(c, field); });
  };
  add("omission", "omission");
  add("commission", "commission");
  add("F1", "f1");
  add("IoU", "intersection_over_union");
  table.decimals("kappa", "kappa_users", 3);
  if (p.contains("adjusted_overall")) {
    add("mapped area", "mapped_share");
    add("estimated area", "area_share");
    add("+- error", "area_share_standard_error");
  }
  out << "  by class\n";
  table.print(out);
}

/// The class of the lowest F1, with it.
std::string weakest_class(const Json& p) {
  const Json* weakest = nullptr;
  for (const Json& c : p["classes"])
    if (c.contains("f1") && (!weakest || c["f1"].get<double>() < (*weakest)["f1"].get<double>()))
      weakest = &c;
  return weakest ? (*weakest)["name"].get<std::string>() + " " + share_text(*weakest, "f1") : "";
}

void print_maps(const Json& maps, std::ostream& out) {
  TextTable table(maps);
  table.words("map", "file").words("reference", "against").counts("assessed", "assessed");
  table.cells("overall", [](const Json& p) { return share_text(p, "overall"); });
  table.decimals("kappa", "kappa", 3).cells("weakest class, F1", weakest_class);
  table.print(out);
}

void print_matching(const Json& p, std::ostream& out) {
  const auto list = [&](const char* field, const char* words) {
    std::string names;
    for (const Json& name : p[field])
      names += (names.empty() ? "" : ", ") + name.get<std::string>();
    if (!names.empty()) out << "  without partner, " << words << ": " << names << '\n';
  };
  list("only_in_map", "only in the map");
  list("only_in_reference", "only in the reference");
  if (!p.contains("trained_on")) return;
  const auto name = p["trained_on"].get<std::string>();
  if (name.empty())
    out << "  the model was not trained on a picture of this name; no pixel is left out for it\n";
}

void print_overall(const Json& p, std::ostream& out) {
  const std::string level = fmt::format("{:g} %", 100 * p["level"].get<double>());
  out << fmt::format("  overall accuracy {}, kappa {}; intervals at {}\n",
                     with_interval(p, "overall", 100, " %"), with_interval(p, "kappa", 1, ""),
                     level);
  out << fmt::format("  disagreement: {:.2f} % in quantity, {:.2f} % in allocation\n",
                     100 * p["quantity_disagreement"].get<double>(),
                     100 * p["allocation_disagreement"].get<double>());
  if (p.contains("adjusted_overall"))
    out << fmt::format("  overall accuracy by the areas of the map {}, standard error {}\n",
                       share_text(p, "adjusted_overall"),
                       share_text(p, "adjusted_overall_standard_error"));
  if (p["design"] == "all")
    out << "  all pixels were taken and neighbors are alike, so the intervals are too narrow\n";
  if (p.contains("between_maps"))
    out << fmt::format("  by how much the {} differ: {:.1f} to {:.1f} %\n",
                       plural(p["between_maps"]["maps"], "map"),
                       100 * p["between_maps"]["overall_low"].get<double>(),
                       100 * p["between_maps"]["overall_high"].get<double>());
  if (!p.contains("plan")) return;
  const Json& plan = p["plan"];
  out << fmt::format("  to know it within +-{:g} %, draw {} at random",
                     100 * plan["half_width"].get<double>(), plural(plan["random"], "pixel"));
  if (plan.contains("stratified"))
    out << fmt::format(", or {} stratified by area", counted(plan["stratified"]));
  out << '\n';
}

void print_assessment(const Json& p, std::ostream& out) {
  print_left_out(p, out);
  print_matching(p, out);
  print_matrix(p, out);
  print_class_accuracies(p, out);
  print_overall(p, out);
  if (p.contains("versus")) print_assess_versus(p, out);
  if (p.contains("shown")) print_assess_lesson(p, out);
}

void print_assess(const Json& summary, std::ostream& out) {
  const bool several = summary.contains("together");
  const Json& p = several ? summary["together"] : summary["inputs"][0];
  out << fmt::format("{} against {}: {} assessed, drawn: {}\n",
                     several ? plural(p["maps"], "map") : p["file"].get<std::string>(),
                     p["against"], plural(p["assessed"], "pixel"), p["design"]);
  if (several) {
    print_maps(summary["inputs"], out);
    out << "  all maps together\n";
  }
  print_assessment(p, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kAssess;
const Command kAssess{
    .name = "assess",
    .summary = "how right class maps are, by references",
    .operands = "MAP... --reference FILE|FOLDER",
    .purpose =
        "Holds class maps against what is known to be so, at all pixels or at drawn ones: error "
        "matrix, omission and commission, kappa, areas corrected for the errors. Classes are "
        "matched by name, else by number. Pixels the map leaves unclassified are a row of their "
        "own. Several maps are judged one by one and together, each by the reference that goes "
        "with its name. Maps of the same picture, as by other methods, are held against it by "
        "--versus.",
    .examples =
        {{"assess panel-b.reference.png panel-d.reference.png --reference \"*.samples.geojson\"",
          "two maps, each against its labelled regions"},
         {"assess panel-a.reference.png --reference panel-a.samples.geojson --count 300 "
          "--stratified "
          "equal --show 5",
          "300 pixels, the same number from every class, worked out step by step"},
         {"assess panel-c.reference.png --reference panel-c.reference.png --count 600 --plan 2 -o "
          "out/",
          "a random sample, and how many pixels would make it sure within 2 %"}},
    .results = assess_results,
    .declare = declare_assess,
    .run = do_assess,
    .print = print_assess,
    .refuses = {{"hue-floor", "let", "full-scale", "bands", "page"},
                "assess looks at classes, not at colors"},
    .traits = {Trait::kJoinsInputs, Trait::kSkipsBad, Trait::kDraws, Trait::kReadsSamples},
};

}  // namespace chalcedony::cli
