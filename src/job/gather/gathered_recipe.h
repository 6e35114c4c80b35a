// A recipe that several machines ran on a part of the pictures each, put together again.
#ifndef CHALCEDONY_JOB_GATHER_GATHERED_RECIPE_H_
#define CHALCEDONY_JOB_GATHER_GATHERED_RECIPE_H_

#include <filesystem>
#include <vector>

#include "job/gather/gathered_run.h"

namespace chalcedony {

/// Whether a run is that of a recipe.
bool is_recipe_run(const Json& run);

/// Puts the steps together, each into its folder below `output`, and the record of the recipe.
/// Steps that were divided are gathered; those that every machine did whole are taken from the
/// first and must be alike in all.
///
/// Errors    InputError, OutputError as gather_run(); InputError when a step was not the same
///           everywhere
GatheredRun gather_recipe(const std::vector<RunPart>& parts, const std::filesystem::path& output,
                          const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_GATHER_GATHERED_RECIPE_H_
