#include "job/gather/gather.h"

#include <algorithm>
#include <charconv>
#include <string>
#include <utility>

#include "core/error.h"
#include "io/file/folder_lock.h"
#include "io/text/json_text.h"
#include "job/gather/gathered_recipe.h"
#include "job/gather/gathered_run.h"
#include "job/run/results.h"
#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// What all shards of one run have in common.
std::string run_key(Json run) {
  for (const char* own : {"shard", "from", "inputs", "outputs", "folder"}) run.erase(own);
  return json_text(run);
}

Shard shard_of(const Json& run, const path& folder) {
  if (!run.contains("shard"))
    throw InputError("holds results of '" + run["command"].get<std::string>() +
                         "' that were not made with --shard",
                     "give the folders of shards only", folder.string());
  const auto text = run["shard"].get<std::string>();
  const std::size_t slash = std::min(text.find('/'), text.size() - 1);
  Shard shard;
  std::from_chars(text.data(), text.data() + slash, shard.number);
  std::from_chars(text.data() + slash + 1, text.data() + text.size(), shard.of);
  return shard;
}

std::vector<Json> runs_of(const path& folder) {
  std::error_code error;
  if (!std::filesystem::exists(record_path(folder), error))
    throw InputError("holds no how.json, as the folder of a shard does",
                     "give the folders that runs with --shard wrote into", folder.string());
  return read_record(record_path(folder));
}

/// The shards that belong together, in the order in which their runs were made.
std::vector<std::vector<RunPart>> runs_in(const std::vector<path>& folders) {
  std::vector<std::pair<std::string, std::vector<RunPart>>> runs;
  for (const path& folder : folders)
    for (Json& run : runs_of(folder)) {
      const Shard shard = shard_of(run, folder);
      const std::string key = run_key(run) + std::to_string(shard.of);
      auto at =
          std::find_if(runs.begin(), runs.end(), [&](const auto& r) { return r.first == key; });
      if (at == runs.end()) at = runs.insert(runs.end(), {key, {}});
      at->second.push_back({folder, std::move(run), shard, {}, {}});
    }
  std::vector<std::vector<RunPart>> parts;
  for (auto& [key, shards] : runs) parts.push_back(std::move(shards));
  return parts;
}

void check_complete(std::vector<RunPart>& parts) {
  std::sort(parts.begin(), parts.end(),
            [](const RunPart& a, const RunPart& b) { return a.shard.number < b.shard.number; });
  const auto command = parts.front().run["command"].get<std::string>();
  for (std::size_t i = 0; i < parts.size(); ++i)
    if (i > 0 && parts[i].shard.number == parts[i - 1].shard.number)
      throw InputError("holds shard " + parts[i].shard.text() + " of '" + command + "', as does " +
                           parts[i - 1].folder.string(),
                       "give each shard once", parts[i].folder.string());
  for (unsigned number = 1; number <= parts.front().shard.of; ++number)
    if (number > parts.size() || parts[number - 1].shard.number != number)
      throw InputError("shard " + Shard{number, parts.front().shard.of}.text() + " of '" + command +
                           "' is missing",
                       "run it, with the same options as the others, and give its folder");
}

/// [{"file"}, ...]
Json files_of(const Json& inputs) {
  Json files = Json::array();
  for (const Json& input : inputs) files.push_back(Json{{"file", input["file"]}});
  return files;
}

}  // namespace

Json gather_shards(const std::vector<path>& folders, const path& output, const Context& context) {
  std::vector<std::vector<RunPart>> runs = runs_in(folders);
  for (std::vector<RunPart>& parts : runs) check_complete(parts);
  make_results_folder(output);
  const FolderLock lock(output, "gather");
  Json summary = summary_frame("gather");
  for (const path& folder : folders) summary["inputs"].push_back({{"file", folder.string()}});
  summary["runs"] = Json::array();
  for (const std::vector<RunPart>& parts : runs) {
    const bool is_recipe = is_recipe_run(parts.front().run);
    const GatheredRun run =
        is_recipe ? gather_recipe(parts, output, context) : gather_run(parts, output, context);
    Json told{{"command", run.run["command"]},
              {"shards", parts.size()},
              {"pictures", run.pictures},
              {"failed", run.failed.size()}};
    if (!run.together.is_null()) {
      told["inputs"] = files_of(run.inputs);
      told["together"] = run.together;
    }
    summary["runs"].push_back(std::move(told));
    for (const path& file : run.outputs) summary["outputs"].push_back(file.string());
  }
  return summary;
}

}  // namespace chalcedony
