#include "job/prepare/colors_in_common.h"

#include "core/channel/channel.h"

namespace chalcedony {
namespace {

constexpr std::size_t kCubeSide = 6;

Bins bins_of(const CubeHistogram& cube) { return {cube.counts().begin(), cube.counts().end()}; }

}  // namespace

CubeHistogram empty_color_cube() { return {channels_of(spaces::kOklab), kCubeSide}; }

ColorCubeCounter::ColorCubeCounter(const PictureInfo& info)
    : to_oklab_(*info.space, spaces::kOklab) {}

void ColorCubeCounter::add(const Block& block, const ConstPlanes& rgb, CubeHistogram& cube) {
  to_oklab_.run(rgb, oklab_.planes(), block.size);
  const ConstPlanes oklab = read_only(oklab_.planes());
  cube.add(block, {oklab[0], oklab[1], oklab[2]});
}

double percent_in_common(const CubeHistogram& a, const CubeHistogram& b) {
  return 100 * (1 - overlap_distance(bins_of(a), bins_of(b)));
}

ColorsInCommon::ColorsInCommon(const PictureInfo& info, const CubeHistogram* other)
    : info_(info), other_(other), cubes_(Cubes{empty_color_cube(), empty_color_cube()}) {}

ColorsInCommon::Collector::Collector(ColorsInCommon& all) : all_(all), counter_(all.info_) {}

void ColorsInCommon::Collector::add(const Block& block, const ConstPlanes& balanced) {
  if (!all_.other_) return;
  Cubes& cubes = all_.cubes_.local();
  counter_.add(block, block.color, cubes.before);
  counter_.add(block, balanced, cubes.after);
}

ColorsInCommon::Found ColorsInCommon::found() {
  const Cubes& cubes = cubes_.merged([](Cubes& total, const Cubes& one) {
    total.before.merge(one.before);
    total.after.merge(one.after);
  });
  return {percent_in_common(cubes.before, *other_), percent_in_common(cubes.after, *other_)};
}

}  // namespace chalcedony
