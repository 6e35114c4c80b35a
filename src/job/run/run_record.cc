#include "job/run/run_record.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <string_view>
#include <utility>

#include "core/error.h"
#include "io/file/file_state.h"
#include "io/file/folder_lock.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr int kRecordVersion = 1;
constexpr const char* kRecordName = "how.json";

bool is_texts(const Json& list) {
  return list.is_array() &&
         std::all_of(list.begin(), list.end(), [](const Json& one) { return one.is_string(); });
}

bool is_files(const Json& list) {
  return list.is_array() && std::all_of(list.begin(), list.end(), [](const Json& one) {
           return one.is_object() && one.value("file", Json()).is_string() &&
                  one.value("hash", Json()).is_string() &&
                  is_files(one.value("with", Json::array()));
         });
}

/// Whether all that is read of a run is there, and of its kind: people edit files.
bool is_run(const Json& run) {
  if (!run.is_object()) return false;
  for (const char* text : {"program", "command", "from"})
    if (!run.value(text, Json()).is_string()) return false;
  for (const char* text : {"output", "shard", "folder"})
    if (run.contains(text) && !run[text].is_string()) return false;
  const Json options = run.value("options", Json());
  const bool good_options =
      options.is_object() && std::all_of(options.begin(), options.end(), [](const Json& value) {
        return value.is_boolean() || value.is_string() || is_texts(value);
      });
  return good_options && is_texts(run.value("operands", Json())) &&
         is_texts(run.value("outputs", Json())) && is_files(run.value("files", Json())) &&
         is_files(run.value("inputs", Json()));
}

bool is_marked(const std::string& text) {
  return text == kFolderMark || text.starts_with(std::string(kFolderMark) + "/");
}

/// A path into the folder of results, as seen from it.
std::string result_below(const std::string& marked) {
  return marked.substr(std::min(marked.size(), std::string_view(kFolderMark).size() + 1));
}

/// The run that wrote each result last, by its path below the folder.
std::map<std::string, std::size_t> last_writers(const std::vector<Json>& runs) {
  std::map<std::string, std::size_t> writers;
  for (std::size_t r = 0; r < runs.size(); ++r)
    for (const Json& output : runs[r]["outputs"]) writers[output.get<std::string>()] = r;
  return writers;
}

/// The inputs that were done, with their facts and those of the files that went with them.
Json inputs_json(const SharedOptions& options, const Context& context, const Json& summary) {
  const auto read = context.ledger->read();
  std::set<std::string> failed;
  for (const Json& one : summary["failed"]) failed.insert(one["file"].get<std::string>());
  Json inputs = Json::array();
  for (const path& input : options.inputs) {
    const auto at = read.find(input);
    const bool other_shard = options.shard && at == read.end();
    if (failed.count(input.string()) || other_shard) continue;
    RunLedger& ledger = *context.ledger;
    inputs.push_back(input_json(input, ledger.state(input), ledger.partners_of(input)));
  }
  return inputs;
}

/// The files a run wrote, those in the folder by their path below it.
Json outputs_json(const Json& summary, const path& folder) {
  Json outputs = Json::array();
  std::set<std::string> listed;
  for (const Json& output : summary["outputs"]) {
    const auto file = output.get<std::string>();
    if (!listed.insert(file).second) continue;
    const path below = path(file).lexically_relative(folder);
    const bool inside = !below.empty() && *below.begin() != "..";
    outputs.push_back(inside ? below.generic_string() : file);
  }
  return outputs;
}

/// The files that options name, but for those that the run wrote, as --save has them.
Json files_read(const Json& files, const Json& summary) {
  const Json& outputs = summary["outputs"];
  Json read = Json::array();
  for (const Json& file : files)
    if (std::find(outputs.begin(), outputs.end(), file["file"]) == outputs.end())
      read.push_back(file);
  return read;
}

Json run_json(const SharedOptions& options, const Context& context, const Json& summary,
              const path& folder) {
  Json run = asked_json(options, *context.ledger);
  run["files"] = files_read(run["files"], summary);
  run["from"] = asked_from(std::filesystem::current_path(), folder);
  if (!context.places.empty()) run["part"] = true;
  const bool is_recipe = options.command == "run";
  if (is_recipe) {
    run["steps"] = Json::array();
    for (const Json& step : summary["steps"])
      if (step["kept"] == true) run["steps"].push_back(step["name"]);
  }
  if (folder != options.output) run["output"] = options.output.filename().string();
  run["inputs"] = inputs_json(options, context, summary);
  run["outputs"] = outputs_json(summary, folder);
  run = run_to_mark(std::move(run), folder);
  // By which the steps name one another's results.
  if (is_recipe) run["folder"] = folder_text(options.output);
  return run;
}

/// Whether one run is the other done again, by what was asked.
bool is_same_run(const Json& a, const Json& b) {
  const std::array<const char*, 4> asked{"command", "operands", "options", "shard"};
  return std::all_of(asked.begin(), asked.end(),
                     [&](const char* key) { return a.value(key, Json()) == b.value(key, Json()); });
}

/// What is left of earlier runs once another has written its outputs. A shard without pictures has
/// none to lose; it stays until it is done again.
void give_up_outputs(std::vector<Json>& runs, const Json& later) {
  const Json& outputs = later["outputs"];
  std::erase_if(runs, [&](Json& run) {
    if (run["outputs"].empty()) return is_same_run(run, later);
    Json left = Json::array();
    for (Json& one : run["outputs"])
      if (std::find(outputs.begin(), outputs.end(), one) == outputs.end())
        left.push_back(std::move(one));
    run["outputs"] = std::move(left);
    return run["outputs"].empty();
  });
}

}  // namespace

