// A folder of a test's own, gone when the test ends.
#ifndef CHALCEDONY_TESTS_SUPPORT_TEMP_DIR_H_
#define CHALCEDONY_TESTS_SUPPORT_TEMP_DIR_H_

#include <stdlib.h>

#include <filesystem>
#include <fstream>
#include <set>
#include <sstream>
#include <stdexcept>
#include <string>

namespace chalcedony::test {

class TempDir {
 public:
  TempDir() {
    std::string name = (std::filesystem::temp_directory_path() / "chalcedony-test-XXXXXX").string();
    path_ = ::mkdtemp(name.data());
  }
  TempDir(const TempDir&) = delete;
  TempDir& operator=(const TempDir&) = delete;
  ~TempDir() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
  }
  const std::filesystem::path& path() const { return path_; }
  std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

  /// Names of everything in it, hidden files too.
  std::set<std::string> files() const {
    std::set<std::string> names;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(path_))
      if (!entry.is_directory())
        names.insert(std::filesystem::relative(entry.path(), path_).string());
    return names;
  }

 private:
  std::filesystem::path path_;
};

/// Copies a file of the demo data.
inline void copy_demo(const TempDir& dir, const std::string& name, const std::string& as = "") {
  std::filesystem::copy(std::string(CHALCEDONY_DEMO_DATA) + "/" + name,
                        dir / (as.empty() ? name : as));
}

/// Throws when there is no such file, so that two that are missing are not taken for equal.
inline std::string text_of_file(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  if (!in) throw std::runtime_error(path.string() + " is not there");
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}

inline void put_text(const std::filesystem::path& path, const std::string& text) {
  std::ofstream(path, std::ios::binary) << text;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_TEMP_DIR_H_
