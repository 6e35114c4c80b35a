// The knee of a falling curve: where more groups stop paying.
#ifndef CHALCEDONY_CORE_CLUSTER_KNEE_H_
#define CHALCEDONY_CORE_CLUSTER_KNEE_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// The place of the value farthest below the straight line from the first to the last, with both
/// axes scaled to 0-1; 0 for fewer than three values or a curve that nowhere lies below the line.
std::size_t knee(const std::vector<double>& values);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_KNEE_H_
