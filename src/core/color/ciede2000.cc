#include "core/color/ciede2000.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <numbers>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/ciede2000.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/vector_math-inl.h"

#ifndef CHALCEDONY_CIEDE2000_LIMIT
#define CHALCEDONY_CIEDE2000_LIMIT
namespace chalcedony {
// How far colors may be from one of them, and the most that the term between chroma and hue can
// take of their squares there: half of |RT|, 0 to sin 60 degrees.
struct DistanceLimit {
  double distance;
  double tie;
};
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

template <class D, class V>
HWY_INLINE V length_of(D, V a, V b) {
  return hn::Sqrt(hn::Add(hn::Mul(a, a), hn::Mul(b, b)));
}

// c^7 / (c^7 + 25^7)
template <class D, class V>
HWY_INLINE V weight_of_chroma(D d, V c) {
  const V c2 = hn::Mul(c, c);
  const V c7 = hn::Mul(hn::Mul(hn::Mul(c2, c2), c2), c);
  return hn::Div(c7, hn::Add(c7, hn::Set(d, 6103515625.0f)));
}

// 1 less the four cosines of the mean hue, from one sine and cosine by the addition theorems.
template <class D, class V>
HWY_INLINE V hue_term(D d, V hue) {
  V s, c;
  sine_cosine_degrees(d, hue, s, c);
  const V c2 = hn::Sub(hn::Mul(c, c), hn::Mul(s, s)), s2 = hn::Mul(hn::Add(s, s), c);
  const V c3 = hn::Sub(hn::Mul(c2, c), hn::Mul(s2, s)),
          s3 = hn::Add(hn::Mul(s2, c), hn::Mul(c2, s));
  const V c4 = hn::Sub(hn::Mul(c2, c2), hn::Mul(s2, s2)), s4 = hn::Mul(hn::Add(s2, s2), c2);
  const auto term = [&](V cosine, float by_cosine, V sine, float by_sine) {
    return hn::Add(hn::Mul(cosine, hn::Set(d, by_cosine)), hn::Mul(sine, hn::Set(d, by_sine)));
  };
  V t = hn::Set(d, 1.0f);
  t = hn::Sub(t, term(c, 0.17f * 0.866025404f, s, 0.17f * 0.5f));               // h - 30
  t = hn::Add(t, hn::Mul(c2, hn::Set(d, 0.24f)));                               // 2 h
  t = hn::Add(t, term(c3, 0.32f * 0.994521895f, s3, -0.32f * 0.104528463f));    // 3 h + 6
  return hn::Sub(t, term(c4, 0.20f * 0.453990500f, s4, 0.20f * 0.891006524f));  // 4 h - 63
}

// `first(d, channel, i)` are the first colors of the pairs from i on.
template <class First>
HWY_INLINE void differences(const First& first, const ConstPlanes& labs, std::size_t n,
                            float* out) {
  const hn::CappedTag<float, kPlanePadding> d;
  const auto number = [&](double value) { return hn::Set(d, static_cast<float>(value)); };
  const auto half = number(0.5), one = number(1), full = number(360);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto l1 = first(d, 0, i), own_a = first(d, 1, i), b1 = first(d, 2, i);
    const auto l2 = hn::LoadU(d, labs[0] + i), other_a = hn::LoadU(d, labs[1] + i),
               b2 = hn::LoadU(d, labs[2] + i);
    const auto mean_c = hn::Mul(hn::Add(length_of(d, own_a, b1), length_of(d, other_a, b2)), half);
    const auto g = hn::Mul(half, hn::Sub(one, hn::Sqrt(weight_of_chroma(d, mean_c))));
    const auto a1 = hn::Mul(hn::Add(one, g), own_a), a2 = hn::Mul(hn::Add(one, g), other_a);
    const auto c1 = length_of(d, a1, b1), c2 = length_of(d, a2, b2);
    const auto c = hn::Mul(hn::Add(c1, c2), half);
    const auto from_50 = hn::Sub(hn::Mul(hn::Add(l1, l2), half), number(50));
    const auto l50 = hn::Mul(from_50, from_50);
    const auto sl =
        hn::Add(one, hn::Div(hn::Mul(number(0.015), l50), hn::Sqrt(hn::Add(number(20), l50))));
    const auto sc = hn::Add(one, hn::Mul(number(0.045), c));
    const auto pl = hn::Div(hn::Sub(l2, l1), sl), pc = hn::Div(hn::Sub(c2, c1), sc);

    const auto h1 = angle_degrees(d, b1, a1), h2 = angle_degrees(d, b2, a2);

    // Where one is gray, its chroma of 0 takes all that hangs on hues with it.
    auto step = hn::Sub(h2, h1);
    const auto sum = hn::Add(h1, h2);
    const auto far = hn::Gt(hn::Abs(step), number(180));
    step = hn::Sub(step, hn::IfThenElseZero(far, hn::CopySign(full, step)));
    const auto turned = hn::IfThenElse(hn::Lt(sum, full), hn::Add(sum, full), hn::Sub(sum, full));
    const auto h = hn::Mul(hn::IfThenElse(far, turned, sum), half);
    auto half_sine = step, half_cosine = step;
    sine_cosine_degrees(d, hn::Mul(step, half), half_sine, half_cosine);
    const auto dh = hn::Mul(hn::Mul(number(2), hn::Sqrt(hn::Mul(c1, c2))), half_sine);

    const auto sh = hn::Add(one, hn::Mul(hn::Mul(number(0.015), c), hue_term(d, h)));
    const auto blue = hn::Mul(hn::Sub(h, number(275)), number(1 / 25.0));
    const auto turn = hn::Mul(
        number(60), exp2_bounded(d, hn::Mul(hn::Mul(blue, blue), number(-1.4426950408889634))));
    auto turn_sine = turn, turn_cosine = turn;
    sine_cosine_degrees(d, turn, turn_sine, turn_cosine);
    const auto rt = hn::Mul(hn::Mul(number(-2), turn_sine), hn::Sqrt(weight_of_chroma(d, c)));

    const auto ph = hn::Div(dh, sh);
    auto square = hn::Add(hn::Mul(pl, pl), hn::Mul(pc, pc));
    square = hn::Add(square, hn::Mul(ph, ph));
    square = hn::Add(square, hn::Mul(hn::Mul(rt, pc), ph));
    // Rounding may leave a little less than nothing.
    hn::StoreU(hn::Sqrt(hn::Max(square, hn::Zero(d))), d, out + i);
  }
}

