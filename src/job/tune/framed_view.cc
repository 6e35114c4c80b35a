#include "job/tune/framed_view.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace chalcedony {
namespace {

constexpr double kScreen = 1.4;  // width by height

/// Adds the kinds of a picture to those of all. Returns which each of them is there.
std::vector<std::uint32_t> add_kinds(const PictureBeside& picture, std::size_t channels,
                                     DistinctRows& all) {
  const KindWords layout(channels);
  std::vector<std::uint32_t> numbers, words(layout.words());
  for (std::size_t k = 0; k < picture.view.kinds.size(); ++k) {
    const std::uint32_t* const kind = picture.view.kinds.row(k);
    std::copy_n(kind, words.size(), words.begin());
    const std::size_t its_class = layout.class_of(kind);
    const std::size_t here = its_class == 0 ? 0 : picture.class_here[its_class - 1] + 1;
    words.back() =
        KindWords::look({layout.color(kind, 0), layout.color(kind, 1), layout.color(kind, 2)},
                        static_cast<std::uint8_t>(here));
    numbers.push_back(all.add(words.data()));
  }
  return numbers;
}

void put(const PictureView& from, const std::vector<std::uint32_t>& numbers,
         const PictureFrame& frame, PictureView& to) {
  for (std::uint32_t y = 0; y < frame.height; ++y)
    for (std::uint32_t x = 0; x < frame.width; ++x) {
      const std::uint32_t kind = from.kind_of[std::size_t{y} * frame.width + x];
      if (kind != PictureView::kNoKind)
        to.kind_of[std::size_t{frame.top + y} * to.width + frame.left + x] = numbers[kind];
    }
}

}  // namespace

FramedView framed(PictureView view, const std::string& name) {
  const PictureFrame frame{name, 0, 0, view.width, view.height, view.step};
  return {std::move(view), {frame}};
}

std::uint32_t seen_of_each(std::uint32_t of_one, const std::vector<RasterShape>& pictures) {
  const auto seen = [&](std::uint32_t most) {
    std::uint64_t pixels = 0;
    for (const RasterShape& one : pictures) {
      const std::uint32_t step = step_for(one, most);
      pixels += std::uint64_t{seen_along(one.width, step)} * seen_along(one.height, step);
    }
    return pixels;
  };
  std::uint32_t most = of_one;
  while (most > 1 && seen(most) > std::uint64_t{of_one} * of_one) --most;
  return most;
}

std::size_t pictures_in_row(std::size_t pictures, std::uint32_t width, std::uint32_t height) {
  const auto off = [&](std::size_t across) {
    const std::size_t down = (pictures + across - 1) / across;
    const double shape = static_cast<double>(across * width) / static_cast<double>(down * height);
    return std::abs(std::log(shape / kScreen));
  };
  std::size_t best = 1;
  for (std::size_t across = 2; across <= pictures; ++across)
    if (off(across) < off(best)) best = across;
  return best;
}

FramedView side_by_side(const std::vector<PictureBeside>& pictures, std::size_t channels) {
  std::uint32_t width = 0, height = 0;
  for (const PictureBeside& one : pictures) {
    width = std::max(width, one.view.width);
    height = std::max(height, one.view.height);
  }
  const std::uint32_t gap = 1 + std::max(width, height) / 50;
  const std::size_t across = pictures_in_row(pictures.size(), width, height);
  FramedView all{PictureView(channels), {}};
  for (std::size_t i = 0; i < pictures.size(); ++i) {
    const PictureView& view = pictures[i].view;
    const auto column = static_cast<std::uint32_t>(i % across),
               row = static_cast<std::uint32_t>(i / across);
    const PictureFrame& frame = all.frames.emplace_back(
        PictureFrame{pictures[i].name, column * (width + gap), row * (height + gap), view.width,
                     view.height, view.step});
    all.view.width = std::max(all.view.width, frame.left + frame.width);
    all.view.height = std::max(all.view.height, frame.top + frame.height);
    all.view.counted += view.counted;
  }
  all.view.kind_of.assign(std::size_t{all.view.width} * all.view.height, PictureView::kNoKind);
  for (std::size_t i = 0; i < pictures.size(); ++i)
    put(pictures[i].view, add_kinds(pictures[i], channels, all.view.kinds), all.frames[i],
        all.view);
  return all;
}

}  // namespace chalcedony