path record_path(const path& folder) { return folder / kRecordName; }

path recorded_folder(const SharedOptions& options) {
  std::error_code error;
  if (options.output.empty()) return {};
  const bool is_file = std::filesystem::exists(options.output, error) &&
                       !std::filesystem::is_directory(options.output, error);
  if (!is_file && !names_file(options.output)) return options.output;
  const path folder = options.output.parent_path();
  return std::filesystem::exists(record_path(folder), error) ? folder : path();
}

bool is_record_name(const path& file) { return file.filename() == kRecordName; }

std::string asked_from(const path& place, const path& folder) {
  return place.lexically_relative(std::filesystem::weakly_canonical(folder)).generic_string();
}

path typed_in(const Json& run, const path& folder) {
  return std::filesystem::weakly_canonical(folder / run["from"].get<std::string>());
}

void record_run(const SharedOptions& options, const Context& context, const Json& summary) {
  const path folder = recorded_folder(options);
  // A shard without pictures is recorded, so that it is not missed.
  if (folder.empty() || (summary["outputs"].empty() && !options.shard)) return;
  add_to_record(folder, run_json(options, context, summary, folder));
}

Json run_to_mark(Json run, const path& folder) {
  // One of them may lie in a folder below that is called alike.
  Json outputs = std::move(run["outputs"]);
  run = folder_to_mark(std::move(run), folder);
  run["outputs"] = std::move(outputs);
  return run;
}

void add_to_record(const path& folder, Json run) {
  const path file = record_path(folder);
  const FolderLock lock(folder, "how", FolderLock::kWait);
  std::vector<Json> runs;
  std::error_code error;
  try {
    if (std::filesystem::exists(file, error)) runs = read_record(file);
  } catch (const InputError& other) {
    throw OutputError(other.problem() + " and is not replaced", "move it away", file.string());
  }
  if (std::find(runs.begin(), runs.end(), run) != runs.end()) return;
  give_up_outputs(runs, run);
  runs.push_back(std::move(run));
  write_record(file, runs);
}

std::vector<Json> read_record(const path& file) {
  const Json json = Json::parse(read_text_file(file), nullptr, false);
  if (!is_of_kind(json, "how") || !json.contains("runs"))
    throw InputError("is no record of runs", "give how.json of a results folder", file.string());
  if (is_of_later_version(json, kRecordVersion))
    throw InputError("was written by a later version", "use that version", file.string());
  const Json& runs = json["runs"];
  if (!runs.is_array() || !std::all_of(runs.begin(), runs.end(), is_run))
    throw InputError("is damaged: what it holds are no runs", "make the results anew",
                     file.string());
  return runs.get<std::vector<Json>>();
}

void write_record(const path& file, const std::vector<Json>& runs) {
  const Json json{{"chalcedony", "how"}, {"version", kRecordVersion}, {"runs", runs}};
  write_text_file(file, json_text(json, 1) + "\n");
}

std::vector<std::string> words_of_run(const Json& run, const path& output) {
  std::vector<std::string> words{run["command"].get<std::string>()};
  const path folder = run.contains("output") ? output.parent_path() : output;
  const Json real = mark_to_folder(run, folder);
  for (const Json& operand : real["operands"]) words.push_back(operand.get<std::string>());
  for (const TypedOption& option : options_asked(real["options"])) {
    if (option.values.empty()) words.push_back("--" + option.name);
    for (const std::string& value : option.values)
      words.insert(words.end(), {"--" + option.name, value});
  }
  words.insert(words.end(), {"-o", output.string()});
  return words;
}

std::vector<const Json*> files_read_by(const Json& run) {
  std::vector<const Json*> files;
  for (const char* list : {"inputs", "files"})
    for (const Json& one : run.at(list)) {
      files.push_back(&one);
      if (one.contains("with"))
        for (const Json& partner : one["with"]) files.push_back(&partner);
    }
  return files;
}

path file_read_at(const Json& run, const std::string& file, const path& folder) {
  if (is_marked(file)) return folder / result_below(file);
  return path(file).is_absolute() ? path(file) : (typed_in(run, folder) / file).lexically_normal();
}

bool is_another_file(const Json& known, const path& file) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(file, error)) return false;
  return content_hash(file) != known["hash"].get<std::string>();
}

void check_files_of_runs(const std::vector<Json>& runs, const path& folder) {
  const std::map<std::string, std::size_t> writers = last_writers(runs);
  const auto command = [&](std::size_t run) { return runs[run]["command"].get<std::string>(); };
  for (std::size_t reader = 0; reader < runs.size(); ++reader)
    for (const Json* const known : files_read_by(runs[reader])) {
      const auto name = (*known)["file"].get<std::string>();
      const path file = file_read_at(runs[reader], name, folder);
      if (!is_marked(name)) {
        if (content_hash(file) != (*known)["hash"].get<std::string>())
          throw InputError("is not what it was when the results were made",
                           "bring the file back, or run the command anew", name);
        continue;
      }
      const auto writer = writers.find(result_below(name));
      if (writer != writers.end() && writer->second > reader)
        throw InputError("was written again by '" + command(writer->second) + "' after '" +
                             command(reader) + "' had read it",
                         "run '" + command(reader) + "' anew first", file.string());
    }
}

}  // namespace chalcedony
