#include "cli/repeat/recipe_run.h"

#include <algorithm>
#include <filesystem>
#include <future>
#include <map>
#include <optional>
#include <utility>

#include "cli/options/parse.h"
#include "cli/options/written_options.h"
#include "cli/repeat/typed_command.h"
#include "core/arena.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "io/file/temporary_folder.h"
#include "job/run/input_list.h"
#include "job/run/picture_journal.h"

namespace chalcedony::cli {
namespace {

/// Where a step's results go comes from the run; its inputs from the recipe.
const std::vector<std::string> kNotInRecipes{"output",  "list",    "recursive", "help", "quiet",
                                             "verbose", "summary", "progress",  "shard"};

std::vector<const po::option_description*> options_of(const CommandOptions& options) {
  std::vector<const po::option_description*> found;
  for (const po::options_description* part : {&options.own, &options.shared, &options.common})
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
  return find_option(CommandOptions(command), name) != nullptr;
}

/// Of an option that a step names and its command does not take.
InputError option_not_taken(const Command& command, const CommandOptions& options,
                            const RecipeWord& name) {
  if (command.refuses.holds(name.text))
    return InputError("'" + name.text + "' means nothing here: " + command.refuses.why,
                      "leave it out", name.place);
  std::vector<std::string> names;
  for (const po::option_description* one : options_of(options)) names.push_back(one->long_name());
  return InputError(std::string(command.name) + " has no option '" + name.text + "'",
                    suggest_name(name.text, names), name.place);
}

/// A file of options that is there already; one that an earlier step writes is read by its step.
///
/// Errors    InputError as words_of_file()
void check_options_file(const RecipeOption& given, const CommandOptions& options) {
  if (given.name.text != "config" || !std::filesystem::exists(given.values.front())) return;
  po::options_description taken;
  taken.add(options.own).add(options.shared);
  words_of_file(given.values.front(), taken, {});
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
    if (const po::option_description* option = find_option(options, given.name.text)) {
      check_kind(*option, given);
      check_options_file(given, options);
    } else if (given.values.empty() || !wants_no_figures(given.name.text, given.values.front())) {
      throw option_not_taken(*command, options, given.name);
    }
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
        check_options_file(given, options);
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

/// Whether a step takes pictures of this earlier one.
bool takes_from(const RecipeStep& step, const RecipeStep& before) {
  return std::any_of(step.input.begin(), step.input.end(), [&](const RecipeWord& input) {
    return input.text.substr(0, input.text.find('.')) == before.name.text;
  });
}

/// Which steps work on the pictures of the run, or on what came of them.
std::vector<bool> steps_on_pictures(const Recipe& recipe) {
  std::vector<bool> on_pictures;
  for (const RecipeStep& step : recipe.steps) {
    bool is = step.input.empty() && step.files.empty();
    for (std::size_t before = 0; before < on_pictures.size(); ++before)
      is = is || (on_pictures[before] && takes_from(step, recipe.steps[before]));
    on_pictures.push_back(is);
  }
  return on_pictures;
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
                                  const std::filesystem::path& folder,
                                  const std::optional<Shard>& shard) {
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
  if (shard) words.insert(words.end(), {"--shard", shard->text()});
  return words;
}

/// A picture that a step wrote to be worked on, not to be looked at.
bool is_picture(const std::filesystem::path& path) {
  return is_picture_name(path) && !is_figure_name(path);
}

/// The pictures that STEP or STEP.THING wrote; none is an error unless `may_be_none`.
std::vector<std::string> pictures_of(const RecipeWord& input, const std::vector<Json>& steps,
                                     bool may_be_none) {
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
  if (pictures.empty() && !may_be_none)
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
      : recipe_(recipe),
        shared_(shared),
        overrides_(overrides),
        context_(context),
        most_at_once_(threads_for(shared.threads)) {}

  Json run() {
    done_.assign(recipe_.steps.size(), Json());
    divided_ =
        shared_.shard ? steps_on_pictures(recipe_) : std::vector<bool>(recipe_.steps.size(), false);
    for (std::size_t left = recipe_.steps.size(); left > 0;) {
      const std::vector<std::size_t> ready = ready_steps();
      std::vector<std::future<Json>> running;
      for (const std::size_t s : ready)
        running.push_back(std::async(std::launch::async, [this, s] { return run_step(s); }));
      std::vector<Json> results;
      for (auto& step : running) step.wait();
      for (auto& step : running) results.push_back(step.get());
      for (std::size_t i = 0; i < ready.size(); ++i) done_[ready[i]] = std::move(results[i]);
      for (const std::size_t s : ready)
        if (divided_[s]) note_places(s);
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
    if (takes_from(step, before)) return true;
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
    Context context = context_;
    for (const RecipeWord& input : step.input)
      for (const std::string& picture : pictures_of(input, done_, divided_[s])) {
        inputs.push_back(picture);
        if (divided_[s]) context.places.push_back(places_.at(picture));
      }
    if (inputs.empty() && step.input.empty()) inputs = run_inputs(shared_);
    // A shard may have no picture that came so far.
    if (inputs.empty()) return nothing_done(step);
    const auto shard = divided_[s] ? shared_.shard : std::nullopt;
    const auto words = words_of(recipe_, step, inputs, overrides_, folder_of(step), shard);
    try {
      Json done = run_typed(words, context);
      done["name"] = step.name.text;
      done["kept"] = step.keep;
      return done;
    } catch (const UsageError& error) {
      throw InputError("step '" + step.name.text + "': " + error.what(), "", step.command.place);
    }
  }

  std::filesystem::path folder_of(const RecipeStep& step) const {
    return step.keep ? shared_.output / step.name.text : passing_ / step.name.text;
  }

  static Json nothing_done(const RecipeStep& step) {
    Json done = planned_step("name", step.name.text, {step.command.text});
    done["kept"] = step.keep;
    done["summary"]["failed"] = Json::array();
    return done;
  }

  /// Where the pictures that a divided step wrote stand among those of the whole run.
  void note_places(std::size_t s) {
    // Fewer pictures than this come of one.
    constexpr std::size_t kMost = 256;
    const RecipeStep& step = recipe_.steps[s];
    const std::filesystem::path folder = folder_of(step),
                                journal = journal_path(folder, step.command.text);
    std::error_code error;
    if (!std::filesystem::exists(journal, error)) return;
    for (const JournalEntry& entry : read_journal(journal, folder).entries)
      for (std::size_t i = 0; i < entry.outputs.size(); ++i)
        places_[entry.outputs[i].string()] = entry.place * kMost + i;
  }

  const Recipe& recipe_;
  const SharedOptions& shared_;
  const std::vector<RecipeOption>& overrides_;
  const Context& context_;
  std::size_t most_at_once_;
  TemporaryFolder passing_;    // what is not kept
  std::vector<Json> done_;     // by step; null until then
  std::vector<bool> divided_;  // by step: works on a shard
  std::map<std::string, std::size_t> places_;
};

}  // namespace

void check_recipe(const Recipe& recipe) {
  for (const RecipeStep& step : recipe.steps) check_step(step);
  check_shared(recipe);
}

void check_divisible(const Recipe& recipe) {
  const std::vector<bool> on_pictures = steps_on_pictures(recipe);
  if (std::find(on_pictures.begin(), on_pictures.end(), true) == on_pictures.end())
    throw InputError("no step takes the pictures of the run, so there is nothing to divide",
                     "leave --shard out", recipe.steps.front().command.place);
  for (std::size_t s = 0; s < recipe.steps.size(); ++s) {
    const RecipeStep& step = recipe.steps[s];
    if (!on_pictures[s]) continue;
    if (command_named(step.command.text).has(Trait::kJoinsInputs))
      throw InputError("the step '" + step.name.text +
                           "' makes one result of all pictures, which shards do not have",
                       "run it on its own, and name what it made in the recipe",
                       step.command.place);
    if (step.input.size() > 1)
      throw InputError("the step '" + step.name.text +
                           "' takes the pictures of several steps, which cannot be divided",
                       "write a step for each", step.command.place);
  }
}

Json planned_steps(const Recipe& recipe, const SharedOptions& shared,
                   const std::vector<RecipeOption>& overrides) {
  Json steps = Json::array();
  const std::vector<bool> divided = steps_on_pictures(recipe);
  for (std::size_t s = 0; s < recipe.steps.size(); ++s) {
    const RecipeStep& step = recipe.steps[s];
    std::vector<std::string> inputs = step.files;
    for (const RecipeWord& input : step.input) inputs.push_back("<" + input.text + ">");
    if (inputs.empty()) inputs = run_inputs(shared);
    steps.push_back(
        planned_step("name", step.name.text,
                     words_of(recipe, step, inputs, overrides, shared.output / step.name.text,
                              divided[s] ? shared.shard : std::nullopt)));
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
