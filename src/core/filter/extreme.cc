#include "core/filter/extreme.h"

#include <algorithm>
#include <limits>
#include <map>

namespace chalcedony {
namespace {

struct Least {
  float operator()(float a, float b) const { return a < b ? a : b; }
};
struct Greatest {
  float operator()(float a, float b) const { return a > b ? a : b; }
};

/// out[i] = the extreme of in[i] to in[i + side - 1].
template <class Pick>
class RunningExtreme {
 public:
  RunningExtreme(std::size_t out_size, std::size_t side)
      : side_(side), from_left_(out_size + side - 1), from_right_(out_size + side - 1) {}

  void run(const float* in, float* out) {
    const std::size_t n = from_left_.size();
    for (std::size_t start = 0; start < n; start += side_) {
      const std::size_t end = std::min(n, start + side_);
      from_left_[start] = in[start];
      for (std::size_t i = start + 1; i < end; ++i)
        from_left_[i] = Pick()(from_left_[i - 1], in[i]);
      from_right_[end - 1] = in[end - 1];
      for (std::size_t i = end - 1; i-- > start;)
        from_right_[i] = Pick()(from_right_[i + 1], in[i]);
    }
    for (std::size_t i = 0; i + side_ <= n; ++i)
      out[i] = Pick()(from_right_[i], from_left_[i + side_ - 1]);
  }

 private:
  std::size_t side_;
  std::vector<float> from_left_, from_right_;
};

template <class Pick>
Tile across(const Tile& values, std::size_t reach, std::size_t half, std::size_t out_width) {
  Tile out(out_width, values.height());
  RunningExtreme<Pick> extreme(out_width, 2 * half + 1);
  for (std::size_t y = 0; y < values.height(); ++y)
    extreme.run(values.row(y) + reach - half, out.row(y));
  return out;
}

template <class Pick>
void pick_into(float* row, const float* other, std::size_t n) {
  for (std::size_t x = 0; x < n; ++x) row[x] = Pick()(row[x], other[x]);
}

/// The same down the columns, a whole row at a time.
template <class Pick>
void down(const Tile& values, std::size_t side, Tile& out) {
  const std::size_t n = values.height(), width = values.width();
  Tile from_top = values, from_bottom = values;
  for (std::size_t start = 0; start < n; start += side) {
    const std::size_t end = std::min(n, start + side);
    for (std::size_t y = start + 1; y < end; ++y)
      pick_into<Pick>(from_top.row(y), from_top.row(y - 1), width);
    for (std::size_t y = end - 1; y-- > start;)
      pick_into<Pick>(from_bottom.row(y), from_bottom.row(y + 1), width);
  }
  for (std::size_t y = 0; y < out.height(); ++y) {
    std::copy_n(from_bottom.row(y), width, out.row(y));
    pick_into<Pick>(out.row(y), from_top.row(y + side - 1), width);
  }
}

template <class Pick>
void extreme_in(const Tile& values, const Window& window, Tile& out) {
  const std::size_t reach = window.reach();
  if (window.is_box()) {
    down<Pick>(across<Pick>(values, reach, reach, out.width()), window.rows(), out);
    return;
  }
  // Rows of one width share their extremes across.
  std::map<std::size_t, std::vector<std::size_t>> rows_of_width;
  for (std::size_t r = 0; r < window.rows(); ++r) rows_of_width[window.half_width(r)].push_back(r);
  bool first = true;
  for (const auto& [half, rows] : rows_of_width) {
    const Tile widened = across<Pick>(values, reach, half, out.width());
    for (const std::size_t r : rows) {
      for (std::size_t y = 0; y < out.height(); ++y) {
        if (first) {
          std::copy_n(widened.row(y + r), out.width(), out.row(y));
        } else {
          pick_into<Pick>(out.row(y), widened.row(y + r), out.width());
        }
      }
      first = false;
    }
  }
}

}  // namespace

float absent_from(Extreme which) {
  constexpr float kInfinity = std::numeric_limits<float>::infinity();
  return which == Extreme::kLeast ? kInfinity : -kInfinity;
}

void window_extreme(const Tile& values, Extreme which, const Window& window, Tile& out) {
  if (which == Extreme::kLeast) {
    extreme_in<Least>(values, window, out);
  } else {
    extreme_in<Greatest>(values, window, out);
  }
}

}  // namespace chalcedony
