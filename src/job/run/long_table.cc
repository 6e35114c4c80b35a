#include "job/run/long_table.h"

#include <algorithm>
#include <map>
#include <string_view>
#include <utility>

#include "io/document/color_table_file.h"
#include "io/document/suggestion_table.h"
#include "io/file/atomic_file.h"
#include "io/file/whole_file.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr const char* kColorTable = "colors.csv";
constexpr const char* kSuggestions = "suggested.csv";

/// THING.csv of `<stem>.THING.csv`; empty for all other files.
std::string table_name(const path& file, const path& stem) {
  const std::string name = file.filename().string(), begin = stem.filename().string() + ".";
  if (file.extension() != ".csv" || !name.starts_with(begin)) return {};
  return name.substr(begin.size());
}

/// The end of the record that begins at `from`, past its line end; a quoted field may hold line
/// ends.
std::size_t record_end(std::string_view text, std::size_t from) {
  bool quoted = false;
  for (std::size_t i = from; i < text.size(); ++i) {
    if (text[i] == '"') quoted = !quoted;
    if (text[i] == '\n' && !quoted) return i + 1;
  }
  return text.size();
}

/// A long table while it grows.
class LongTable {
 public:
  explicit LongTable(const path& file) : file_(file) {}

  /// Adds the records of a picture's table; false when its columns are others.
  bool add(const path& input, const std::string& text) {
    std::size_t at = record_end(text, 0);
    const std::string header = text.substr(0, at);
    if (header_.empty()) {
      header_ = header;
      named_ = header.starts_with("picture,");
      file_.write(named_ ? header : "picture," + header);
    } else if (header != header_) {
      return false;
    }
    const std::string name = named_ ? "" : CsvField(input.string()).text() + ",";
    while (at < text.size()) {
      const std::size_t end = record_end(text, at);
      file_.write(name + text.substr(at, end - at));
      at = end;
    }
    return true;
  }

  void commit() { file_.commit(); }

 private:
  AtomicFile file_;
  std::string header_;
  bool named_ = false;  // its first column is the picture already
};

/// The inputs and files that make up each table, by its name.
std::map<std::string, std::vector<std::pair<path, path>>> parts_of_tables(
    const std::vector<PictureResults>& pictures) {
  std::map<std::string, std::vector<std::pair<path, path>>> tables;
  for (const PictureResults& picture : pictures)
    for (const path& file : picture.files)
      if (const std::string name = table_name(file, picture.stem); !name.empty())
        tables[name].emplace_back(picture.input, file);
  return tables;
}

}  // namespace

std::vector<std::string> long_table_names(const std::vector<PictureResults>& pictures) {
  std::vector<std::string> names;
  for (const auto& [name, parts] : parts_of_tables(pictures)) names.push_back(name);
  return names;
}

std::vector<path> write_long_tables(const std::vector<PictureResults>& pictures, const path& folder,
                                    const std::function<void(const std::string&)>& warn) {
  std::vector<path> written;
  for (const auto& [name, parts] : parts_of_tables(pictures)) {
    written.push_back(folder / name);
    if (name == kColorTable) {
      std::vector<path> files;
      for (const auto& [input, file] : parts) files.push_back(file);
      write_color_table(folder / name, added_color_tables(files));
      continue;
    }
    if (name == kSuggestions) {
      write_suggestions_in_order(folder / name, parts);
      continue;
    }
    LongTable table(folder / name);
    for (const auto& [input, file] : parts)
      if (!table.add(input, read_text_file(file)))
        warn(file.string() + ": has other columns than the first and is left out of " + name);
    table.commit();
  }
  return written;
}

}  // namespace chalcedony
