// `chalcedony-groups PICTURE`: times k-means on the colors of a picture against a plain version
// that looks at every pixel, and 64 groups against 8 for the same iterations. Medians of 5 turns;
// prints a Markdown table.
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <vector>

#include "core/cluster/k_means.h"
#include "io/picture/open_picture.h"
#include "job/cluster/color_points.h"
#include "job/picture/inputs.h"

namespace {

using namespace chalcedony;

constexpr unsigned kIterations = 10;
constexpr std::size_t kTurns = 5;

/// Every pixel of a picture in oklab.
std::vector<std::array<float, 3>> pixels_of(PictureFile& file) {
  std::vector<std::array<float, 3>> pixels;
  const ChannelPlan plan(file.info, channels_of(spaces::kOklab));
  BlockReader reader(file.info, {});
  ChannelEvaluator evaluator(plan);
  const auto make_worker = [] {
    return [](const Band& band) {
      return std::vector<std::byte>(band.own_rows(),
                                    band.own_rows() + band.rows() * band.shape().row_bytes());
    };
  };
  travel(*file.rows, {}, make_worker, [&](std::vector<std::byte>&&, const Band& band) {
    reader.for_each_block(band, [&](const Block& block) {
      evaluator.evaluate(block);
      for (std::size_t i = 0; i < block.size; ++i)
        pixels.push_back(
            {evaluator.channel(0)[i], evaluator.channel(1)[i], evaluator.channel(2)[i]});
    });
  });
  return pixels;
}

/// Lloyd's iterations as they are written down, on one thread.
void plain_k_means(const std::vector<std::array<float, 3>>& pixels, Centers centers) {
  const std::size_t k = centers.size() / 3;
  for (unsigned iteration = 0; iteration < kIterations; ++iteration) {
    std::vector<double> sums(3 * k), counts(k);
    for (const auto& pixel : pixels) {
      std::size_t best = 0;
      double nearest = 1e300;
      for (std::size_t c = 0; c < k; ++c) {
        double distance = 0;
        for (std::size_t f = 0; f < 3; ++f) {
          const double step = static_cast<double>(pixel[f]) - centers[3 * c + f];
          distance += step * step;
        }
        if (distance < nearest) {
          nearest = distance;
          best = c;
        }
      }
      ++counts[best];
      for (std::size_t f = 0; f < 3; ++f) sums[3 * best + f] += static_cast<double>(pixel[f]);
    }
    for (std::size_t c = 0; c < k; ++c)
      for (std::size_t f = 0; f < 3; ++f)
        if (counts[c] > 0) centers[3 * c + f] = sums[3 * c + f] / counts[c];
  }
}

template <class Work>
double seconds_of(const Work& work) {
  const auto start = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

double median(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  return values[values.size() / 2];
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const SharedOptions options;
  const Context context;
  ColorPoints colors(channels_of(spaces::kOklab), 0, 1);
  CountedPicture picture = open_counted(argv[1], options, context);
  colors.add(picture, options, context);
  colors.finish(options.threads);
  PictureFile file = open_picture(argv[1]);
  const auto pixels = pixels_of(file);
  const Points points = colors.points();
  const DrawnPoints drawn(points, 1);
  KMeansOptions groups;
  groups.movement = 0;
  groups.most_iterations = kIterations;
  const Centers start8 = starting_centers(drawn, 8, CenterStart::kSpread, 1),
                start64 = starting_centers(drawn, 64, CenterStart::kSpread, 1);
  std::vector<double> ours, many, plain;
  for (std::size_t turn = 0; turn < kTurns; ++turn) {
    ours.push_back(seconds_of([&] { move_centers(points, start8, groups); }));
    many.push_back(seconds_of([&] { move_centers(points, start64, groups); }));
    plain.push_back(seconds_of([&] { plain_k_means(pixels, start8); }));
  }
  fmt::print(
      "{} pixels, {} colors, {} iterations\n\n| groups | version | seconds | ratio |\n"
      "|---|---|---|---|\n",
      pixels.size(), points.size, kIterations);
  fmt::print("| 8 | by color, with bounds | {:.3f} | 1 |\n", median(ours));
  fmt::print("| 64 | by color, with bounds | {:.3f} | {:.2f} |\n", median(many),
             median(many) / median(ours));
  fmt::print("| 8 | plain, every pixel, one thread | {:.3f} | {:.1f} |\n", median(plain),
             median(plain) / median(ours));
}
