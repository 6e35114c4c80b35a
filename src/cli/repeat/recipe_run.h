// Runs the steps of a recipe through the table of commands.
#ifndef CHALCEDONY_CLI_REPEAT_RECIPE_RUN_H_
#define CHALCEDONY_CLI_REPEAT_RECIPE_RUN_H_

#include <string>
#include <vector>

#include "cli/options/command.h"
#include "job/repeat/recipe.h"

namespace chalcedony::cli {

/// Checks that every command and option of a recipe is there, and that options have values of the
/// right kind.
///
/// Errors    InputError with the place in the recipe
void check_recipe(const Recipe& recipe);

/// Checks that the pictures of a recipe can be divided into shards: some step takes them, and none
/// that does, or that takes what came of them, makes one result of all.
///
/// Errors    InputError with the place in the recipe
void check_divisible(const Recipe& recipe);

/// What would be typed for each step: its `name` and `command`. Pictures that an earlier step will
/// write stand as <STEP>.
Json planned_steps(const Recipe& recipe, const SharedOptions& shared,
                   const std::vector<RecipeOption>& overrides);

/// Runs the steps; step NAME writes into the folder NAME below shared.output, or, when its results
/// are not to be kept, into a folder that is gone at the end. Steps that need nothing of each other
/// run at the same time. `overrides` are options of the run that win over the recipe's. Adds
/// `steps`, `outputs` and `failed` to the summary, in the order of the recipe. With `shared.shard`
/// steps work on that part of the pictures and on what came of them; those with files of their own
/// are done whole.
///
/// Errors    what the first step that fails throws, with the place of the step in the recipe
void run_recipe(const Recipe& recipe, const SharedOptions& shared,
                const std::vector<RecipeOption>& overrides, const Context& context, Json& summary);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_REPEAT_RECIPE_RUN_H_
