// A curve that is known beforehand, such as a transfer function: a straight line next to zero, then
// polynomials in sixteen pieces, which the leading bits of a value tell apart.
#ifndef CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_
#define CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_

#include <array>
#include <bit>
#include <cstddef>
#include <cstdint>

namespace chalcedony {

/// The piece of x is read from the bits of x + offset: pieces are as long as a share of their
/// place, half of it with kPieceAt 22 and a quarter with 21. The offset makes the lowest ones
/// longer, so that sixteen are enough.
template <std::size_t kDegree, int kPieceAt>
struct CurvePieces {
  static constexpr std::size_t kPieces = 16, kTerms = kDegree + 1;
  /// How much greater the bits of the last x that is covered are than `lowest_bits`: all the bits
  /// up to some place.
  static constexpr std::int32_t kLastBits = (std::int32_t{kPieces} << kPieceAt) - 1;

  float offset = 0;
  /// Of x + offset where the first piece begins; it holds what lies below too.
  std::int32_t lowest_bits = 0;
  /// The polynomial of a piece is the sum of coefficients[k][piece] x^k.
  alignas(64) std::array<std::array<float, kPieces>, kTerms> coefficients{};

  /// Where a piece begins, of x + offset.
  constexpr float beginning(std::size_t piece) const {
    return std::bit_cast<float>(lowest_bits + (static_cast<std::int32_t>(piece) << kPieceAt));
  }
};

namespace curve_pieces_detail {

/// The cosine of an angle within half a turn.
constexpr double cosine(double angle) {
  double sum = 0, term = 1;
  for (int k = 1; k < 40; k += 2) {
    sum += term;
    term *= -angle * angle / (k * (k + 1));
  }
  return sum;
}

/// The coefficients of the polynomial that meets `curve` at the Chebyshev nodes from `low` to
/// `high`, by Newton's divided differences.
template <std::size_t kTerms, class Curve>
constexpr std::array<double, kTerms> fitted(const Curve& curve, double low, double high) {
  constexpr double kPi = 3.14159265358979323846;
  std::array<double, kTerms> node{}, difference{}, out{};
  for (std::size_t i = 0; i < kTerms; ++i) {
    const double angle = (static_cast<double>(i) + 0.5) / kTerms * kPi;
    node[i] = (low + high) / 2 + (high - low) / 2 * cosine(angle);
    difference[i] = curve(node[i]);
  }
  for (std::size_t order = 1; order < kTerms; ++order)
    for (std::size_t i = kTerms - 1; i >= order; --i)
      difference[i] = (difference[i] - difference[i - 1]) / (node[i] - node[i - order]);
  // Newton's form multiplied out: out = out (x - node) + difference, from the last one down.
  for (std::size_t i = kTerms; i-- > 0;) {
    for (std::size_t k = kTerms; k-- > 1;) out[k] = out[k - 1] - node[i] * out[k];
    out[0] = difference[i] - node[i] * out[0];
  }
  return out;
}

}  // namespace curve_pieces_detail

/// The pieces of a line through zero up to `cut`, and of `curve` above it.
///
/// Range     from the cut, 16 pieces less one
/// Accuracy  the curve's business: curve_pieces_test.cc has that of each curve in use
template <std::size_t kDegree, int kPieceAt, class Curve>
constexpr CurvePieces<kDegree, kPieceAt> curve_pieces(float cut, float offset, double slope,
                                                      const Curve& curve) {
  CurvePieces<kDegree, kPieceAt> out;
  out.offset = offset;
  out.lowest_bits = std::bit_cast<std::int32_t>(cut + offset) - (1 << kPieceAt);
  out.coefficients[1][0] = static_cast<float>(slope);
  for (std::size_t piece = 1; piece < out.kPieces; ++piece) {
    const double low = static_cast<double>(out.beginning(piece)) - static_cast<double>(offset);
    const double high = static_cast<double>(out.beginning(piece + 1)) - static_cast<double>(offset);
    const auto terms = curve_pieces_detail::fitted<out.kTerms>(curve, low, high);
    for (std::size_t k = 0; k < out.kTerms; ++k)
      out.coefficients[k][piece] = static_cast<float>(terms[k]);
  }
  return out;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_
