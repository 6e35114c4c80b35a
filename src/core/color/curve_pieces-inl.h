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

// The polynomial of the piece in which x lies, at x.
template <class D, class V, std::size_t kDegree, int kPieceAt>
HWY_INLINE V value_in_piece(D d, V x, const CurvePieces<kDegree, kPieceAt>& pieces) {
  constexpr std::size_t kPieces = CurvePieces<kDegree, kPieceAt>::kPieces;
  V place = multiply_add(x, hn::Set(d, pieces.scale), hn::Set(d, pieces.offset));
  if (!pieces.begins_below_zero()) place = hn::Max(place, hn::Set(d, pieces.lowest));
  const auto entry = hn::ShiftRight<kPieceAt>(hn::BitCast(hn::RebindToSigned<D>(), place));
  V sum = entry_of<kPieces>(d, pieces.coefficients[kDegree].data(), entry);
  for (std::size_t k = kDegree; k-- > 0;)
    sum = multiply_add(x, sum, entry_of<kPieces>(d, pieces.coefficients[k].data(), entry));
  return sum;
}

// Three values through a curve in pieces, odd for those below zero; `beyond(x)` is the curve of
// what lies beyond the last piece or is not a number.
template <class D, class V, class Pieces, class Beyond>
HWY_INLINE void follow_pieces(D d, V& a, V& b, V& c, const Pieces& pieces, const Beyond& beyond) {
  const hn::RebindToUnsigned<D> du;
  const V piece_a = value_in_piece(d, a, pieces);
  const V piece_b = value_in_piece(d, b, pieces);
  const V piece_c = value_in_piece(d, c, pieces);
  // The bits of what is negative or not a number are greater than those of any number.
  const auto bits = [du](V v) { return hn::BitCast(du, v); };
  const auto last = bits(hn::Set(d, pieces.last));
  const auto greatest = hn::Max(hn::Max(bits(a), bits(b)), bits(c));
  if (HWY_LIKELY(hn::AllFalse(du, hn::Gt(greatest, last)))) {
    a = piece_a, b = piece_b, c = piece_c;
    return;
  }
  const auto odd = [&](V v) {
    const V size = hn::Abs(v);
    const auto far = hn::RebindMask(d, hn::Gt(bits(size), last));
    const V value = value_in_piece(d, size, pieces);
    return hn::CopySign(hn::IfThenElse(far, beyond(size), value), v);
  };
  a = odd(a), b = odd(b), c = odd(c);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
