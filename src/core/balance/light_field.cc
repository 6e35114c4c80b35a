#include "core/balance/light_field.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/error.h"
#include "core/pixel/row_parts.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kMostCells = 64;
constexpr double kLeastOfMean = 0.05;

/// Where a pixel's center lies between the middles of two cells along one side; past the outer ones
/// the field goes on straight, so the share of the second is below 0 or above 1.
struct Between {
  std::size_t first, second;
  float share;  // of the second
};

Between between(std::uint32_t pixel, std::uint32_t pixels, std::size_t cells) {
  if (cells == 1) return {0, 0, 0};
  const double place = (pixel + 0.5) / pixels * static_cast<double>(cells) - 0.5;
  const auto first =
      static_cast<std::size_t>(std::clamp(place, 0.0, static_cast<double>(cells - 2)));
  return {first, first + 1, static_cast<float>(place - static_cast<double>(first))};
}

/// The powers of x and y in each term of a surface: 1, x, y, x^2, xy and y^2.
struct Powers {
  std::size_t x, y;
};
constexpr std::array<Powers, 6> kPowers{{{0, 0}, {1, 0}, {0, 1}, {2, 0}, {1, 1}, {0, 2}}};

std::array<double, 6> terms_at(double x, double y) {
  const std::array<double, 3> of_x{1, x, x * x}, of_y{1, y, y * y};
  std::array<double, 6> terms;
  for (std::size_t t = 0; t < terms.size(); ++t) terms[t] = of_x[kPowers[t].x] * of_y[kPowers[t].y];
  return terms;
}

}  // namespace

LightField::LightField(std::uint32_t width, std::uint32_t height)
    : width_(width),
      height_(height),
      columns_(std::min(width, kMostCells)),
      rows_(std::min(height, kMostCells)) {
  for (auto& channel : values_) channel.resize(columns_ * rows_);
  ends_between_.resize(columns_);
  for (std::uint32_t x = 0; x < width; ++x) {
    const Between across = between(x, width, columns_);
    ends_between_[across.first] = x + 1;
    shares_.push_back(across.share);
  }
}

double LightField::mean(std::size_t channel) const {
  double sum = 0;
  for (const float v : values_[channel]) sum += double{v};
  return sum / static_cast<double>(values_[channel].size());
}

void LightField::read(const Block& block, std::size_t channel, float* out) const {
  for_each_row_part(block, [&](std::size_t first, std::size_t n, std::uint32_t x, std::uint32_t y) {
    const Between down = between(y, height_, rows_);
    const float* const above = values_[channel].data() + down.first * columns_;
    const float* const below = values_[channel].data() + down.second * columns_;
    const auto end = static_cast<std::uint32_t>(x + n);
    float* to = out + first;
    std::size_t cell = between(x, width_, columns_).first;
    for (; x < end; ++cell) {
      const std::size_t next = std::min(cell + 1, columns_ - 1);
      const float left_above = above[cell], more_above = above[next] - left_above;
      const float left_below = below[cell], more_below = below[next] - left_below;
      for (const std::uint32_t last = std::min(end, ends_between_[cell]); x < last; ++x) {
        const float top = left_above + more_above * shares_[x];
        const float bottom = left_below + more_below * shares_[x];
        *to++ = top + (bottom - top) * down.share;
      }
    }
  });
}

FieldMeans::FieldMeans(std::uint32_t width, std::uint32_t height)
    : shape_(width, height), counts_(shape_.columns() * shape_.rows()) {
  for (auto& channel : sums_) channel.resize(counts_.size());
}

void FieldMeans::add(const Block& block, const ConstPlanes& light) {
  for_each_row_part(block, [&](std::size_t first, std::size_t n, std::uint32_t x, std::uint32_t y) {
    const std::size_t row = shape_.row_of(y) * shape_.columns();
    const auto end = static_cast<std::uint32_t>(x + n);
    for (std::uint32_t at = x; at < end;) {
      const std::size_t column = shape_.column_of(at);
      const std::uint32_t last = std::min(end, shape_.end_of_column(column));
      add_to_cell(row + column, block, light, first + at - x, first + last - x);
      at = last;
    }
  });
}

/// Adds the pixels from i to `last` that count.
void FieldMeans::add_to_cell(std::size_t cell, const Block& block, const ConstPlanes& light,
                             std::size_t i, std::size_t last) {
  for (; i < last; ++i) {
    if (!block.counts(i)) continue;
    for (std::size_t c = 0; c < 3; ++c) sums_[c][cell] += double{light[c][i]};
    ++counts_[cell];
  }
}

FieldMeans& FieldMeans::operator+=(const FieldMeans& later) {
  for (std::size_t cell = 0; cell < counts_.size(); ++cell) {
    for (std::size_t c = 0; c < 3; ++c) sums_[c][cell] += later.sums_[c][cell];
    counts_[cell] += later.counts_[cell];
  }
  return *this;
}

std::uint64_t FieldMeans::pixels() const {
  std::uint64_t pixels = 0;
  for (const std::uint64_t count : counts_) pixels += count;
  return pixels;
}

