// Powers, cube roots and angles on vectors of float, from operations that IEEE 754 rounds exactly,
// so that every instruction set gives the same bits. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#undef CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#else
#define CHALCEDONY_CORE_COLOR_VECTOR_MATH_INL_H_
#endif

#include <hwy/highway.h>

#include "core/color/fixed_power.h"
#include "core/multiply_add-inl.h"

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
  return multiply_add(x, polynomial(d, x, rest...), hn::Set(d, first));
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
  return multiply_add(t, series, hn::ConvertTo(d, exponent));
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

// table[i] for the lowest bits of i that a table so long has use for.
template <std::size_t kEntries, class D, class VI>
HWY_INLINE hn::Vec<D> entry_of(D d, const float* table, VI i) {
  const hn::RebindToSigned<D> di;
  constexpr std::size_t kLanes = HWY_MAX_BYTES < 64 ? HWY_MAX_BYTES / sizeof(float) : 16;
  if constexpr (kLanes < 8 || hn::MaxLanes(d) != kLanes || kEntries > 2 * kLanes) {
    return hn::GatherIndex(d, table, hn::And(i, hn::Set(di, static_cast<int>(kEntries) - 1)));
  } else {
    // x86 looks at the lowest bits alone, which its assertions in debug builds do not know.
    constexpr bool kLowestAlone = HWY_ARCH_X86 && !HWY_IS_DEBUG_BUILD;
    const auto lowest = kLowestAlone ? i : hn::And(i, hn::Set(di, static_cast<int>(kLanes) - 1));
    const auto place = hn::IndicesFromVec(d, lowest);
    const auto first = hn::TableLookupLanes(hn::LoadU(d, table), place);
    if constexpr (kEntries == kLanes) {
      return first;
    } else {
      const auto second = hn::TableLookupLanes(hn::LoadU(d, table + kLanes), place);
      const auto in_second = hn::TestBit(i, hn::Set(di, static_cast<int>(kLanes)));
      return hn::IfThenElse(hn::RebindMask(d, in_second), second, first);
    }
  }
}

// A power that is known beforehand, by its tables, for x that they hold.
template <class D, class V>
HWY_INLINE V power_in_tables(D d, V x, const FixedPower& p) {
  const hn::RebindToSigned<D> di;
  const auto bits = hn::BitCast(di, x);
  const auto piece = hn::ShiftRight<FixedPower::kPieceAt>(bits);
  // x / 2^e, from 1 to 2.
  constexpr std::int32_t kOne = FixedPower::kExponentBias << FixedPower::kExponentAt;
  constexpr std::int32_t kMantissa = (1 << FixedPower::kExponentAt) - 1;
  const V scaled = hn::BitCast(d, hn::OrAnd(hn::Set(di, kOne), bits, hn::Set(di, kMantissa)));
  const V one_middle = entry_of<FixedPower::kPieces>(d, p.one_middle.data(), piece);
  const V r = multiply_add(scaled, one_middle, hn::Set(d, -1.0f));
  const V base = hn::Mul(entry_of<FixedPower::kSpan>(d, p.of_two.data(),
                                                     hn::ShiftRight<FixedPower::kExponentAt>(bits)),
                         entry_of<FixedPower::kPieces>(d, p.of_middle.data(), piece));
  const V more = polynomial(d, r, p.series[0], p.series[1], p.series[2]);
  return multiply_add(hn::Mul(base, r), more, base);
}

// At most the power's kLastBits for x > 0 that its tables hold.
template <class D, class V>
HWY_INLINE auto bits_above_lowest(D, V x) {
  const hn::RebindToUnsigned<D> du;
  return hn::Sub(hn::BitCast(du, x), hn::Set(du, FixedPower::kLowestBits));
}

// By the logarithm where the tables end, whatever lies in the other lanes.
template <class D, class V>
HWY_INLINE V power_beyond_tables(D d, V x, V in_tables, const FixedPower& p) {
  const hn::RebindToUnsigned<D> du;
  const auto beyond = hn::Gt(bits_above_lowest(d, x), hn::Set(du, p.kLastBits));
  const V slowly = power_positive(d, x, p.exponent);
  return hn::IfThenElse(hn::RebindMask(d, beyond), slowly, in_tables);
}

// A power that is known beforehand of three values above zero, in a quarter of the time. Values
// beyond the tables are rare.
template <class D, class V>
HWY_INLINE void powers_above_zero(D d, V& a, V& b, V& c, const FixedPower& p) {
  const hn::RebindToUnsigned<D> du;
  const V power_a = power_in_tables(d, a, p);
  const V power_b = power_in_tables(d, b, p);
  const V power_c = power_in_tables(d, c, p);
  // kLastBits are all the bits up to some place, so that none goes beyond if their union does not.
  const auto all =
      hn::Or(hn::Or(bits_above_lowest(d, a), bits_above_lowest(d, b)), bits_above_lowest(d, c));
  if (HWY_LIKELY(hn::AllFalse(du, hn::Gt(all, hn::Set(du, p.kLastBits))))) {
    a = power_a, b = power_b, c = power_c;
  } else {
    a = power_beyond_tables(d, a, power_a, p);
    b = power_beyond_tables(d, b, power_b, p);
    c = power_beyond_tables(d, c, power_c, p);
  }
}

// The same of one value.
template <class D, class V>
HWY_INLINE V power_above_zero(D d, V x, const FixedPower& p) {
  const hn::RebindToUnsigned<D> du;
  const V power = power_in_tables(d, x, p);
  const auto beyond = hn::Gt(bits_above_lowest(d, x), hn::Set(du, p.kLastBits));
  return HWY_LIKELY(hn::AllFalse(du, beyond)) ? power : power_beyond_tables(d, x, power, p);
}

// Three values through a curve: `base` is what the power is taken of, and `curve` what becomes of
// the value and that power.
template <class D, class V, class Base, class Curve>
HWY_INLINE void bend(D d, V& a, V& b, V& c, const FixedPower& p, const Base& base,
                     const Curve& curve) {
  V power_a = base(a), power_b = base(b), power_c = base(c);
  powers_above_zero(d, power_a, power_b, power_c, p);
  a = curve(a, power_a);
  b = curve(b, power_b);
  c = curve(c, power_c);
}

// The same of values whose base may be 0, of which the power is 0.
template <class D, class V, class Base, class Curve>
HWY_INLINE void bend_from_zero(D d, V& a, V& b, V& c, const FixedPower& p, const Base& base,
                               const Curve& curve) {
  const auto or_one = [&](V v) {
    const V x = base(v);
    return hn::IfThenElse(hn::Ne(x, hn::Zero(d)), x, hn::Set(d, 1.0f));
  };
  const auto zero_stays = [&](V v, V power) {
    return curve(v, hn::IfThenElseZero(hn::Ne(base(v), hn::Zero(d)), power));
  };
  bend(d, a, b, c, p, or_one, zero_stays);
}

constexpr FixedPower kThird = fixed_power(1.0 / 3.0);

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
