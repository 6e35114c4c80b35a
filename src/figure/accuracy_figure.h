// Figures of an error matrix and of the accuracies that follow from it.
#ifndef CHALCEDONY_FIGURE_ACCURACY_FIGURE_H_
#define CHALCEDONY_FIGURE_ACCURACY_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/assess/accuracy.h"
#include "core/assess/error_matrix.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The matrix as a heat figure with counts and shares of each row, the totals and accuracies at its
/// edges. `rows` names the rows; the columns are the first of them.
void add_matrix_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<std::string>& rows, const ErrorMatrix& matrix,
                       const Accuracy& accuracy);

/// User's and producer's accuracy of every class as bars with their intervals.
void add_accuracy_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                         const std::vector<std::string>& classes, const Accuracy& accuracy);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_ACCURACY_FIGURE_H_
