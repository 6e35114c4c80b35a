#include "core/stats/edge_lines.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/row_parts.h"

namespace chalcedony {
namespace {

constexpr double kRobust = 1.4826;  // makes the median of deviations a standard deviation
constexpr double kUnlike = 6;

double median(std::vector<double> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace

LineSums::LineSums(std::uint32_t width, std::uint32_t height) : rows_(height), columns_(width) {}

void LineSums::add(const Block& block, const ConstPlanes& planes) {
  for_each_row_part(block, [&](std::size_t i, std::size_t n, std::uint32_t x, std::uint32_t y) {
    double* const columns = columns_.sums.data() + x;
    double row = 0;
    std::uint64_t counted = 0;
    for (std::size_t k = 0; k < n; ++k) {
      const bool counts = block.counts(i + k);
      const double sum =
          counts ? double{planes[0][i + k] + planes[1][i + k] + planes[2][i + k]} : 0.0;
      row += sum;
      columns[k] += sum;
      counted += counts;
      columns_.counts[x + k] += counts;
    }
    rows_.sums[y] += row;
    rows_.counts[y] += counted;
  });
}

LineSums& LineSums::operator+=(const LineSums& later) {
  const auto add = [](Lines& lines, const Lines& more) {
    for (std::size_t i = 0; i < lines.sums.size(); ++i) {
      lines.sums[i] += more.sums[i];
      lines.counts[i] += more.counts[i];
    }
  };
  add(rows_, later.rows_);
  add(columns_, later.columns_);
  return *this;
}

std::size_t LineSums::differing(const Lines& lines, bool from_end, double least_spread) {
  const std::size_t n = lines.sums.size();
  const auto mean = [&](std::size_t i) {
    return lines.sums[i] / 3 / static_cast<double>(lines.counts[i]);
  };
  std::vector<double> inside;
  for (std::size_t i = kMostLines; i + kMostLines < n; ++i)
    if (lines.counts[i] > 0) inside.push_back(mean(i));
  if (inside.size() < 2 * kMostLines) return 0;
  const double middle = median(inside);
  for (double& value : inside) value = std::abs(value - middle);
  const double spread = std::max(least_spread, kRobust * median(inside));
  std::size_t count = 0;
  while (count <= kMostLines) {
    const std::size_t line = from_end ? n - 1 - count : count;
    if (lines.counts[line] == 0 || !(std::abs(mean(line) - middle) > kUnlike * spread)) break;
    ++count;
  }
  return count <= kMostLines ? count : 0;
}

EdgeLines LineSums::edges(double least_spread) const {
  return {differing(rows_, false, least_spread), differing(rows_, true, least_spread),
          differing(columns_, false, least_spread), differing(columns_, true, least_spread)};
}

}  // namespace chalcedony
