// The floors that whole runs are measured against, with our own readers and writers:
//   chalcedony-floor decode FILE           only decodes a picture
//   chalcedony-floor copy FILE OUT         decodes it and writes it again
//   chalcedony-floor wide FILE OUT         the same, and says its colors are of rec2020
//   chalcedony-floor labels FILE FILE...   decodes pictures of labels, one after the other
//   chalcedony-floor mask FILE OUT         decodes it and writes a mask of its brighter pixels
//   chalcedony-floor floats FILE OUT       decodes an 8-bit one and writes its samples as floats
//   chalcedony-floor map FILE OUT          decodes it and writes a class map of eight groups
//   chalcedony-floor speckle OUT W H       writes a mask with every twentieth pixel on
//   chalcedony-floor groups FILE MAP OUT   decodes it and writes eight groups of its colors (each
//                                          channel above or below a middle): map and picture
#include <array>
#include <iostream>
#include <memory>
#include <string>

#include "core/pixel/pixel_hash.h"
#include "core/pixel/road.h"
#include "io/picture/create_picture.h"
#include "io/picture/freed_memory.h"
#include "io/picture/label_file.h"
#include "io/picture/open_picture.h"
#include "io/picture/picture_file.h"
#include "io/picture/picture_writer.h"

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

void copy(PictureFile& file, const std::string& path, const Space& space = spaces::kSrgb) {
  PictureSpec spec;
  spec.space = &space;
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

/// The decoded samples as floats.
void floats(PictureFile& file, const std::string& path) {
  PictureSpec spec;
  spec.shape = file.info.shape;
  spec.shape.sample = SampleType::kF32;
  const auto writer = create_picture(path, spec);
  const auto make_worker = [&] {
    return [&](const Band& band) {
      const std::byte* from = band.own_rows();
      const std::size_t samples = band.rows() * band.shape().row_bytes();
      std::vector<std::byte> bytes(samples * sizeof(float));
      auto* to = reinterpret_cast<float*>(bytes.data());
      for (std::size_t i = 0; i < samples; ++i)
        to[i] = static_cast<float>(std::to_integer<unsigned>(from[i])) / 255;
      return writer->encode(band.first_row(), band.rows(), std::move(bytes));
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) { writer->append(rows); });
  writer->finish();
}

void mask(PictureFile& file, const std::string& path) {
  const auto writer = create_picture(path, label_spec(file.info.shape));
  const auto make_worker = [&] {
    return [&](const Band& band) {
      const std::byte* from = band.own_rows();
      const std::size_t channels = band.shape().channels;
      std::vector<std::byte> on(std::size_t{band.rows()} * band.shape().width);
      for (std::size_t i = 0; i < on.size(); ++i)
        on[i] = from[channels * i] > std::byte{128} ? std::byte{255} : std::byte{0};
      return writer->encode(band.first_row(), band.rows(), std::move(on));
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) { writer->append(rows); });
  writer->finish();
}

void speckle(const std::string& path, std::uint32_t width, std::uint32_t height) {
  std::vector<std::byte> on(std::size_t{width} * height);
  for (std::size_t i = 0; i < on.size(); ++i)
    on[i] = mixed_bits(i) % 20 == 0 ? std::byte{255} : std::byte{0};
  write_picture(path, label_spec({width, height}), on);
}

/// One of eight for each pixel, by the middles of the photo-like pictures.
std::vector<std::byte> groups_of(const Band& band) {
  constexpr std::array<unsigned, 3> kMiddle{78, 76, 120};
  const std::byte* rgb = band.own_rows();
  std::vector<std::byte> labels(std::size_t{band.rows()} * band.shape().width);
  for (std::byte& label : labels) {
    unsigned group = 1;
    for (std::size_t c = 0; c < 3; ++c)
      group += (std::to_integer<unsigned>(*rgb++) > kMiddle[c] ? 1u : 0u) << c;
    label = static_cast<std::byte>(group);
  }
  return labels;
}

/// A class map of eight groups, of the size of a picture.
std::unique_ptr<PictureWriter> map_of_groups(const std::string& path, const RasterShape& size) {
  std::vector<LegendEntry> legend;
  for (unsigned label = 1; label <= 8; ++label)
    legend.push_back({label, "group " + std::to_string(label), "#808080"});
  return create_picture(path, class_map_spec(size, legend));
}

/// The decoded pixels as labels.
void map(PictureFile& file, const std::string& path) {
  const auto writer = map_of_groups(path, file.info.shape);
  const auto make_worker = [&] {
    return [&](const Band& band) {
      return writer->encode(band.first_row(), band.rows(), groups_of(band));
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) { writer->append(rows); });
  writer->finish();
}

/// The decoded pixels as labels, and in colors of their labels: the same numbers in both files, so
/// that they are encoded once.
void groups(PictureFile& file, const std::string& map_path, const std::string& picture_path) {
  const auto map = map_of_groups(map_path, file.info.shape);
  const auto picture =
      create_picture(picture_path, indexed_spec(file.info.shape, {8, css_color("#608040")}, false));
  const auto make_worker = [&] {
    return [&](const Band& band) {
      return map->encode(band.first_row(), band.rows(), groups_of(band));
    };
  };
  travel(*file.rows, {}, make_worker, [&](EncodedRows&& rows) {
    map->append(rows);
    picture->append(rows);
  });
  map->finish();
  picture->finish();
}

}  // namespace

int main(int argc, char** argv) {
  keep_freed_memory();
  const std::vector<std::string> words(argv + 1, argv + argc);
  if (words.size() < 2) return 2;
  if (words[0] == "copy" || words[0] == "wide") {
    PictureFile file = open_picture(words[1]);
    copy(file, words[2], words[0] == "wide" ? spaces::kRec2020 : spaces::kSrgb);
    return 0;
  }
  if (words[0] == "floats") {
    PictureFile file = open_picture(words[1]);
    floats(file, words[2]);
    return 0;
  }
  if (words[0] == "map") {
    PictureFile file = open_picture(words[1]);
    map(file, words[2]);
    return 0;
  }
  if (words[0] == "mask") {
    PictureFile file = open_picture(words[1]);
    mask(file, words[2]);
    return 0;
  }
  if (words[0] == "speckle") {
    speckle(words[1], static_cast<std::uint32_t>(std::stoul(words[2])),
            static_cast<std::uint32_t>(std::stoul(words[3])));
    return 0;
  }
  if (words[0] == "groups") {
    PictureFile file = open_picture(words[1]);
    groups(file, words[2], words[3]);
    return 0;
  }
  std::uint64_t checked = 0;
  for (std::size_t i = 1; i < words.size(); ++i)
    checked += words[0] == "labels" ? decode(*open_labels(words[i], 0).rows)
                                    : decode(*open_picture(words[i]).rows);
  std::cout << checked << '\n';
}
