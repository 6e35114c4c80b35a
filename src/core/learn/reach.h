// How far the samples of a class reach around it.
#ifndef CHALCEDONY_CORE_LEARN_REACH_H_
#define CHALCEDONY_CORE_LEARN_REACH_H_

#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "core/learn/model.h"
#include "core/learn/sample_table.h"

namespace chalcedony {

/// Points with their distances from their classes.
struct ClassedDistances {
  std::span<const float> distances;        // 0 or more
  std::span<const std::uint8_t> class_of;  // from 1 on; 0 is none
  std::span<const double> pixels;          // whole numbers: how many lie there
};

/// For each class the distances within which kReachPercents of its pixels lie, by nearest rank; all
/// 0 for a class without pixels.
///
/// Shape     as many distances, classes and pixels
std::vector<std::vector<double>> reaches_of(const ClassedDistances& points, std::size_t classes);

/// Finds the reach of every class of a model from its samples; class c of the table is entry c.
///
/// Errors    what make_classifier() throws
void measure_reach(Model& model, const SampleTable& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_REACH_H_
