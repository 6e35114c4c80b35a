#include "job/run/long_table.h"

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

/// Tables to be filled in one by one, which none of all would be.
constexpr std::string_view kToFillIn = "truth.csv";

/// THING.csv of `<stem>.THING.csv`; empty for all other files.
std::string table_name(const path& file, const path& stem) {
  const std::string name = file.filename().string(), begin = stem.filename().string() + ".";
  if (file.extension() != ".csv" || !name.starts_with(begin)) return {};
  const std::string thing = name.substr(begin.size());
  return thing == kToFillIn ? std::string() : thing;
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

/// Pictures and their tables of one kind.
using TableParts = std::vector<std::pair<path, path>>;

void join_color_tables(const path& joined, const TableParts& parts) {
  std::vector<path> files;
  for (const auto& [input, file] : parts) files.push_back(file);
  write_color_table(joined, added_color_tables(files));
}

/// The rows of all below each other.
void join_rows(const path& joined, const TableParts& parts,
               const std::function<void(const std::string&)>& warn) {
  LongTable table(joined);
  for (const auto& [input, file] : parts)
    if (!table.add(input, read_text_file(file)))
      warn(file.string() + ": has other columns than the first and is left out of " +
           joined.filename().string());
  table.commit();
}

/// Tables that are joined in a way of their own.
struct OwnJoin {
  std::string_view name;
  void (*join)(const path& joined, const TableParts& parts);
};
constexpr OwnJoin kOwnJoins[]{{"colors.csv", join_color_tables},
                              {"suggested.csv", write_suggestions_in_order}};

/// Null for all others.
const OwnJoin* own_join(std::string_view name) {
  for (const OwnJoin& one : kOwnJoins)
    if (one.name == name) return &one;
  return nullptr;
}

/// The parts of each table, by its name.
std::map<std::string, TableParts> parts_of_tables(const std::vector<PictureResults>& pictures) {
  std::map<std::string, TableParts> tables;
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
    if (const OwnJoin* const own = own_join(name)) {
      own->join(folder / name, parts);
    } else {
      join_rows(folder / name, parts, warn);
    }
  }
  return written;
}

}  // namespace chalcedony
