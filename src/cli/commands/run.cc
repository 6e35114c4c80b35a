// `chalcedony run`: a recipe for one picture or a folder of them.
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/repeat/recipe_run.h"
#include "cli/repeat/replay.h"
#include "cli/repeat/typed_command.h"
#include "core/error.h"
#include "io/file/folder_lock.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"

namespace chalcedony::cli {
namespace {

void declare_run(po::options_description& options) {
  add_repeated_option(options, "set", "NAME=VALUE",
                      "the value of a variable of the recipe; may be repeated");
  add_flag(options, "dry-run", "check the recipe and print the commands, without running them");
}

/// Options of the run that win over those of the recipe.
std::vector<RecipeOption> overrides_of(const po::variables_map& given) {
  std::vector<RecipeOption> options;
  for (const char* name : {"figures", "threads", "seed", "max-pixels"})
    if (given.count(name))
      options.push_back({{name, ""}, {given[name].as<std::string>()}, false, false});
  for (const char* name : {"no-clobber", "resume", "verify"})
    if (given.count(name)) options.push_back({{name, ""}, {}, true, false});
  return options;
}

/// The results of a folder made again from its record.
Json run_record_again(const po::variables_map& given, const SharedOptions& shared,
                      const Context& context) {
  if (shared.inputs.size() > 1 || given.count("set") || shared.shard)
    throw UsageError("a record is run as it is", "give how.json alone", shared.inputs[0].string());
  Json summary = summary_frame("run");
  summary["recipe"] = shared.inputs.front().string();
  if (given.count("dry-run")) {
    summary["steps"] = planned_replay(shared.inputs.front(), shared.output);
  } else {
    replay(shared.inputs.front(), shared.output, context, summary);
  }
  return summary;
}

Json do_run(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  SharedOptions own = shared;
  const std::filesystem::path path = own.inputs.front();
  own.inputs.erase(own.inputs.begin());
  if (own.output.empty())
    throw UsageError("run needs -o", "name a folder; each step gets one of its own in it");
  if (is_record_name(path)) return run_record_again(given, shared, context);
  std::map<std::string, std::string> set;
  for (const auto& text : texts_of(given, "set")) set.insert(named_value("--set", text));
  // Without a slash at its end, so that files below it are always named alike.
  const Recipe recipe = read_recipe(path, set, folder_text(own.output));
  check_recipe(recipe);
  if (own.shard) {
    check_divisible(recipe);
    context.ledger->state(path);
  }
  for (const RecipeStep& step : recipe.steps)
    if (own.inputs.empty() && step.input.empty() && step.files.empty())
      throw UsageError("the step '" + step.name.text +
                           "' takes the pictures of the run, and there "
                           "are none",
                       "name pictures after the recipe");
  Json summary = summary_frame("run");
  summary["recipe"] = path.string();
  for (const auto& input : own.inputs) summary["inputs"].push_back({{"file", input.string()}});
  const std::vector<RecipeOption> overrides = overrides_of(given);
  if (given.count("dry-run")) {
    summary["steps"] = planned_steps(recipe, own, overrides);
  } else {
    make_results_folder(own.output);
    const FolderLock lock(own.output, own.command);
    run_recipe(recipe, own, overrides, context, summary);
  }
  return summary;
}

void print_run(const Json& summary, std::ostream& out) {
  for (const Json& step : summary["steps"]) {
    out << step["name"].get<std::string>() << '\n';
    print_typed(step, out);
  }
}

}  // namespace

extern const Command kRun;
const Command kRun{
    .name = "run",
    .summary = "a recipe: steps that are run on every picture",
    .operands = "RECIPE.yaml INPUT... -o FOLDER",
    .purpose =
        "Runs the steps that a recipe names, each a command with its options, on the pictures or "
        "on what an earlier step wrote. The whole recipe is checked before anything runs. Every "
        "step writes into a folder of its own name below -o. In place of a recipe, how.json of a "
        "results folder makes its results again.",
    .examples = {{"run glass.recipe.yaml panel-b.png panel-c.png -o out/",
                  "a model of one panel, and cleaned maps of two others"},
                 {"run glass.recipe.yaml panel-b.png -o out/ --dry-run",
                  "only the commands it stands for"},
                 {"run glass.recipe.yaml panel-c.png -o out/ --set least=200 --figures none",
                  "with another value of a variable of the recipe"}},
    .declare = declare_run,
    .run = do_run,
    .print = print_run,
    .refuses = {{"write", "region", "within", "alpha", "hue-floor", "assume", "full-scale", "bands",
                 "page"},
                "it belongs into the recipe"},
    .traits = {Trait::kDraws},
};

}  // namespace chalcedony::cli
