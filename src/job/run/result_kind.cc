#include "job/run/result_kind.h"

#include <algorithm>

#include "core/error.h"
#include "core/nearest_name.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

std::vector<std::string> names_of(const std::vector<ResultKind>& kinds) {
  std::vector<std::string> names;
  for (const ResultKind& kind : kinds) names.emplace_back(kind.name);
  return names;
}

constexpr std::string_view kNot = "not ";

/// Whether an option was given, as "cube", or given so, as "method all".
bool was_given(const SharedOptions& options, std::string_view option) {
  const std::size_t blank = std::min(option.size(), option.find(' '));
  const std::string_view value = option.substr(std::min(option.size(), blank + 1));
  return std::any_of(options.typed.begin(), options.typed.end(), [&](const TypedOption& typed) {
    return typed.name == option.substr(0, blank) &&
           (value.empty() ||
            std::find(typed.values.begin(), typed.values.end(), value) != typed.values.end());
  });
}

/// Options as they are typed: "--count, --fraction or --every".
std::string typed_options(std::string_view list) {
  std::string text;
  const auto options = split_list(list);
  for (std::size_t i = 0; i < options.size(); ++i)
    text += (i == 0 ? "--" : i + 1 < options.size() ? ", --" : " or --") + options[i];
  return text;
}

/// Errors    UsageError when there is no such result with the options that were given
void check_condition(const SharedOptions& options, const ResultKind& kind) {
  if (kind.when.empty()) return;
  const std::string name = "'" + std::string(kind.name) + "'";
  if (kind.when.starts_with(kNot)) {
    const std::string_view option = kind.when.substr(kNot.size());
    if (was_given(options, option))
      throw UsageError("--write: there is no " + name + " with " + typed_options(option),
                       "leave one of the two out");
    return;
  }
  const auto any = split_list(kind.when);
  const auto given = [&](const std::string& option) { return was_given(options, option); };
  if (std::none_of(any.begin(), any.end(), given))
    throw UsageError("--write: " + name + " comes with " + typed_options(kind.when),
                     "give that too, or leave " + name + " out");
}

}  // namespace

std::string result_text(const ResultKind& kind) {
  std::string text(kind.meaning);
  if (kind.when.starts_with(kNot))
    text += " (not with " + typed_options(kind.when.substr(kNot.size())) + ")";
  else if (!kind.when.empty())
    text += " (with " + typed_options(kind.when) + ")";
  return text;
}

void check_asked_for(const SharedOptions& options, const std::vector<ResultKind>& kinds) {
  for (const std::string& name : options.write) {
    const auto kind = std::find_if(kinds.begin(), kinds.end(),
                                   [&](const ResultKind& one) { return one.name == name; });
    if (kind == kinds.end())
      throw UsageError("--write: there is no result '" + name + "'",
                       suggest_name(name, names_of(kinds)));
    check_condition(options, *kind);
  }
}

}  // namespace chalcedony
