#include "job/run/results.h"

#include <algorithm>
#include <array>
#include <map>

#include "core/error.h"
#include "core/letter_case.h"
#include "job/run/input_list.h"

namespace chalcedony {

void make_folder(const std::filesystem::path& folder) {
  std::error_code error;
  std::filesystem::create_directories(folder, error);
  if (error || !std::filesystem::is_directory(folder))
    throw OutputError("the folder cannot be made" + (error ? " (" + error.message() + ")" : ""),
                      "choose another -o", folder.string());
}

bool names_file(const std::filesystem::path& path) {
  // Other endings are parts of names of folders, as in survey.2026.
  static const std::array<std::string_view, 8> endings{".geojson", ".html", ".json", ".pdf",
                                                       ".svg",     ".txt",  ".yaml", ".yml"};
  const bool is_file = is_picture_name(path) || is_table_name(path) ||
                       std::find(endings.begin(), endings.end(),
                                 lower_case(path.extension().string())) != endings.end();
  std::error_code error;
  return is_file && !std::filesystem::is_directory(path, error);
}

void make_results_folder(const std::filesystem::path& output) {
  if (names_file(output))
    throw UsageError(
        "--output: results go into a folder, and '" + output.string() + "' is the name of a file",
        "name a folder, as in -o out/");
  make_folder(output);
}

std::filesystem::path folder_below(const SharedOptions& options,
                                   const std::filesystem::path& input) {
  const auto below = options.below.find(input);
  return below == options.below.end() ? std::filesystem::path() : below->second;
}

std::filesystem::path result_stem(const SharedOptions& options,
                                  const std::filesystem::path& input) {
  return options.output / folder_below(options, input) / input.stem();
}

void check_stems(const SharedOptions& options, ResultNames names) {
  if (names == ResultNames::kRun) return;
  std::map<std::filesystem::path, std::filesystem::path> seen;
  for (const auto& input : options.inputs) {
    if (names == ResultNames::kPictures && is_table_name(input)) continue;
    const auto [at, is_new] = seen.emplace(result_stem(options, input), input);
    if (!is_new)
      throw UsageError(
          at->second.string() + " and " + input.string() + " would write results of the same name",
          "run them into two folders");
  }
}

OutputGuard::OutputGuard(const SharedOptions& options) : clobber_(options.clobber) {
  for (const auto& input : options.inputs)
    if (const auto identity = identity_of(input)) inputs_.push_back(*identity);
  std::sort(inputs_.begin(), inputs_.end());
}

void OutputGuard::check(const std::filesystem::path& path) const {
  const auto identity = identity_of(path);
  if (!identity) return;
  if (std::binary_search(inputs_.begin(), inputs_.end(), *identity))
    throw OutputError("is an input and is not replaced", "choose another -o", path.string());
  if (!clobber_)
    throw OutputError("exists and --no-clobber keeps it", "choose another -o", path.string());
}

Results::Results(const SharedOptions& options, const Context& context,
                 const std::vector<ResultKind>& kinds, ResultNames names)
    : options_(options), guard_(options), ledger_(context.ledger) {
  check_asked_for(options, kinds);
  if (options.output.empty()) return;
  check_stems(options, names);
  make_results_folder(options.output);
  lock_ = std::make_unique<FolderLock>(options.output, options.command);
}

bool Results::wants(std::string_view kind) const {
  if (options_.output.empty()) return false;
  return options_.write.empty() || options_.asks_for(kind);
}

std::filesystem::path Results::path(const std::string& name) const {
  std::filesystem::path path = options_.output / name;
  guard_.check(path);
  ledger_->writes({}, path);
  return path;
}

std::filesystem::path Results::path(const std::filesystem::path& input, std::string_view thing,
                                    std::string_view extension) const {
  std::filesystem::path path = result_stem(options_, input);
  path += "." + std::string(thing) + "." + std::string(extension);
  return of_input(input, path);
}

std::filesystem::path Results::path(const std::filesystem::path& input,
                                    const std::string& name) const {
  return of_input(input, options_.output / name);
}

std::filesystem::path Results::of_input(const std::filesystem::path& input,
                                        const std::filesystem::path& path) const {
  if (path.parent_path() != options_.output) make_folder(path.parent_path());
  guard_.check(path);
  ledger_->writes(input, path);
  return path;
}

void Results::report(Json& summary) const {
  for (const auto& path : ledger_->take_all_written()) summary["outputs"].push_back(path.string());
}

}  // namespace chalcedony
