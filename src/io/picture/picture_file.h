// Pictures on disk: what a file says of itself, and its rows.
#ifndef CHALCEDONY_IO_PICTURE_PICTURE_FILE_H_
#define CHALCEDONY_IO_PICTURE_PICTURE_FILE_H_

#include <array>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/raster.h"
#include "core/pixel/row_source.h"
#include "io/metadata/carried_facts.h"
#include "io/metadata/class_legend.h"
#include "io/metadata/stated_color.h"

namespace chalcedony {

struct ReadOptions {
  const Space* assume = nullptr;  // for a file that does not say its space; null: sRGB
  std::uint64_t max_pixels = 0;   // 0: no limit
  bool palette_indices = false;   // read a palette picture as its indices
  double full_scale = 0;          // the code of integers that is full; 0: all bits set
  std::optional<std::array<std::uint32_t, 3>> bands;  // the stored channels that are r, g and b
  std::size_t page = 0;  // which picture of a file that holds several, from 1; 0: not said

  const Space& assumed() const { return assume ? *assume : spaces::kSrgb; }
};

/// What a file says of itself, for people.
struct FileFacts {
  std::string format;        // "PNG", "JPEG", "TIFF", "WebP"
  std::size_t pages = 1;     // the pictures in the file, small copies aside
  std::string layout;        // "RGB", "gray", "palette", "RGB with alpha", ...
  int bits = 8;              // of a sample as stored
  bool floats = false;       // as stored
  int significant_bits = 0;  // of those, as far as the file says so; 0: not said
  int orientation = 1;       // as stored, Exif numbers; rows come already turned
  std::string space_from;    // where the color space was learned: "sRGB chunk", "assumed", ...
  bool lossy = false;
  bool converted = false;      // the rows are floats of colors, not samples as stored
  bool holds_picture = false;  // its decoder keeps the whole picture in memory
  std::vector<LegendEntry> legend;
  CarriedFacts carried;          // upright, as the rows are
  std::optional<Channel> plane;  // its numbers are this plane of a space, by a note in the file
  std::vector<std::string> warnings;
};

/// An open picture. Its rows come top to bottom in the orientation it is meant to be seen.
struct PictureFile {
  std::filesystem::path path;
  FileFacts facts;
  PictureInfo info;
  StatedColor stated;  // what the reader found; open_picture() settled which of it counts
  std::unique_ptr<RowSource> rows;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PICTURE_FILE_H_
