#include "job/select/like_places.h"

#include <algorithm>
#include <cstddef>

#include "core/error.h"
#include "io/document/sample_file.h"
#include "job/run/partner_files.h"
#include "job/run/picture_of_result.h"

namespace chalcedony {
namespace {

using std::filesystem::path;
using LikeSide = std::vector<std::string> LikePlaces::*;

bool has_samples_of(const path& file, const std::string& name) {
  if (name.empty()) return true;
  const std::vector<SampleClass> classes = read_drawn(file).samples.classes;
  return std::any_of(classes.begin(), classes.end(),
                     [&](const SampleClass& one) { return one.name == name; });
}

class PlacesOfInputs {
 public:
  PlacesOfInputs(const std::vector<path>& inputs, RunLedger& ledger)
      : inputs_(inputs), ledger_(ledger), by_name_(inputs), found_(inputs.size()) {}

  void add(const std::string& text, LikeSide side) {
    const auto samples = sample_file_part(text);
    if (samples && names_pattern(samples->file)) return add_pattern(*samples, side);
    const std::size_t input = samples ? by_name_.place_of(samples->file).value_or(0) : 0;
    (found_[input].*side).push_back(text);
  }

  std::vector<LikePlaces> take() { return std::move(found_); }

 private:
  void add_pattern(const SampleFilePart& samples, LikeSide side) {
    const PartnerFiles files(samples.file, is_sample_file, "samples", NameCuts::kPoints);
    bool some = false;
    for (std::size_t i = 0; i < inputs_.size(); ++i) {
      const path* const file = files.find(inputs_[i]);
      if (!file || !has_samples_of(*file, samples.part)) continue;
      ledger_.reads_with(inputs_[i], *file);
      (found_[i].*side)
          .push_back(file->string() + (samples.part.empty() ? "" : ":" + samples.part));
      some = true;
    }
    if (!some)
      throw InputError(
          samples.part.empty()
              ? "no file goes with the name of an input"
              : "no file that goes with an input has samples of the class '" + samples.part + "'",
          "name the two alike, as pane.samples.geojson and pane.png", samples.file);
  }

  const std::vector<path>& inputs_;
  RunLedger& ledger_;
  PicturesByName by_name_;
  std::vector<LikePlaces> found_;
};

}  // namespace

std::vector<LikePlaces> places_of_inputs(const std::vector<std::string>& like,
                                         const std::vector<std::string>& unlike,
                                         const std::vector<path>& inputs, RunLedger& ledger) {
  PlacesOfInputs places(inputs, ledger);
  for (const std::string& text : like) places.add(text, &LikePlaces::like);
  for (const std::string& text : unlike) places.add(text, &LikePlaces::unlike);
  return places.take();
}

}  // namespace chalcedony
