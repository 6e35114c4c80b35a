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
  std::string command, program;
  path from;
  std::vector<std::string> words;
};

path folder_of(const path& record) {
  return std::filesystem::weakly_canonical(record).parent_path();
}

std::vector<Replayed> replayed(const std::vector<Json>& runs, const path& record,
                               const path& output) {
  const path target = std::filesystem::absolute(output).lexically_normal();
  std::vector<Replayed> list;
  for (const Json& run : runs) {
    const path from = typed_in(run, folder_of(record));
    std::error_code error;
    if (!std::filesystem::is_directory(from, error))
      throw InputError(
          "the folder where the command was typed is not there any more, " + from.string(),
          "move how.json with its pictures", record.string());
    path to = target.lexically_relative(from);
    if (run.contains("output")) to /= run["output"].get<std::string>();
    list.push_back({run["command"].get<std::string>(), run["program"].get<std::string>(), from,
                    words_of_run(run, to)});
  }
  return list;
}

}  // namespace

Json planned_replay(const path& record, const path& output) {
  Json steps = Json::array();
  for (const Replayed& one : replayed(read_record(record), record, output))
    steps.push_back(planned_step("name", one.command, one.words));
  return steps;
}

void replay(const path& record, const path& output, const Context& context, Json& summary) {
  const std::vector<Json> recorded = read_record(record);
  const std::vector<Replayed> runs = replayed(recorded, record, output);
  check_files_of_runs(recorded, folder_of(record));
  for (const Replayed& one : runs)
    if (one.program != program_version())
      context.warn("'" + one.command + "' was run by version " + one.program + ", this is " +
                   program_version() + "; results may differ");
  make_results_folder(output);
  summary["steps"] = Json::array();
  for (const Replayed& one : runs) {
    const WorkingFolder there(one.from);
    Json done = run_typed(one.words, context);
    done["name"] = one.command;
    for (const Json& file : done["outputs"]) summary["outputs"].push_back(file);
    for (const Json& failure : done["summary"]["failed"]) summary["failed"].push_back(failure);
    summary["steps"].push_back(std::move(done));
  }
}

}  // namespace chalcedony::cli
