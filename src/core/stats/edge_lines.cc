#include "core/stats/edge_lines.h"

#include <algorithm>
#include <cmath>

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
  std::uint32_t x = block.x(0), y = block.y(0);
  for (std::size_t i = 0; i < block.size; ++i) {
    if (block.counts(i)) {
      const double value = double{planes[0][i] + planes[1][i] + planes[2][i]} / 3;
      rows_[y].sum += value;
      ++rows_[y].count;
      columns_[x].sum += value;
      ++columns_[x].count;
    }
    if (++x == block.picture_width) x = 0, ++y;
  }
}

LineSums& LineSums::operator+=(const LineSums& later) {
  const auto add = [](std::vector<Line>& lines, const std::vector<Line>& more) {
    for (std::size_t i = 0; i < lines.size(); ++i) {
      lines[i].sum += more[i].sum;
      lines[i].count += more[i].count;
    }
  };
  add(rows_, later.rows_);
  add(columns_, later.columns_);
  return *this;
}

std::size_t LineSums::differing(const std::vector<Line>& lines, bool from_end,
                                double least_spread) {
  const auto mean = [](const Line& line) { return line.sum / static_cast<double>(line.count); };
  std::vector<double> inside;
  for (std::size_t i = kMostLines; i + kMostLines < lines.size(); ++i)
    if (lines[i].count > 0) inside.push_back(mean(lines[i]));
  if (inside.size() < 2 * kMostLines) return 0;
  const double middle = median(inside);
  for (double& value : inside) value = std::abs(value - middle);
  const double spread = std::max(least_spread, kRobust * median(inside));
  std::size_t count = 0;
  while (count <= kMostLines) {
    const Line& line = from_end ? lines[lines.size() - 1 - count] : lines[count];
    if (line.count == 0 || !(std::abs(mean(line) - middle) > kUnlike * spread)) break;
    ++count;
  }
  return count <= kMostLines ? count : 0;
}

EdgeLines LineSums::edges(double least_spread) const {
  return {differing(rows_, false, least_spread), differing(rows_, true, least_spread),
          differing(columns_, false, least_spread), differing(columns_, true, least_spread)};
}

}  // namespace chalcedony
