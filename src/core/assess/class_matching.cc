#include "core/assess/class_matching.h"

#include <algorithm>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

using Pairs = std::vector<std::pair<std::string, std::string>>;
using Partners = std::map<unsigned, unsigned>;  // code in the map to code in the reference

/// The class of a name, or null.
const LabelledClass* find_class(const LabelledClasses& from, const std::string& name) {
  const auto at = std::find_if(from.classes.begin(), from.classes.end(),
                               [&](const auto& c) { return same_letters(c.name, name); });
  return at == from.classes.end() ? nullptr : &*at;
}

unsigned code_of(const LabelledClasses& from, const std::string& name, const char* whose) {
  if (const LabelledClass* found = find_class(from, name)) return found->code;
  std::vector<std::string> names;
  for (const LabelledClass& c : from.classes) names.push_back(c.name);
  throw InputError("--match: " + std::string(whose) + " has no class '" + name + "'",
                   suggest_name(name, names));
}

Partners by_pairs(const LabelledClasses& map, const LabelledClasses& reference,
                  const Pairs& pairs) {
  Partners partners;
  for (const auto& [ours, theirs] : pairs)
    partners[code_of(map, ours, "the map")] = code_of(reference, theirs, "the reference");
  return partners;
}

/// Adds a partner for each class of the map that has none, where `same` finds one.
template <class Same>
void add_partners(const LabelledClasses& map, const LabelledClasses& reference, Same same,
                  Partners& partners) {
  for (const LabelledClass& ours : map.classes) {
    if (partners.count(ours.code)) continue;
    for (const LabelledClass& theirs : reference.classes)
      if (same(ours, theirs)) partners.emplace(ours.code, theirs.code);
  }
}

const std::string& name_in(const LabelledClasses& from, unsigned code) {
  return std::find_if(from.classes.begin(), from.classes.end(),
                      [&](const LabelledClass& c) { return c.code == code; })
      ->name;
}

/// Gives every class its place in the matrix.
void place_classes(const LabelledClasses& map, const LabelledClasses& reference,
                   const Partners& partners, ClassMatching& out) {
  for (const LabelledClass& ours : map.classes) {
    const auto partner = partners.find(ours.code);
    if (partner == partners.end()) {
      out.of_map[ours.code] = out.names.size();
      out.names.push_back(ours.name);
      out.only_in_map.push_back(ours.name);
      continue;
    }
    const auto [place, is_new] = out.of_reference.emplace(partner->second, out.names.size());
    out.of_map[ours.code] = place->second;
    if (!is_new) continue;
    const bool theirs = reference.named && (!map.named || out.by == MatchedBy::kPairs);
    out.names.push_back(theirs ? name_in(reference, partner->second) : ours.name);
  }
  for (const LabelledClass& theirs : reference.classes) {
    if (!out.of_reference.emplace(theirs.code, out.names.size()).second) continue;
    out.names.push_back(theirs.name);
    out.only_in_reference.push_back(theirs.name);
  }
}

}  // namespace

std::optional<std::size_t> place_of_class(const std::vector<std::string>& names,
                                          const std::string& name) {
  const auto at = std::find_if(names.begin(), names.end(),
                               [&](const std::string& one) { return same_letters(one, name); });
  if (at == names.end()) return std::nullopt;
  return static_cast<std::size_t>(at - names.begin());
}

std::size_t place_in_list(std::vector<std::string>& names, const std::string& name) {
  if (const auto place = place_of_class(names, name)) return *place;
  names.push_back(name);
  return names.size() - 1;
}

void share_numbers(const std::vector<LabelledClasses*>& pictures) {
  std::map<unsigned, std::string> all;
  for (const LabelledClasses* one : pictures)
    if (!one->named)
      for (const LabelledClass& c : one->classes) all.emplace(c.code, c.name);
  for (LabelledClasses* one : pictures) {
    if (one->named) continue;
    one->classes.clear();
    for (const auto& [code, name] : all) one->classes.push_back({code, name});
  }
}

ClassMatching match_classes(const LabelledClasses& map, const LabelledClasses& reference,
                            const Pairs& pairs) {
  ClassMatching out;
  Partners partners = by_pairs(map, reference, pairs);
  if (!pairs.empty()) out.by = MatchedBy::kPairs;
  if (map.named && reference.named)
    add_partners(
        map, reference,
        [](const LabelledClass& a, const LabelledClass& b) { return same_letters(a.name, b.name); },
        partners);
  if (partners.empty()) {
    out.by = MatchedBy::kNumber;
    add_partners(
        map, reference,
        [](const LabelledClass& a, const LabelledClass& b) { return a.code == b.code; }, partners);
  }
  if (partners.empty())
    throw InputError("map and reference have no class in common",
                     "say which are the same with --match OURS=THEIRS");
  place_classes(map, reference, partners, out);
  return out;
}

bool has_pair(const LabelledClasses& map, const LabelledClasses& reference,
              const std::pair<std::string, std::string>& pair) {
  return find_class(map, pair.first) && find_class(reference, pair.second);
}

ClassMatching put_on_one_list(std::vector<ClassMatching>& matchings) {
  ClassMatching all;
  all.by = matchings.front().by;
  std::vector<bool> in_map, in_reference;
  for (ClassMatching& one : matchings) {
    std::vector<std::size_t> places;
    for (const std::string& name : one.names) places.push_back(place_in_list(all.names, name));
    in_map.resize(all.names.size());
    in_reference.resize(all.names.size());
    for (auto& [code, place] : one.of_map) in_map[place = places[place]] = true;
    for (auto& [code, place] : one.of_reference) in_reference[place = places[place]] = true;
    if (one.by == MatchedBy::kNumber) all.by = MatchedBy::kNumber;
  }
  for (std::size_t c = 0; c < all.names.size(); ++c) {
    if (!in_reference[c]) all.only_in_map.push_back(all.names[c]);
    if (!in_map[c]) all.only_in_reference.push_back(all.names[c]);
  }
  for (ClassMatching& one : matchings) one.names = all.names;
  return all;
}

}  // namespace chalcedony
