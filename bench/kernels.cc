// Nanoseconds a pixel of the work that is done on every pixel, on one thread and without files:
//   chalcedony-kernels [--benchmark_filter=NAME] ...
// Blocks are those of a picture of smooth colors with grain, so that neighbors are alike as in
// photographs.
#include <benchmark/benchmark.h>

#include <chrono>
#include <cmath>
#include <string>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/color/color_difference.h"
#include "core/filter/band_filter.h"
#include "core/gamut/gamut_count.h"
#include "core/gamut/gamut_map.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/color_table.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/pixel_hash.h"
#include "core/pixel/road.h"
#include "core/select/selection.h"
#include "core/stats/histogram.h"

namespace {

using namespace chalcedony;

constexpr std::uint32_t kSide = 1024;

PictureInfo info_of(SampleType sample, const Space& space = spaces::kSrgb) {
  PictureInfo info;
  info.shape = {kSide, kSide, 3, sample};
  info.full_scale = sample == SampleType::kU8 ? 255 : 1;
  info.space = &space;
  return info;
}

const std::vector<std::byte>& picture() {
  static const std::vector<std::byte> samples = [] {
    std::vector<std::byte> made(3 * std::size_t{kSide} * kSide);
    for (std::size_t i = 0; i < made.size(); ++i) {
      const double x = static_cast<double>(i / 3 % kSide), y = static_cast<double>(i / 3 / kSide);
      const double wave = std::sin(x / 97 + static_cast<double>(i % 3)) * std::cos(y / 131);
      const auto grain = static_cast<double>(mixed_bits(i) % 17);
      made[i] = static_cast<std::byte>(static_cast<int>(120 + 100 * wave + grain));
    }
    return made;
  }();
  return samples;
}

/// The Blocks of the picture, one after the other and again from the first.
class Blocks {
 public:
  explicit Blocks(const PictureInfo& info) : reader_(info, count_all()) {}
  const Block& next() {
    at_ = (at_ + kBlockPixels) % (std::size_t{kSide} * kSide);
    return reader_.read(picture().data() + 3 * at_, at_, kBlockPixels);
  }

