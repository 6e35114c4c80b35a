// Uneven light over a picture, and its undoing.
#ifndef CHALCEDONY_CORE_BALANCE_LIGHT_FIELD_H_
#define CHALCEDONY_CORE_BALANCE_LIGHT_FIELD_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"

namespace chalcedony {

/// A smooth field of light over a picture, given on a coarse grid and straight between its places.
class LightField {
 public:
  /// Cells across and down: at most 64, and no more than there are pixels.
  LightField(std::uint32_t width, std::uint32_t height);

  std::size_t columns() const { return columns_; }
  std::size_t rows() const { return rows_; }
  /// The middle of a cell as shares of the picture's width and height.
  double across(std::size_t column) const { return (static_cast<double>(column) + 0.5) / columns_; }
  double down(std::size_t row) const { return (static_cast<double>(row) + 0.5) / rows_; }
  /// The column and the row of cells in which a pixel lies, and the first pixel beyond a column.
  std::size_t column_of(std::uint32_t x) const { return std::uint64_t{x} * columns_ / width_; }
  std::size_t row_of(std::uint32_t y) const { return std::uint64_t{y} * rows_ / height_; }
  std::uint32_t end_of_column(std::size_t column) const {
    return static_cast<std::uint32_t>(((column + 1) * width_ + columns_ - 1) / columns_);
  }

  float& value(std::size_t channel, std::size_t cell) { return values_[channel][cell]; }
  float value(std::size_t channel, std::size_t cell) const { return values_[channel][cell]; }

  /// The mean of a channel over the field.
  double mean(std::size_t channel) const;

  /// The field at the pixels of a Block.
  void read(const Block& block, std::size_t channel, float* out) const;

 private:
  std::uint32_t width_, height_;
  std::size_t columns_, rows_;
  std::array<std::vector<float>, 3> values_;
  // Between which columns of cells a column of pixels lies: the first of the two, beyond which
  // pixel that is another one, and the share of the second.
  std::vector<std::uint32_t> ends_between_;  // by the first column of cells
  std::vector<float> shares_;                // by the column of pixels
};

/// Means of linear light over the cells of a field: a blank picture, smoothed.
class FieldMeans {
 public:
  FieldMeans(std::uint32_t width, std::uint32_t height);

  /// Units     linear light, 0-255; pixels that do not count are left out
  void add(const Block& block, const ConstPlanes& light);
  FieldMeans& operator+=(const FieldMeans& later);

  /// A cell without a pixel takes the mean of the whole.
  LightField field() const;
  std::uint64_t pixels() const;

 private:
  void add_to_cell(std::size_t cell, const Block& block, const ConstPlanes& light, std::size_t i,
                   std::size_t last);

  LightField shape_;
  std::array<std::vector<double>, 3> sums_;
  std::vector<std::uint64_t> counts_;
};

/// A surface of the second degree, fitted by least squares to the light of a picture: a constant,
/// x, y, x^2, xy and y^2, with x and y from 0 to 1 over the picture.
class SurfaceSums {
 public:
  SurfaceSums(std::uint32_t width, std::uint32_t height) : width_(width), height_(height) {}

  /// `light`: the luminance in linear light; pixels that do not count are left out.
  void add(const Block& block, const float* light);
  SurfaceSums& operator+=(const SurfaceSums& later);

  /// The same field for all channels. Nothing falls below a twentieth of the field's mean.
  ///
  /// Errors    InputError when the pixels do not tell a surface: too few, or all on a line
  LightField field() const;

 private:
  static constexpr std::size_t kTerms = 6;

  std::uint32_t width_, height_;
  std::array<std::array<double, kTerms>, kTerms> products_{};
  std::array<double, kTerms> with_light_{};
};

/// What evens the light out: (light - dark) * mean / (blank - dark), channel by channel.
class LightCorrection {
 public:
  /// `dark`: the light that is there without any, or null. Where blank is hardly brighter than
  /// dark, a twentieth of their mean difference is taken instead.
  explicit LightCorrection(LightField blank, const LightField* dark = nullptr);

  /// Units     linear light, 0-255, changed in place
  /// Shape     `scratch` has one plane
  void run(const Block& block, const Planes& light, PlaneBuffer& scratch) const;

 private:
  LightField difference_;
  std::vector<LightField> dark_;  // one or none
  std::array<float, 3> means_{};
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_LIGHT_FIELD_H_
