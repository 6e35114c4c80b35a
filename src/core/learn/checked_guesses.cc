#include "core/learn/checked_guesses.h"

#include <utility>

#include "core/error.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

/// What a guess says without its question mark.
std::string without_mark(const std::string& guess) { return guess.substr(0, guess.size() - 1); }

/// The class of a sample that was checked; `number` for the message.
std::string checked_class(const std::string& found, const std::string& named, std::size_t number) {
  if (!named.empty()) return named;
  if (!is_guess(found)) return found;
  if (found == "?")
    throw InputError("sample " + std::to_string(number) + " has no guess",
                     "name its class, as in " + std::to_string(number) + "=lead");
  return without_mark(found);
}

}  // namespace

CheckedGuesses parse_checked_guesses(std::string_view text) {
  CheckedGuesses checked;
  for (const std::string& item : split_list(text)) {
    if (item == "all") {
      checked.all = true;
      continue;
    }
    const std::size_t equals = item.find('=');
    const bool named = equals != std::string::npos;
    const auto number = read_number<std::size_t>(item.substr(0, equals));
    if (!number || *number == 0 || (named && equals + 1 == item.size()))
      throw UsageError("'" + item + "' is no sample that was checked",
                       "write it as in 1,3,8=lead, or all");
    const std::string name = named ? item.substr(equals + 1) : "";
    if (!checked.classes.emplace(*number, name).second)
      throw UsageError("sample " + std::to_string(*number) + " is there twice", "name it once");
  }
  return checked;
}

SampleSet checked_samples(const SampleSet& samples, const CheckedGuesses& checked) {
  if (!checked.classes.empty() && checked.classes.rbegin()->first > samples.shapes.size())
    throw InputError("there is no sample " + std::to_string(checked.classes.rbegin()->first),
                     "its numbers go up to " + std::to_string(samples.shapes.size()));
  SampleSet right;
  for (std::size_t i = 0; i < samples.shapes.size(); ++i) {
    const SampleClass& found = samples.classes[samples.shapes[i].sample_class];
    const auto at = checked.classes.find(i + 1);
    const bool is_named = at != checked.classes.end();
    if (!is_named && !checked.all && is_guess(found.name)) continue;
    const std::string name = checked_class(found.name, is_named ? at->second : "", i + 1);
    SampleShape shape = samples.shapes[i];
    shape.sample_class = right.class_named(name);
    std::string& color = right.classes[shape.sample_class].color;
    if (color.empty() && (name == found.name || name + "?" == found.name)) color = found.color;
    right.shapes.push_back(std::move(shape));
  }
  return right;
}

}  // namespace chalcedony
