// How a classifier comes to its decision on one pixel, number by number.
#ifndef CHALCEDONY_CORE_LEARN_EXPLANATION_H_
#define CHALCEDONY_CORE_LEARN_EXPLANATION_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/learn/sample_tree.h"

namespace chalcedony {

/// What one feature adds to the distance of a pixel from a class. Divided as the model's features
/// are.
struct FeatureTerm {
  double middle = 0;                          // the class mean, or the middle of its box
  double difference = 0;                      // value less middle
  double weighted = 0;                        // the difference as the method weighs it
  double part = 0;                            // what that makes of the distance
  std::optional<double> low = {}, high = {};  // the ends of a box
};

/// A pixel against one entry of the model.
struct ClassExplanation {
  std::vector<FeatureTerm> terms;   // none for nearest neighbors
  double sum = 0;                   // of the parts; of boxes the largest one
  double distance = 0;              // in the method's own measure
  double score = 0;                 // what the method compares: the highest wins
  std::optional<bool> inside = {};  // a box holds the pixel
  std::optional<double> log_determinant = {}, log_prior = {};  // of likelihoods
  std::optional<double> probability = {};                      // 0-1
  std::optional<std::uint64_t> votes = {};                     // of nearest neighbors
};

struct Explanation {
  std::vector<double> features;           // of the pixel, divided
  std::vector<ClassExplanation> classes;  // of each entry of the model
  std::vector<Neighbor> neighbors;        // those that vote, nearest first; none of other methods
};

/// The entries by how good they are, the best first, ties by number. Entries a method rules out (no
/// box, no vote) come last.
std::vector<std::size_t> ranking_of(const Explanation& explanation);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_EXPLANATION_H_
