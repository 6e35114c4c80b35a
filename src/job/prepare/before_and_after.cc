#include "job/prepare/before_and_after.h"

#include <optional>

#include "figure/balance_figure.h"
#include "job/histogram/histogram_report.h"

namespace chalcedony {
namespace {

BalancedSums empty_sums(const PictureInfo& info) {
  BalancedSums sums;
  for (const Channel& channel : own_channels(info)) {
    sums.before.emplace_back(channel_binning(channel, 256, info), false);
    sums.after.emplace_back(channel_binning(channel, 256, info), false);
  }
  return sums;
}

std::vector<HistogramSeries> series_of(const std::vector<Histogram>& histograms,
                                       const PictureInfo& info) {
  const std::vector<Channel> channels = own_channels(info);
  std::vector<HistogramSeries> series;
  for (std::size_t c = 0; c < histograms.size(); ++c) {
    const Histogram& h = histograms[c];
    const std::optional<std::size_t> median = median_bin(h);
    series.push_back({channels[c], &h, median ? h.binning().edge(*median) : 0, median.has_value()});
  }
  return series;
}

}  // namespace

void BalancedSums::merge(const BalancedSums& other) {
  for (std::size_t c = 0; c < before.size(); ++c) {
    before[c].merge(other.before[c]);
    after[c].merge(other.after[c]);
  }
}

BeforeAndAfter::BeforeAndAfter(const PictureInfo& info, bool wanted)
    : info_(info),
      before_(info, wanted),
      after_(empty_preview(info.shape, wanted)),
      sums_(empty_sums(info)),
      to_screen_(*info.space, spaces::kSrgb) {}

void BeforeAndAfter::Collector::add(const Block& block, const ConstPlanes& balanced) {
  if (!all_.wanted()) return;
  BalancedSums& sums = all_.sums_.local();
  for (std::size_t c = 0; c < sums.before.size(); ++c) {
    sums.before[c].add(block, block.color[c]);
    sums.after[c].add(block, balanced[c]);
  }
  before_.add(block);
  all_.to_screen_.run(balanced, screen_.planes(), block.size);
  all_.after_.local().add(block, read_only(screen_.planes()));
}

void BeforeAndAfter::draw(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::string& subtitle) {
  const BalancedSums& both =
      sums_.merged([](BalancedSums& total, const BalancedSums& one) { total.merge(one); });
  add_balance_figure(plot, path, name, subtitle,
                     {before_.thumbnail(), series_of(both.before, info_)},
                     {merged_thumbnail(after_), series_of(both.after, info_)});
}

}  // namespace chalcedony
