// Tables of the classes that pixels of a picture truly have, as a person says who looked at each.
#ifndef CHALCEDONY_IO_DOCUMENT_TRUTH_TABLE_H_
#define CHALCEDONY_IO_DOCUMENT_TRUTH_TABLE_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// How the pixels of a table came into it.
enum class TruthDrawn {
  kByHand,      // nobody says
  kRandom,      // each as likely as the others
  kGrid,        // in even rows and columns
  kStratified,  // from each class of a map apart
};

/// In tables: "", "random", "grid" or "stratified".
const char* word_of(TruthDrawn drawn);

struct TruthPixel {
  std::uint32_t x = 0, y = 0;
  std::optional<Label> stratum = {};  // the number that the map it was drawn from has there
  std::string name = {};              // of its class; empty where nobody has said it
};

struct TruthTable {
  TruthDrawn drawn = TruthDrawn::kByHand;
  std::vector<TruthPixel> pixels;
};

/// Whether a file of a folder is such a table, by its name: `pane.classes.truth.csv`.
bool is_truth_table_name(const std::filesystem::path& file);

/// Columns number (from 1 on), x, y, drawn, stratum and class.
///
/// Errors    OutputError
void write_truth_table(const std::filesystem::path& path, const TruthTable& table);

/// The columns x, y and class of a table, and drawn and stratum where it has them; in any order.
///
/// Errors    InputError: what read_csv throws; a column is missing, x, y or a stratum is no whole
///           number, drawn is another word or not the same in all rows, a pixel is there twice
TruthTable read_truth_table(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_TRUTH_TABLE_H_
