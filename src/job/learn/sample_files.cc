#include "job/learn/sample_files.h"

#include <algorithm>
#include <cstddef>
#include <optional>
#include <string>

#include "core/error.h"
#include "job/run/partner_files.h"
#include "job/run/picture_of_result.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// The place of the input that a file is called after.
std::size_t input_of(const path& file, const PicturesByName& by_name) {
  if (const auto input = by_name.place_of(file)) return *input;
  throw UsageError(file.string() + " is called after none of the inputs",
                   "where there are not as many sample files as inputs, name them alike, as "
                   "pane.samples.geojson and pane.png");
}

bool is_some_empty(const std::vector<std::vector<path>>& of_input) {
  return std::any_of(of_input.begin(), of_input.end(), [](const auto& its) { return its.empty(); });
}

/// Each file with the input that it is called after; nothing where one is called after none, or,
/// when `all` need one, an input is left without.
std::optional<std::vector<std::vector<path>>> files_by_names(const std::vector<path>& files,
                                                             const std::vector<path>& inputs,
                                                             const PicturesByName& by_name,
                                                             bool all) {
  std::vector<std::vector<path>> of_input(inputs.size());
  for (const path& file : files) {
    const auto input = by_name.place_of(file);
    if (!input) return std::nullopt;
    of_input[*input].push_back(file);
  }
  if (all && is_some_empty(of_input)) return std::nullopt;
  return of_input;
}

/// Adds those of a folder or a pattern to the inputs they go with.
void add_partners(const path& named, const std::vector<path>& inputs, bool all, RunLedger& ledger,
                  std::vector<std::vector<path>>& of_input) {
  const PartnerFiles partners(named, is_picture_or_samples, "samples", NameCuts::kPoints);
  bool some = inputs.empty();
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    if (!all && !partners.find(inputs[i])) continue;
    of_input[i].push_back(partners.of(inputs[i], ledger));
    some = true;
  }
  if (!some)
    throw InputError("no file goes with the name of an input",
                     "name the two alike, as pane.samples.geojson and pane.png", named.string());
}

}  // namespace

std::vector<std::vector<path>> sample_files_of(const std::vector<path>& files,
                                               const std::vector<path>& inputs, bool all) {
  std::vector<std::vector<path>> of_input(inputs.size());
  if (files.empty()) return of_input;
  if (inputs.size() == 1) return {files};
  const PicturesByName by_name(inputs);
  if (auto by_names = files_by_names(files, inputs, by_name, all)) return *by_names;
  const bool in_order = all ? files.size() <= inputs.size() : files.size() == inputs.size();
  for (std::size_t f = 0; f < files.size(); ++f)
    of_input[in_order ? f : input_of(files[f], by_name)].push_back(files[f]);
  if (all && is_some_empty(of_input))
    throw UsageError("there are " + std::to_string(inputs.size()) + " inputs and " +
                         std::to_string(files.size()) + " sample files",
                     "give one --samples for each input, or more that are called after them");
  return of_input;
}

std::vector<std::vector<path>> sample_files_named(const std::vector<path>& named,
                                                  const std::vector<path>& inputs, bool all,
                                                  RunLedger& ledger) {
  std::vector<std::vector<path>> of_input(inputs.size());
  std::vector<path> files;
  for (const path& one : named) {
    if (names_one_file(one)) {
      files.push_back(one);
    } else {
      add_partners(one, inputs, all, ledger, of_input);
    }
  }
  const bool all_by_files = all && files.size() == named.size();
  const std::vector<std::vector<path>> by_files = sample_files_of(files, inputs, all_by_files);
  for (std::size_t i = 0; i < inputs.size(); ++i)
    of_input[i].insert(of_input[i].end(), by_files[i].begin(), by_files[i].end());
  return of_input;
}

}  // namespace chalcedony
