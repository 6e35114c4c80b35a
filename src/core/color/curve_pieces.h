// A curve that is known beforehand, such as a transfer function: a straight line next to zero, then
// polynomials in sixteen pieces, which the leading bits of a value tell apart.
#ifndef CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_
#define CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_

#include <array>
#include <bit>
#include <cstddef>
#include <cstdint>

namespace chalcedony {

/// The piece of x is read from the bits of its place, scale x + offset: pieces are as long as a
/// share of their place, half of it with kPieceAt 22 and an eighth with 20. The offset makes the
/// lowest ones longer, so that sixteen are enough.
template <std::size_t kDegree, int kPieceAt>
struct CurvePieces {
  static constexpr std::size_t kPieces = 16, kTerms = kDegree + 1;

  float scale = 1, offset = 0;
  /// The place where the first piece begins; it holds what lies below too.
  float lowest = 0;
  /// The greatest x that is covered.
  float last = 0;
  /// The polynomial of a piece is the sum of coefficients[k][entry] x^k.
  alignas(64) std::array<std::array<float, kPieces>, kTerms> coefficients{};

  /// Where a piece begins, as a place.
  constexpr float beginning(std::size_t piece) const {
    return std::bit_cast<float>(std::bit_cast<std::int32_t>(lowest) +
                                (static_cast<std::int32_t>(piece) << kPieceAt));
  }
  /// Where the piece of a place stands among the coefficients: the four bits from kPieceAt, so that
  /// nothing is taken away from them first.
  static constexpr std::size_t entry(float place) {
    return static_cast<std::size_t>(std::bit_cast<std::int32_t>(place) >> kPieceAt) % kPieces;
  }
  /// Whether no place of an x from 0 lies below the first piece.
  constexpr bool begins_below_zero() const { return offset >= lowest; }
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
/// Range     up to the end of the sixteenth piece. The place of the cut is `joint`, where the
///           second piece begins: its bits below kPieceAt are 0
/// Accuracy  the curve's business: curve_pieces_test.cc has that of each curve in use
template <std::size_t kDegree, int kPieceAt, class Curve>
constexpr CurvePieces<kDegree, kPieceAt> curve_pieces(float cut, float joint, float scale,
                                                      double slope, const Curve& curve) {
  CurvePieces<kDegree, kPieceAt> out;
  out.scale = scale;
  out.offset = joint - scale * cut;
  out.lowest = std::bit_cast<float>(std::bit_cast<std::int32_t>(joint) - (1 << kPieceAt));
  const auto begins = [&](std::size_t piece) {
    return (static_cast<double>(out.beginning(piece)) - static_cast<double>(out.offset)) /
           static_cast<double>(scale);
  };
  // Two roundings short of where the last piece ends.
  out.last = static_cast<float>(begins(out.kPieces) * (1 - 0x1p-22));
  out.coefficients[1][out.entry(out.lowest)] = static_cast<float>(slope);
  for (std::size_t piece = 1; piece < out.kPieces; ++piece) {
    const auto terms =
        curve_pieces_detail::fitted<out.kTerms>(curve, begins(piece), begins(piece + 1));
    for (std::size_t k = 0; k < out.kTerms; ++k)
      out.coefficients[k][out.entry(out.beginning(piece))] = static_cast<float>(terms[k]);
  }
  return out;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CURVE_PIECES_H_
