#include "job/run/input_list.h"

#include <algorithm>
#include <array>
#include <istream>
#include <string>
#include <string_view>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/natural_order.h"
#include "io/file/whole_file.h"

namespace chalcedony {
namespace {

namespace fs = std::filesystem;

bool is_hidden(const fs::path& path) { return path.filename().string().starts_with("."); }

/// Whether a picture is one of ours that says how right a map is, by its name.
bool is_judgement_name(const fs::path& path) {
  const fs::path thing = path.stem().extension();
  return thing == ".errors" || thing == ".versus";
}

bool in_order(const fs::path& a, const fs::path& b) {
  return comes_before(a.filename().string(), b.filename().string());
}

/// The files of a folder that `may_be` takes in their order, and the folders in it.
void list_folder(const fs::path& folder, bool (*may_be)(const fs::path&),
                 std::vector<fs::path>& files, std::vector<fs::path>& folders) {
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    if (is_hidden(entry.path())) continue;
    const bool may =
        may_be(entry.path()) && !is_figure_name(entry.path()) && !is_judgement_name(entry.path());
    if (may && entry.is_regular_file()) files.push_back(entry.path());
    if (entry.is_directory()) folders.push_back(entry.path());
  }
  if (error)
    throw InputError("the folder cannot be read (" + error.message() + ")",
                     "check its name and that you may read it", folder.string());
  std::sort(files.begin(), files.end(), in_order);
  std::sort(folders.begin(), folders.end(), in_order);
}

/// The pictures below a folder, from the top; `skipped` is not entered.
void find_pictures(const fs::path& folder, bool recursive, const fs::path& skipped,
                   std::vector<fs::path>& found) {
  std::vector<fs::path> files, folders;
  list_folder(folder, is_picture_name, files, folders);
  found.insert(found.end(), files.begin(), files.end());
  if (!recursive) return;
  std::error_code error;
  for (const fs::path& below : folders)
    if (!fs::equivalent(below, skipped, error)) find_pictures(below, recursive, skipped, found);
}

}  // namespace

bool is_picture_name(const fs::path& path) {
  static const std::array<std::string_view, 6> extensions{".png", ".jpg",  ".jpeg",
                                                          ".tif", ".tiff", ".webp"};
  return std::find(extensions.begin(), extensions.end(), lower_case(path.extension().string())) !=
         extensions.end();
}

bool is_figure_name(const fs::path& path) {
  const std::string thing = path.stem().extension().string();
  return thing == ".figure" || thing == ".histogram" || thing == ".palette" ||
         thing.starts_with(".joint");
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
      throw UsageError("the folder holds no PNG, JPEG, TIFF or WebP, figures aside",
                       recursive ? "name another" : "--recursive looks into the folders below it",
                       name);
    for (const fs::path& file : found) {
      options.inputs.push_back(file);
      const fs::path below = file.parent_path().lexically_relative(name);
      if (!below.empty() && below != ".") options.below[file] = below;
    }
  }
}

std::vector<fs::path> files_in(const fs::path& folder, bool (*may_be)(const fs::path&)) {
  std::vector<fs::path> files, folders;
  list_folder(folder, may_be, files, folders);
  return files;
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
