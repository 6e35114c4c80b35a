#include "core/learn/sample_tree.h"

#include <algorithm>
#include <limits>
#include <numeric>

namespace chalcedony {
namespace {

constexpr std::uint32_t kLeafRows = 12;
// Sums of squares are made along another way for halves than for rows; what rounding may differ by
// must not hide a row at exactly the same distance.
constexpr float kRoom = 1 - 1e-5f;

}  // namespace

struct SampleTree::Query {
  const float* row;
  std::uint64_t pixels;
  std::vector<Neighbor>& found;
  std::vector<float>& beside;
  float worst = std::numeric_limits<float>::infinity();
  std::uint64_t held = 0;

  void take(const Neighbor& neighbor) {
    found.insert(std::upper_bound(found.begin(), found.end(), neighbor), neighbor);
    held += neighbor.pixels;
    while (held - found.back().pixels >= pixels) {
      held -= found.back().pixels;
      found.pop_back();
    }
    if (held >= pixels) worst = found.back().squared_distance;
  }
};

void SampleTree::add(const float* row, std::uint32_t entry, std::uint64_t pixels) {
  values_.insert(values_.end(), row, row + features_);
  entries_.push_back(entry);
  pixels_.push_back(pixels);
}

void SampleTree::build() {
  order_.resize(rows());
  std::iota(order_.begin(), order_.end(), 0u);
  nodes_.clear();
  if (!order_.empty()) build_node(0, static_cast<std::uint32_t>(rows()));
  ordered_.clear();
  for (const std::uint32_t r : order_)
    ordered_.insert(ordered_.end(), values_.begin() + static_cast<std::ptrdiff_t>(r * features_),
                    values_.begin() + static_cast<std::ptrdiff_t>((r + 1) * features_));
}

std::uint32_t SampleTree::widest_feature(std::uint32_t begin, std::uint32_t end) const {
  std::uint32_t widest = 0;
  float width = -1;
  for (std::uint32_t f = 0; f < features_; ++f) {
    float low = std::numeric_limits<float>::infinity(), high = -low;
    for (std::uint32_t i = begin; i < end; ++i) {
      const float value = values_[order_[i] * features_ + f];
      low = std::min(low, value);
      high = std::max(high, value);
    }
    if (high - low > width) {
      width = high - low;
      widest = f;
    }
  }
  return widest;
}

std::uint32_t SampleTree::build_node(std::uint32_t begin, std::uint32_t end) {
  const auto at = static_cast<std::uint32_t>(nodes_.size());
  nodes_.push_back({begin, end, 0, 0, 0});
  if (end - begin <= kLeafRows) return at;
  const std::uint32_t feature = widest_feature(begin, end), middle = begin + (end - begin) / 2;
  const auto value = [&](std::uint32_t r) { return values_[r * features_ + feature]; };
  const auto place = [&](std::uint32_t i) { return order_.begin() + i; };
  std::nth_element(place(begin), place(middle), place(end), [&](std::uint32_t a, std::uint32_t b) {
    return value(a) != value(b) ? value(a) < value(b) : a < b;
  });
  nodes_[at].feature = feature;
  nodes_[at].cut = value(order_[middle]);
  build_node(begin, middle);
  const std::uint32_t second = build_node(middle, end);
  nodes_[at].second = second;
  return at;
}

void SampleTree::nearest(const float* row, std::uint64_t pixels, NeighborSearch& search) const {
  search.found.clear();
  search.beside.assign(features_, 0.0f);
  if (nodes_.empty()) return;
  Query query{row, pixels, search.found, search.beside};
  visit(0, 0, query);
}

void SampleTree::visit(std::uint32_t at, float outside, Query& query) const {
  const Node& node = nodes_[at];
  if (node.second == 0) return visit_leaf(node, query);
  const float step = query.row[node.feature] - node.cut;
  const std::uint32_t below = at + 1;
  visit(step < 0 ? below : node.second, outside, query);
  float& beside = query.beside[node.feature];
  const float before = beside;
  const float further = outside - before * before + step * step;
  if (further * kRoom > query.worst) return;
  beside = step;
  visit(step < 0 ? node.second : below, further, query);
  beside = before;
}

void SampleTree::visit_leaf(const Node& node, Query& query) const {
  for (std::uint32_t i = node.begin; i < node.end; ++i) {
    const float* const row = ordered_.data() + i * features_;
    float distance = 0;
    for (std::size_t f = 0; f < features_; ++f) {
      const float step = query.row[f] - row[f];
      distance += step * step;
    }
    if (distance > query.worst) continue;
    const std::uint32_t r = order_[i];
    query.take({distance, entries_[r], pixels_[r], r});
  }
}

}  // namespace chalcedony
