#include "job/run/partner_files.h"

#include <algorithm>
#include <string_view>
#include <system_error>
#include <utility>

#include "core/error.h"
#include "io/document/sample_file.h"
#include "job/run/input_list.h"
#include "job/run/name_begins.h"

namespace chalcedony {
namespace {

namespace fs = std::filesystem;

/// A path that ends in a slash means a folder, whether there is one or not.
bool is_folder(const fs::path& path) {
  std::error_code error;
  return fs::is_directory(path, error) || !path.has_filename();
}

fs::path folder_of(const fs::path& path) {
  return path.has_parent_path() ? path.parent_path() : fs::path(".");
}

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

bool is_picture_or_samples(const fs::path& file) {
  return is_picture_name(file) || is_sample_file(file);
}

bool names_pattern(const fs::path& named) {
  std::error_code error;
  const std::string name = named.filename().string();
  return std::count(name.begin(), name.end(), '*') == 1 && !fs::exists(named, error);
}

bool names_one_file(const fs::path& named) { return !is_folder(named) && !names_pattern(named); }

void require_one_each(const std::string& option, const fs::path& named, std::size_t inputs,
                      const std::string& otherwise) {
  if (inputs > 1 && names_one_file(named))
    throw UsageError(option + ": one file does not go with " + std::to_string(inputs) + " inputs",
                     "name the folder of the files that do, or a pattern, as "
                     "\"panels/*.reference.png\"" +
                         otherwise);
}

std::vector<fs::path> files_meant(const fs::path& named, MayBePartner may_be) {
  if (is_folder(named)) return files_in(named, may_be);
  if (!names_pattern(named)) return {named};
  std::vector<fs::path> files;
  for (fs::path& file : files_in(folder_of(named), may_be))
    if (!starred(file.filename().string(), named).empty())
      // As it would be typed, without a folder where the pattern has none.
      files.push_back(named.has_parent_path() ? std::move(file) : file.filename());
  return files;
}

PartnerFiles::PartnerFiles(fs::path named, MayBePartner may_be, std::string thing, NameCuts cuts,
                           IsWanted wanted)
    : named_(std::move(named)),
      thing_(std::move(thing)),
      cuts_(cuts),
      wanted_(wanted),
      one_for_all_(names_one_file(named_)),
      pattern_(names_pattern(named_)),
      files_(files_meant(named_, may_be)) {
  std::error_code error;
  if (one_for_all_ && !fs::exists(named_, error))
    throw InputError("no such file", "check its name and folder", named_.string());
  if (pattern_ && files_.empty())
    throw InputError("no file fits this pattern", "check its folder and its ending",
                     named_.string());
  for (const fs::path& file : files_) {
    const fs::path stem = file.stem();
    if (!pattern_) {
      by_key_[stem.string()].push_back(&file);
      if (stem.has_extension()) by_short_key_[stem.stem().string()].push_back(&file);
      continue;
    }
    const std::string text = named_.filename().string(), before = text.substr(0, text.find('*'));
    const fs::path key = starred(file.filename().string(), named_);
    const std::string star = text.ends_with('*') ? key.stem().string() : key.string();
    by_key_[before + star].push_back(&file);
    if (!before.empty()) by_short_key_[star].push_back(&file);
  }
}

PartnerFiles::Files PartnerFiles::without(const fs::path& input, const Files& files) {
  Files others;
  std::error_code error;
  for (const fs::path* file : files)
    if (!fs::equivalent(*file, input, error)) others.push_back(file);
  return others;
}

const fs::path& PartnerFiles::of(const fs::path& input, RunLedger& ledger) const {
  const fs::path& found = of(input);
  if (!one_for_all_) ledger.reads_with(input, found);
  return found;
}

const fs::path& PartnerFiles::of(const fs::path& input) const {
  if (const fs::path* const found = find(input)) return *found;
  const std::string thing = thing_.empty() ? "mask" : thing_;
  throw InputError("no file of " + named_.string() + " goes with its name",
                   "name the two alike, as pane." + thing +
                       (thing == "samples" ? ".geojson" : ".png") + " and pane.png",
                   input.string());
}

const fs::path* PartnerFiles::find(const fs::path& input) const {
  if (one_for_all_) return &files_.front();
  const std::string own = input.stem().string();
  const std::vector<std::string> begins = begins_of(input, cuts_ == NameCuts::kPoints ? "." : ".-");
  const auto others_called = [&](const std::string& name) {
    const auto at = by_key_.find(name);
    return at != by_key_.end() ? without(input, at->second) : Files();
  };
  for (const std::string& key : begins) {
    if (!pattern_ && !thing_.empty())
      if (const Files files = others_called(key + "." + thing_); !files.empty())
        return only_one(files, key, input);
    // In a folder the input's own name comes after shorter ones.
    if (pattern_ || key != own)
      if (const Files files = others_called(key); !files.empty())
        return only_one(files, key, input);
  }
  if (const auto at = by_key_.find(own); at != by_key_.end()) {
    Files files;
    std::error_code error;
    // In its own folder that is another version of the input.
    for (const fs::path* file : at->second)
      if (!fs::equivalent(folder_of(*file), folder_of(input), error)) files.push_back(file);
    if (!files.empty()) return only_one(files, own, input);
  }
  for (const std::string& key : begins)
    if (const auto at = by_short_key_.find(key); at != by_short_key_.end()) {
      Files files;
      for (const fs::path* file : at->second)
        if (file->stem() != own) files.push_back(file);
      if (!files.empty()) return only_one(files, key, input);
    }
  return nullptr;
}

const fs::path* PartnerFiles::only_one(const Files& files, const std::string& key,
                                       const fs::path& input) const {
  if (files.size() > 1 && wanted_) {
    Files wanted;
    for (const fs::path* const file : files)
      if (wanted_(*file)) wanted.push_back(file);
    if (wanted.size() == 1) return wanted.front();
  }
  if (files.size() > 1) {
    const std::string ending = files[0]->filename().string().substr(key.size());
    throw InputError(
        "both " + files[0]->string() + " and " + files[1]->string() + " go with its name",
        pattern_ ? "move one of the two out of the folder"
                 : "say which with a pattern, as \"" + (named_ / ("*" + ending)).string() + "\"",
        input.string());
  }
  return files[0];
}

}  // namespace chalcedony
