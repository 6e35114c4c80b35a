#include "job/map/suggested_samples.h"

#include <utility>

#include "core/learn/sample_shape.h"
#include "figure/sample_figure.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

std::vector<Position> square_of(const SuggestedSample& sample) {
  const double left = sample.left, top = sample.top;
  const double right = left + sample.side, bottom = top + sample.side;
  return {{left, top}, {right, top}, {right, bottom}, {left, bottom}, {left, top}};
}

Position middle_of(const SuggestedSample& sample) {
  return {sample.left + sample.side / 2.0, sample.top + sample.side / 2.0};
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
    set.shapes.push_back({place, {square_of(sample)}, {}, 0});
  }
  write_text_file(path, samples_text(set, size_.width, size_.height));
}

void SuggestedSamples::write_table(const std::filesystem::path& path) const {
  CsvTable table({"number", "x", "y", "guess", "pixels", "percent"});
  std::uint64_t number = 0;
  for (const SuggestedSample& sample : samples_) {
    const auto [x, y] = middle_of(sample);
    table.add({++number, x, y, guess_of(sample).name, sample.doubtful, percent_of(sample)});
  }
  table.write(path);
}

void SuggestedSamples::add_figure(Plot& plot, const std::filesystem::path& path,
                                  const std::string& name, const Thumbnail& picture) const {
  std::vector<NumberedSample> numbered;
  for (const SuggestedSample& sample : samples_) {
    const MapClass& guess = guess_of(sample);
    numbered.push_back({square_of(sample), guess.name + "?", guess.color, percent_of(sample)});
  }
  add_suggestions_figure(plot, path, name, numbered, picture);
}

void SuggestedSamples::report(Json& json) const {
  json["doubtful"] = doubtful_;
  json["doubtful_percent"] = percent(doubtful_, counted_);
  Json all = Json::array();
  for (const SuggestedSample& sample : samples_) {
    const auto [x, y] = middle_of(sample);
    all.push_back({{"number", all.size() + 1},
                   {"x", x},
                   {"y", y},
                   {"guess", guess_of(sample).name},
                   {"pixels", sample.doubtful},
                   {"percent", percent_of(sample)}});
  }
  json["suggested"] = std::move(all);
}

}  // namespace chalcedony
