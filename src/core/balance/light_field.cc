#include "core/balance/light_field.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/error.h"

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

std::array<double, 6> terms_at(double x, double y) { return {1, x, y, x * x, x * y, y * y}; }

}  // namespace

LightField::LightField(std::uint32_t width, std::uint32_t height)
    : width_(width),
      height_(height),
      columns_(std::min(width, kMostCells)),
      rows_(std::min(height, kMostCells)) {
  for (auto& channel : values_) channel.resize(columns_ * rows_);
}

std::size_t LightField::cell_of(std::uint32_t x, std::uint32_t y) const {
  return std::uint64_t{y} * rows_ / height_ * columns_ + std::uint64_t{x} * columns_ / width_;
}

double LightField::mean(std::size_t channel) const {
  double sum = 0;
  for (const float v : values_[channel]) sum += double{v};
  return sum / static_cast<double>(values_[channel].size());
}

void LightField::read(const Block& block, std::size_t channel, float* out) const {
  const float* const values = values_[channel].data();
  std::uint32_t x = block.x(0), y = block.y(0);
  Between down = between(y, height_, rows_);
  for (std::size_t i = 0; i < block.size; ++i) {
    const Between across = between(x, width_, columns_);
    const float* const above = values + down.first * columns_;
    const float* const below = values + down.second * columns_;
    const float top =
        above[across.first] + (above[across.second] - above[across.first]) * across.share;
    const float bottom =
        below[across.first] + (below[across.second] - below[across.first]) * across.share;
    out[i] = top + (bottom - top) * down.share;
    if (++x == block.picture_width) x = 0, down = between(++y, height_, rows_);
  }
}

FieldMeans::FieldMeans(std::uint32_t width, std::uint32_t height)
    : shape_(width, height), counts_(shape_.columns() * shape_.rows()) {
  for (auto& channel : sums_) channel.resize(counts_.size());
}

void FieldMeans::add(const Block& block, const ConstPlanes& light) {
  for (std::size_t i = 0; i < block.size; ++i) {
    if (!block.counts(i)) continue;
    const std::size_t cell = shape_.cell_of(block.x(i), block.y(i));
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
  for (std::size_t i = 0; i < block.size; ++i) {
    if (!block.counts(i)) continue;
    const auto terms = terms_at((block.x(i) + 0.5) / width_, (block.y(i) + 0.5) / height_);
    for (std::size_t a = 0; a < kTerms; ++a) {
      with_light_[a] += terms[a] * double{light[i]};
      for (std::size_t b = a; b < kTerms; ++b) products_[a][b] += terms[a] * terms[b];
    }
  }
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
