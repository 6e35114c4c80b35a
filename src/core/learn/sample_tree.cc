#include "core/learn/sample_tree.h"

#include <algorithm>
#include <limits>
#include <numeric>
#include <utility>

#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/sample_tree.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Writes the squared distances of the rows of a leaf that are not above `worst`, and their places;
// returns how many there are.
std::size_t near_rows(const float* row, std::size_t features, const float* leaf, std::size_t stride,
                      float worst, float* distances, std::int32_t* places) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  std::size_t found = 0;
  for (std::size_t i = 0; i < stride; i += hn::Lanes(d)) {
    auto distance = hn::Zero(d);
    for (std::size_t f = 0; f < features; ++f) {
      const auto step = hn::Sub(hn::Set(d, row[f]), hn::LoadU(d, leaf + f * stride + i));
      distance = hn::Add(distance, hn::Mul(step, step));
    }
    const auto near = hn::Le(distance, hn::Set(d, worst));
    if (hn::AllFalse(d, near)) continue;
    const auto place = hn::Iota(di, static_cast<std::int32_t>(i));
    hn::CompressStore(place, hn::RebindMask(di, near), di, places + found);
    found += hn::CompressStore(distance, near, d, distances + found);
  }
  return found;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(near_rows);

constexpr std::uint32_t kLeafRows = 32;
// Stands where a leaf has no row: farther than every limit.
constexpr float kNoRow = 1e19f;
constexpr float kNoLimit = 3e38f;
void make_room(NeighborSearch& search) {
  search.distances.resize(kLeafRows + 2 * kPlanePadding);
  search.places.resize(kLeafRows + 2 * kPlanePadding);
}

}  // namespace

struct SampleTree::Query {
  const float* row;
  std::uint64_t pixels;
  std::vector<Neighbor>& found;
  NeighborSearch& room;
  float worst = kNoLimit;
  std::uint64_t held = 0;

