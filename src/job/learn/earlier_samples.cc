#include "job/learn/earlier_samples.h"

#include <algorithm>
#include <utility>

#include "core/error.h"
#include "io/document/model_file.h"

namespace chalcedony {

std::vector<TrainingPicture> earlier_samples(const std::filesystem::path& model,
                                             const std::vector<std::filesystem::path>& inputs) {
  Model read = read_model(model);
  if (read.trained_on.empty())
    throw InputError("knows no samples that it was trained with",
                     "give a model that train wrote from sample regions", model.string());
  for (TrainingPicture& picture : read.trained_on) {
    if (std::none_of(inputs.begin(), inputs.end(), [&](const std::filesystem::path& input) {
          return input.filename() == picture.name;
        }))
      throw InputError("was trained on " + picture.name + ", which is none of the inputs",
                       "give that picture too", model.string());
    for (SampleClass& c : picture.samples.classes)
      for (const ModelClass& known : read.classes)
        if (known.name == c.name) c.color = known.color;
  }
  return std::move(read.trained_on);
}

}  // namespace chalcedony
