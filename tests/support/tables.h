// The published tables in tests/data.
#ifndef CHALCEDONY_TESTS_SUPPORT_TABLES_H_
#define CHALCEDONY_TESTS_SUPPORT_TABLES_H_

#include <fstream>
#include <sstream>
#include <stdexcept>
#include <string>
#include <vector>

namespace chalcedony::test {

/// Rows of a CSV file without its header; plain fields only.
inline std::vector<std::vector<std::string>> table(const std::string& name) {
  std::ifstream in(std::string(CHALCEDONY_TEST_DATA) + "/" + name);
  if (!in) throw std::runtime_error("no test table " + name);
  std::vector<std::vector<std::string>> rows;
  std::string line;
  std::getline(in, line);
  while (std::getline(in, line)) {
    auto& row = rows.emplace_back();
    std::istringstream fields(line);
    for (std::string field; std::getline(fields, field, ',');) row.push_back(field);
  }
  return rows;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_TABLES_H_
