// The house: which layer may include what.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <string>
#include <vector>

namespace {

namespace fs = std::filesystem;

const std::map<std::string, std::set<std::string>> kMayInclude{
    {"core", {"core", "Eigen", "boost/math", "hwy", "sys", "tbb"}},
    {"io",
     {"core",     "io",        "boost/locale", "nlohmann", "valijson",       "hwy",    "isa-l.h",
      "jerror.h", "jpeglib.h", "fcntl.h",      "malloc.h", "model_schema.h", "spng.h", "stdlib.h",
      "tiffio.h", "unistd.h",  "webp",         "xxhash.h", "zlib.h",         "sys"}},
    {"figure", {"core", "io", "figure", "boost/process.hpp", "fmt"}},
    {"job", {"core", "io", "figure", "fmt", "job", "malloc.h", "nlohmann", "tbb", "yaml-cpp"}},
    {"cli",
     {"core", "io", "figure", "job", "cli", "demo", "boost/program_options.hpp", "fcntl.h", "fmt",
      "spdlog", "unistd.h"}}};

/// The rooms of a layer that has some, from the ground up: each includes only itself and those
/// before it. The one without a name is the folder of the layer itself.
const std::map<std::string, std::vector<std::string>> kRooms{
    {"core",
     {"", "color", "pixel", "channel", "gamut", "stats", "assess", "reframe", "region", "tidy",
      "filter", "feature", "cluster", "learn", "balance", "select", "palette"}},
    {"io", {"file", "text", "metadata", "picture", "document"}},
    {"figure", {"plot", ""}},
    {"job", {"run",     "page", "picture", "repeat", "look",    "histogram", "learn",
             "prepare", "map",  "region",  "select", "cluster", "palette",   "assess",
             "change",  "spot", "outline", "truth",  "tune",    "gather",    "report"}},
    {"cli", {"text", "options", "repeat", "help", "terminal", "commands", ""}}};

/// Of a path within a layer.
std::string room_of(const fs::path& path) {
  return path.has_parent_path() ? path.begin()->string() : "";
}

bool is_code(const fs::path& path) {
  const std::string extension = path.extension().string();
  return extension == ".h" || extension == ".cc" || extension == ".inc";
}

/// What a file includes, in the order of its lines.
std::vector<std::string> includes_of(const fs::path& path) {
  static const std::regex kInclude(R"(^\s*#\s*include\s*[<"]([^>"]+)[>"])");
  std::vector<std::string> includes;
  std::ifstream in(path);
  for (std::string line; std::getline(in, line);) {
    std::smatch match;
    if (std::regex_search(line, match, kInclude)) includes.push_back(match[1]);
  }
  return includes;
}

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
  for (const auto& [layer, allowed] : kMayInclude) {
    std::size_t files = 0;
    for (const auto& entry :
         fs::recursive_directory_iterator(fs::path(CHALCEDONY_SOURCE) / layer)) {
      if (!is_code(entry.path())) continue;
      ++files;
      for (const std::string& include : includes_of(entry.path())) {
        const std::string owner = owner_of(include);
        INFO(entry.path().string() << " includes " << include);
        CHECK((owner.empty() || allowed.count(owner) == 1));
      }
    }
    CHECK(files > 0);
  }
}

TEST_CASE("rooms of a layer include only what is below them", "[house]") {
  for (const auto& [layer, rooms] : kRooms) {
    const fs::path top = fs::path(CHALCEDONY_SOURCE) / layer;
    const auto floor_of = [&rooms = rooms](const std::string& room) {
      return std::find(rooms.begin(), rooms.end(), room) - rooms.begin();
    };
    std::set<std::string> seen;
    for (const auto& entry : fs::recursive_directory_iterator(top)) {
      if (!is_code(entry.path())) continue;
      const std::string room = room_of(entry.path().lexically_relative(top));
      INFO(entry.path().string());
      REQUIRE(floor_of(room) < std::ssize(rooms));
      seen.insert(room);
      for (const std::string& include : includes_of(entry.path())) {
        if (owner_of(include) != layer) continue;
        INFO("includes " << include);
        CHECK(floor_of(room_of(fs::path(include).lexically_relative(layer))) <= floor_of(room));
      }
    }
    CHECK(seen.size() == rooms.size());
  }
}
