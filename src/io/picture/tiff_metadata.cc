#include "io/picture/tiff_metadata.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "io/metadata/space_note.h"
#include "io/picture/picture_codec.h"
#include "io/picture/tiff_handle.h"

namespace chalcedony {
namespace {

std::string text_tag(TIFF* tiff, std::uint32_t name) {
  char* text = nullptr;
  return TIFFGetField(tiff, name, &text) && text ? text : "";
}

/// What the first line of a description says after this keyword, when this program wrote it.
std::optional<std::string> described(const std::string& description, std::string_view keyword) {
  const std::string start = std::string(keyword) + ": ";
  if (!description.starts_with(start)) return std::nullopt;
  const std::size_t end = std::min(description.find('\n'), description.size());
  return description.substr(start.size(), end - start.size());
}

/// The description without a first line of ours.
std::string own_words(const std::string& description) {
  for (const std::string_view keyword : {kSpaceKeyword, kLegendKeyword})
    if (described(description, keyword)) {
      const std::size_t end = description.find('\n');
      return end == std::string::npos ? "" : description.substr(end + 1);
    }
  return description;
}

GroundTag ground_tag(TIFF* tiff, std::uint32_t name) {
  GroundTag found{name, {}, {}, {}};
  std::uint32_t count = 0;
  void* data = nullptr;
  if (!TIFFGetField(tiff, name, &count, &data) || !data || count == 0) return found;
  const TIFFField* const field = TIFFFieldWithTag(tiff, name);
  switch (field ? TIFFFieldDataType(field) : TIFF_NOTYPE) {
    case TIFF_DOUBLE:
      found.reals.assign(static_cast<double*>(data), static_cast<double*>(data) + count);
      break;
    case TIFF_SHORT:
      found.codes.assign(static_cast<std::uint16_t*>(data),
                         static_cast<std::uint16_t*>(data) + count);
      break;
    case TIFF_ASCII:
      found.text = static_cast<const char*>(data);
      break;
    default:
      break;
  }
  return found;
}

/// Takes over the colors and the time that the folder of Exif names, when there is one. It is read
/// by a handle of its own, as one is in one folder at a time.
void take_exif_folder(const std::filesystem::path& path, TIFF* tiff, PictureFile& file) {
  std::uint64_t place = 0;
  if (!TIFFGetField(tiff, TIFFTAG_EXIFIFD, &place)) return;
  std::string message;
  const TiffHandle folder = open_tiff_quietly(path, message);
  if (!folder || !TIFFReadEXIFDirectory(folder.get(), place)) return;
  std::uint16_t color_space = 0;
  if (TIFFGetField(folder.get(), EXIFTAG_COLORSPACE, &color_space))
    file.stated.exif = exif_colors(color_space, "");
  const std::string captured = text_tag(folder.get(), EXIFTAG_DATETIMEORIGINAL);
  if (!captured.empty()) file.facts.carried.captured = captured;
}

CarriedFacts carried_by(TIFF* tiff, const std::string& description) {
  CarriedFacts carried;
  float x = 0, y = 0;
  const auto unit = tiff_tag<std::uint16_t>(tiff, TIFFTAG_RESOLUTIONUNIT, RESUNIT_INCH);
  if (TIFFGetField(tiff, TIFFTAG_XRESOLUTION, &x) && TIFFGetField(tiff, TIFFTAG_YRESOLUTION, &y)) {
    carried.pixels_per_meter_x = per_meter(static_cast<double>(x), unit);
    carried.pixels_per_meter_y = per_meter(static_cast<double>(y), unit);
  }
  carried.description = own_words(description);
  carried.captured = text_tag(tiff, TIFFTAG_DATETIME);
  for (const std::uint32_t name : kGroundTags) {
    GroundTag found = ground_tag(tiff, name);
    if (!found.reals.empty() || !found.codes.empty() || !found.text.empty())
      carried.ground.push_back(std::move(found));
  }
  return carried;
}

std::vector<std::byte> profile_of(TIFF* tiff) {
  std::uint32_t size = 0;
  void* profile = nullptr;
  if (!TIFFGetField(tiff, TIFFTAG_ICCPROFILE, &size, &profile)) return {};
  const auto* const bytes = static_cast<const std::byte*>(profile);
  return {bytes, bytes + size};
}

}  // namespace

AlphaKind tiff_alpha(TIFF* tiff) {
  std::uint16_t count = 0;
  std::uint16_t* kinds = nullptr;
  if (!TIFFGetField(tiff, TIFFTAG_EXTRASAMPLES, &count, &kinds) || count == 0)
    return AlphaKind::kNone;
  if (kinds[count - 1] == EXTRASAMPLE_ASSOCALPHA) return AlphaKind::kPremultiplied;
  return kinds[count - 1] == EXTRASAMPLE_UNASSALPHA ? AlphaKind::kStraight : AlphaKind::kNone;
}

const Space* tiff_lab_space(TIFF* tiff) {
  float* white = nullptr;
  if (!TIFFGetField(tiff, TIFFTAG_WHITEPOINT, &white) || !white) return &spaces::kLab;
  const auto away = [&](const Chromaticity& from) {
    return std::hypot(static_cast<double>(white[0]) - from.x,
                      static_cast<double>(white[1]) - from.y);
  };
  return away(kD65) < away(kD50) ? &spaces::kLabD65 : &spaces::kLab;
}

void take_tiff_metadata(const std::filesystem::path& path, TIFF* tiff, PictureFile& file) {
  const std::string description = text_tag(tiff, TIFFTAG_IMAGEDESCRIPTION);
  file.facts.carried = carried_by(tiff, description);
  take_exif_folder(path, tiff, file);
  const auto note = described(description, kSpaceKeyword);
  if (note) {
    file.stated.noted = space_of_note(*note);
    file.facts.plane = plane_of_note(*note);
  }
  if (const auto legend = described(description, kLegendKeyword))
    file.facts.legend = parse_legend(*legend);
  file.stated.profile = profile_of(tiff);
}

}  // namespace chalcedony
