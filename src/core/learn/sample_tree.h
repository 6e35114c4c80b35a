// The sample rows that lie nearest to a row of features, found without looking at all of them.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

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

/// What a search found, and its room to work in; one for many searches.
struct NeighborSearch {
  std::vector<Neighbor> found;  // nearest first, ties by entry and row
  std::vector<float> beside;    // how far the part looked at lies from the row, in each feature
};

/// A k-d tree (Friedman, Bentley and Finkel 1977): the space is halved at the median of its widest
/// feature again and again, and halves that lie too far away are never looked into. Exact.
class SampleTree {
 public:
  explicit SampleTree(std::size_t features) : features_(features) {}

  /// Adds a row that stands for `pixels`. All rows come before build().
  void add(const float* row, std::uint32_t entry, std::uint64_t pixels);
  void build();
  std::size_t rows() const { return entries_.size(); }

  /// Finds the rows nearest to `row`: as many as it takes to hold `pixels`, or all there are.
  void nearest(const float* row, std::uint64_t pixels, NeighborSearch& search) const;

 private:
  struct Node {
    std::uint32_t begin = 0, end = 0;  // rows in order_
    std::uint32_t feature = 0;
    float cut = 0;
    std::uint32_t second = 0;  // the half above the cut; the one below comes next. 0: a leaf
  };
  struct Query;

  std::uint32_t build_node(std::uint32_t begin, std::uint32_t end);
  std::uint32_t widest_feature(std::uint32_t begin, std::uint32_t end) const;
  void visit(std::uint32_t node, float outside, Query& query) const;
  void visit_leaf(const Node& node, Query& query) const;

  std::size_t features_;
  std::vector<float> values_;
  std::vector<std::uint32_t> entries_;
  std::vector<std::uint64_t> pixels_;
  std::vector<std::uint32_t> order_;
  std::vector<float> ordered_;  // the values in that order
  std::vector<Node> nodes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_TREE_H_
