// How far the samples of a class reach around it.
#ifndef CHALCEDONY_CORE_LEARN_REACH_H_
#define CHALCEDONY_CORE_LEARN_REACH_H_

#include <cstdint>
#include <utility>
#include <vector>

#include "core/learn/model.h"
#include "core/learn/sample_table.h"

namespace chalcedony {

/// The distances within which kReachPercents of the pixels lie, by nearest rank.
///
/// Shape     `distances`: a distance, 0 or more, and how many pixels lie there; some pixel does
std::vector<double> reach_of(const std::vector<std::pair<float, std::uint64_t>>& distances);

/// Finds the reach of every class of a model from its samples; class c of the table is entry c.
///
/// Errors    what make_classifier() throws
void measure_reach(Model& model, const SampleTable& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_REACH_H_
