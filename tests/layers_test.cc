// The house: which layer may include what.
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <string>

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

}  // namespace

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
