#include "tests/support/browser.h"

#include <cstdlib>
#include <initializer_list>
#include <sstream>
#include <string_view>
#include <utility>

namespace chalcedony::test {
namespace {

constexpr const char* kBrowser = "/usr/bin/chromium";

}  // namespace

bool has_browser() { return std::filesystem::exists(kBrowser); }

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

}  // namespace chalcedony::test
