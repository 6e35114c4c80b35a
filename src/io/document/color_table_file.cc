#include "io/document/color_table_file.h"

#include <algorithm>
#include <charconv>
#include <numeric>
#include <string>
#include <string_view>

#include "core/error.h"
#include "core/pixel/zeroed_array.h"
#include "io/file/whole_file.h"

namespace chalcedony {
namespace {

constexpr std::size_t kColors = std::size_t{1} << 24;

[[noreturn]] void refuse(const std::filesystem::path& path) {
  throw InputError("is no table of colors", "give colors.csv as histogram --colors writes it",
                   path.string());
}

std::string header_of(const Space& space) {
  const std::string id(space.id);
  return id + ".r," + id + ".g," + id + ".b,pixels";
}

/// What parts the fields of a table: spreadsheets save semicolons and tabs too.
char mark_of(std::string_view header) {
  const std::size_t at = header.find_first_of(",;\t");
  return at == std::string_view::npos ? ',' : header[at];
}

const Space& space_of(std::string header, char mark, const std::filesystem::path& path) {
  std::replace(header.begin(), header.end(), mark, ',');
  for (const Space* space : all_spaces())
    if (space->is_rgb && header == header_of(*space)) return *space;
  refuse(path);
}

/// Calls use(packed color, pixels) for every row of a table.
template <class Use>
const Space& for_each_row(const std::filesystem::path& path, const Use& use) {
  const std::string text = read_text_file(path);
  std::string_view rest = text;
  const auto next_line = [&] {
    const std::size_t end = std::min(rest.find('\n'), rest.size());
    std::string_view line = rest.substr(0, end);
    rest.remove_prefix(std::min(rest.size(), end + 1));
    if (line.ends_with('\r')) line.remove_suffix(1);
    return line;
  };
  const std::string_view header = next_line();
  const char mark = mark_of(header);
  const Space& space = space_of(std::string(header), mark, path);
  while (!rest.empty()) {
    const std::string_view line = next_line();
    const char* at = line.data();
    const char* const end = at + line.size();
    std::uint64_t fields[4];
    for (std::uint64_t& field : fields) {
      const auto [stop, error] = std::from_chars(at, end, field);
      const bool last = &field == fields + 3;
      if (error != std::errc() || (last ? stop != end : stop == end || *stop != mark)) refuse(path);
      at = stop + 1;
    }
    if (fields[0] > 255 || fields[1] > 255 || fields[2] > 255 || fields[3] == 0) refuse(path);
    use(fields[0] << 16 | fields[1] << 8 | fields[2], fields[3]);
  }
  return space;
}

StoredColors colors_of(const Space& space, const ZeroedArray<std::uint64_t>& pixels) {
  StoredColors colors;
  colors.space = &space;
  for (std::size_t packed = 0; packed < kColors; ++packed) {
    if (pixels[packed] == 0) continue;
    for (const int shift : {16, 8, 0})
      colors.rgb.push_back(static_cast<std::uint8_t>(packed >> shift & 255));
    colors.pixels.push_back(pixels[packed]);
  }
  return colors;
}

}  // namespace

std::uint64_t StoredColors::all_pixels() const {
  return std::accumulate(pixels.begin(), pixels.end(), std::uint64_t{0});
}

void write_color_table(const std::filesystem::path& path, const StoredColors& colors) {
  std::vector<std::uint32_t> order(colors.pixels.size());
  std::iota(order.begin(), order.end(), 0u);
  const auto packed = [&](std::uint32_t i) {
    const std::uint8_t* const rgb = colors.rgb.data() + std::size_t{i} * 3;
    return rgb[0] << 16 | rgb[1] << 8 | rgb[2];
  };
  std::sort(order.begin(), order.end(),
            [&](std::uint32_t a, std::uint32_t b) { return packed(a) < packed(b); });
  std::string text = header_of(*colors.space) + "\r\n";
  for (const std::uint32_t i : order) {
    for (std::size_t c = 0; c < 3; ++c) text += std::to_string(colors.rgb[i * 3 + c]) + ",";
    text += std::to_string(colors.pixels[i]) + "\r\n";
  }
  write_text_file(path, text);
}

StoredColors read_color_table(const std::filesystem::path& path) {
  return added_color_tables({path});
}

StoredColors added_color_tables(const std::vector<std::filesystem::path>& paths) {
  ZeroedArray<std::uint64_t> pixels(kColors);
  const Space* first = nullptr;
  for (const auto& path : paths) {
    const Space& space = for_each_row(
        path, [&](std::uint64_t packed, std::uint64_t count) { pixels[packed] += count; });
    if (first && first != &space)
      throw InputError("holds colors of " + std::string(space.id) + ", and " +
                           paths.front().string() + " of " + std::string(first->id),
                       "add tables of one space", path.string());
    first = &space;
  }
  return colors_of(first ? *first : spaces::kSrgb, pixels);
}

}  // namespace chalcedony
