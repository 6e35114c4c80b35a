#include "core/learn/confidence.h"

#include <algorithm>
#include <limits>

namespace chalcedony {

ConfidenceMeter::ConfidenceMeter(const Classifier& classifier)
    : classifier_(classifier), buffer_(classifier.classes()) {
  for (std::size_t c = 0; c < classifier.classes(); ++c) planes_.push_back(buffer_.plane(c));
}

void ConfidenceMeter::measure(const std::vector<const float*>& features, std::size_t n,
                              const Label* labels, float* confidence) {
  if (classifier_.knows_likelihood()) {
    classifier_.probabilities(features, n, planes_);
    for (std::size_t i = 0; i < n; ++i)
      confidence[i] = labels[i] == 0 ? 0.0f : planes_[labels[i] - 1u][i];
    return;
  }
  classifier_.distances(features, n, planes_);
  for (std::size_t i = 0; i < n; ++i) {
    confidence[i] = 0;
    if (labels[i] == 0) continue;
    const std::size_t own = labels[i] - 1u;
    float other = std::numeric_limits<float>::infinity();
    for (std::size_t c = 0; c < planes_.size(); ++c)
      if (c != own) other = std::min(other, planes_[c][i]);
    if (other > 0) confidence[i] = std::clamp(1 - planes_[own][i] / other, 0.0f, 1.0f);
  }
}

}  // namespace chalcedony
