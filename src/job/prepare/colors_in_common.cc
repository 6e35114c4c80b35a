#include "job/prepare/colors_in_common.h"

#include "core/channel/channel.h"

namespace chalcedony {
namespace {

constexpr std::size_t kCubeSide = 6;

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
  return 100 * (1 - overlap_distance(a.bins(), b.bins()));
}

WrittenColors::WrittenColors(const PictureInfo& info, bool wanted)
    : info_(info), wanted_(wanted), cubes_(empty_color_cube()) {}

WrittenColors::Collector::Collector(WrittenColors& all) : all_(all), counter_(all.info_) {}

void WrittenColors::Collector::add(const Block& block, const ConstPlanes& written) {
  if (all_.wanted_) counter_.add(block, written, all_.cubes_.local());
}

const CubeHistogram& WrittenColors::colors() {
  return cubes_.merged([](CubeHistogram& total, const CubeHistogram& one) { total.merge(one); });
}

}  // namespace chalcedony
