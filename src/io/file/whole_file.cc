#include "io/file/whole_file.h"

#include <fstream>
#include <sstream>
#include <utility>

#include "core/error.h"
#include "io/file/atomic_file.h"

namespace chalcedony {

std::string read_file(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::ostringstream text;
  text << in.rdbuf();
  if (!in) {
    const bool there = std::filesystem::exists(path);
    throw InputError(there ? "cannot be read" : "no such file", "check its name and folder",
                     path.string());
  }
  return std::move(text).str();
}

std::string read_text_file(const std::filesystem::path& path) {
  std::string text = read_file(path);
  if (text.starts_with(kUtf8Mark)) text.erase(0, kUtf8Mark.size());
  return text;
}

void write_text_file(const std::filesystem::path& path, std::string_view text) {
  AtomicFile file(path);
  file.write(text);
  file.commit();
}

}  // namespace chalcedony
