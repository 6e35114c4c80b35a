#include "job/run/partner_files.h"

#include <algorithm>
#include <string_view>
#include <system_error>
#include <utility>

#include "core/error.h"
#include "job/run/input_list.h"
#include "job/run/picture_of_result.h"

namespace chalcedony {
namespace {

namespace fs = std::filesystem;

bool is_folder(const fs::path& path) {
  std::error_code error;
  return fs::is_directory(path, error);
}

bool is_pattern(const fs::path& path) {
  std::error_code error;
  const std::string name = path.filename().string();
  return std::count(name.begin(), name.end(), '*') == 1 && !fs::exists(path, error);
}

fs::path folder_of(const fs::path& path) {
  return path.has_parent_path() ? path.parent_path() : fs::path(".");
}

bool names_one_file(const fs::path& named) { return !is_folder(named) && !is_pattern(named); }

/// What `*` of a pattern stands for in a name; empty when the name does not fit.
std::string starred(std::string_view name, const fs::path& pattern) {
  const std::string text = pattern.filename().string();
  const std::size_t star = text.find('*');
  const std::string before = text.substr(0, star), after = text.substr(star + 1);
  if (name.size() <= before.size() + after.size()) return {};
  if (!name.starts_with(before) || !name.ends_with(after)) return {};
  return std::string(name.substr(before.size(), name.size() - before.size() - after.size()));
}

}  // namespace

void require_one_each(const std::string& option, const fs::path& named, std::size_t inputs) {
  if (inputs > 1 && names_one_file(named))
    throw UsageError(
        option + ": one file does not go with " + std::to_string(inputs) + " inputs",
        "name the folder of the files that do, or a pattern, as \"panels/*.reference.png\"");
}

std::vector<fs::path> files_meant(const fs::path& named, MayBePartner may_be) {
  if (is_folder(named)) return files_in(named, may_be);
  if (!is_pattern(named)) return {named};
  std::vector<fs::path> files;
  for (fs::path& file : files_in(folder_of(named), may_be))
    if (!starred(file.filename().string(), named).empty())
      // As it would be typed, without a folder where the pattern has none.
      files.push_back(named.has_parent_path() ? std::move(file) : file.filename());
  return files;
}

PartnerFiles::PartnerFiles(fs::path named, MayBePartner may_be)
    : named_(std::move(named)), one_for_all_(names_one_file(named_)), pattern_(is_pattern(named_)) {
  for (fs::path& file : files_meant(named_, may_be)) {
    const fs::path stem = file.stem();
    if (pattern_) {
      std::string key = starred(file.filename().string(), named_);
      if (named_.filename().string().ends_with('*')) key = fs::path(key).stem().string();
      candidates_.push_back({std::move(file), std::move(key), {}});
    } else {
      candidates_.push_back(
          {std::move(file), stem.string(), stem.has_extension() ? stem.stem().string() : ""});
    }
  }
  if (pattern_ && candidates_.empty())
    throw InputError("no file fits this pattern", "check its folder and its ending",
                     named_.string());
}

PartnerFiles::Likeness PartnerFiles::likeness(const Candidate& candidate,
                                              const fs::path& input) const {
  std::error_code error;
  if (fs::equivalent(candidate.file, input, error)) return Likeness::kNone;
  const bool same_name = candidate.key == input.stem().string();
  if (is_called_after(input, candidate.key) && (pattern_ || !same_name))
    return Likeness::kNamedAfter;
  // In its own folder that is another version of the input.
  if (same_name)
    return fs::equivalent(folder_of(candidate.file), folder_of(input), error) ? Likeness::kNone
                                                                              : Likeness::kSameName;
  return is_called_after(input, candidate.short_key) ? Likeness::kSameBegin : Likeness::kNone;
}

const fs::path& PartnerFiles::of(const fs::path& input) const {
  if (one_for_all_) return candidates_.front().file;
  const Candidate *best = nullptr, *as_good = nullptr;
  Likeness surest = Likeness::kNone;
  std::size_t longest = 0;
  for (const Candidate& candidate : candidates_) {
    const Likeness sure = likeness(candidate, input);
    if (sure == Likeness::kNone) continue;
    const std::size_t length =
        sure == Likeness::kSameBegin ? candidate.short_key.size() : candidate.key.size();
    if (!best || sure < surest || (sure == surest && length > longest)) {
      best = &candidate, as_good = nullptr, surest = sure, longest = length;
    } else if (sure == surest && length == longest) {
      as_good = &candidate;
    }
  }
  if (!best)
    throw InputError("no file of " + named_.string() + " goes with its name",
                     "name the two alike, as pane.mask.png and pane.png", input.string());
  if (as_good)
    throw InputError(
        "both " + best->file.string() + " and " + as_good->file.string() + " go with its name",
        pattern_
            ? "move one of the two out of the folder"
            : "say which with a pattern, as \"" +
                  (named_ / ("*" + best->file.filename().string().substr(longest))).string() + "\"",
        input.string());
  return best->file;
}

}  // namespace chalcedony
