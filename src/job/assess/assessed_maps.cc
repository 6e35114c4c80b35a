#include "job/assess/assessed_maps.h"

#include <algorithm>
#include <deque>
#include <filesystem>
#include <map>

#include "core/error.h"
#include "io/document/truth_table.h"
#include "job/repeat/bad_inputs.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {

using std::filesystem::path;

namespace {

bool may_be_reference(const path& file) {
  return is_picture_or_samples(file) || is_truth_table_name(file);
}

}  // namespace

AssessedMaps::AssessedMaps(const AssessOptions& options, const Context& context, Json& summary)
    : options_(options), context_(context) {
  require_one_each("--reference", options.reference, options.shared.inputs.size(),
                   "; of maps of one picture give one, and the others with --versus");
  for (const path& versus : options.versus)
    require_one_each("--versus", versus, options.shared.inputs.size());
  stopped_by_bad(options.shared, [&] {
    choose(summary);
    for_each({.work = [&](std::size_t i) { maps_[i].count(context_); }});
  });
  for (const AssessedMap& map : maps_) numbering_.add(map.width(), map.height());
  share_all_numbers();
}

void AssessedMaps::choose(Json& summary) {
  const PartnerFiles references(options_.reference, may_be_reference, "reference");
  std::deque<PartnerFiles> others;
  for (const path& versus : options_.versus) others.emplace_back(versus, is_picture_name);
  const auto map_of = [&](const path& input) {
    AssessedFiles files{input, references.of(input, *context_.ledger), {}};
    for (const PartnerFiles& maps : others)
      files.versus.push_back(maps.of(input, *context_.ledger));
    return AssessedMap(std::move(files), options_);
  };
  const Context quiet = without_warnings(context_);
  const auto check = [&](const path& input) {
    AssessedMap map = map_of(input);
    map.open(quiet);
    map.count(quiet);
  };
  for (const std::size_t place : usable_inputs(options_.shared, context_, summary, check))
    maps_.push_back(map_of(options_.shared.inputs[place]));
  check_apart();
}

/// Pixels of a picture would count twice, and results bear the name of the picture.
void AssessedMaps::check_apart() const {
  std::map<std::string, std::size_t> pictures, references;
  for (std::size_t i = 0; i < maps_.size(); ++i) {
    const auto picture = pictures.emplace(picture_name(i), i).first;
    const auto reference = references.emplace(maps_[i].files().reference.string(), i).first;
    const std::size_t other = std::min(picture->second, reference->second);
    if (other != i)
      throw UsageError(maps_[other].files().map.string() + " and " + maps_[i].files().map.string() +
                           " are of one picture",
                       "give one of them, and name the other with --versus");
  }
}

std::string AssessedMaps::picture_name(std::size_t i) const {
  const path& map = maps_[i].files().map;
  return (folder_below(options_.shared, map) / assessed_picture(map)).string();
}

void AssessedMaps::share_all_numbers() {
  for (std::size_t p = 0; p < kOfVersus + options_.versus.size(); ++p) {
    std::vector<LabelledClasses*> all;
    for (AssessedMap& map : maps_) all.push_back(&map.classes(p));
    share_numbers(all);
  }
}

MatchedMaps AssessedMaps::match(std::size_t p) const {
  MatchedMaps matched;
  for (std::size_t i = 0; i < maps_.size(); ++i)
    matched.each.push_back(errors_at(maps_[i].files().map.string(), [&] {
      return match_classes(maps_[i].classes(p), maps_[i].classes(kOfReference), pairs_of(i, p));
    }));
  matched.all = alone() ? matched.each.front() : put_on_one_list(matched.each);
  return matched;
}

/// The pairs that a map has; of several maps not every one needs to have all classes.
std::vector<std::pair<std::string, std::string>> AssessedMaps::pairs_of(std::size_t map,
                                                                        std::size_t p) const {
  std::vector<std::pair<std::string, std::string>> pairs;
  for (const auto& pair : options_.match) {
    const auto has = [&](const AssessedMap& m) {
      return has_pair(m.classes(p), m.classes(kOfReference), pair);
    };
    // One that no map has is a mistake, which the first map tells.
    if (has(maps_[map]) || std::none_of(maps_.begin(), maps_.end(), has)) pairs.push_back(pair);
  }
  return pairs;
}

void AssessedMaps::for_each(const PictureWork& work) {
  tell_done(0);
  const auto begin = [&](std::size_t i) {
    maps_[i].open(context_);
    if (work.begin) work.begin(i);
  };
  const auto end = [&](std::size_t i) {
    if (work.end) work.end(i);
    // One alone stays open for the next pass; more would be too many files.
    if (!alone()) maps_[i].close();
    tell_done(i + 1);
  };
  for_pictures_at_once(options_.shared, maps_.size(),
                       {.begin = begin, .work = work.work, .end = end});
}

void AssessedMaps::tell_done(std::size_t maps) const {
  if (context_.pictures && !alone()) context_.pictures({.done = maps, .all = maps_.size()});
}

}  // namespace chalcedony
