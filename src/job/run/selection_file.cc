#include "job/run/selection_file.h"

#include <algorithm>
#include <array>
#include <string_view>

#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "job/run/summary.h"

namespace chalcedony {
namespace {

constexpr std::array<std::string_view, 8> kSelecting{"alpha",     "assume", "bands", "full-scale",
                                                     "hue-floor", "let",    "page",  "space"};

/// One line of YAML, which JSON is too; of several values a list.
std::string option_line(const std::string& name, const std::vector<std::string>& values) {
  const Json value = values.size() == 1 ? Json(values.front()) : Json(values);
  return name + ": " + json_text(value) + "\n";
}

}  // namespace

std::vector<TypedOption> selecting_options(const SharedOptions& options) {
  std::vector<TypedOption> found;
  for (const TypedOption& one : options.typed)
    if (std::find(kSelecting.begin(), kSelecting.end(), one.name) != kSelecting.end())
      found.push_back(one);
  return found;
}

void write_selection_file(const std::filesystem::path& path,
                          const std::vector<ClassSelection>& classes,
                          const SharedOptions& options) {
  std::vector<std::string> where, color;
  for (const ClassSelection& one : classes) {
    std::string name = one.name;
    std::replace(name.begin(), name.end(), '=', '-');  // which ends a name in options
    where.push_back(name + "=" + one.where);
    color.push_back(name + "=" + one.color);
  }
  std::string text = "# chalcedony slice PICTURE... --config " + path.filename().string() +
                     " -o FOLDER\n" + option_line("where", where) + option_line("color", color);
  for (const TypedOption& one : selecting_options(options))
    text += option_line(one.name, one.values);
  write_text_file(path, text);
}

}  // namespace chalcedony