void differences_to(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                    float* out) {
  const auto first = [&](auto d, std::size_t channel, std::size_t) {
    return hn::Set(d, static_cast<float>(lab[channel]));
  };
  differences(first, labs, n, out);
}

// Some colors that are looked at more closely, packed, and where they came from.
constexpr std::size_t kPart = 512;
struct CloseColors {
  std::array<std::array<float, kPart + kPlanePadding>, 4> planes;  // L, a, b and their differences
  std::array<std::int32_t, kPart + kPlanePadding> places;
  std::size_t size = 0;
};

// Packs the colors that are not surely farther from `lab` than the limit, by a bound that needs no
// angles: the step in hue is 2 (c1 c2 - a1 a2 - b1 b2), its weight at most 1 + 0.029 c, and the
// term that ties chroma and hue together takes at most the share `tie` of their squares.
void pack_close(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                const DistanceLimit& limit, CloseColors& close) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> places;
  const auto number = [&](double value) { return hn::Set(d, static_cast<float>(value)); };
  const auto half = number(0.5), one = number(1);
  const auto l1 = number(lab[0]), own_a = number(lab[1]), b1 = number(lab[2]);
  const auto own_c = length_of(d, own_a, b1);
  // With room for what rounding does to differences of squares.
  const auto most = number(1.001 * limit.distance * limit.distance + 0.05);
  const auto untied = number(1 - limit.tie);
  close.size = 0;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto l2 = hn::LoadU(d, labs[0] + i), other_a = hn::LoadU(d, labs[1] + i),
               b2 = hn::LoadU(d, labs[2] + i);
    const auto mean_c = hn::Mul(hn::Add(own_c, length_of(d, other_a, b2)), half);
    const auto g = hn::Mul(half, hn::Sub(one, hn::Sqrt(weight_of_chroma(d, mean_c))));
    const auto a1 = hn::Mul(hn::Add(one, g), own_a), a2 = hn::Mul(hn::Add(one, g), other_a);
    const auto c1 = length_of(d, a1, b1), c2 = length_of(d, a2, b2);
    const auto from_50 = hn::Sub(hn::Mul(hn::Add(l1, l2), half), number(50));
    const auto l50 = hn::Mul(from_50, from_50);
    const auto sl =
        hn::Add(one, hn::Div(hn::Mul(number(0.015), l50), hn::Sqrt(hn::Add(number(20), l50))));
    const auto c = hn::Mul(hn::Add(c1, c2), half);
    const auto sc = hn::Add(one, hn::Mul(number(0.045), c));
    const auto sh = hn::Add(one, hn::Mul(number(0.029), c));
    const auto pl = hn::Div(hn::Sub(l2, l1), sl), pc = hn::Div(hn::Sub(c2, c1), sc);
    const auto dh = hn::Sub(hn::Mul(c1, c2), hn::Add(hn::Mul(a1, a2), hn::Mul(b1, b2)));
    const auto ph = hn::Div(hn::Mul(number(2), hn::Max(dh, hn::Zero(d))), hn::Mul(sh, sh));
    const auto least = hn::Add(hn::Mul(pl, pl), hn::Mul(untied, hn::Add(hn::Mul(pc, pc), ph)));
    // What is not a number is looked at, and stays so; what fills up the last vector is not.
    const auto inside = hn::Lt(hn::Iota(d, static_cast<float>(i)), number(static_cast<double>(n)));
    const auto kept = hn::AndNot(hn::Gt(least, most), inside);
    std::size_t added = 0;
    added = hn::CompressStore(l2, kept, d, close.planes[0].data() + close.size);
    hn::CompressStore(other_a, kept, d, close.planes[1].data() + close.size);
    hn::CompressStore(b2, kept, d, close.planes[2].data() + close.size);
    hn::CompressStore(hn::Iota(places, static_cast<std::int32_t>(i)), hn::RebindMask(places, kept),
                      places, close.places.data() + close.size);
    close.size += added;
  }
}