LightField FieldMeans::field() const {
  LightField field = shape_;
  const auto all = static_cast<double>(pixels());
  for (std::size_t c = 0; c < 3; ++c) {
    double sum = 0;
    for (const double cell : sums_[c]) sum += cell;
    for (std::size_t cell = 0; cell < counts_.size(); ++cell)
      field.value(c, cell) = static_cast<float>(
          counts_[cell] ? sums_[c][cell] / static_cast<double>(counts_[cell]) : sum / all);
  }
  return field;
}

void SurfaceSums::add(const Block& block, const float* light) {
  for_each_row_part(block, [&](std::size_t first, std::size_t n, std::uint32_t x, std::uint32_t y) {
    // Along a row only x changes: its powers alone are summed, and those of y come in at the end.
    std::array<double, 5> powers{};
    std::array<double, 3> powers_with_light{};
    for (std::size_t i = 0; i < n; ++i) {
      if (!block.counts(first + i)) continue;
      const double at = (static_cast<double>(x + i) + 0.5) / width_, square = at * at;
      const double bright = double{light[first + i]};
      powers[0] += 1;
      powers[1] += at;
      powers[2] += square;
      powers[3] += square * at;
      powers[4] += square * square;
      powers_with_light[0] += bright;
      powers_with_light[1] += bright * at;
      powers_with_light[2] += bright * square;
    }
    const double down = (y + 0.5) / height_;
    const std::array<double, 5> of_y{1, down, down * down, down * down * down,
                                     down * down * down * down};
    for (std::size_t a = 0; a < kTerms; ++a) {
      with_light_[a] += powers_with_light[kPowers[a].x] * of_y[kPowers[a].y];
      for (std::size_t b = a; b < kTerms; ++b)
        products_[a][b] += powers[kPowers[a].x + kPowers[b].x] * of_y[kPowers[a].y + kPowers[b].y];
    }
  });
}

SurfaceSums& SurfaceSums::operator+=(const SurfaceSums& later) {
  for (std::size_t a = 0; a < kTerms; ++a) {
    with_light_[a] += later.with_light_[a];
    for (std::size_t b = a; b < kTerms; ++b) products_[a][b] += later.products_[a][b];
  }
  return *this;
}

LightField SurfaceSums::field() const {
  Eigen::Matrix<double, kTerms, kTerms> products;
  Eigen::Matrix<double, kTerms, 1> with_light;
  for (std::size_t a = 0; a < kTerms; ++a) {
    const auto row = static_cast<Eigen::Index>(a);
    with_light(row) = with_light_[a];
    for (std::size_t b = 0; b < kTerms; ++b)
      products(row, static_cast<Eigen::Index>(b)) = products_[std::min(a, b)][std::max(a, b)];
  }
  const Eigen::FullPivLU<Eigen::Matrix<double, kTerms, kTerms>> solver(products);
  if (!solver.isInvertible())
    throw InputError("the pixels that count do not tell how the light falls over the picture",
                     "count a larger part of it");
  const Eigen::Matrix<double, kTerms, 1> fit = solver.solve(with_light);
  LightField field(width_, height_);
  const auto fill = [&](double least) {
    for (std::size_t y = 0; y < field.rows(); ++y)
      for (std::size_t x = 0; x < field.columns(); ++x) {
        const auto terms = terms_at(field.across(x), field.down(y));
        double light = 0;
        for (std::size_t t = 0; t < kTerms; ++t)
          light += fit(static_cast<Eigen::Index>(t)) * terms[t];
        for (std::size_t c = 0; c < 3; ++c)
          field.value(c, y * field.columns() + x) = static_cast<float>(std::max(light, least));
      }
  };
  fill(0);
  fill(kLeastOfMean * field.mean(0));
  return field;
}

LightCorrection::LightCorrection(LightField blank, const LightField* dark)
    : difference_(std::move(blank)) {
  if (dark) dark_.push_back(*dark);
  const std::size_t cells = difference_.columns() * difference_.rows();
  for (std::size_t c = 0; c < 3; ++c) {
    if (dark)
      for (std::size_t cell = 0; cell < cells; ++cell)
        difference_.value(c, cell) -= dark->value(c, cell);
    means_[c] = static_cast<float>(difference_.mean(c));
    const auto least = static_cast<float>(kLeastOfMean) * means_[c];
    for (std::size_t cell = 0; cell < cells; ++cell)
      difference_.value(c, cell) = std::max(difference_.value(c, cell), least);
  }
}

void LightCorrection::run(const Block& block, const Planes& light, PlaneBuffer& scratch) const {
  float* const at = scratch.plane(0);
  for (std::size_t c = 0; c < 3; ++c) {
    if (!dark_.empty()) {
      dark_.front().read(block, c, at);
      for (std::size_t i = 0; i < block.size; ++i)
        light[c][i] = std::max(0.0f, light[c][i] - at[i]);
    }
    difference_.read(block, c, at);
    for (std::size_t i = 0; i < block.size; ++i) light[c][i] *= means_[c] / at[i];
  }
}

}  // namespace chalcedony
