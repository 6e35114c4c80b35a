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
#include "job/picture/label_input.h"
#include "job/picture/same_size.h"
#include "job/picture/short_names.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

/// What one thread counts.
struct TimedTally {
  LabelCounts counted;
  Excluded excluded;

  void merge(const TimedTally& other) {
    counted.merge(other.counted);
    excluded += other.excluded;
  }
};

/// The labels that a map has, in order.
std::vector<Label> labels_of(const std::vector<LabelTotal>& totals, std::size_t map) {
  std::set<Label> labels;
  for (const LabelTotal& one : totals)
    if (one.labels[map] != 0) labels.insert(one.labels[map]);
  return {labels.begin(), labels.end()};
}

}  // namespace

TimedMaps::TimedMaps(const std::vector<std::filesystem::path>& files, const SharedOptions& options,
                     const Context& context)
    : options_(options), context_(context) {
  std::vector<std::unique_ptr<RowSource>> sources;
  for (const std::filesystem::path& map : files) open(map, sources);
  width_ = sources.front()->shape().width;
  rows_ = SideBySide::of_labels(std::move(sources));
  counting_ = counting_for(options, file(0), width_, height(), context);
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
  LabelFile opened = open_label_input(path, options_, context_);
  if (!sources.empty())
    require_same_size(path, opened.rows->shape(), file(0).string() + " is",
                      sources.front()->shape(), "give maps of one place, all of one size");
  sources.push_back(std::move(opened.rows));
  maps_.push_back(std::move(opened));
}

RoadOptions TimedMaps::road() const { return road_for(file(0), height(), options_, context_); }

std::vector<LabelTotal> TimedMaps::count() {
  Tallies<TimedTally> tallies{TimedTally{}};
  const auto make_worker = [&] {
    return [&](const Band& band) {
      TimedTally& tally = tallies.local();
      for_each_run(band, [&](std::uint32_t n, const Labels& labels, PlaceCounts counts) {
        if (counts == PlaceCounts::kYes) tally.counted.add(labels, n);
        tally.excluded.add(counts, n);
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
    throw InputError("no pixel counts", "check --region and --within", file(0).string());
  return totals;
}

void TimedMaps::name_classes(const std::vector<LabelTotal>& totals) {
  std::vector<bool> masks;
  for (std::size_t map = 0; map < size(); ++map) {
    const std::vector<Label> found = labels_of(totals, map);
    masks.push_back(false);
    if (found.empty()) continue;  // it is what the others are
    check_listed(maps_[map], found.back());
    FoundClasses told = classes_found(maps_[map], found);
    masks[map] = told.is_mask;
    for (LegendEntry& entry : told.classes) entry.color = color_on_paper(told.is_mask, entry.color);
    maps_[map].classes = std::move(told.classes);
  }
  name_of_none_ =
      std::count(masks.begin(), masks.end(), true) > 0 ? "not selected" : "unclassified";
  for (std::size_t map = 0; map < size(); ++map) {
    const std::size_t before = classes();
    std::vector<std::size_t>& places = places_.emplace_back(kLabels);
    bool known = before == 0 || maps_[map].classes.empty();
    for (const LegendEntry& entry : maps_[map].classes) {
      places[entry.index] = classes_.add(entry.name, entry.color);
      if (classes() > kMostTimedClasses)
        throw InputError("there are more than " + std::to_string(kMostTimedClasses) +
                             " classes with those of this map",
                         "give maps of fewer classes", file(map).string());
      known = known || places[entry.index] < before;
    }
    if (!known)
      throw InputError("has no class that " + file(0).string() + " has",
                       "give maps of the same classes, or masks", file(map).string());
  }
  for (std::vector<std::size_t>& places : places_) places[0] = classes();
}

std::vector<std::string> TimedMaps::names() const {
  std::vector<std::filesystem::path> stems;
  for (const LabelFile& map : maps_) stems.push_back(map.path.parent_path() / map.path.stem());
  return short_names(stems);
}

std::string TimedMaps::color(std::size_t c) const {
  return c < classes() ? classes_.colors()[c] : kUnclassifiedColor;
}

}  // namespace chalcedony
