#include "job/change/timed_maps.h"

#include <algorithm>
#include <array>
#include <set>
#include <utility>

#include "core/assess/class_matching.h"
#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "io/picture/label_picture.h"
#include "job/map/class_shares.h"
#include "job/picture/inputs.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

constexpr Label kOn = 255;            // of a mask
constexpr Label kMostUnlisted = 255;  // a larger number is none of a class that nothing lists

/// What one thread counts.
struct TimedTally {
  LabelCounts counted;
  Excluded excluded;

  void merge(const TimedTally& other) {
    counted.merge(other.counted);
    excluded += other.excluded;
  }
};

std::set<Label> labels_of(const std::vector<LabelTotal>& totals, std::size_t map) {
  std::set<Label> labels;
  for (const LabelTotal& one : totals)
    if (one.labels[map] != 0) labels.insert(one.labels[map]);
  return labels;
}

}  // namespace

TimedMaps::TimedMaps(const SharedOptions& options, const Context& context)
    : options_(options), context_(context) {
  std::vector<std::unique_ptr<RowSource>> sources;
  for (const std::filesystem::path& input : options.inputs) open(input, sources);
  width_ = sources.front()->shape().width;
  rows_ = SideBySide::of_labels(std::move(sources));
  if (options.region)
    region_ =
        errors_at(files_.front().string(), [&] { return options.region->in(width_, height()); });
  if (options.within) within_ = mask_within(options, width_, height(), context);
  const std::vector<LabelTotal> totals = count();
  name_classes(totals);
  for (const LabelTotal& total : totals) {
    ClassHistory& history = histories_.emplace_back();
    for (std::size_t map = 0; map < size(); ++map)
      history.classes.push_back(class_of(map, total.labels[map]));
    history.pixels = total.count;
  }
}

void TimedMaps::open(const std::filesystem::path& path,
                     std::vector<std::unique_ptr<RowSource>>& sources) {
  LabelFile file = open_labels(path, options_.max_pixels);
  if (!sources.empty()) {
    const RasterShape &first = sources.front()->shape(), &mine = file.rows->shape();
    if (mine.width != first.width || mine.height != first.height)
      throw InputError("is " + mine.size_text() + ", " + files_.front().filename().string() +
                           " is " + first.size_text(),
                       "give maps of one place, all of one size", path.string());
  }
  files_.push_back(path);
  legends_.push_back({std::move(file.classes), file.legend_from == LegendFrom::kNumbers});
  sources.push_back(std::move(file.rows));
}

RoadOptions TimedMaps::road() const {
  return road_for(files_.front(), height(), options_, context_);
}

std::vector<LabelTotal> TimedMaps::count() {
  Tallies<TimedTally> tallies{TimedTally{}};
  const bool everywhere = !region_ && !within_;
  const auto make_worker = [&] {
    return [&](const Band& band) {
      TimedTally& tally = tallies.local();
      BandLabels{width_, size(), everywhere}.for_each_run(
          band, [&](std::uint32_t x, std::uint32_t y, std::uint32_t n, const Labels& labels) {
            const Counts counts = everywhere ? Counts::kYes : place(x, y);
            if (counts == Counts::kYes) tally.counted.add(labels, n);
            if (counts == Counts::kOutsideRegion) tally.excluded.outside_region += n;
            if (counts == Counts::kOutsideMask) tally.excluded.outside_mask += n;
          });
      return true;
    };
  };
  travel(*rows_, road(), make_worker, [](bool) {});
  const TimedTally all =
      tallies.merged([](TimedTally& total, const TimedTally& one) { total.merge(one); });
  excluded_ = all.excluded;
  std::vector<LabelTotal> totals = all.counted.totals();
  for (const LabelTotal& total : totals) counted_ += total.count;
  if (counted_ == 0)
    throw InputError("no pixel counts", "check --region and --within", files_.front().string());
  return totals;
}

void TimedMaps::name_classes(const std::vector<LabelTotal>& totals) {
  std::vector<bool> masks;
  for (std::size_t map = 0; map < size(); ++map) {
    const std::set<Label> found = labels_of(totals, map);
    masks.push_back(legends_[map].only_numbers && found == std::set<Label>{kOn});
    if (legends_[map].only_numbers && !found.empty() && *found.rbegin() > kMostUnlisted)
      throw InputError("has the number " + std::to_string(*found.rbegin()) +
                           ", above 255, and no list of classes",
                       "give a class map", files_[map].string());
    legends_[map].entries =
        masks[map] ? std::vector<LegendEntry>{{kOn, std::string(kSelected), kSelectedColor}}
                   : named_classes(legends_[map].entries, {found.begin(), found.end()});
  }
  name_of_none_ =
      std::count(masks.begin(), masks.end(), true) > 0 ? "not selected" : "unclassified";
  for (std::size_t map = 0; map < size(); ++map) {
    const std::size_t before = names_.size();
    std::vector<std::size_t>& places = places_.emplace_back(kLabels);
    bool known = before == 0 || legends_[map].entries.empty();
    for (const LegendEntry& entry : legends_[map].entries) {
      places[entry.index] = place_in_list(names_, entry.name);
      if (names_.size() > kMostTimedClasses)
        throw InputError("there are more than " + std::to_string(kMostTimedClasses) +
                             " classes with those of this map",
                         "give maps of fewer classes", files_[map].string());
      known = known || places[entry.index] < before;
      if (places[entry.index] == colors_.size()) colors_.push_back(entry.color);
    }
    if (!known)
      throw InputError("has no class that " + files_.front().filename().string() + " has",
                       "give maps of the same classes, or masks", files_[map].string());
  }
  for (std::vector<std::size_t>& places : places_) places[0] = names_.size();
}

std::string TimedMaps::color(std::size_t c) const {
  return c < classes() ? colors_[c] : kUnclassifiedColor;
}

}  // namespace chalcedony
