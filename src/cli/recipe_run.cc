#include "cli/recipe_run.h"

#include <algorithm>
#include <filesystem>
#include <future>
#include <utility>

#include "cli/parse.h"
#include "cli/typed_command.h"
#include "cli/written_options.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "core/pixel/road.h"
#include "io/temporary_folder.h"
#include "job/input_list.h"

namespace chalcedony::cli {
namespace {

/// Where a step's results go comes from the run; its inputs from the recipe.
const std::vector<std::string> kNotInRecipes{"output", "config",  "list",    "recursive", "help",
                                             "quiet",  "verbose", "summary", "progress",  "shard"};

std::vector<const po::option_description*> options_of(const CommandOptions& options) {
  std::vector<const po::option_description*> found;
  for (const po::options_description* part : {&options.own, &options.shared})
    for (const auto& option : part->options())
      if (std::find(kNotInRecipes.begin(), kNotInRecipes.end(), option->long_name()) ==
          kNotInRecipes.end())
        found.push_back(option.get());
  return found;
}

const po::option_description* find_option(const CommandOptions& options, const std::string& name) {
  for (const po::option_description* option : options_of(options))
    if (option->long_name() == name) return option;
  return nullptr;
}

/// Whether an option that is meant for every step means something to this command.
bool takes(const Command& command, const std::string& name) {
  const std::vector<std::string>& refused = command.refuses.options;
  return std::find(refused.begin(), refused.end(), name) == refused.end() &&
         find_option(CommandOptions(command), name) != nullptr;
}

void check_step(const RecipeStep& step) {
  const Command* command = find_command(step.command.text);
  if (!command || !command->takes_pictures || command->name == "run") {
    std::vector<std::string> names;
    for (const Command* one : all_commands())
      if (one->takes_pictures && one->name != "run") names.emplace_back(one->name);
    throw InputError("there is no command '" + step.command.text + "' for a step",
                     suggest_name(step.command.text, names), step.command.place);
  }
  const CommandOptions options(*command);
  for (const RecipeOption& given : step.options) {
    const po::option_description* option = find_option(options, given.name.text);
    if (!option) {
      std::vector<std::string> names;
      for (const po::option_description* one : options_of(options))
        names.push_back(one->long_name());
      throw InputError(std::string(command->name) + " has no option '" + given.name.text + "'",
                       suggest_name(given.name.text, names), given.name.place);
    }
    check_kind(*option, given);
  }
}

/// Options that every step shares must be of some step.
void check_shared(const Recipe& recipe) {
  for (const RecipeOption& given : recipe.options) {
    bool used = false;
    std::vector<std::string> names;
    for (const RecipeStep& step : recipe.steps) {
      const CommandOptions options(command_named(step.command.text));
      if (const po::option_description* option = find_option(options, given.name.text)) {
        check_kind(*option, given);
        used = true;
      }
      for (const po::option_description* one : options_of(options))
        names.push_back(one->long_name());
    }
    if (!used)
      throw InputError("no step has an option '" + given.name.text + "'",
                       suggest_name(given.name.text, names), given.name.place);
  }
}

bool holds(const std::vector<RecipeOption>& options, const std::string& name) {
  return std::any_of(options.begin(), options.end(),
                     [&](const RecipeOption& one) { return one.name.text == name; });
}

/// The words of a step: command, inputs, its own options, shared ones it does not override, and the
/// overrides of the run.
std::vector<std::string> words_of(const Recipe& recipe, const RecipeStep& step,
                                  const std::vector<std::string>& inputs,
                                  const std::vector<RecipeOption>& overrides,
                                  const std::filesystem::path& folder) {
  const Command& command = command_named(step.command.text);
  std::vector<std::string> words{step.command.text};
  words.insert(words.end(), inputs.begin(), inputs.end());
  for (const RecipeOption& option : step.options)
    if (!holds(overrides, option.name.text)) add_words(option, words);
  for (const RecipeOption& option : recipe.options)
    if (takes(command, option.name.text) && !holds(step.options, option.name.text) &&
        !holds(overrides, option.name.text))
      add_words(option, words);
  for (const RecipeOption& option : overrides)
    if (takes(command, option.name.text)) add_words(option, words);
  words.insert(words.end(), {"-o", (folder / "").string()});
  return words;
}

/// A picture that a step wrote to be worked on, not to be looked at.
bool is_picture(const std::filesystem::path& path) {
  return is_picture_name(path) && path.stem().extension() != ".figure";
}

/// The pictures that STEP or STEP.THING wrote.
std::vector<std::string> pictures_of(const RecipeWord& input, const std::vector<Json>& steps) {
  const std::size_t dot = input.text.find('.');
  const std::string name = input.text.substr(0, dot);
  const std::string thing = dot == std::string::npos ? "" : input.text.substr(dot);
  std::vector<std::string> pictures;
  for (const Json& step : steps) {
    if (step.is_null() || step["name"] != name) continue;
    for (const Json& output : step["outputs"]) {
      const std::filesystem::path path = output.get<std::string>();
      if (is_picture(path) && (thing.empty() || path.stem().extension() == thing))
        pictures.push_back(path.string());
    }
  }
  if (pictures.empty())
    throw InputError("the step '" + name + "' wrote no " +
                         (thing.empty() ? "picture" : "'" + thing.substr(1) + "' picture"),
                     "check what it writes with its --write", input.place);
  return pictures;
}

std::vector<std::string> run_inputs(const SharedOptions& shared) {
  std::vector<std::string> inputs;
  for (const auto& input : shared.inputs) inputs.push_back(input.string());
  return inputs;
}

class RecipeRun {
 public:
  RecipeRun(const Recipe& recipe, const SharedOptions& shared,
            const std::vector<RecipeOption>& overrides, const Context& context)
      : recipe_(recipe), shared_(shared), overrides_(overrides), context_(context) {
    RoadOptions road;
    road.threads = shared.threads;
    most_at_once_ = threads_of(road);
  }

