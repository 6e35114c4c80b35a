#include "cli/text/input_names.h"

#include <filesystem>
#include <vector>

#include "job/picture/short_names.h"

namespace chalcedony::cli {

std::map<std::string, std::string> names_of_inputs(const Json& summary) {
  std::vector<std::filesystem::path> files;
  for (const Json& input : summary["inputs"]) files.push_back(input["file"].get<std::string>());
  const std::vector<std::string> names = short_names(files);
  std::map<std::string, std::string> by_file;
  for (std::size_t i = 0; i < files.size(); ++i) by_file[files[i].string()] = names[i];
  return by_file;
}

}  // namespace chalcedony::cli