 private:
  BlockReader reader_;
  std::size_t at_ = 0;
};

template <class Work>
void add(const std::string& name, Work work, double pixels_a_turn = kBlockPixels) {
  benchmark::RegisterBenchmark(name.c_str(), [work,
                                              pixels_a_turn](benchmark::State& state) mutable {
    const auto start = std::chrono::steady_clock::now();
    for (auto _ : state) {
      work();
      benchmark::ClobberMemory();
    }
    const std::chrono::duration<double, std::nano> taken = std::chrono::steady_clock::now() - start;
    state.counters["ns/pixel"] =
        taken.count() / (pixels_a_turn * static_cast<double>(state.iterations()));
  });
}

/// What reads a Block is not part of what is measured: it is read once.
struct OneBlock {
  explicit OneBlock(const PictureInfo& info) : blocks(info), block(blocks.next()) {}
  Blocks blocks;
  const Block& block;
};

void add_reading_and_writing() {
  auto blocks = std::make_shared<Blocks>(info_of(SampleType::kU8));
  add("read 8-bit", [blocks] { benchmark::DoNotOptimize(blocks->next().color); });
  for (const auto& [name, sample] : {std::pair{"write 8-bit", SampleType::kU8},
                                     {"write 16-bit", SampleType::kU16},
                                     {"write float", SampleType::kF32}}) {
    auto one = std::make_shared<OneBlock>(info_of(SampleType::kU8));
    auto writer = std::make_shared<BlockWriter>(info_of(sample));
    auto stored = std::make_shared<std::vector<std::byte>>(12 * kBlockPixels);
    add(name, [=] { writer->write(one->block.color, nullptr, kBlockPixels, stored->data()); });
  }
}

void add_conversions() {
  for (const Space* space : all_spaces()) {
    if (space->internal || space == &spaces::kSrgb) continue;
    auto one = std::make_shared<OneBlock>(info_of(SampleType::kU8));
    auto there = std::make_shared<PlaneBuffer>();
    auto back = std::make_shared<PlaneBuffer>();
    const Conversion to(spaces::kSrgb, *space, KnownValues::kInRange);
    to.run(one->block.color, there->planes(), kBlockPixels);
    add("srgb to " + std::string(space->id),
        [=] { to.run(one->block.color, back->planes(), kBlockPixels); });
    const Conversion from(*space, spaces::kSrgb);
    add(std::string(space->id) + " to srgb",
        [=] { from.run(read_only(there->planes()), back->planes(), kBlockPixels); });
  }
}

void add_gamut() {
  auto one = std::make_shared<OneBlock>(info_of(SampleType::kU8, spaces::kSrgb));
  auto count = std::make_shared<GamutCount>();
  add("count out of gamut, none is",
      [=] { count->add(one->block, one->block.color, info_of(SampleType::kU8)); });
  auto wide = std::make_shared<PlaneBuffer>();
  auto changed = std::make_shared<PlaneBuffer>();
  Conversion(*find_space("rec2020"), spaces::kSrgb)
      .run(one->block.color, wide->planes(), kBlockPixels);
  add("count out of gamut, many are",
      [=] { count->add(one->block, read_only(wide->planes()), info_of(SampleType::kU8)); });
  auto map = std::make_shared<GamutMap>(spaces::kSrgb);
  add("map into gamut, many are out", [=] {
    for (std::size_t c = 0; c < 3; ++c)
      std::copy_n(wide->plane(c), kBlockPixels, changed->plane(c));
    map->run(changed->planes(), kBlockPixels);
  });
}

/// Work on channels of Blocks that are read and converted besides.
template <class Work>
void add_on_channels(const std::string& name, std::vector<Channel> channels, Work work) {
  auto blocks = std::make_shared<Blocks>(info_of(SampleType::kU8));
  auto plan = std::make_shared<ChannelPlan>(info_of(SampleType::kU8), std::move(channels));
  auto evaluator = std::make_shared<ChannelEvaluator>(*plan);
  add(name, [blocks, plan, evaluator, work]() mutable {
    const Block& block = blocks->next();
    evaluator->evaluate(block);
    work(block, *evaluator);
  });
}

void add_looking() {
  const std::vector<Channel> hue_saturation{{find_space("hsv"), 0}, {find_space("hsv"), 1}};
  add_on_channels("hsv.h and hsv.s with gaps", hue_saturation,
                  [](const Block&, const ChannelEvaluator&) {});
  auto lightness = std::make_shared<Histogram>(Binning(0, 100, 256), false);
  add_on_channels("histogram of lab.l", {{find_space("lab"), 0}},
                  [lightness](const Block& block, const ChannelEvaluator& channels) {
                    lightness->add(block, channels.channel(0));
                  });
  auto joint =
      std::make_shared<JointHistogram>(Binning(0, 360, 180), true, Binning(0, 100, 100), false);
  add_on_channels("joint histogram of hsv.h and hsv.s", hue_saturation,
                  [joint](const Block& block, const ChannelEvaluator& channels) {
                    joint->add(block, channels.channel(0), channels.channel(1));
                  });
  for (const std::string text : {"hsv.h in 200..260 and hsv.s >= 40", "near(#b5563a, 12)"}) {
    auto expression = std::make_shared<Expression>(parse_expression(text));
    auto selection = std::make_shared<Selection>(*expression);
    add_on_channels("select " + text, expression->channels,
                    [expression, selection](const Block& block, const ChannelEvaluator& channels) {
                      benchmark::DoNotOptimize(selection->select(block, channels));
                    });
  }
  auto counter = std::make_shared<ColorCounter>();
  auto at = std::make_shared<std::size_t>(0);
  add("count distinct colors", [=] {
    *at = (*at + kBlockPixels) % (std::size_t{kSide} * kSide);
    counter->add_stored(picture().data() + 3 * *at, 3, kBlockPixels);
  });
  auto one = std::make_shared<OneBlock>(info_of(SampleType::kU8));
  auto lab = std::make_shared<PlaneBuffer>(4);
  Conversion(spaces::kSrgb, *find_space("lab")).run(one->block.color, lab->planes(), kBlockPixels);
  add("CIEDE2000 of two Labs", [=] {
    // A second color for each: the channels in another order, with a kept.
    const ConstPlanes other{lab->plane(0), lab->plane(2), lab->plane(1)};
    differences(DifferenceFormula::kCiede2000, read_only(lab->planes()), other, kBlockPixels,
                lab->plane(3));
  });
}

/// Filters look at rows above and below, so they are given the whole picture.
void add_filters() {
  const std::pair<const char*, FilterKind> kinds[] = {{"mean", FilterKind::kMean},
                                                      {"Gaussian", FilterKind::kGaussian},
                                                      {"median", FilterKind::kMedian},
                                                      {"minimum", FilterKind::kMinimum},
                                                      {"opening", FilterKind::kOpening}};
  for (const auto& [name, kind] : kinds)
    for (const double radius : {2.0, 10.0, 50.0}) {
      Filter filter;
      filter.kind = kind;
      filter.element.radius = static_cast<decltype(filter.element.radius)>(radius);
      const auto run = [filter] {
        const PictureInfo info = info_of(SampleType::kU8);
        MemorySource rows(info.shape, picture());
        const BlockWriter stored(info);
        RoadOptions road;
        road.threads = 1;
        road.halo = halo_of(filter);
        std::vector<std::byte> out(info.shape.row_bytes() * kSide);
        const auto make_worker = [&] {
          return
              [&, bands = BandFilter(info, count_all(), filter, stored)](const Band& band) mutable {
                bands.run(band, out.data() + band.first_row() * info.shape.row_bytes());
                return true;
              };
        };
        travel(rows, road, make_worker, [](bool) {});
      };
      add(std::string(name) + " of radius " + std::to_string(static_cast<int>(radius)), run,
          double{kSide} * kSide);
    }
}

}  // namespace

int main(int argc, char** argv) {
  add_reading_and_writing();
  add_conversions();
  add_gamut();
  add_looking();
  add_filters();
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  benchmark::RunSpecifiedBenchmarks();
}
