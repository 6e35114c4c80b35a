#include "job/run/run_facts.h"

#include <algorithm>
#include <string_view>
#include <system_error>

#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/version.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Replaces `from` at the begin of every text, where it is the whole text or ends at a slash.
void replace_begin(Json& json, std::string_view from, std::string_view to) {
  if (json.is_structured()) {
    for (Json& part : json) replace_begin(part, from, to);
  } else if (json.is_string()) {
    const auto& text = json.get_ref<const std::string&>();
    if (text.starts_with(from) && (text.size() == from.size() || text[from.size()] == '/'))
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

/// The files that an option names; of a folder, or a pattern, those that can go with an input.
std::vector<path> files_named(const TypedOption& option) {
  std::vector<path> files;
  if (!option.names_files) return files;
  for (const std::string& value : option.values) {
    if (const path file = file_in(value); !file.empty()) {
      files.push_back(file);
    } else if (option.names_folder) {
      for (path& one : files_meant(value, is_picture_or_samples))
        if (is_file(one)) files.push_back(std::move(one));
    }
  }
  return files;
}

Json value_json(const std::vector<std::string>& values) {
  if (values.empty()) return true;
  return values.size() == 1 ? Json(values.front()) : Json(values);
}

}  // namespace

std::string program_version() { return kVersion; }

Json state_json(const FileState& state) { return {{"bytes", state.bytes}, {"hash", state.hash}}; }

Json asked_json(const SharedOptions& options, RunLedger& ledger) {
  Json asked{{"program", program_version()}, {"command", options.command},
             {"operands", options.operands}, {"options", Json::object()},
             {"seed", options.seed},         {"files", Json::array()}};
  for (const TypedOption& option : options.typed) {
    asked["options"][option.name] = value_json(option.values);
    for (const path& file : files_named(option)) {
      Json one{{"file", file.string()}};
      one.update(state_json(ledger.named_state(file)));
      asked["files"].push_back(std::move(one));
    }
  }
  if (options.shard) asked["shard"] = options.shard->text();
  return folder_to_mark(std::move(asked), options.output);
}

Json folder_to_mark(Json json, const path& folder) {
  if (!folder.empty()) replace_begin(json, folder_text(folder), kFolderMark);
  return json;
}

Json mark_to_folder(Json json, const path& folder) {
  replace_begin(json, kFolderMark, folder_text(folder));
  return json;
}

std::string folder_text(const path& folder) {
  std::string text = folder.string();
  while (text.size() > 1 && text.back() == '/') text.pop_back();
  return text;
}

Json moved_paths(Json json, const path& from, const path& to) {
  if (!from.empty()) replace_begin(json, folder_text(from), folder_text(to));
  return json;
}

}  // namespace chalcedony
