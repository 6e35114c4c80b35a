#include "job/gather/gathered_recipe.h"

#include <algorithm>
#include <optional>
#include <string>
#include <utility>

#include "core/error.h"
#include "job/run/picture_journal.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// What each machine left of a step; nothing of one that had no picture for it.
std::vector<RunPart> parts_of_step(const std::vector<RunPart>& recipe, const std::string& step,
                                   const path& output) {
  std::vector<RunPart> parts;
  for (const RunPart& part : recipe) {
    const path folder = part.folder / step;
    std::error_code error;
    if (!std::filesystem::exists(record_path(folder), error)) continue;
    parts.push_back({folder, read_record(record_path(folder)).back(), part.shard,
                     part.run["folder"].get<std::string>(), output});
  }
  return parts;
}

/// A run as it is told in the gathered folder, wherever its machine had it.
Json told_alike(const RunPart& part) {
  Json run = moved_paths(part.run, part.recipe_folder, part.gathered_folder);
  run.erase("from");
  return run;
}

/// A step that every machine did whole.
GatheredRun take_whole(const std::vector<RunPart>& parts, const path& output) {
  const RunPart& first = parts.front();
  for (const RunPart& part : parts)
    if (told_alike(part) != told_alike(first))
      throw InputError("was not made as " + first.folder.string(),
                       "run the shards on the same files with the same options",
                       part.folder.string());
  GatheredRun all;
  all.run = moved_paths(first.run, first.recipe_folder, first.gathered_folder);
  all.run["from"] = asked_from(typed_in(first.run, first.folder), output);
  for (const Json& file : first.run["outputs"]) {
    const auto name = file.get<std::string>();
    copy_into_place(first.folder / name, output / name);
    all.outputs.push_back(output / name);
  }
  const auto command = first.run["command"].get<std::string>();
  const path journal = journal_path(first.folder, command);
  std::error_code error;
  if (std::filesystem::exists(journal, error))
    write_journal(journal_path(output, command), output, journal_of(first, output));
  add_to_record(output, run_to_mark(all.run, output));
  return all;
}

}  // namespace

bool is_recipe_run(const Json& run) { return run.contains("steps"); }

GatheredRun gather_recipe(const std::vector<RunPart>& parts, const path& output,
                          const Context& context) {
  const RunPart& first = parts.front();
  GatheredRun all;
  Json pictures;  // of the run, by the first step that takes them
  for (const Json& name : first.run["steps"]) {
    const std::vector<RunPart> its = parts_of_step(parts, name.get<std::string>(), output);
    if (its.empty()) continue;
    const path folder = output / name.get<std::string>();
    make_folder(folder);
    const bool divided = its.front().run.contains("shard");
    GatheredRun step = divided ? gather_run(its, folder, context) : take_whole(its, folder);
    all.outputs.insert(all.outputs.end(), step.outputs.begin(), step.outputs.end());
    all.failed.insert(step.failed.begin(), step.failed.end());
    if (divided && pictures.is_null() && !its.front().run.contains("part")) {
      pictures = step.inputs;
      all.pictures = step.pictures;
    }
  }
  all.run = first.run;
  all.run.erase("shard");
  all.run["from"] = asked_from(typed_in(first.run, first.folder), output);
  all.inputs = first.run["inputs"];  // the recipe itself
  for (Json& picture : pictures)
    if (!all.failed.count(picture["file"].get<std::string>())) all.inputs.push_back(picture);
  all.run["inputs"] = all.inputs;
  all.run["outputs"] = outputs_below(all.outputs, output);
  all.run = run_to_mark(std::move(all.run), output);
  all.run["folder"] = folder_text(output);
  add_to_record(output, all.run);
  return all;
}

}  // namespace chalcedony
