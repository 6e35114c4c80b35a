// Tables of colors that are known, such as those of a color target.
#ifndef CHALCEDONY_IO_DOCUMENT_KNOWN_COLORS_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_KNOWN_COLORS_FILE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/color/css_color.h"

namespace chalcedony {

struct KnownColor {
  std::string name;
  Color color;
};

/// Reads a CSV table with a header: `name`, then the three channels of one space, as in
/// `name,lab.l,lab.a,lab.b`; columns behind them are passed over. Specified in docs/formats.md.
///
/// Errors    InputError with the file's name: it cannot be read, another header, a value that is no
///           number, a name that is missing or there twice
std::vector<KnownColor> read_known_colors(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_KNOWN_COLORS_FILE_H_
