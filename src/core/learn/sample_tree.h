// The sample rows that lie nearest to a row of features, found without looking at all of them.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/planes.h"

namespace chalcedony {

/// Rows that lie at one distance, and are of one entry of a model.
struct Neighbor {
  float squared_distance = 0;
  std::uint32_t entry = 0;
  std::uint64_t pixels = 0;
  std::uint32_t row = 0;  // as numbered by add()

  friend bool operator<(const Neighbor& a, const Neighbor& b) {
    if (a.squared_distance != b.squared_distance) return a.squared_distance < b.squared_distance;
    return a.entry != b.entry ? a.entry < b.entry : a.row < b.row;
  }
};

class SampleTree;

/// What a search found, and its room to work in; one for many searches. The next one is quicker
/// when its row is near the last one.
struct NeighborSearch {
  std::vector<Neighbor> found;            // nearest first, ties by entry and row
  const SampleTree* tree = nullptr;       // that was searched last
  std::vector<float> distances = {};      // in a leaf
  std::vector<std::int32_t> places = {};  // of its rows that may be near enough
};

/// A k-d tree (Friedman, Bentley and Finkel 1977): rows are halved at the median of their widest
/// feature again and again, and halves whose bounding box lies too far away are never looked into.
/// Exact.
class SampleTree {
 public:
  explicit SampleTree(std::size_t features) : features_(features) {}

  /// Adds a row that stands for `pixels`. All rows come before build().
  void add(const float* row, std::uint32_t entry, std::uint64_t pixels);
  void build();
  std::size_t rows() const { return entries_.size(); }

  /// Finds the rows nearest to `row`: as many as it takes to hold `pixels`, or all there are.
  void nearest(const float* row, std::uint64_t pixels, NeighborSearch& search) const;
  /// Whether there is a row at most so far away.
  bool has_within(const float* row, float squared_distance, NeighborSearch& search) const;

 private:
  struct Node {
    std::uint32_t begin = 0, end = 0;  // rows in order_
    std::uint32_t second = 0;          // the upper half; the lower one comes next. 0: a leaf
    std::size_t leaf = 0;              // where its planes begin
  };
  struct Query;

  /// Rows of a leaf, rounded up to the padding.
  static std::size_t stride_of(const Node& leaf) {
    return (leaf.end - leaf.begin + kPlanePadding - 1) / kPlanePadding * kPlanePadding;
  }
  void add_leaf(Node& node);
  std::uint32_t build_node(std::uint32_t begin, std::uint32_t end);
  /// Appends the bounding box of some rows; returns its widest feature.
  std::uint32_t add_box(std::uint32_t begin, std::uint32_t end);
  float distance_to_row(std::uint32_t r, const float* row) const;
  /// How far the nearest rows can lie at most, by those that were found last.
  float first_limit(const float* row, std::uint64_t pixels, const NeighborSearch& last) const;
  float distance_to_box(std::uint32_t node, const float* row) const;
  bool has_within(std::uint32_t at, const float* row, float squared_distance,
                  NeighborSearch& search) const;
  void visit(std::uint32_t at, Query& query) const;
  void visit_leaf(const Node& node, Query& query) const;

  std::size_t features_;
  std::vector<float> values_;
  std::vector<std::uint32_t> entries_;
  std::vector<std::uint64_t> pixels_;
  std::vector<std::uint32_t> order_;
  std::vector<float> leaves_;  // of each leaf a plane a feature, padded
  std::vector<Node> nodes_;
  std::vector<float> boxes_;  // of each node the least, then the largest value of each feature
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_
