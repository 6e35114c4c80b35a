// Tables of places where samples would help a class map: of one picture, and of several.
#ifndef CHALCEDONY_IO_DOCUMENT_SUGGESTION_TABLE_H_
#define CHALCEDONY_IO_DOCUMENT_SUGGESTION_TABLE_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <utility>
#include <vector>

namespace chalcedony {

/// A square of a picture that was suggested.
struct SuggestedPlace {
  std::uint64_t number = 0;  // among those of its picture, from 1
  double x = 0, y = 0;       // its middle, in pixels
  std::uint64_t side = 0;    // in pixels
  std::string guess;         // a class; empty for none
  std::string color;         // of its surroundings, as `#rrggbb`
  std::uint64_t pixels = 0;  // doubtful ones that it stands for in its picture
  double percent = 0;        // of the pixels that count there
};

/// Writes the places of one picture (docs/formats.md).
///
/// Errors    OutputError
void write_suggestions(const std::filesystem::path& path,
                       const std::vector<SuggestedPlace>& places);

/// Writes the places of several pictures, from their tables, in the order in which to check them: a
/// place stands for those of all pictures whose colors are alike (color_stand_ins()), and they
/// follow it.
///
/// `tables`: each picture and its table.
/// Errors    InputError when a table is not one that write_suggestions() wrote; OutputError
void write_suggestions_in_order(
    const std::filesystem::path& path,
    const std::vector<std::pair<std::filesystem::path, std::filesystem::path>>& tables);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_SUGGESTION_TABLE_H_
