// The house: which layer may include what, and that every file includes what it uses.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <string>
#include <vector>

namespace {

const std::map<std::string, std::set<std::string>> kMayInclude{
    {"core", {"core", "Eigen", "boost/math", "hwy", "sys", "tbb"}},
    {"io",
     {"core",     "io",        "boost/locale", "nlohmann", "valijson",       "hwy",    "isa-l.h",
      "jerror.h", "jpeglib.h", "fcntl.h",      "malloc.h", "model_schema.h", "spng.h", "stdlib.h",
      "tiffio.h", "unistd.h",  "webp",         "xxhash.h", "zlib.h",         "sys"}},
    {"figure", {"core", "io", "figure", "boost/process.hpp", "fmt"}},
    {"job",
     {"core", "io", "figure", "fmt", "job", "malloc.h", "nlohmann", "report_assets.h", "tbb",
      "yaml-cpp"}},
    {"cli",
     {"core", "io", "figure", "job", "cli", "demo", "boost/program_options.hpp", "fmt", "spdlog",
      "unistd.h"}}};

/// The first part of an include: its layer or library (of Boost, which of its libraries); empty for
/// the C++ standard library.
std::string owner_of(const std::string& include) {
  const auto slash = include.find('/', include.starts_with("boost/") ? 6 : 0);
  if (slash == std::string::npos && include.starts_with("boost/")) return include;
  if (slash != std::string::npos) return include.substr(0, slash);
  return include.find('.') == std::string::npos ? "" : include;
}

using Lines = std::vector<std::string>;

Lines lines_of(const std::filesystem::path& path) {
  std::ifstream in(path);
  Lines lines;
  for (std::string line; std::getline(in, line);) lines.push_back(line);
  return lines;
}

/// What a file includes: <...> as it stands, and all that its own "..." includes reach.
void collect_includes(const std::filesystem::path& path, std::set<std::string>& found) {
  static const std::regex include(R"(^\s*#\s*include\s*([<"])([^>"]+)[>"])");
  for (const std::string& line : lines_of(path)) {
    std::smatch match;
    if (!std::regex_search(line, match, include) || !found.insert(match[2]).second) continue;
    if (match[1] == "\"")
      collect_includes(std::string(CHALCEDONY_SOURCE) + "/" + match[2].str(), found);
  }
}

/// What stands in front of a name, and the beginnings of headers that declare it.
const std::map<std::string, std::vector<std::string>> kDeclaredIn{
    {"nlohmann::", {"nlohmann/"}},
    {"Eigen::", {"Eigen/"}},
    {"fmt::", {"fmt/"}},
    {"tbb::", {"tbb/"}},
    {"po::", {"boost/program_options"}},
    {"spdlog::", {"spdlog/"}},
    {"std::vector<", {"vector"}},
    {"std::string ", {"string"}},
    {"std::string_view", {"string_view"}},
    {"std::array<", {"array"}},
    {"std::optional<", {"optional"}},
    {"std::map<", {"map"}},
    {"std::set<", {"set"}},
    {"std::function<", {"functional"}},
    {"std::unique_ptr<", {"memory"}},
    {"std::shared_ptr<", {"memory"}},
    {"std::ostream&", {"iosfwd", "ostream", "iostream"}},
    {"std::filesystem::", {"filesystem"}},
    {"std::sort(", {"algorithm"}},
    {"std::max(", {"algorithm"}},
    {"std::min(", {"algorithm"}},
    {"std::clamp(", {"algorithm"}},
    {"std::iota(", {"numeric"}},
    {"std::accumulate(", {"numeric"}},
    {"std::sqrt(", {"cmath"}},
    {"std::lround(", {"cmath"}},
    {"std::uint8_t", {"cstdint"}},
    {"std::memcpy(", {"cstring"}}};

}  // namespace

// Builds may read the large headers of libraries once for all files, which hides an include that
// is missing.
TEST_CASE("every file includes what it uses", "[house]") {
  for (const auto& entry : std::filesystem::recursive_directory_iterator(CHALCEDONY_SOURCE)) {
    const std::string extension = entry.path().extension().string();
    if (extension != ".h" && extension != ".cc") continue;
    std::set<std::string> includes;
    collect_includes(entry.path(), includes);
    const Lines lines = lines_of(entry.path());
    for (const auto& [name, headers] : kDeclaredIn) {
      const bool used = std::any_of(lines.begin(), lines.end(), [&, n = &name](const auto& line) {
        const auto at = line.find(*n), comment = line.find("//");
        return at != std::string::npos && at < comment &&
               (at == 0 || !std::isalnum(static_cast<unsigned char>(line[at - 1])));
      });
      if (!used) continue;
      INFO(entry.path().string() << " uses " << name);
      CHECK(std::any_of(headers.begin(), headers.end(), [&](const std::string& header) {
        const auto at = includes.lower_bound(header);
        const bool whole = header.back() != '/' && header.find('/') == std::string::npos;
        return at != includes.end() && (whole ? *at == header : at->starts_with(header));
      }));
    }
  }
}

TEST_CASE("layers include only what is to their left", "[house]") {
  const std::regex include(R"(^\s*#\s*include\s*[<"]([^>"]+)[>"])");
  for (const auto& [layer, allowed] : kMayInclude) {
    std::size_t files = 0;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(
             std::string(CHALCEDONY_SOURCE) + "/" + layer)) {
      const std::string extension = entry.path().extension().string();
      if (extension != ".h" && extension != ".cc" && extension != ".inc") continue;
      ++files;
      std::ifstream in(entry.path());
      for (std::string line; std::getline(in, line);) {
        std::smatch match;
        if (!std::regex_search(line, match, include)) continue;
        const std::string owner = owner_of(match[1]);
        INFO(entry.path().string() << " includes " << match[1]);
        CHECK((owner.empty() || allowed.count(owner) == 1));
      }
    }
    CHECK(files > 0);
  }
}
