#include "job/assess/assessed_map.h"

#include <set>

#include "core/error.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

/// What one thread counts.
struct LabelTally {
  LabelCounts assessed, others;
  std::array<std::uint64_t, 5> kinds{};
  std::uint64_t of_other_strata = 0;

  void merge(const LabelTally& other) {
    assessed.merge(other.assessed);
    others.merge(other.others);
    for (std::size_t i = 0; i < kinds.size(); ++i) kinds[i] += other.kinds[i];
    of_other_strata += other.of_other_strata;
  }
};

}  // namespace

void AssessedMap::open(const Context& context) {
  if (labels_) {
    labels_->rows().rewind();
    return;
  }
  labels_ = std::make_unique<AssessedLabels>(files_, *options_,
                                             opened_before_ ? without_warnings(context) : context);
  opened_before_ = true;
}

RoadOptions AssessedMap::road(const Context& context) const {
  RoadOptions road;
  road.threads = options_->shared.threads;
  road.stop = context.stop;
  if (context.progress)
    road.progress = [&context, name = files_.map.filename().string(), height = labels_->height()](
                        std::uint64_t done) { context.progress(name, done, height); };
  return road;
}

void AssessedMap::count(const Context& context) {
  Tallies<LabelTally> tallies{LabelTally{}};
  const bool stratified = labels_->drawn() == TruthDrawn::kStratified;
  const auto make_worker = [&] {
    return [&](const Band& band) {
      LabelTally& tally = tallies.local();
      std::array<std::uint64_t, 5> kinds{};
      labels_->for_each_run(
          band, [&](std::uint64_t first, std::uint32_t n, const Labels& labels, Assessed assessed) {
            kinds[static_cast<std::size_t>(assessed)] += n;
            if (assessed == Assessed::kYes) {
              tally.assessed.add(labels, n);
              if (stratified)
                for (std::uint64_t pixel = first; pixel < first + n; ++pixel)
                  tally.of_other_strata += labels_->of_other_stratum(pixel, labels[kOfMap]);
            } else if (assessed == Assessed::kUnlabelled || assessed == Assessed::kTrained) {
              tally.others.add({labels[kOfMap], 0}, n);
            }
          });
      for (std::size_t i = 0; i < kinds.size(); ++i) tally.kinds[i] += kinds[i];
      return true;
    };
  };
  travel(labels_->rows(), road(context), make_worker, [](bool) {});
  const LabelTally all =
      tallies.merged([](LabelTally& total, const LabelTally& one) { total.merge(one); });
  counted_ = {all.assessed.totals(), all.others.totals(), all.kinds, all.of_other_strata};
  if (counted_.assessed.empty())
    throw InputError("no labelled pixel can be assessed",
                     "check --region, --within and the reference's labels",
                     files_.reference.string());
  width_ = labels_->width();
  height_ = labels_->height();
  for (std::size_t p = 0; p < labels_->pictures(); ++p)
    classes_[p] = labels_->classes(p, found_in(p));
  trained_on_ = labels_->trained_on();
  drawn_ = labels_->drawn();
}

std::vector<unsigned> AssessedMap::found_in(std::size_t p) const {
  std::set<unsigned> found;
  const auto add = [&](const LabelTotal& one) {
    if (one.labels[p] != 0) found.insert(one.labels[p]);
  };
  for (const LabelTotal& one : counted_.assessed) add(one);
  if (p == kOfMap)
    for (const LabelTotal& one : counted_.others) add(one);
  return {found.begin(), found.end()};
}

void AssessedMap::paint(AssessPictures& pictures, const Context& context) const {
  const auto make_worker = [&] {
    return [&, painter = pictures.painter()](const Band& band) mutable {
      painter.begin(band);
      labels_->for_each_run(
          band, [&](std::uint64_t, std::uint32_t n, const Labels& labels, Assessed assessed) {
            painter.add(labels, assessed == Assessed::kYes, n);
          });
      return painter.end(band);
    };
  };
  travel(labels_->rows(), road(context), make_worker,
         [&](PaintedRows&& rows) { pictures.take(rows); });
  pictures.finish();
}

}  // namespace chalcedony
