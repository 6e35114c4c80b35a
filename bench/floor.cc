// `chalcedony-floor decode FILE` only decodes a picture with our own reader; `chalcedony-floor copy
// FILE OUT` decodes it and writes it again. What whole runs are measured against.
#include <iostream>

#include "core/pixel/road.h"
#include "io/picture_file.h"
#include "io/picture_writer.h"

int main(int argc, char** argv) {
  using namespace chalcedony;
  const std::vector<std::string> arguments(argv + 1, argv + argc);
  if (arguments.size() < 2) return 2;
  PictureFile file = open_picture(arguments[1]);
  const bool copy = arguments[0] == "copy";
  PictureSpec spec;
  spec.shape = file.info.shape;
  std::unique_ptr<PictureWriter> writer;
  if (copy) writer = create_picture(arguments[2], spec);
  std::uint64_t checked = 0;  // so that decoding cannot be left out
  const auto make_worker = [&] {
    return [&](const Band& band) {
      const std::size_t size = band.rows() * band.shape().row_bytes();
      if (!copy) return EncodedRows{band.rows(), {band.own_rows()[size - 1]}, 1, 0};
      return writer->encode(band.first_row(), band.rows(),
                            {band.own_rows(), band.own_rows() + size});
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) {
    checked += std::to_integer<unsigned>(rows.bytes[0]);
    if (copy) writer->append(rows);
  });
  if (copy) writer->finish();
  std::cout << checked << '\n';
}
