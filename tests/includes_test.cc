// That every file includes what it uses. Builds may read the large headers of libraries once for
// all files, and compile several files as one; both hide an include that is missing.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <string>
#include <vector>

namespace {

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

using Lines = std::vector<std::string>;
using Names = std::set<std::string>;

/// A file of the house, by the names in it.
struct SourceFile {
  Lines code;              // without comments and texts
  Names includes;          // <...> as it stands, and all that its own "..." includes reach
  Names types, calls;      // that it uses
  Names declared;          // types, functions and variables of its own, wherever in it
  Names declared_for_all;  // of a header: those that stand at the beginning of a line
};

Lines code_lines_of(const std::filesystem::path& path) {
  static const std::regex text(R"("(\\.|[^"\\])*")"), comment(R"(//.*)");
  std::ifstream in(path);
  Lines lines;
  for (std::string line; std::getline(in, line);)
    lines.push_back(line.starts_with("#")
                        ? line
                        : std::regex_replace(std::regex_replace(line, text, "\"\""), comment, ""));
  return lines;
}

void collect_includes(const std::string& name, const std::map<std::string, SourceFile>& files,
                      Names& found) {
  static const std::regex include(R"(^\s*#\s*include\s*([<"])([^>"]+)[>"])");
  for (const std::string& line : files.at(name).code) {
    std::smatch match;
    if (!std::regex_search(line, match, include) || !found.insert(match[2]).second) continue;
    if (match[1] == "\"" && files.count(match[2])) collect_includes(match[2], files, found);
  }
}

bool is_of_name(char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; }

/// The word that ends before `end`; with `&` and `*` of a type behind it.
std::string word_before(const std::string& line, std::size_t end) {
  while (end > 0 && line[end - 1] == ' ') --end;
  std::size_t begin = end;
  while (begin > 0 && (is_of_name(line[begin - 1]) || std::strchr("&*>", line[begin - 1]))) --begin;
  return line.substr(begin, end - begin);
}

/// Whether a name behind this word is declared there.
bool is_type(const std::string& word) {
  static const Names not_types{"return", "throw", "else", "case", "new", "delete", "co_return"};
  return !word.empty() && is_of_name(word.front()) && !not_types.count(word);
}

void collect_names(SourceFile& file) {
  static const std::regex name("[A-Za-z_]\\w*");
  static const Names makes_types{"class", "struct", "enum", "using"};
  for (const std::string& line : file.code) {
    if (line.starts_with("#")) continue;
    for (std::sregex_iterator it(line.begin(), line.end(), name), none; it != none; ++it) {
      const auto begin = static_cast<std::size_t>(it->position()), end = begin + it->length();
      const std::string word = it->str(), before = word_before(line, begin);
      const bool of_another = begin > 0 && std::strchr(".>:~", line[begin - 1]);
      const bool called = line.compare(end, 1, "(") == 0;
      const bool named = std::isupper(static_cast<unsigned char>(word.front())) != 0;
      if (named ? makes_types.count(before) > 0
                : begin > 0 && line[begin - 1] == ' ' && is_type(before)) {
        file.declared.insert(word);
      } else if (!of_another && named) {
        file.types.insert(word);
      } else if (!of_another && called) {
        file.calls.insert(word);
      }
    }
  }
}

void collect_names_for_all(SourceFile& file) {
  static const std::regex type(R"(^(?:class|struct|enum class|using) (\w+)[^;]*(?:=.*)?$)");
  static const std::regex function(
      R"(^(?!return|using|namespace|template)[a-zA-Z][\w:<>,*& ]*[ *&](\w+)\()");
  for (const std::string& line : file.code) {
    std::smatch match;
    if (std::regex_search(line, match, type) || std::regex_search(line, match, function))
      file.declared_for_all.insert(match[1]);
  }
}

std::map<std::string, SourceFile> all_files() {
  namespace fs = std::filesystem;
  std::map<std::string, SourceFile> files;
  const fs::path root = CHALCEDONY_SOURCE;
  for (const auto& entry : fs::recursive_directory_iterator(root)) {
    const std::string extension = entry.path().extension().string();
    if (extension != ".h" && extension != ".cc") continue;
    SourceFile& file = files[entry.path().lexically_relative(root).string()];
    file.code = code_lines_of(entry.path());
    collect_names(file);
    if (extension == ".h") collect_names_for_all(file);
  }
  for (auto& [name, file] : files) collect_includes(name, files, file.includes);
  return files;
}

}  // namespace

TEST_CASE("every file includes what it uses of libraries", "[house]") {
  for (const auto& [name, file] : all_files()) {
    const Names& includes = file.includes;
    for (const auto& [used, headers] : kDeclaredIn) {
      const bool uses =
          std::any_of(file.code.begin(), file.code.end(), [&, u = &used](const auto& line) {
            const auto at = line.find(*u);
            return at != std::string::npos && (at == 0 || !is_of_name(line[at - 1]));
          });
      if (!uses) continue;
      INFO(name << " uses " << used);
      CHECK(std::any_of(headers.begin(), headers.end(), [&](const std::string& header) {
        const auto at = includes.lower_bound(header);
        const bool whole = header.back() != '/' && header.find('/') == std::string::npos;
        return at != includes.end() && (whole ? *at == header : at->starts_with(header));
      }));
    }
  }
}

TEST_CASE("every file includes what it uses of the house", "[house]") {
  const auto files = all_files();
  std::map<std::string, Names> headers;  // by what they declare
  for (const auto& [name, file] : files)
    for (const std::string& declared : file.declared_for_all) headers[declared].insert(name);
  CHECK(headers.size() > 1000);
  for (const auto& [name, file] : files) {
    const Names& includes = file.includes;
    Names declared = file.declared;
    for (const std::string& include : includes)
      if (files.count(include)) declared.merge(Names(files.at(include).declared));
    Names used = file.types;
    used.insert(file.calls.begin(), file.calls.end());
    for (const std::string& one : used) {
      const auto in = headers.find(one);
      if (in == headers.end() || declared.count(one) || in->second.count(name)) continue;
      INFO(name << " uses " << one << " of " << *in->second.begin());
      CHECK(std::any_of(in->second.begin(), in->second.end(),
                        [&](const std::string& header) { return includes.count(header) > 0; }));
    }
  }
}
