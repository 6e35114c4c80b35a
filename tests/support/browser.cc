#include "tests/support/browser.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <initializer_list>
#include <sstream>
#include <string_view>
#include <utility>

namespace chalcedony::test {
namespace {

constexpr const char* kBrowser = "/usr/bin/chromium";

struct BrowserVisit {
  std::string dom;      // as it is once the page's scripts have run
  std::string console;  // what the page wrote to the browser's console
};

BrowserVisit visit_page(const TempDir& dir, const std::filesystem::path& page,
                        const std::string& size) {
  const std::string dom = (dir / "browser-dom.txt").string(),
                    log = (dir / "browser-log.txt").string();
  const std::string command = "timeout 60 " + std::string(kBrowser) +
                              " --headless --no-sandbox --disable-gpu --user-data-dir='" +
                              (dir / "browser").string() + "' --window-size=" + size +
                              " --virtual-time-budget=3000 --enable-logging=stderr --dump-dom "
                              "'file://" +
                              page.string() + "' >'" + dom + "' 2>'" + log + "' </dev/null";
  if (std::system(command.c_str()) != 0) return {};
  BrowserVisit visit;
  visit.dom = text_of_file(dom);
  std::istringstream lines(text_of_file(log));
  for (std::string line; std::getline(lines, line);)
    if (line.find("CONSOLE") != std::string::npos) visit.console += line + "\n";
  return visit;
}

/// The JSON in the element `found`.
nlohmann::json told_by(const BrowserVisit& visit) {
  const std::string begin = "<pre id=\"found\">";
  const std::size_t from = visit.dom.find(begin);
  if (from == std::string::npos) return {};
  const std::size_t at = from + begin.size();
  std::string text = visit.dom.substr(at, visit.dom.find("</pre>", at) - at);
  // As text stands in HTML.
  for (const auto& [escape, meaning] : {std::pair{"&lt;", "<"}, {"&gt;", ">"}, {"&amp;", "&"}})
    for (std::size_t i = text.find(escape); i != std::string::npos; i = text.find(escape, i + 1))
      text.replace(i, std::string_view(escape).size(), meaning);
  return nlohmann::json::parse(text);
}

}  // namespace

bool lacks_browser() {
  if (std::filesystem::exists(kBrowser)) return false;
  WARN("no chromium on this machine: the page was not opened");
  return true;
}

nlohmann::json found_on_page(const TempDir& dir, const std::filesystem::path& page,
                             const std::string& script, const std::string& size) {
  std::string text = text_of_file(page);
  text.insert(text.rfind("</body>"), R"(<script>
addEventListener("load", () => {
const found = {};
)" + script + R"(
found.wider = document.documentElement.scrollWidth - document.documentElement.clientWidth;
const told = document.createElement("pre"); told.id = "found";
told.textContent = JSON.stringify(found); document.body.append(told);
});
</script>)");
  const std::filesystem::path copy = page.parent_path() / "checked.html";
  put_text(copy, text);
  const BrowserVisit visit = visit_page(dir, copy, size);
  CHECK(visit.console == "");
  return told_by(visit);
}

}  // namespace chalcedony::test
