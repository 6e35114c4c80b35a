#include "job/map/suggested_samples.h"

#include <utility>

#include "core/learn/sample_shape.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"

namespace chalcedony {
namespace {

std::vector<Position> outline_of(const PixelRect& square) {
  return rectangle_ring(square.x, square.y, square.width, square.height);
}

}  // namespace

SuggestedSamples::SuggestedSamples(const DoubtTiles& tiles, std::size_t most,
                                   const RasterShape& size, std::uint64_t counted,
                                   std::vector<MapClass> classes)
    : size_(size),
      counted_(counted),
      classes_(std::move(classes)),
      doubtful_(tiles.doubtful()),
      samples_(suggested_samples(tiles, most)) {}

const MapClass& SuggestedSamples::guess_of(const SuggestedSample& sample) const {
  return sample.guess == 0 ? no_class_ : classes_[sample.guess - 1];
}

void SuggestedSamples::write(const std::filesystem::path& path) const {
  SampleSet set;
  for (const SuggestedSample& sample : samples_) {
    const MapClass& guess = guess_of(sample);
    const std::size_t place = set.class_named(guess.name + "?");
    set.classes[place].color = guess.color;
    set.shapes.push_back({place, {outline_of(sample.square)}, {}, 0});
  }
  write_text_file(path, samples_text(set, size_.width, size_.height));
}

std::vector<SuggestedPlace> SuggestedSamples::places() const {
  std::vector<SuggestedPlace> places;
  for (const SuggestedSample& sample : samples_) {
    const auto& [x, y, side, height] = sample.square;
    places.push_back({places.size() + 1, x + side / 2.0, y + height / 2.0, side,
                      guess_of(sample).name, css_hex(sample.color), sample.doubtful,
                      percent(sample.doubtful, counted_)});
  }
  return places;
}

void SuggestedSamples::write_table(const std::filesystem::path& path) const {
  write_suggestions(path, places());
}

std::vector<PixelRect> SuggestedSamples::squares() const {
  std::vector<PixelRect> squares;
  for (const SuggestedSample& sample : samples_) squares.push_back(sample.square);
  return squares;
}

void SuggestedSamples::add_figure(Plot& plot, const std::filesystem::path& path,
                                  const std::string& name, const Thumbnail& picture,
                                  const std::vector<CloseUp>& near) const {
  std::vector<NumberedSample> numbered;
  for (const SuggestedSample& sample : samples_) {
    const MapClass& guess = guess_of(sample);
    numbered.push_back({sample.square, guess.name + "?", guess.color,
                        percent(sample.doubtful, counted_), near[numbered.size()]});
  }
  add_suggestions_figure(plot, path, name, numbered, picture);
}

void SuggestedSamples::report(Json& json) const {
  json["doubtful"] = doubtful_;
  json["doubtful_percent"] = percent(doubtful_, counted_);
  Json all = Json::array();
  for (const SuggestedPlace& place : places())
    all.push_back({{"number", place.number},
                   {"x", place.x},
                   {"y", place.y},
                   {"side", place.side},
                   {"guess", place.guess},
                   {"color", place.color},
                   {"pixels", place.pixels},
                   {"percent", place.percent}});
  json["suggested"] = std::move(all);
}

}  // namespace chalcedony
