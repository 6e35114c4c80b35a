#include "job/run/run_facts.h"

#include <algorithm>
#include <array>
#include <string_view>
#include <system_error>
#include <utility>

#include "job/run/input_list.h"
#include "job/run/version.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Which texts may be `from` as a whole. Of others that is by chance: a command, a channel or a
/// step may be called as the folder is.
enum class Whole { kPaths, kAll };

/// Replaces `from` at the begin of every text, where it ends at a slash or is all of one that may
/// be it. `is_path`: whether a text is known to be a path by the key above it.
void replace_begin(Json& json, std::string_view from, std::string_view to, Whole whole,
                   bool is_path = false) {
  static const std::array<std::string_view, 5> kPaths{"operands", "file", "outputs", "output",
                                                      "folder"};
  if (json.is_object()) {
    for (auto& [key, part] : json.items())
      if (key != "shard")  // 2/2 is no path
        replace_begin(part, from, to, whole,
                      std::find(kPaths.begin(), kPaths.end(), key) != kPaths.end());
  } else if (json.is_array()) {
    for (Json& part : json) replace_begin(part, from, to, whole, is_path);
  } else if (json.is_string()) {
    const auto& text = json.get_ref<const std::string&>();
    const bool all = text.size() == from.size() && (is_path || whole == Whole::kAll);
    if (text.starts_with(from) && (all || text.substr(from.size()).starts_with('/')))
      json = std::string(to) + text.substr(from.size());
  }
}

bool is_file(const path& file) {
  std::error_code error;
  return std::filesystem::is_regular_file(file, error);
}

/// The file that the value of an option names: alone, after a `=`, or before a `:`.
path file_in(const std::string& value) {
  const std::string behind = value.substr(std::min(value.size(), value.find('=') + 1));
  for (const std::string& text : {value, behind})
    for (const std::string& name : {text, text.substr(0, text.rfind(':'))})
      if (is_file(name)) return name;
  return {};
}

/// The files that an option names. Those of a folder go with one input each, and are noted there.
std::vector<path> files_named(const TypedOption& option) {
  std::vector<path> files;
  if (!option.names_files) return files;
  for (const std::string& value : option.values)
    if (path file = file_in(value); !file.empty()) files.push_back(std::move(file));
  return files;
}

Json value_json(const std::vector<std::string>& values) {
  if (values.empty()) return true;
  return values.size() == 1 ? Json(values.front()) : Json(values);
}

}  // namespace

std::string program_version() { return kVersion; }

Json file_json(const path& file, const FileState& state) {
  return {{"file", file.string()}, {"bytes", state.bytes}, {"hash", state.hash}};
}

Json input_json(const path& input, const FileState& state, const std::vector<ReadFile>& partners) {
  Json json = file_json(input, state);
  for (const ReadFile& partner : partners)
    json["with"].push_back(file_json(partner.file, partner.state));
  return json;
}

Json asked_json(const SharedOptions& options, RunLedger& ledger) {
  Json asked{{"program", program_version()}, {"command", options.command},
             {"operands", options.operands}, {"options", Json::object()},
             {"seed", options.seed},         {"files", Json::array()}};
  for (const TypedOption& option : options.typed) {
    Json value = value_json(option.values);
    if (option.names_files && !options.output.empty())
      replace_begin(value, folder_text(options.output), kFolderMark, Whole::kAll);
    asked["options"][option.name] = std::move(value);
    for (const path& file : files_named(option))
      asked["files"].push_back(file_json(file, ledger.named_state(file)));
  }
  if (options.shard) asked["shard"] = options.shard->text();
  return folder_to_mark(std::move(asked), options.output);
}

std::vector<TypedOption> options_asked(const Json& options) {
  std::vector<TypedOption> asked;
  for (const auto& [name, value] : options.items()) {
    TypedOption& option = asked.emplace_back(TypedOption{name, {}});
    if (value.is_array()) option.values = value.get<std::vector<std::string>>();
    if (value.is_string()) option.values = {value.get<std::string>()};
  }
  return asked;
}

Json folder_to_mark(Json json, const path& folder) {
  if (!folder.empty()) replace_begin(json, folder_text(folder), kFolderMark, Whole::kPaths);
  return json;
}

Json mark_to_folder(Json json, const path& folder) {
  replace_begin(json, kFolderMark, folder_text(folder), Whole::kAll);
  return json;
}

std::string folder_text(const path& folder) {
  std::string text = folder.string();
  while (text.size() > 1 && text.back() == '/') text.pop_back();
  return text;
}

Json moved_paths(Json json, const path& from, const path& to) {
  if (!from.empty()) replace_begin(json, folder_text(from), folder_text(to), Whole::kPaths);
  return json;
}

}  // namespace chalcedony
