#include "job/run/input_list.h"

#include <algorithm>
#include <array>
#include <istream>
#include <string_view>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/natural_order.h"
#include "io/file/whole_file.h"

namespace chalcedony {
namespace {

namespace fs = std::filesystem;

bool is_hidden(const fs::path& path) { return path.filename().string().starts_with("."); }

bool is_input(const fs::directory_entry& entry) {
  return entry.is_regular_file() && !is_hidden(entry.path()) && is_picture_name(entry.path());
}

/// The pictures below a folder, from the top; `skipped` is not entered.
void find_pictures(const fs::path& folder, bool recursive, const fs::path& skipped,
                   std::vector<fs::path>& found) {
  std::vector<fs::path> files, folders;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    if (is_input(entry)) files.push_back(entry.path());
    const bool enters = recursive && entry.is_directory() && !is_hidden(entry.path());
    if (enters && !fs::equivalent(entry.path(), skipped, error)) folders.push_back(entry.path());
  }
  if (error)
    throw InputError("the folder cannot be read (" + error.message() + ")",
                     "check its name and that you may read it", folder.string());
  const auto in_order = [](const fs::path& a, const fs::path& b) {
    return comes_before(a.filename().string(), b.filename().string());
  };
  std::sort(files.begin(), files.end(), in_order);
  std::sort(folders.begin(), folders.end(), in_order);
  found.insert(found.end(), files.begin(), files.end());
  for (const fs::path& below : folders) find_pictures(below, recursive, skipped, found);
}

}  // namespace

bool is_picture_name(const fs::path& path) {
  static const std::array<std::string_view, 6> extensions{".png", ".jpg",  ".jpeg",
                                                          ".tif", ".tiff", ".webp"};
  return std::find(extensions.begin(), extensions.end(), lower_case(path.extension().string())) !=
         extensions.end();
}

bool is_table_name(const fs::path& path) { return lower_case(path.extension().string()) == ".csv"; }

void set_inputs(SharedOptions& options, const std::vector<std::string>& named, bool recursive) {
  for (const std::string& name : named) {
    std::error_code error;
    if (!fs::is_directory(name, error)) {
      options.inputs.emplace_back(name);
      continue;
    }
    std::vector<fs::path> found;
    find_pictures(name, recursive, options.output, found);
    if (found.empty())
      throw UsageError("the folder holds no PNG, JPEG, TIFF or WebP",
                       recursive ? "name another" : "--recursive looks into the folders below it",
                       name);
    for (const fs::path& file : found) {
      options.inputs.push_back(file);
      const fs::path below = file.parent_path().lexically_relative(name);
      if (!below.empty() && below != ".") options.below[file] = below;
    }
  }
  if (options.inputs.empty()) throw UsageError("no input is given", "name at least one picture");
}

std::vector<fs::path> pictures_in(const fs::path& folder) {
  std::vector<fs::path> found;
  find_pictures(folder, false, {}, found);
  return found;
}

std::vector<std::string> listed_inputs(std::istream& list) {
  std::vector<std::string> names;
  for (std::string line; std::getline(list, line);) {
    // No name has a byte 0; what has one in a list is a picture that was given in place of one.
    if (line.find('\0') != std::string::npos)
      throw InputError("the list is no text", "name a text file with one picture a line");
    if (line.starts_with(kUtf8Mark)) line.erase(0, kUtf8Mark.size());
    if (!line.empty() && line.back() == '\r') line.pop_back();
    if (!line.empty()) names.push_back(line);
  }
  return names;
}

}  // namespace chalcedony