  Json run() {
    done_.assign(recipe_.steps.size(), Json());
    for (std::size_t left = recipe_.steps.size(); left > 0;) {
      const std::vector<std::size_t> ready = ready_steps();
      std::vector<std::future<Json>> running;
      for (const std::size_t s : ready)
        running.push_back(std::async(std::launch::async, [this, s] { return run_step(s); }));
      std::vector<Json> results;
      for (auto& step : running) step.wait();
      for (auto& step : running) results.push_back(step.get());
      for (std::size_t i = 0; i < ready.size(); ++i) done_[ready[i]] = std::move(results[i]);
      left -= ready.size();
    }
    return done_;
  }

 private:
  /// Steps that can run now, in order: what they need is done.
  std::vector<std::size_t> ready_steps() const {
    std::vector<std::size_t> ready;
    for (std::size_t s = 0; s < recipe_.steps.size() && ready.size() < most_at_once_; ++s) {
      bool waits = !done_[s].is_null();
      for (std::size_t before = 0; before < s; ++before)
        waits =
            waits || (done_[before].is_null() && needs(recipe_.steps[s], recipe_.steps[before]));
      if (!waits) ready.push_back(s);
    }
    return ready;
  }

  /// Whether a step takes the pictures of an earlier one, or names a file in its folder.
  bool needs(const RecipeStep& step, const RecipeStep& before) const {
    const auto is_of = [&](const RecipeWord& input) {
      return input.text.substr(0, input.text.find('.')) == before.name.text;
    };
    if (std::any_of(step.input.begin(), step.input.end(), is_of)) return true;
    const std::string folder = (shared_.output / before.name.text / "").string();
    const auto names_file = [&](const std::string& text) {
      return text.find(folder) != std::string::npos;
    };
    if (std::any_of(step.files.begin(), step.files.end(), names_file)) return true;
    for (const std::vector<RecipeOption>* options : {&step.options, &recipe_.options})
      for (const RecipeOption& option : *options)
        if (std::any_of(option.values.begin(), option.values.end(), names_file)) return true;
    return false;
  }

  Json run_step(std::size_t s) const {
    const RecipeStep& step = recipe_.steps[s];
    std::vector<std::string> inputs = step.files;
    for (const RecipeWord& input : step.input)
      for (const std::string& picture : pictures_of(input, done_)) inputs.push_back(picture);
    if (inputs.empty()) inputs = run_inputs(shared_);
    const std::filesystem::path folder =
        step.keep ? shared_.output / step.name.text : passing_ / step.name.text;
    try {
      Json done = run_typed(words_of(recipe_, step, inputs, overrides_, folder), context_);
      done["name"] = step.name.text;
      return done;
    } catch (const UsageError& error) {
      throw InputError("step '" + step.name.text + "': " + error.what(), "", step.command.place);
    }
  }

  const Recipe& recipe_;
  const SharedOptions& shared_;
  const std::vector<RecipeOption>& overrides_;
  const Context& context_;
  std::size_t most_at_once_ = 1;
  TemporaryFolder passing_;  // what is not kept
  std::vector<Json> done_;   // by step; null until then
};

}  // namespace

void check_recipe(const Recipe& recipe) {
  for (const RecipeStep& step : recipe.steps) check_step(step);
  check_shared(recipe);
}

Json planned_steps(const Recipe& recipe, const SharedOptions& shared,
                   const std::vector<RecipeOption>& overrides) {
  Json steps = Json::array();
  for (const RecipeStep& step : recipe.steps) {
    std::vector<std::string> inputs = step.files;
    for (const RecipeWord& input : step.input) inputs.push_back("<" + input.text + ">");
    if (inputs.empty()) inputs = run_inputs(shared);
    steps.push_back(
        planned_step("name", step.name.text,
                     words_of(recipe, step, inputs, overrides, shared.output / step.name.text)));
  }
  return steps;
}

void run_recipe(const Recipe& recipe, const SharedOptions& shared,
                const std::vector<RecipeOption>& overrides, const Context& context, Json& summary) {
  summary["steps"] = RecipeRun(recipe, shared, overrides, context).run();
  for (std::size_t s = 0; s < recipe.steps.size(); ++s) {
    const Json& done = summary["steps"][s];
    for (const Json& failure : done["summary"]["failed"]) summary["failed"].push_back(failure);
    if (recipe.steps[s].keep)
      for (const Json& output : done["outputs"]) summary["outputs"].push_back(output);
  }
}

}  // namespace chalcedony::cli
