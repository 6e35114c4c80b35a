#include "io/picture/open_picture.h"

#include <array>
#include <fstream>
#include <utility>

#include "core/error.h"
#include "io/picture/color_settling.h"
#include "io/picture/foreign_format.h"
#include "io/picture/orientation.h"
#include "io/picture/picture_codec.h"

namespace chalcedony {
namespace {

using Opener = PictureFile (*)(const std::filesystem::path&, const ReadOptions&);

std::string first_bytes(const std::filesystem::path& path) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error))
    throw InputError("is a folder", "name the pictures in it");
  if (std::filesystem::is_fifo(path, error) || std::filesystem::is_character_file(path, error))
    throw InputError("is a pipe or a device, which can be read only once",
                     "save the picture to a file and name that");
  std::ifstream in(path, std::ios::binary);
  // A bare word may be the value of an option that was forgotten.
  const bool bare_word = !path.has_extension() && !path.has_parent_path();
  if (!in)
    throw InputError(std::filesystem::exists(path, error) ? "cannot be opened" : "no such file",
                     bare_word ? "check its name, or write its option in front of it"
                               : "check its name and folder");
  std::array<char, 12> bytes{};
  in.read(bytes.data(), bytes.size());
  return std::string(bytes.data(), static_cast<std::size_t>(in.gcount()));
}

[[noreturn]] void refuse(const std::string& first) {
  if (const auto foreign = foreign_format(first))
    throw InputError("is " + std::string(foreign->what) + ", which this program does not read",
                     std::string(foreign->advice));
  throw InputError(first.empty() ? "is empty" : "is not a picture this program reads",
                   "give a PNG, JPEG, TIFF or WebP file");
}

Opener opener_for(const std::string& first) {
  // Some that are not read begin as one that is.
  if (foreign_format(first)) refuse(first);
  const auto starts = [&](std::string_view magic) { return first.starts_with(magic); };
  if (starts("\x89PNG")) return open_png;
  if (starts("\xff\xd8\xff")) return open_jpeg;
  for (const std::string_view magic : {std::string_view("II*\0", 4), std::string_view("MM\0*", 4),
                                       std::string_view("II+\0", 4), std::string_view("MM\0+", 4)})
    if (starts(magic)) return open_tiff;
  if (starts("RIFF") && first.size() == 12 && first.substr(8) == "WEBP") return open_webp;
  refuse(first);
}

/// Rows whose errors name their file, whoever reads them.
class NamedRows : public RowSource {
 public:
  NamedRows(std::unique_ptr<RowSource> rows, std::string name)
      : rows_(std::move(rows)), name_(std::move(name)) {}

  const RasterShape& shape() const override { return rows_->shape(); }
  void rewind() override { rows_->rewind(); }
  bool rereads_quickly() const override { return rows_->rereads_quickly(); }
  void read_rows(std::uint32_t count, std::byte* rows) override {
    errors_at(name_, [&] { rows_->read_rows(count, rows); });
  }

 private:
  std::unique_ptr<RowSource> rows_;
  std::string name_;
};

/// Takes the channels that the user names for the color.
void take_bands(PictureFile& file, const std::array<std::uint32_t, 3>& bands) {
  for (const std::uint32_t band : bands) {
    if (band < file.info.shape.channels) continue;
    const std::string name = Channel{nullptr, band}.name();
    throw InputError("--bands: there is no channel " + name + ", the picture has " +
                         std::to_string(file.info.shape.channels),
                     "the first one is file.0");
  }
  file.info.bands = ColorBands{bands, true};
}

}  // namespace

PictureFile open_picture(const std::filesystem::path& path, const ReadOptions& options) {
  return errors_at(path.string(), [&] {
    PictureFile file = opener_for(first_bytes(path))(path, options);
    file.path = path;
    check_page(options.page, file.facts.pages);
    const bool is_color = file.facts.legend.empty() && !options.palette_indices;
    if (options.full_scale > 0 && is_color && !file.info.is_float())
      file.info.full_scale = options.full_scale;
    if (options.bands && is_color) take_bands(file, *options.bands);
    settle_color(file, options);
    if (file.facts.orientation != 1) {
      file.rows = turn_upright(std::move(file.rows), file.facts.orientation);
      file.info.shape = file.rows->shape();
      file.facts.holds_picture = true;
      CarriedFacts& carried = file.facts.carried;
      carried.ground.clear();
      if (file.facts.orientation > 4)
        std::swap(carried.pixels_per_meter_x, carried.pixels_per_meter_y);
    }
    file.rows = std::make_unique<NamedRows>(std::move(file.rows), path.string());
    return file;
  });
}

}  // namespace chalcedony
