// Where the samples of a picture come from.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_SOURCE_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_SOURCE_H_

#include <filesystem>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "core/learn/checked_guesses.h"
#include "core/learn/model.h"
#include "core/learn/sample_shape.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// What was given on the command line.
struct SampleSources {
  // GeoJSON, tables of points or pictures of labels, of each input; or of none.
  std::vector<std::vector<std::filesystem::path>> files;
  std::map<std::filesystem::path, CheckedGuesses> checked;  // of suggested samples, by their file
  std::filesystem::path model;                              // --from
  std::vector<TrainingPicture> earlier;                     // what it was trained with
  std::vector<std::filesystem::path> painted;               // copies, one for each input
  std::vector<std::pair<std::string, std::string>> places;  // class and place, on the one input
  std::vector<std::pair<std::string, std::string>> colors;  // class and its color, CSS hexadecimal

  bool empty() const { return files.empty() && painted.empty() && places.empty() && model.empty(); }
};

/// The samples of a picture, and what to call where they come from.
struct NamedSamples {
  SampleSet samples;
  std::string from;
};

/// All samples of input `i`. Warnings: guesses that are left out, regions that are there twice.
///
/// Errors    InputError: what the readers of each kind throw; when there are none
NamedSamples samples_of_input(const SampleSources& sources, std::size_t i, CountedPicture& picture,
                              const SharedOptions& options, const Context& context);

/// The pixels of the samples. Warns, by name, of classes whose samples share pixels.
///
/// Errors    InputError naming the class of a sample that reaches outside the picture
std::vector<SampleRun> runs_of(const NamedSamples& samples, const RasterShape& shape,
                               const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_SAMPLE_SOURCE_H_
