// Powers, cube roots and angles on vectors of float. Only operations that IEEE 754 rounds exactly
// are used, never a fused multiply-add, so that every instruction set gives the same bits.
// Included once for each instruction set.
#if defined(CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#undef CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#else
#define CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#endif

#include <hwy/highway.h>

#include "core/color/fixed_power.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// c0 + x (c1 + x (c2 + ...)), by Horner's rule.
template <class D, class V>
HWY_INLINE V polynomial(D d, V, float last) {
  return hn::Set(d, last);
}
template <class D, class V, class... Rest>
HWY_INLINE V polynomial(D d, V x, float first, Rest... rest) {
  return hn::Add(hn::Set(d, first), hn::Mul(x, polynomial(d, x, rest...)));
}

// log2 of normal positive x: exponent, plus the series of 2 artanh((m - 1) / (m + 1)) / ln 2 with
// the mantissa m in [sqrt 1/2, sqrt 2).
template <class D, class V>
HWY_INLINE V log2_positive(D d, V x) {
  const hn::RebindToSigned<D> di;
  const auto bits = hn::BitCast(di, x);
  const auto above_root_half = hn::Sub(bits, hn::Set(di, 0x3f3504f3));
  const auto exponent = hn::ShiftRight<23>(above_root_half);
  const V m = hn::BitCast(d, hn::Sub(bits, hn::ShiftLeft<23>(exponent)));
  const V one = hn::Set(d, 1.0f);
  const V t = hn::Div(hn::Sub(m, one), hn::Add(m, one));
  const V series = polynomial(d, hn::Mul(t, t), 2.885390082f, 0.961796694f, 0.577078016f,
                              0.412198583f, 0.320598898f);
  return hn::Add(hn::ConvertTo(d, exponent), hn::Mul(t, series));
}

// 2^y: the whole part into the exponent, the rest (within 1/2) by the exponential series.
template <class D, class V>
HWY_INLINE V exp2_bounded(D d, V y) {
  const hn::RebindToSigned<D> di;
  const V bounded = hn::Min(hn::Max(y, hn::Set(d, -126.0f)), hn::Set(d, 127.0f));
  const auto whole = hn::NearestInt(bounded);
  const V f = hn::Sub(bounded, hn::ConvertTo(d, whole));
  const V power = polynomial(d, f, 1.0f, 0.693147181f, 0.240226507f, 0.0555041087f, 0.00961812911f,
                             0.00133335581f, 0.000154035304f, 0.0000152527338f);
  const auto exponent = hn::ShiftLeft<23>(hn::Add(whole, hn::Set(di, 127)));
  return hn::Mul(power, hn::BitCast(d, exponent));
}

// x^p for x > 0; 0 for x at or below the smallest normal number.
template <class D, class V>
HWY_INLINE V power_positive(D d, V x, float p) {
  const V result = exp2_bounded(d, hn::Mul(log2_positive(d, x), hn::Set(d, p)));
  return hn::IfThenElseZero(hn::Gt(x, hn::Set(d, 1.2e-38f)), result);
}

// table[i] for i in 0 to 31; anything for other i, of which the vectors of 16 lanes make no use.
template <class D, class VI>
HWY_INLINE hn::Vec<D> entry_of_32(D d, const float* table, VI i) {
  const hn::RebindToSigned<D> di;
  if constexpr (HWY_MAX_BYTES == 64 && hn::MaxLanes(d) == 16) {
    const auto place = hn::IndicesFromVec(d, hn::And(i, hn::Set(di, 15)));
    const auto low = hn::TableLookupLanes(hn::LoadU(d, table), place);
    const auto high = hn::TableLookupLanes(hn::LoadU(d, table + 16), place);
    return hn::IfThenElse(hn::RebindMask(d, hn::Gt(i, hn::Set(di, 15))), high, low);
  } else {
    return hn::GatherIndex(d, table, hn::And(i, hn::Set(di, 31)));
  }
}

// A power that is known beforehand, times its factor, for x > 0: by its table, in a third of the
// time. Lanes beyond the table are rare; they are worked out by the logarithm, whatever lies in the
// others.
template <class D, class V>
HWY_INLINE V power_above_zero(D d, V x, const FixedPower& p) {
  const hn::RebindToSigned<D> di;
  const auto bits = hn::BitCast(di, x);
  const auto place = hn::Sub(hn::ShiftRight<23>(bits), hn::Set(di, 127 + FixedPower::kLowest));
  const auto mantissa = hn::Or(hn::And(bits, hn::Set(di, 0x7fffff)), hn::Set(di, 0x3f800000));
  const V u = hn::Sub(hn::BitCast(d, mantissa), hn::Set(d, 1.5f));
  // By halves of halves (Estrin 1960), which need not wait for each other as in Horner's rule.
  static_assert(FixedPower::kTerms == 8);
  const auto pair = [&](std::size_t k) {
    return hn::Add(hn::Set(d, p.series[k]), hn::Mul(u, hn::Set(d, p.series[k + 1])));
  };
  const V u2 = hn::Mul(u, u);
  const V lower = hn::Add(pair(0), hn::Mul(u2, pair(2)));
  const V upper = hn::Add(pair(4), hn::Mul(u2, pair(6)));
  const V series = hn::Add(lower, hn::Mul(hn::Mul(u2, u2), upper));
  const V result = hn::Mul(series, entry_of_32(d, p.of_two.data(), place));
  const auto beyond = hn::Ne(hn::And(place, hn::Set(di, ~31)), hn::Zero(di));
  if (HWY_LIKELY(hn::AllFalse(di, beyond))) return result;
  const V slowly = hn::Mul(power_positive(d, x, p.exponent), hn::Set(d, p.factor));
  return hn::IfThenElse(hn::RebindMask(d, beyond), slowly, result);
}

