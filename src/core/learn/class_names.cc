#include "core/learn/class_names.h"

#include <algorithm>

#include "core/color/css_color.h"
#include "core/error.h"

namespace chalcedony {
namespace {

ModelClass& entry(Model& model, std::size_t number) {
  if (number == 0 || number > model.classes.size())
    throw InputError("there is no group " + std::to_string(number),
                     "they are numbered from 1 to " + std::to_string(model.classes.size()));
  return model.classes[number - 1];
}

void check_free(const Model& model, const std::string& name, const std::vector<std::size_t>& but) {
  for (std::size_t e = 0; e < model.classes.size(); ++e)
    if (model.classes[e].name == name && std::find(but.begin(), but.end(), e + 1) == but.end())
      throw InputError("group " + std::to_string(e + 1) + " is called '" + name + "' already",
                       "give another name, or make them one with --merge");
}

}  // namespace

void name_class(Model& model, std::size_t number, const std::string& name) {
  ModelClass& one = entry(model, number);
  check_free(model, name, {number});
  one.name = name;
}

void merge_classes(Model& model, const std::string& name, const std::vector<std::size_t>& numbers) {
  Color mean{&spaces::kOklab, {}};
  double pixels = 0;
  for (const std::size_t number : numbers) {
    const ModelClass& one = entry(model, number);
    const double weight = static_cast<double>(std::max<std::uint64_t>(1, one.statistics.count));
    const auto oklab = css_color(one.color).in(spaces::kOklab);
    for (std::size_t c = 0; c < 3; ++c) mean.value[c] += weight * oklab[c];
    pixels += weight;
  }
  check_free(model, name, numbers);
  for (double& value : mean.value) value /= pixels;
  for (const std::size_t number : numbers) {
    entry(model, number).name = name;
    entry(model, number).color = css_hex(mean);
  }
}

}  // namespace chalcedony
