// A page opened in a browser without a screen.
#ifndef CHALCEDONY_TESTS_SUPPORT_BROWSER_H_
#define CHALCEDONY_TESTS_SUPPORT_BROWSER_H_

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/temp_dir.h"

namespace chalcedony::test {

/// Whether pages cannot be opened, of which it warns: Chromium is not installed.
bool lacks_browser();

/// Opens a copy of a page in a window of this size ("1280,800"), has a script fill the object
/// `found` once it is loaded, and returns that. Checks that the page wrote nothing to the browser's
/// console, errors and warnings too.
nlohmann::json found_on_page(const TempDir& dir, const std::filesystem::path& page,
                             const std::string& script, const std::string& size = "1280,800");

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_BROWSER_H_
