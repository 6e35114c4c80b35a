#include "tests/support/browser.h"

#include <cstdlib>
#include <sstream>

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
  const std::size_t text = from + begin.size();
  return nlohmann::json::parse(visit.dom.substr(text, visit.dom.find("</pre>", text) - text));
}

}  // namespace chalcedony::test
