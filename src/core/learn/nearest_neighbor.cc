#include "core/learn/nearest_neighbor.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <limits>

#include "core/error.h"
#include "core/learn/sample_tree.h"
#include "core/learn/score_limits.h"

namespace chalcedony {
namespace {

void add_rows(const ClassSamples& samples, std::size_t entry, SampleTree& tree) {
  for (std::size_t i = 0; i < samples.rows(); ++i)
    tree.add(samples.row(i), static_cast<std::uint32_t>(entry), samples.counts[i]);
}

void require_samples(const Model& model) {
  for (const ModelClass& c : model.classes)
    if (c.samples.rows() == 0)
      throw InputError("class '" + c.name + "' has no sample pixels in the model",
                       "train it with --method nearest-neighbor");
}

/// How many of the nearest `pixels` sample pixels are of each entry.
void count_votes(const std::vector<Neighbor>& found, std::uint64_t pixels,
                 std::vector<std::uint64_t>& votes) {
  std::fill(votes.begin(), votes.end(), 0u);
  for (const Neighbor& neighbor : found) {
    const std::uint64_t voting = std::min(neighbor.pixels, pixels);
    votes[neighbor.entry] += voting;
    pixels -= voting;
  }
}

class NearestNeighbor : public Classifier {
 public:
  NearestNeighbor(const Model& model, const ClassLimits& limits)
      : neighbors_(std::max<std::size_t>(1, model.neighbors)),
        dimensions_(model.classes.front().samples.features),
        limits_(score_limits(limits, model.classes.size(),
                             [](std::size_t, double distance) { return -distance * distance; })),
        all_(dimensions_) {
    require_samples(model);
    for (std::size_t e = 0; e < model.classes.size(); ++e) {
      add_rows(model.classes[e].samples, e, all_);
      add_rows(model.classes[e].samples, e, of_entry_.emplace_back(dimensions_));
      of_entry_.back().build();
    }
    all_.build();
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    if (flags.contested) std::fill_n(flags.contested, n, std::uint8_t{0});
    Room room(*this);
    for (std::size_t i = 0; i < n; ++i) {
      labels[i] = 0;
      if (flags.far) flags.far[i] = 0;
      if (!room.take(features, i)) continue;
      const std::size_t winner = vote(room);
      const float first = distance_in(room.search.found, winner);
      if (-first >= limits_.accepted[winner]) labels[i] = static_cast<Label>(winner + 1);
      if (flags.far) flags.far[i] = is_far(room);
    }
  }

  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    Room room(*this);
    for (std::size_t i = 0; i < n; ++i) {
      const bool whole = room.take(features, i);
      for (std::size_t e = 0; e < planes.size(); ++e)
        planes[e][i] =
            whole ? std::sqrt(squared_distance(room, e)) : std::numeric_limits<float>::quiet_NaN();
    }
  }

  void sample_distances(std::size_t entry, const std::vector<const float*>& features, std::size_t n,
                        float* out) const override {
    Room room(*this);
    for (std::size_t i = 0; i < n; ++i) {
      room.take(features, i);
      of_entry_[entry].nearest(room.row.data(), 2, room.search);
      // The sample itself comes first; a second pixel of the same color is as near.
      const std::vector<Neighbor>& found = room.search.found;
      const bool other = found.front().pixels < 2 && found.size() > 1;
      out[i] = other ? std::sqrt(found[1].squared_distance) : 0.0f;
    }
  }

  bool knows_likelihood() const override { return neighbors_ > 1; }

  void probabilities(const std::vector<const float*>& features, std::size_t n,
                     const std::vector<float*>& planes) const override {
    Room room(*this);
    for (std::size_t i = 0; i < n; ++i) {
      const bool whole = room.take(features, i);
      if (whole) vote(room);
      std::uint64_t all = 0;
      for (const std::uint64_t votes : room.votes) all += votes;
      for (std::size_t e = 0; e < planes.size(); ++e)
        planes[e][i] = whole ? static_cast<float>(room.votes[e]) / static_cast<float>(all) : 0.0f;
    }
  }

  bool is_slow() const override { return true; }
  std::size_t classes() const override { return of_entry_.size(); }

 private:
  /// What one thread works in.
  struct Room {
    std::vector<float> row;
    NeighborSearch search, other;
    std::vector<std::uint64_t> votes;

    explicit Room(const NearestNeighbor& own) : row(own.dimensions_), votes(own.of_entry_.size()) {}

    /// Takes pixel i; false when a feature of it is not a number.
    bool take(const std::vector<const float*>& features, std::size_t i) {
      bool whole = true;
      for (std::size_t f = 0; f < row.size(); ++f) {
        row[f] = features[f][i];
        whole = whole && std::isfinite(row[f]);
      }
      return whole;
    }
  };

  std::size_t vote(Room& room) const {
    all_.nearest(room.row.data(), neighbors_, room.search);
    count_votes(room.search.found, neighbors_, room.votes);
    return static_cast<std::size_t>(std::max_element(room.votes.begin(), room.votes.end()) -
                                    room.votes.begin());
  }

  static float distance_in(const std::vector<Neighbor>& found, std::size_t entry) {
    for (const Neighbor& neighbor : found)
      if (neighbor.entry == entry) return neighbor.squared_distance;
    return std::numeric_limits<float>::infinity();
  }

  float squared_distance(Room& room, std::size_t entry) const {
    of_entry_[entry].nearest(room.row.data(), 1, room.other);
    return room.other.found.front().squared_distance;
  }

  /// The nearest sample settles it for most pixels.
  bool is_far(Room& room) const {
    const Neighbor& nearest = room.search.found.front();
    if (-nearest.squared_distance >= limits_.known[nearest.entry]) return false;
    for (std::size_t e = 0; e < of_entry_.size(); ++e)
      if (of_entry_[e].has_within(room.row.data(), -limits_.known[e], room.other)) return false;
    return true;
  }

  std::uint64_t neighbors_;
  std::size_t dimensions_;
  ScoreLimits limits_;
  SampleTree all_;
  std::deque<SampleTree> of_entry_;
};

}  // namespace

std::unique_ptr<Classifier> make_nearest_neighbor(const Model& model, const ClassLimits& limits) {
  return std::make_unique<NearestNeighbor>(model, limits);
}

Explanation explain_nearest_neighbor(const Model& model, const std::vector<double>& features) {
  require_samples(model);
  const std::vector<float> row(features.begin(), features.end());
  SampleTree tree(row.size());
  Explanation out;
  NeighborSearch search;
  for (std::size_t e = 0; e < model.classes.size(); ++e) {
    SampleTree own(row.size());
    add_rows(model.classes[e].samples, e, own);
    add_rows(model.classes[e].samples, e, tree);
    own.build();
    own.nearest(row.data(), 1, search);
    ClassExplanation& one = out.classes.emplace_back();
    one.sum = search.found.front().squared_distance;
    one.distance = std::sqrt(one.sum);
  }
  tree.build();
  const std::uint64_t neighbors = std::max<std::size_t>(1, model.neighbors);
  tree.nearest(row.data(), neighbors, search);
  std::vector<std::uint64_t> votes(out.classes.size());
  count_votes(search.found, neighbors, votes);
  for (std::size_t e = 0; e < votes.size(); ++e) {
    out.classes[e].votes = votes[e];
    out.classes[e].score = static_cast<double>(votes[e]);
  }
  out.neighbors = search.found;
  return out;
}

}  // namespace chalcedony
