// What a run of the program said and wrote, taken apart for checks.
#ifndef CHALCEDONY_TESTS_SUPPORT_OUTCOME_H_
#define CHALCEDONY_TESTS_SUPPORT_OUTCOME_H_

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <nlohmann/json.hpp>
#include <sstream>
#include <string>
#include <vector>

#include "tests/support/temp_dir.h"
#include "tests/support/tool.h"

namespace chalcedony::test {

/// The JSON summary of a run that must have gone well.
inline nlohmann::json summary_of(const Outcome& run) {
  INFO(run.err);
  REQUIRE(run.exit_code == 0);
  return nlohmann::json::parse(run.out);
}

/// One line on stderr, in the form of the contract.
inline void check_error(const Outcome& run, int code, const std::string& says) {
  INFO(run.err);
  CHECK(run.exit_code == code);
  CHECK_THAT(run.err, Catch::StartsWith("chalcedony: error: ") && Catch::Contains(says));
  CHECK(std::count(run.err.begin(), run.err.end(), '\n') == 1);
}

/// A folder that what was refused must not have written into.
inline void check_nothing_in(const TempDir& dir, const std::string& folder) {
  for (const auto& name : dir.files()) CHECK_THAT(name, !Catch::StartsWith(folder + "/"));
}

/// The lines of a table, without their ends.
inline std::vector<std::string> lines_of(const std::filesystem::path& path) {
  std::istringstream stream(text_of_file(path));
  std::vector<std::string> lines;
  for (std::string line; std::getline(stream, line);) {
    if (!line.empty() && line.back() == '\r') line.pop_back();
    lines.push_back(line);
  }
  return lines;
}

/// The lines of a journal, each of which is JSON.
inline nlohmann::json lines_as_json(const std::filesystem::path& path) {
  auto lines = nlohmann::json::array();
  for (const std::string& line : lines_of(path)) lines.push_back(nlohmann::json::parse(line));
  return lines;
}

/// The fields of a line without quoted ones.
inline std::vector<std::string> split(const std::string& line, char at) {
  std::istringstream stream(line);
  std::vector<std::string> fields;
  for (std::string field; std::getline(stream, field, at);) fields.push_back(field);
  return fields;
}

/// The rows of a table without quoted fields, each by the names in its header.
inline std::vector<std::map<std::string, std::string>> rows_of(const std::filesystem::path& path) {
  const std::vector<std::string> lines = lines_of(path);
  const std::vector<std::string> header = split(lines.at(0), ',');
  std::vector<std::map<std::string, std::string>> rows;
  for (std::size_t l = 1; l < lines.size(); ++l) {
    const std::vector<std::string> fields = split(lines[l], ',');
    auto& row = rows.emplace_back();
    for (std::size_t f = 0; f < header.size(); ++f)
      row[header[f]] = f < fields.size() ? fields[f] : "";
  }
  return rows;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_OUTCOME_H_