void differences_within(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                        const DistanceLimit& limit, float* out) {
  CloseColors close{};
  const auto first = [&](auto d, std::size_t channel, std::size_t) {
    return hn::Set(d, static_cast<float>(lab[channel]));
  };
  for (std::size_t begin = 0; begin < n; begin += kPart) {
    const std::size_t size = std::min(kPart, n - begin);
    pack_close(lab, {labs[0] + begin, labs[1] + begin, labs[2] + begin}, size, limit, close);
    differences(first, {close.planes[0].data(), close.planes[1].data(), close.planes[2].data()},
                close.size, close.planes[3].data());
    std::fill_n(out + begin, size, std::numeric_limits<float>::infinity());
    for (std::size_t k = 0; k < close.size; ++k)
      out[begin + static_cast<std::size_t>(close.places[k])] = close.planes[3][k];
  }
}

void differences_between(const ConstPlanes& labs1, const ConstPlanes& labs2, std::size_t n,
                         float* out) {
  const auto first = [&](auto d, std::size_t channel, std::size_t i) {
    return hn::LoadU(d, labs1[channel] + i);
  };
  differences(first, labs2, n, out);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(differences_to);
HWY_EXPORT(differences_within);
HWY_EXPORT(differences_between);

constexpr double kRadians = std::numbers::pi / 180.0;

double hue_degrees(double b, double a) {
  if (a == 0 && b == 0) return 0;
  const double h = std::atan2(b, a) / kRadians;
  return h < 0 ? h + 360 : h;
}

/// c^7 / (c^7 + 25^7), which says how blue-violet and chromatic a pair is.
double chroma_weight(double c) {
  const double c7 = std::pow(c, 7);
  return c7 / (c7 + 6103515625.0);
}

/// Signed difference of two hues, on the shorter way round; 0 when one of them is gray.
double hue_step(double h1, double h2, double chroma_product) {
  if (chroma_product == 0) return 0;
  const double step = h2 - h1;
  if (step > 180) return step - 360;
  if (step < -180) return step + 360;
  return step;
}

/// Mean of two hues on the shorter way round; the sum when one of them is gray.
double hue_mean(double h1, double h2, double chroma_product) {
  if (chroma_product == 0) return h1 + h2;
  if (std::abs(h1 - h2) <= 180) return (h1 + h2) / 2;
  return h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
}

}  // namespace

