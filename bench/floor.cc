// The floors that whole runs are measured against, with our own readers and writers:
//   chalcedony-floor decode FILE           only decodes a picture
//   chalcedony-floor copy FILE OUT         decodes it and writes it again
//   chalcedony-floor labels FILE FILE...   decodes pictures of labels, one after the other
#include <iostream>

#include "core/pixel/road.h"
#include "io/label_file.h"
#include "io/picture_file.h"
#include "io/picture_writer.h"

namespace {

using namespace chalcedony;

/// Decodes every row; returns a sum so that decoding cannot be left out.
std::uint64_t decode(RowSource& rows) {
  std::uint64_t checked = 0;
  const auto make_worker = [] {
    return [](const Band& band) {
      return std::to_integer<unsigned>(band.own_rows()[band.rows() * band.shape().row_bytes() - 1]);
    };
  };
  travel(rows, {}, make_worker, [&](unsigned last) { checked += last; });
  return checked;
}

void copy(PictureFile& file, const std::string& path) {
  PictureSpec spec;
  spec.shape = file.info.shape;
  const auto writer = create_picture(path, spec);
  const auto make_worker = [&] {
    return [&](const Band& band) {
      const std::byte* first = band.own_rows();
      return writer->encode(band.first_row(), band.rows(),
                            {first, first + band.rows() * band.shape().row_bytes()});
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) { writer->append(rows); });
  writer->finish();
}

}  // namespace

int main(int argc, char** argv) {
  const std::vector<std::string> words(argv + 1, argv + argc);
  if (words.size() < 2) return 2;
  if (words[0] == "copy") {
    PictureFile file = open_picture(words[1]);
    copy(file, words[2]);
    return 0;
  }
  std::uint64_t checked = 0;
  for (std::size_t i = 1; i < words.size(); ++i)
    checked += words[0] == "labels" ? decode(*open_labels(words[i], 0).rows)
                                    : decode(*open_picture(words[i]).rows);
  std::cout << checked << '\n';
}