// The same; 0 for 0.
template <class D, class V>
HWY_INLINE V power_positive(D d, V x, const FixedPower& p) {
  const auto nonzero = hn::Ne(x, hn::Zero(d));
  return hn::IfThenElseZero(nonzero,
                            power_above_zero(d, hn::IfThenElse(nonzero, x, hn::Set(d, 1.0f)), p));
}

constexpr FixedPower kThird = fixed_power(1.0 / 3.0);

// The cube root, with the sign of x.
template <class D, class V>
HWY_INLINE V cube_root(D d, V x) {
  return hn::CopySign(power_positive(d, hn::Abs(x), kThird), x);
}

// The angle of (x, y) in degrees, in [0, 360); 0 for the origin. The quotient of the smaller by
// the larger, its arctangent by a polynomial fitted at the Chebyshev nodes of [0, 1] (error 3e-9),
// then the octant put back.
template <class D, class V>
HWY_INLINE V angle_degrees(D d, V y, V x) {
  const V ax = hn::Abs(x), ay = hn::Abs(y), zero = hn::Zero(d);
  const V larger = hn::Max(ax, ay), smaller = hn::Min(ax, ay);
  const auto nonzero = hn::Gt(larger, zero);
  const V q = hn::Div(smaller, hn::IfThenElse(nonzero, larger, hn::Set(d, 1.0f)));
  const V series = polynomial(d, hn::Mul(q, q), 0.99999999716f, -0.33333276292f, 0.19998075281f,
                              -0.14260016083f, 0.10932341502f, -0.08349724970f, 0.05708955597f,
                              -0.03035186482f, 0.01048764927f, -0.00170117007f);
  V angle = hn::Mul(hn::Mul(q, series), hn::Set(d, 57.29577951f));
  angle = hn::IfThenElse(hn::Gt(ay, ax), hn::Sub(hn::Set(d, 90.0f), angle), angle);
  angle = hn::IfThenElse(hn::Lt(x, zero), hn::Sub(hn::Set(d, 180.0f), angle), angle);
  angle = hn::IfThenElse(hn::Lt(y, zero), hn::Sub(hn::Set(d, 360.0f), angle), angle);
  return hn::IfThenElse(hn::Ge(angle, hn::Set(d, 360.0f)), zero, angle);
}

// Sine and cosine of an angle in degrees, by their series on +-45 degrees.
template <class D, class V>
HWY_INLINE void sine_cosine_degrees(D d, V degrees, V& sine, V& cosine) {
  const hn::RebindToSigned<D> di;
  const V quarter = hn::Round(hn::Mul(degrees, hn::Set(d, 1.0f / 90.0f)));
  const V rest = hn::Sub(degrees, hn::Mul(quarter, hn::Set(d, 90.0f)));
  const V r = hn::Mul(rest, hn::Set(d, 0.0174532925f));
  const V r2 = hn::Mul(r, r);
  const V s = hn::Mul(r, polynomial(d, r2, 1.0f, -0.166666667f, 0.00833333333f, -0.000198412698f,
                                    0.00000275573192f));
  const V c = polynomial(d, r2, 1.0f, -0.5f, 0.0416666667f, -0.00138888889f, 0.0000248015873f,
                         -0.000000275573192f);
  const auto turn = hn::NearestInt(quarter);
  const auto odd = hn::Ne(hn::And(turn, hn::Set(di, 1)), hn::Zero(di));
  const auto sine_negative = hn::Ne(hn::And(turn, hn::Set(di, 2)), hn::Zero(di));
  const auto cosine_negative =
      hn::Ne(hn::And(hn::Add(turn, hn::Set(di, 1)), hn::Set(di, 2)), hn::Zero(di));
  const auto odd_f = hn::RebindMask(d, odd);
  const V sine_size = hn::IfThenElse(odd_f, c, s), cosine_size = hn::IfThenElse(odd_f, s, c);
  sine = hn::IfThenElse(hn::RebindMask(d, sine_negative), hn::Neg(sine_size), sine_size);
  cosine = hn::IfThenElse(hn::RebindMask(d, cosine_negative), hn::Neg(cosine_size), cosine_size);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
