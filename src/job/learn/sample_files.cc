#include "job/learn/sample_files.h"

#include <algorithm>
#include <cstddef>
#include <string>

#include "core/error.h"
#include "job/run/partner_files.h"
#include "job/run/picture_of_result.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// The place of the input that a file is called after.
std::size_t input_of(const path& file, const std::vector<path>& inputs,
                     const PicturesByName& by_name) {
  const path* const input = by_name.of(file).picture;
  if (!input)
    throw UsageError(file.string() + " is called after none of the inputs",
                     "where there are not as many sample files as inputs, name them alike, as "
                     "pane.samples.geojson and pane.png");
  return static_cast<std::size_t>(input - inputs.data());
}

}  // namespace

std::vector<path> sample_files_meant(const path& named, const std::vector<path>& inputs, bool all,
                                     RunLedger& ledger) {
  if (names_one_file(named)) return {named};
  const PartnerFiles partners(named, is_picture_or_samples, "samples", NameCuts::kPoints);
  std::vector<path> files;
  for (const path& input : inputs)
    if (all || partners.find(input)) files.push_back(partners.of(input, ledger));
  if (files.empty() && !inputs.empty())
    throw InputError("no file goes with the name of an input",
                     "name the two alike, as pane.samples.geojson and pane.png", named.string());
  return files;
}

std::vector<std::vector<path>> sample_files_of(const std::vector<path>& files,
                                               const std::vector<path>& inputs, bool all) {
  std::vector<std::vector<path>> of_input(inputs.size());
  if (files.empty()) return of_input;
  const PicturesByName by_name(inputs);
  const bool named = std::all_of(files.begin(), files.end(),
                                 [&](const path& file) { return by_name.of(file).picture; });
  const bool in_order =
      all ? files.size() <= inputs.size() : !named && files.size() == inputs.size();
  for (std::size_t f = 0; f < files.size(); ++f) {
    const std::size_t input = inputs.size() == 1 ? 0
                              : in_order         ? f
                                                 : input_of(files[f], inputs, by_name);
    of_input[input].push_back(files[f]);
  }
  if (all &&
      std::any_of(of_input.begin(), of_input.end(), [](const auto& its) { return its.empty(); }))
    throw UsageError("there are " + std::to_string(inputs.size()) + " inputs and " +
                         std::to_string(files.size()) + " sample files",
                     "give one --samples for each input, or more that are called after them");
  return of_input;
}

}  // namespace chalcedony