double ciede2000(const std::array<double, 3>& lab1, const std::array<double, 3>& lab2) {
  const double mean_c = (std::hypot(lab1[1], lab1[2]) + std::hypot(lab2[1], lab2[2])) / 2;
  const double g = 0.5 * (1 - std::sqrt(chroma_weight(mean_c)));
  const double a1 = (1 + g) * lab1[1], a2 = (1 + g) * lab2[1];
  const double c1 = std::hypot(a1, lab1[2]), c2 = std::hypot(a2, lab2[2]);
  const double h1 = hue_degrees(lab1[2], a1), h2 = hue_degrees(lab2[2], a2);

  const double dl = lab2[0] - lab1[0];
  const double dc = c2 - c1;
  const double dh = 2 * std::sqrt(c1 * c2) * std::sin(hue_step(h1, h2, c1 * c2) / 2 * kRadians);

  const double l = (lab1[0] + lab2[0]) / 2, c = (c1 + c2) / 2;
  const double h = hue_mean(h1, h2, c1 * c2);
  const double t = 1 - 0.17 * std::cos((h - 30) * kRadians) + 0.24 * std::cos(2 * h * kRadians) +
                   0.32 * std::cos((3 * h + 6) * kRadians) -
                   0.20 * std::cos((4 * h - 63) * kRadians);
  const double l50 = (l - 50) * (l - 50);
  const double sl = 1 + 0.015 * l50 / std::sqrt(20 + l50);
  const double sc = 1 + 0.045 * c;
  const double sh = 1 + 0.015 * c * t;
  const double turn = 30 * std::exp(-((h - 275) / 25) * ((h - 275) / 25));
  const double rt = -std::sin(2 * turn * kRadians) * 2 * std::sqrt(chroma_weight(c));

  const double pl = dl / sl, pc = dc / sc, ph = dh / sh;
  return std::sqrt(pl * pl + pc * pc + ph * ph + rt * pc * ph);
}

void ciede2000_to(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                  float* differences) {
  HWY_DYNAMIC_DISPATCH(differences_to)(lab, labs, n, differences);
}

namespace {

/// Half of the largest |RT| of a pair with this color: the mean hue lies within 90 degrees of its
/// own, which G moves between those of a and of 1.5 a.
double largest_tie(const std::array<double, 3>& lab) {
  constexpr double kBlue = 275;
  double least = 180;
  for (const double stretch : {1.0, 1.5}) {
    const double away = std::abs(hue_degrees(lab[2], stretch * lab[1]) - kBlue);
    least = std::min(least, std::min(away, 360 - away) - 90);
  }
  if (lab[1] == 0 && lab[2] == 0) least = 0;
  const double steps = std::max(least, 0.0) / 25;
  return std::sin(60 * std::exp(-steps * steps) * kRadians);
}

}  // namespace

void ciede2000_within(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                      double limit, float* differences) {
  HWY_DYNAMIC_DISPATCH(differences_within)
  (lab, labs, n, DistanceLimit{limit, largest_tie(lab)}, differences);
}

void ciede2000_between(const ConstPlanes& labs1, const ConstPlanes& labs2, std::size_t n,
                       float* differences) {
  HWY_DYNAMIC_DISPATCH(differences_between)(labs1, labs2, n, differences);
}

}  // namespace chalcedony
#endif
