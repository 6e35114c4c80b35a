#include "job/select/like_places.h"

#include <algorithm>
#include <cstddef>

#include "core/error.h"
#include "core/nearest_name.h"
#include "io/document/sample_file.h"
#include "job/run/partner_files.h"
#include "job/run/picture_of_result.h"

namespace chalcedony {
namespace {

using std::filesystem::path;
using LikeSide = std::vector<std::string> LikePlaces::*;

/// The names of the classes of a sample file are added to `known`.
bool has_samples_of(const path& file, const std::string& name, std::vector<std::string>& known) {
  if (name.empty()) return true;
  bool has = false;
  for (const SampleClass& one : read_drawn(file).samples.classes) {
    has = has || one.name == name;
    known.push_back(one.name);
  }
  return has;
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
    std::vector<std::string> known;
    for (std::size_t i = 0; i < inputs_.size(); ++i) {
      const path* const file = files.find(inputs_[i]);
      if (!file || !has_samples_of(*file, samples.part, known)) continue;
      ledger_.reads_with(inputs_[i], *file);
      (found_[i].*side)
          .push_back(file->string() + (samples.part.empty() ? "" : ":" + samples.part));
      some = true;
    }
    if (some) return;
    if (known.empty())
      throw InputError("no file goes with the name of an input",
                       "name the two alike, as pane.samples.geojson and pane.png", samples.file);
    std::sort(known.begin(), known.end());
    known.erase(std::unique(known.begin(), known.end()), known.end());
    throw InputError(
        "no file that goes with an input has samples of the class '" + samples.part + "'",
        suggest_name(samples.part, known), samples.file);
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
