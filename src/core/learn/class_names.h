// Names for the classes of a model: one by one, or several as one.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_NAMES_H_
#define CHALCEDONY_CORE_LEARN_CLASS_NAMES_H_

#include <cstddef>
#include <string>
#include <vector>

#include "core/learn/model.h"

namespace chalcedony {

/// Gives an entry of the model (1 is the first) a name.
///
/// Errors    InputError when there is no such entry, or another one has the name
void name_class(Model& model, std::size_t number, const std::string& name);

/// Makes entries one class with this name. Its color is their mean in oklab, by their pixels.
///
/// Errors    as name_class
void merge_classes(Model& model, const std::string& name, const std::vector<std::size_t>& numbers);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_NAMES_H_
