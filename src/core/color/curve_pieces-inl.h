// Curves in pieces on vectors of float; every instruction set gives the same bits. Included once
// for each instruction set.
#if defined(CHALCEDONY_CORE_COLOR_CURVE_PIECES_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_COLOR_CURVE_PIECES_INL_H_
#undef CHALCEDONY_CORE_COLOR_CURVE_PIECES_INL_H_
#else
#define CHALCEDONY_CORE_COLOR_CURVE_PIECES_INL_H_
#endif

#include <hwy/highway.h>

#include "core/color/curve_pieces.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// How far the bits of x + offset lie above the lowest of a curve's pieces.
template <class D, class V, class Pieces>
HWY_INLINE auto place_in_pieces(D d, V x, const Pieces& pieces) {
  const hn::RebindToSigned<D> di;
  const auto lowest = hn::Set(di, pieces.lowest_bits);
  const auto bits = hn::BitCast(di, hn::Add(x, hn::Set(d, pieces.offset)));
  return hn::Sub(hn::Max(bits, lowest), lowest);
}

// The polynomial of the piece in which x has `place`.
template <class D, class V, class VI, std::size_t kDegree, int kPieceAt>
HWY_INLINE V value_in_piece(D d, V x, VI place, const CurvePieces<kDegree, kPieceAt>& pieces) {
  constexpr std::size_t kPieces = CurvePieces<kDegree, kPieceAt>::kPieces;
  const auto piece = hn::ShiftRight<kPieceAt>(place);
  V sum = entry_of<kPieces>(d, pieces.coefficients[kDegree].data(), piece);
  for (std::size_t k = kDegree; k-- > 0;)
    sum = multiply_add(x, sum, entry_of<kPieces>(d, pieces.coefficients[k].data(), piece));
  return sum;
}

// Three values through a curve in pieces, odd for those below zero; `beyond(x)` is the curve of
// what lies beyond the last piece or is not a number.
template <class D, class V, class Pieces, class Beyond>
HWY_INLINE void follow_pieces(D d, V& a, V& b, V& c, const Pieces& pieces, const Beyond& beyond) {
  const hn::RebindToUnsigned<D> du;
  const auto last = hn::Set(du, static_cast<std::uint32_t>(pieces.kLastBits));
  const auto place_a = place_in_pieces(d, a, pieces);
  const auto place_b = place_in_pieces(d, b, pieces);
  const auto place_c = place_in_pieces(d, c, pieces);
  const V piece_a = value_in_piece(d, a, place_a, pieces);
  const V piece_b = value_in_piece(d, b, place_b, pieces);
  const V piece_c = value_in_piece(d, c, place_c, pieces);
  // kLastBits are all the bits up to some place, so that no place goes beyond if their union does
  // not; and a sign is a bit above.
  const V places = hn::BitCast(d, hn::Or(hn::Or(place_a, place_b), place_c));
  const V signs_too = hn::OrAnd(places, hn::Or(hn::Or(a, b), c), hn::SignBit(d));
  if (HWY_LIKELY(hn::AllFalse(du, hn::Gt(hn::BitCast(du, signs_too), last)))) {
    a = piece_a, b = piece_b, c = piece_c;
    return;
  }
  const auto odd = [&](V v) {
    const V size = hn::Abs(v);
    const auto place = place_in_pieces(d, size, pieces);
    const auto far = hn::RebindMask(d, hn::Gt(hn::BitCast(du, place), last));
    const V value = value_in_piece(d, size, place, pieces);
    return hn::CopySign(hn::IfThenElse(far, beyond(size), value), v);
  };
  a = odd(a), b = odd(b), c = odd(c);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
