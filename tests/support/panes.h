// Folders of small pictures to run over, and what is in a folder afterwards.
#ifndef CHALCEDONY_TESTS_SUPPORT_PANES_H_
#define CHALCEDONY_TESTS_SUPPORT_PANES_H_

#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

namespace chalcedony::test {

/// panes/pane-1.png ... pane-9.png of different colors, two of them in a folder below, and a bad
/// one if asked.
inline void write_panes(const TempDir& dir, bool bad = false) {
  std::filesystem::create_directories(dir / "panes/north");
  for (unsigned i = 1; i <= 9; ++i)
    write_rgb(dir / ((i > 7 ? "panes/north/pane-" : "panes/pane-") + std::to_string(i) + ".png"),
              16, 8, random_bytes(16 * 8 * 3, i));
  if (bad) put_text(dir / "panes/pane-5b.png", "this is no picture");
}

/// A histogram of all of them, with tables of every kind and a summary.
inline const std::vector<std::string> kCountPanes{
    "histogram", "panes",     "--recursive", "--channels",   "hsv.s,lab.l", "--bins",
    "8",         "--joint",   "hsv.h,hsv.s", "--joint-bins", "6,4",         "--peaks",
    "2",         "--figures", "none",        "--summary",    "json"};

/// Every file of a folder and what is in it.
inline std::map<std::string, std::string> contents_of(const std::filesystem::path& folder) {
  std::map<std::string, std::string> contents;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
    if (entry.is_regular_file())
      contents[entry.path().lexically_relative(folder).string()] = text_of_file(entry.path());
  return contents;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PANES_H_
