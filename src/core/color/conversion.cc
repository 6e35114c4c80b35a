#include "core/color/conversion.h"

#include <algorithm>

namespace chalcedony {
namespace {

std::vector<const Space*> ancestry(const Space& space) {
  std::vector<const Space*> line{&space};
  while (!line.back()->parent.empty()) line.push_back(find_space(line.back()->parent));
  return line;
}

}  // namespace

std::vector<const Space*> conversion_path(const Space& from, const Space& to) {
  std::vector<const Space*> up = ancestry(from);
  std::vector<const Space*> down = ancestry(to);
  const auto meets = std::find_first_of(up.begin(), up.end(), down.begin(), down.end());
  const auto turn = std::find(down.begin(), down.end(), *meets);
  up.erase(meets + 1, up.end());
  up.insert(up.end(), std::make_reverse_iterator(turn), down.rend());
  return up;
}

Conversion::Conversion(const Space& from, const Space& to, KnownValues known) {
  add_way(from, to, known);
}

Conversion Conversion::mapped_in(const Space& from, const Space& middle, const Affine& map,
                                 const Space& to) {
  Conversion conversion;
  conversion.add_way(from, middle, KnownValues::kAny);
  conversion.add(Step(map));
  conversion.add_way(middle, to, KnownValues::kAny);
  return conversion;
}

void Conversion::add_way(const Space& from, const Space& to, KnownValues known) {
  const auto path = conversion_path(from, to);
  for (std::size_t i = 1; i < path.size(); ++i) {
    const Space& before = *path[i - 1];
    const Space& after = *path[i];
    const bool down = after.parent == before.id;
    if (down && known != KnownValues::kAny && &after == &spaces::kSrgbClipped) continue;
    add(down ? after.from_parent : before.to_parent);
  }
}

void Conversion::add(const Steps& steps) {
  for (std::size_t i = 0; i < steps.count; ++i) {
    const Affine* affine = std::get_if<Affine>(&steps.step[i]);
    Affine* last = steps_.empty() ? nullptr : std::get_if<Affine>(&steps_.back());
    if (affine && last) {
      *last = then(*last, *affine);
    } else {
      steps_.push_back(steps.step[i]);
    }
  }
}

void Conversion::run(const ConstPlanes& in, const Planes& out, std::size_t n) const {
  if (steps_.empty()) {
    for (std::size_t c = 0; c < 3; ++c)
      if (in[c] != out[c]) std::copy_n(in[c], n, out[c]);
    return;
  }
  // All steps on some pixels before the next ones: these are still in the first cache then.
  constexpr std::size_t kStretch = 512;
  static_assert(kStretch % kPlanePadding == 0);
  for (std::size_t first = 0; first < n; first += kStretch)
    run_steps(from_pixel(in, first), from_pixel(out, first), std::min(kStretch, n - first));
}

void Conversion::run_steps(const ConstPlanes& in, const Planes& out, std::size_t n) const {
  ConstPlanes from = in;
  for (const Step& step : steps_) {
    if (const Affine* affine = std::get_if<Affine>(&step)) {
      apply_affine(*affine, from, out, n);
    } else {
      std::get<Kernel>(step)(from, out, n);
    }
    from = read_only(out);
  }
}

std::array<double, 3> convert_color(const Space& from, const Space& to,
                                    const std::array<double, 3>& color) {
  PlaneBuffer buffer;
  for (std::size_t c = 0; c < 3; ++c) buffer.plane(c)[0] = static_cast<float>(color[c]);
  Conversion(from, to).run(read_only(buffer.planes()), buffer.planes(), 1);
  return {buffer.plane(0)[0], buffer.plane(1)[0], buffer.plane(2)[0]};
}

}  // namespace chalcedony
