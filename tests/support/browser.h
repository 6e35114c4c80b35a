// A page opened in a browser without a screen.
#ifndef CHALCEDONY_TESTS_SUPPORT_BROWSER_H_
#define CHALCEDONY_TESTS_SUPPORT_BROWSER_H_

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/temp_dir.h"

namespace chalcedony::test {

struct BrowserVisit {
  std::string dom;      // as it is once the page's scripts have run
  std::string console;  // what the page wrote to the browser's console, errors and warnings too
};

/// Whether Chromium is installed.
bool has_browser();

/// Opens a page in a window of this size ("1280,800").
BrowserVisit visit_page(const TempDir& dir, const std::filesystem::path& page,
                        const std::string& size);

/// What a script of the page told: the JSON in its element `found`.
nlohmann::json told_by(const BrowserVisit& visit);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_BROWSER_H_
