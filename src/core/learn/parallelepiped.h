// Classification by boxes: a pixel belongs to a class when every feature lies in its interval.
#ifndef CHALCEDONY_CORE_LEARN_PARALLELEPIPED_H_
#define CHALCEDONY_CORE_LEARN_PARALLELEPIPED_H_

#include <memory>
#include <vector>

#include "core/learn/classifier.h"

namespace chalcedony {

/// The box of a class is its mean and model.box_spread standard deviations to both sides, or with 0
/// the range of its samples; both ends belong to it. A pixel in no box has no class. A pixel in
/// several goes to the box whose middle it is nearest to, by the feature that is furthest out,
/// counted in half-widths of the box; ties go to the lowest number.
std::unique_ptr<Classifier> make_parallelepiped(const Model& model, const ClassLimits& limits);

/// The box of every class and how far out of its middle the pixel lies, in half-widths.
Explanation explain_parallelepiped(const Model& model, const std::vector<double>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_PARALLELEPIPED_H_
