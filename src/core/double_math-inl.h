// exp, log, sine and cosine on vectors of double, from operations that IEEE 754 rounds exactly, so
// that every instruction set gives the same bits. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_DOUBLE_MATH_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_DOUBLE_MATH_INL_H_
#undef CHALCEDONY_CORE_DOUBLE_MATH_INL_H_
#else
#define CHALCEDONY_CORE_DOUBLE_MATH_INL_H_
#endif

#include <hwy/highway.h>

#include "core/multiply_add-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

template <class D, class V>
HWY_INLINE V series(D d, V, double last) {
  return hn::Set(d, last);
}
// c0 + x (c1 + x (c2 + ...)), by Horner's rule.
template <class D, class V, class... Rest>
HWY_INLINE V series(D d, V x, double first, Rest... rest) {
  return multiply_add(x, series(d, x, rest...), hn::Set(d, first));
}

// A whole number added to this stands in the low bits of the sum.
inline constexpr double kWholePart = 0x1.8p52;

// e^x for x <= 0; what is below e^-700 is as good as 0. The whole part of x / ln 2 goes into the
// exponent, the rest (within ln 2 / 2) into the exponential series. Within 4e-16, relative.
template <class D, class V>
HWY_INLINE V exp_not_above_0(D d, V x) {
  const hn::RebindToSigned<D> di;
  const V bounded = hn::Max(x, hn::Set(d, -700.0));
  const V shifted = multiply_add(bounded, hn::Set(d, 1.4426950408889634), hn::Set(d, kWholePart));
  const V whole = hn::Sub(shifted, hn::Set(d, kWholePart));
  V rest = multiply_add(whole, hn::Set(d, -0x1.62e42fefap-1), bounded);
  rest = multiply_add(whole, hn::Set(d, -0x1.cf79abc9e3b3ap-40), rest);
  const V power =
      series(d, rest, 1.0, 1.0, 1.0 / 2, 1.0 / 6, 1.0 / 24, 1.0 / 120, 1.0 / 720, 1.0 / 5040,
             1.0 / 40320, 1.0 / 362880, 1.0 / 3628800, 1.0 / 39916800, 1.0 / 479001600);
  const auto exponent = hn::ShiftLeft<52>(hn::BitCast(di, shifted));
  return hn::BitCast(d, hn::Add(hn::BitCast(di, power), exponent));
}

// ln x for normal x >= 1: exponent, plus the series of 2 artanh((m - 1) / (m + 1)) with the
// mantissa m in [sqrt 1/2, sqrt 2). Within 1e-15.
template <class D, class V>
HWY_INLINE V log_not_below_1(D d, V x) {
  const hn::RebindToUnsigned<D> du;
  const auto bits = hn::BitCast(du, x);
  const auto above_root_half = hn::Sub(bits, hn::Set(du, 0x3fe6a09e667f3bcdull));
  const auto exponent = hn::ShiftRight<52>(above_root_half);
  const V m = hn::BitCast(d, hn::Sub(bits, hn::ShiftLeft<52>(exponent)));
  const V one = hn::Set(d, 1.0);
  const V t = hn::Div(hn::Sub(m, one), hn::Add(m, one));
  const V mantissa_log =
      hn::Mul(t, series(d, hn::Mul(t, t), 2.0, 2.0 / 3, 2.0 / 5, 2.0 / 7, 2.0 / 9, 2.0 / 11,
                        2.0 / 13, 2.0 / 15, 2.0 / 17, 2.0 / 19, 2.0 / 21));
  // The exponent is a small whole number: put it into the low bits of 2^52 and take that off.
  const V whole = hn::Sub(hn::BitCast(d, hn::Or(exponent, hn::Set(du, 0x4330000000000000ull))),
                          hn::Set(d, 0x1p52));
  return multiply_add(whole, hn::Set(d, 0.6931471805599453), mantissa_log);
}

// Sine and cosine of an angle in degrees, by their series on +-45 degrees. Within 2e-15.
template <class D, class V>
HWY_INLINE void sine_cosine_of_degrees(D d, V degrees, V& sine, V& cosine) {
  const hn::RebindToSigned<D> di;
  const V shifted = multiply_add(degrees, hn::Set(d, 1.0 / 90), hn::Set(d, kWholePart));
  const V quarter = hn::Sub(shifted, hn::Set(d, kWholePart));
  const V r =
      hn::Mul(multiply_add(quarter, hn::Set(d, -90.0), degrees), hn::Set(d, 0.017453292519943295));
  const V r2 = hn::Mul(r, r);
  const V s = hn::Mul(r, series(d, r2, 1.0, -1.0 / 6, 1.0 / 120, -1.0 / 5040, 1.0 / 362880,
                                -1.0 / 39916800, 1.0 / 6227020800));
  const V c = series(d, r2, 1.0, -1.0 / 2, 1.0 / 24, -1.0 / 720, 1.0 / 40320, -1.0 / 3628800,
                     1.0 / 479001600, -1.0 / 87178291200);
  const auto turn = hn::BitCast(di, shifted), one = hn::Set(di, 1), two = hn::Set(di, 2);
  const auto is_set = [&](auto bits, auto bit)
                          HWY_ATTR { return hn::RebindMask(d, hn::Eq(hn::And(bits, bit), bit)); };
  const auto odd = is_set(turn, one);
  const V sine_size = hn::IfThenElse(odd, c, s), cosine_size = hn::IfThenElse(odd, s, c);
  sine = hn::IfThenElse(is_set(turn, two), hn::Neg(sine_size), sine_size);
  cosine = hn::IfThenElse(is_set(hn::Add(turn, one), two), hn::Neg(cosine_size), cosine_size);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