  void take(const Neighbor& neighbor) {
    std::size_t at = found.size();
    found.push_back(neighbor);
    for (; at > 0 && neighbor < found[at - 1]; --at) found[at] = found[at - 1];
    found[at] = neighbor;
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
  boxes_.clear();
  if (!order_.empty()) build_node(0, static_cast<std::uint32_t>(rows()));
  leaves_.clear();
  for (Node& node : nodes_)
    if (node.second == 0) add_leaf(node);
}

void SampleTree::add_leaf(Node& node) {
  node.leaf = leaves_.size();
  const std::size_t stride = stride_of(node);
  leaves_.resize(node.leaf + features_ * stride, kNoRow);
  for (std::size_t f = 0; f < features_; ++f)
    for (std::uint32_t i = node.begin; i < node.end; ++i)
      leaves_[node.leaf + f * stride + (i - node.begin)] = values_[order_[i] * features_ + f];
}

std::uint32_t SampleTree::add_box(std::uint32_t begin, std::uint32_t end) {
  std::uint32_t widest = 0;
  float width = -1;
  for (std::uint32_t f = 0; f < features_; ++f) {
    float low = std::numeric_limits<float>::infinity(), high = -low;
    for (std::uint32_t i = begin; i < end; ++i) {
      const float value = values_[order_[i] * features_ + f];
      low = std::min(low, value);
      high = std::max(high, value);
    }
    boxes_.push_back(low);
    boxes_.push_back(high);
    if (high - low > width) {
      width = high - low;
      widest = f;
    }
  }
  return widest;
}

std::uint32_t SampleTree::build_node(std::uint32_t begin, std::uint32_t end) {
  const auto at = static_cast<std::uint32_t>(nodes_.size());
  nodes_.push_back({begin, end, 0, 0});
  const std::uint32_t feature = add_box(begin, end), middle = begin + (end - begin) / 2;
  if (end - begin <= kLeafRows) return at;
  const auto value = [&](std::uint32_t r) { return values_[r * features_ + feature]; };
  const auto place = [&](std::uint32_t i) { return order_.begin() + i; };
  std::nth_element(place(begin), place(middle), place(end), [&](std::uint32_t a, std::uint32_t b) {
    return value(a) != value(b) ? value(a) < value(b) : a < b;
  });
  build_node(begin, middle);
  const std::uint32_t second = build_node(middle, end);
  nodes_[at].second = second;
  return at;
}

void SampleTree::nearest(const float* row, std::uint64_t pixels, NeighborSearch& search) const {
  const float limit = first_limit(row, pixels, search);
  search.tree = this;
  search.found.clear();
  make_room(search);
  if (nodes_.empty()) return;
  Query query{row, pixels, search.found, search, limit};
  visit(0, query);
}

float SampleTree::distance_to_row(std::uint32_t r, const float* row) const {
  float distance = 0;
  for (std::size_t f = 0; f < features_; ++f) {
    const float step = row[f] - values_[r * features_ + f];
    distance += step * step;
  }
  return distance;
}

float SampleTree::first_limit(const float* row, std::uint64_t pixels,
                              const NeighborSearch& last) const {
  if (last.tree != this) return kNoLimit;
  float limit = 0;
  std::uint64_t held = 0;
  for (const Neighbor& neighbor : last.found) {
    limit = std::max(limit, distance_to_row(neighbor.row, row));
    held += neighbor.pixels;
  }
  return held >= pixels ? limit : kNoLimit;
}

bool SampleTree::has_within(const float* row, float squared_distance,
                            NeighborSearch& search) const {
  if (nodes_.empty()) return false;
  make_room(search);
  return has_within(0, row, squared_distance, search);
}

bool SampleTree::has_within(std::uint32_t at, const float* row, float squared_distance,
                            NeighborSearch& search) const {
  if (distance_to_box(at, row) > squared_distance) return false;
  const Node& node = nodes_[at];
  if (node.second == 0)
    return HWY_DYNAMIC_DISPATCH(near_rows)(row, features_, leaves_.data() + node.leaf,
                                           stride_of(node), squared_distance,
                                           search.distances.data(), search.places.data()) > 0;
  return has_within(at + 1, row, squared_distance, search) ||
         has_within(node.second, row, squared_distance, search);
}

// Rounded as the distances of rows are, so never above that of a row inside.
float SampleTree::distance_to_box(std::uint32_t node, const float* row) const {
  const float* const box = boxes_.data() + node * features_ * 2;
  float distance = 0;
  for (std::size_t f = 0; f < features_; ++f) {
    const float step = std::max({box[2 * f] - row[f], row[f] - box[2 * f + 1], 0.0f});
    distance += step * step;
  }
  return distance;
}

void SampleTree::visit(std::uint32_t at, Query& query) const {
  const Node& node = nodes_[at];
  if (node.second == 0) return visit_leaf(node, query);
  std::uint32_t near = at + 1, far = node.second;
  float near_distance = distance_to_box(near, query.row);
  float far_distance = distance_to_box(far, query.row);
  if (far_distance < near_distance) {
    std::swap(near, far);
    std::swap(near_distance, far_distance);
  }
  if (near_distance <= query.worst) visit(near, query);
  if (far_distance <= query.worst) visit(far, query);
}

void SampleTree::visit_leaf(const Node& node, Query& query) const {
  NeighborSearch& room = query.room;
  const std::size_t near = HWY_DYNAMIC_DISPATCH(near_rows)(
      query.row, features_, leaves_.data() + node.leaf, stride_of(node), query.worst,
      room.distances.data(), room.places.data());
  for (std::size_t i = 0; i < near; ++i) {
    if (room.distances[i] > query.worst) continue;
    const std::uint32_t r = order_[node.begin + static_cast<std::uint32_t>(room.places[i])];
    query.take({room.distances[i], entries_[r], pixels_[r], r});
  }
}

}  // namespace chalcedony
#endif
