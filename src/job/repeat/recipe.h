// Recipes on disk: steps that are run one after the other on the same pictures.
#ifndef CHALCEDONY_JOB_REPEAT_RECIPE_H_
#define CHALCEDONY_JOB_REPEAT_RECIPE_H_

#include <filesystem>
#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// A word of a recipe and where it stands, as "recipe.yaml:7:11".
struct RecipeWord {
  std::string text;
  std::string place;
};

/// One option of a step: its values in order; none for `true`, a flag that is set.
struct RecipeOption {
  RecipeWord name;
  std::vector<std::string> values;
  bool is_flag = false;  // written as true or false
  bool is_list = false;
};

struct RecipeStep {
  RecipeWord name;  // unlike all others; the command's unless given
  RecipeWord command;
  std::vector<RecipeWord> input;   // earlier steps, or STEP.THING; none: the pictures of the run
  std::vector<std::string> files;  // or files of its own
  std::vector<RecipeOption> options;
  bool keep = true;  // its results stay; else they are only for the steps after it
};

struct Recipe {
  std::string about;
  std::vector<RecipeOption> options;  // of every step that has them
  std::vector<RecipeStep> steps;
};

/// Reads a recipe (YAML, specified in docs/recipes.md). `${NAME}` in a value is replaced by the
/// variable of that name; `set` overrides those of the recipe, and `${out}` is `output`.
///
/// Errors    InputError with file, line and column: no YAML, unknown keys, values of another kind
///           than is asked for, two steps of one name, an input that is no earlier step, a variable
///           that is not there; UsageError when `set` names a variable the recipe does not have
Recipe parse_recipe(std::string_view text, const std::filesystem::path& path,
                    const std::map<std::string, std::string>& set,
                    const std::filesystem::path& output);

Recipe read_recipe(const std::filesystem::path& path, const std::map<std::string, std::string>& set,
                   const std::filesystem::path& output);

/// Reads a file of options alone: YAML, `name: value` as in the options of a recipe.
///
/// Errors    InputError with file, line and column
std::vector<RecipeOption> read_options(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_RECIPE_H_
