// What the samples say about the choice of features.
#ifndef CHALCEDONY_CORE_LEARN_FEATURE_ADVICE_H_
#define CHALCEDONY_CORE_LEARN_FEATURE_ADVICE_H_

#include <cstddef>
#include <optional>
#include <utility>
#include <vector>

#include "core/learn/model.h"

namespace chalcedony {

/// Two classes that only one feature tells apart, by their Jeffries-Matusita distances (0-2).
struct LoneFeature {
  std::size_t first = 0, second = 0;
  std::size_t feature = 0;
  double with = 0, without = 0;
};

/// Every pair that is well apart with all features and mixed up without one of them.
std::vector<LoneFeature> lone_features(const Model& model);

/// A model that need not look at lightness: the distance of its worst pair with it and without.
struct NeedlessLightness {
  std::vector<std::size_t> features;  // those that remain
  double with = 0, without = 0;
};

/// Nothing when the model has no lightness, nothing else, or needs it. A model without lightness
/// does not see shading, which changes lightness most.
std::optional<NeedlessLightness> needless_lightness(const Model& model);

/// The two features whose class means lie widest apart, by the spread within classes; of a model
/// with two or more.
std::pair<std::size_t, std::size_t> most_telling_features(const Model& model);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_FEATURE_ADVICE_H_
