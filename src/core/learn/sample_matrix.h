// What a model says of sample pixels whose class is known.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_MATRIX_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_MATRIX_H_

#include "core/assess/error_matrix.h"
#include "core/learn/classifier.h"
#include "core/learn/model.h"
#include "core/learn/sample_table.h"

namespace chalcedony {

/// Classifies every sample pixel by `classifier`, which is one for `model`. Columns are the classes
/// of the table, which are the entries of the model; rows are what the model says, unclassified
/// last.
ErrorMatrix sample_matrix(const Classifier& classifier, const Model& model,
                          const SampleTable& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_MATRIX_H_
