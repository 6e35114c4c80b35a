// The list of all color spaces.
#include <algorithm>
#include <cctype>

#include "core/color/space.h"
#include "core/error.h"
#include "core/letter_case.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

constexpr std::array kSpaces{
#define CHALCEDONY_SPACE(name) &spaces::name,
#include "core/color/space_list.inc"
#undef CHALCEDONY_SPACE
};

}  // namespace

std::span<const Space* const> all_spaces() { return kSpaces; }

const Space* find_space(std::string_view id) {
  for (const Space* space : kSpaces)
    if (same_letters(space->id, id)) return space;
  return nullptr;
}

const Space& space_named(std::string_view id) {
  const Space* space = find_space(id);
  if (!space || space->internal)
    throw UsageError("no color space is called '" + std::string(id) + "'",
                     suggest_name(id, space_names()));
  return *space;
}

std::vector<std::string> space_names() {
  std::vector<std::string> names;
  for (const Space* space : kSpaces)
    if (!space->internal) names.emplace_back(space->id);
  return names;
}

}  // namespace chalcedony
