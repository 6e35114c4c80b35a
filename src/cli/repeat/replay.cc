#include "cli/repeat/replay.h"

#include <string>
#include <utility>
#include <vector>

#include "cli/repeat/typed_command.h"
#include "cli/repeat/working_folder.h"
#include "core/error.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"

namespace chalcedony::cli {
namespace {

using std::filesystem::path;

/// A run of a record, where it was typed and what it writes into this time.
struct Replayed {
  Json run;
  path from;
  std::vector<std::string> words;
};

std::vector<Replayed> runs_of(const path& record, const path& output) {
  const path folder = std::filesystem::weakly_canonical(record).parent_path();
  const path target = std::filesystem::absolute(output).lexically_normal();
  std::vector<Replayed> runs;
  for (Json& run : read_record(record)) {
    const path from = typed_in(run, folder);
    std::error_code error;
    if (!std::filesystem::is_directory(from, error))
      throw InputError(
          "the folder where the command was typed is not there any more, " + from.string(),
          "move how.json with its pictures", record.string());
    path to = target.lexically_relative(from);
    if (run.contains("output")) to /= run["output"].get<std::string>();
    auto words = words_of_run(run, to);
    runs.push_back({std::move(run), from, std::move(words)});
  }
  return runs;
}

}  // namespace

Json planned_replay(const path& record, const path& output) {
  Json steps = Json::array();
  for (const Replayed& one : runs_of(record, output))
    steps.push_back(planned_step("name", one.run["command"], one.words));
  return steps;
}

void replay(const path& record, const path& output, const Context& context, Json& summary) {
  const std::vector<Replayed> runs = runs_of(record, output);
  for (const Replayed& one : runs) {
    const WorkingFolder there(one.from);
    check_files_of_run(one.run);
    if (const auto made_by = one.run["program"].get<std::string>(); made_by != program_version())
      context.warn("'" + one.run["command"].get<std::string>() + "' was run by version " + made_by +
                   ", this is " + program_version() + "; results may differ");
  }
  make_results_folder(output);
  summary["steps"] = Json::array();
  for (const Replayed& one : runs) {
    const WorkingFolder there(one.from);
    Json done = run_typed(one.words, context);
    done["name"] = one.run["command"];
    for (const Json& file : done["outputs"]) summary["outputs"].push_back(file);
    for (const Json& failure : done["summary"]["failed"]) summary["failed"].push_back(failure);
    summary["steps"].push_back(std::move(done));
  }
}

}  // namespace chalcedony::cli
