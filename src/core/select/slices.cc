#include "core/select/slices.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <numeric>

namespace chalcedony {
namespace {

class Slicer : public Classifier {
 public:
  Slicer(const Channel& channel, const std::vector<Slice>& slices)
      : is_hue_(channel.is_hue()), numbers_(class_numbers(slice_model(channel, slices))) {
    for (std::size_t s = 0; s < slices.size(); ++s) {
      Limits& one = limits_.emplace_back(
          Limits{static_cast<float>(slices[s].low), static_cast<float>(slices[s].high), false});
      const bool at_end = !channel.is_stored() && !is_hue_ && slices[s].high >= channel.info().high;
      one.closed = at_end || s + 1 == slices.size();
    }
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    for (std::size_t i = 0; i < n; ++i)
      labels[i] = is_hue_ ? label_of_hue(features[0][i], features[1][i]) : label_of(features[0][i]);
    for (std::uint8_t* const flag : {flags.far, flags.contested})
      if (flag) std::fill_n(flag, n, std::uint8_t{0});
  }

  /// A slice holds a value or not: 0 for the one that does, else 1.
  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    probabilities(features, n, planes);
    for (float* const plane : planes)
      for (std::size_t i = 0; i < n; ++i) plane[i] = 1 - plane[i];
  }

  std::size_t classes() const override {
    return *std::max_element(numbers_.begin(), numbers_.end());
  }

 private:
  struct Limits {
    float low, high;
    bool closed;

    bool holds(float v) const {
      const bool below = v < high || (closed && v == high);
      return low <= high ? v >= low && below : v >= low || below;
    }
  };

  Label label_of(float value) const {
    for (std::size_t s = 0; s < limits_.size(); ++s)
      if (limits_[s].holds(value)) return numbers_[s];
    return 0;
  }

  /// Features of a hue are its cosine and sine times chroma; both are 0 without hue.
  Label label_of_hue(float cosine, float sine) const {
    if (cosine == 0 && sine == 0) return 0;
    const float degrees = std::atan2(sine, cosine) * (180 / std::numbers::pi_v<float>);
    return label_of(degrees < 0 ? degrees + 360 : degrees);
  }

  bool is_hue_;
  std::vector<Label> numbers_;  // slices of one name are one class
  std::vector<Limits> limits_;
};

/// Whether two slices share more than an end.
bool overlap(const Slice& a, const Slice& b) {
  // One that runs through 360 is two.
  const auto parts = [](const Slice& s) {
    return s.low <= s.high ? std::vector<std::array<double, 2>>{{s.low, s.high}}
                           : std::vector<std::array<double, 2>>{{s.low, 360}, {0, s.high}};
  };
  for (const auto& p : parts(a))
    for (const auto& q : parts(b))
      if (std::max(p[0], q[0]) < std::min(p[1], q[1])) return true;
  return false;
}

}  // namespace

SliceFaults faults_of(const Channel& channel, const std::vector<Slice>& slices) {
  SliceFaults faults;
  for (std::size_t a = 0; a < slices.size(); ++a)
    for (std::size_t b = a + 1; b < slices.size(); ++b)
      if (overlap(slices[a], slices[b])) faults.overlaps.emplace_back(a, b);
  if (channel.is_hue()) return faults;
  std::vector<Slice> sorted = slices;
  std::sort(sorted.begin(), sorted.end(),
            [](const Slice& a, const Slice& b) { return a.low < b.low; });
  double reached = sorted.empty() ? 0 : sorted.front().high;
  for (const Slice& slice : sorted) {
    if (slice.low > reached) faults.gaps.emplace_back(reached, slice.low);
    reached = std::max(reached, slice.high);
  }
  return faults;
}

Model slice_model(const Channel& channel, const std::vector<Slice>& slices) {
  Model model;
  model.method = "slices";
  model.features = {channel};
  for (const Slice& slice : slices) model.classes.push_back({slice.name, slice.color, {}});
  return model;
}

std::unique_ptr<Classifier> make_slicer(const Channel& channel, const std::vector<Slice>& slices) {
  return std::make_unique<Slicer>(channel, slices);
}

std::vector<double> quantile_ends(std::span<const std::uint64_t> counts,
                                  std::span<const double> edges, std::size_t parts) {
  const double all =
      static_cast<double>(std::accumulate(counts.begin(), counts.end(), std::uint64_t{0}));
  std::vector<double> ends;
  std::size_t first = 0, last = counts.size();
  while (first < last && counts[first] == 0) ++first;
  while (last > first && counts[last - 1] == 0) --last;
  ends.push_back(edges[first]);
  double below = 0;
  for (std::size_t b = first; b < last; ++b) {
    below += static_cast<double>(counts[b]);
    const double wanted = all * static_cast<double>(ends.size()) / static_cast<double>(parts);
    if (ends.size() < parts && below >= wanted && b + 1 < last) ends.push_back(edges[b + 1]);
  }
  ends.push_back(edges[last]);
  return ends;
}

}  // namespace chalcedony
