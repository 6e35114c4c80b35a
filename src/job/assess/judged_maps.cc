#include "job/assess/judged_maps.h"

#include <cstdint>
#include <numeric>
#include <string>
#include <utility>

#include "job/assess/drawn_sample.h"

namespace chalcedony {
namespace {

constexpr std::uint64_t kFewReferencePixels = 30;

Agreement agreement_of(const ClassMatching& matching) {
  const std::size_t classes = matching.names.size();
  return {matching, ErrorMatrix(classes + 1, classes), {}};
}

std::vector<double> shares_of(const std::vector<std::uint64_t>& pixels) {
  const auto all =
      static_cast<double>(std::accumulate(pixels.begin(), pixels.end(), std::uint64_t{0}));
  std::vector<double> shares;
  for (const std::uint64_t n : pixels) shares.push_back(static_cast<double>(n) / all);
  return shares;
}

void add_pixels(const Labels& labels, std::uint64_t n, Assessment& to) {
  const auto cell = [&](const Agreement& agreement, Label map) {
    return std::pair(agreement.matching.row_of(map),
                     agreement.matching.column_of(labels[kOfReference]));
  };
  const auto [row, column] = cell(to.map, labels[kOfMap]);
  to.map.matrix.add(row, column, n);
  if (to.versus.empty()) return;
  std::size_t others_right = 0;
  for (std::size_t v = 0; v < to.versus.size(); ++v) {
    OtherMap& other = to.versus[v];
    const auto [row2, column2] = cell(other.map, labels[kOfVersus + v]);
    other.map.matrix.add(row2, column2, n);
    if (row == column && row2 != column2) other.only_first += n;
    if (row != column && row2 == column2) other.only_this += n;
    others_right += row2 == column2;
  }
  const RightMaps right = right_maps(row == column, others_right, to.versus.size());
  to.right_in[column][static_cast<std::size_t>(right)] += n;
}

void merge_into(Assessment& all, const Assessment& one) {
  all.map.matrix.merge(one.map.matrix);
  for (std::size_t v = 0; v < one.versus.size(); ++v) {
    all.versus[v].map.matrix.merge(one.versus[v].map.matrix);
    all.versus[v].only_first += one.versus[v].only_first;
    all.versus[v].only_this += one.versus[v].only_this;
  }
  for (std::size_t c = 0; c < one.right_in.size(); ++c)
    for (std::size_t r = 0; r < kRightMaps; ++r) all.right_in[c][r] += one.right_in[c][r];
}

class Judge {
 public:
  Judge(AssessedMaps& maps, const AssessOptions& options, const Context& context)
      : maps_(maps), options_(options), context_(context) {}

  JudgedMaps judged() {
    match();
    count_strata();
    if (draws()) {
      judged_.sampled = drawn_sample(maps_, matched_, strata_, options_, context_);
    } else if (by_tables()) {
      judged_.sampled = labelled_pixels(maps_, context_);
    }
    fill();
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      Assessment& one = judged_.each[i].assessment;
      finish(one, draws() || drawn_for(maps_[i]));
      merge_into(judged_.together, one);
    }
    // Tables of several maps were drawn from each alone, as many from a small one as from a large.
    finish(judged_.together, draws() || (maps_.alone() && drawn_for(maps_[0])));
    if (as_they_come()) compare_maps();
    warn_of_small_classes();
    warn_of_other_strata();
    return std::move(judged_);
  }

 private:
  bool draws() const { return options_.draw.draws(); }
  /// Whether all references are tables of pixels.
  bool by_tables() const {
    for (std::size_t i = 0; i < maps_.size(); ++i)
      if (!maps_[i].drawn()) return false;
    return true;
  }

  void match() {
    matched_ = maps_.match(kOfMap);
    if (matched_.all.by == MatchedBy::kNumber)
      context_.warn("classes of map and reference are matched by number, as no names are common");
    judged_.together.map = agreement_of(matched_.all);
    judged_.each.resize(maps_.size());
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      judged_.each[i].files = maps_[i].files();
      judged_.each[i].assessment.map = agreement_of(matched_.each[i]);
    }
    for (std::size_t v = 0; v < options_.versus.size(); ++v) {
      const MatchedMaps others = maps_.match(kOfVersus + v);
      judged_.together.versus.push_back({agreement_of(others.all)});
      for (std::size_t i = 0; i < maps_.size(); ++i)
        judged_.each[i].assessment.versus.push_back({agreement_of(others.each[i])});
    }
    if (options_.versus.empty()) return;
    const std::vector<RightCounts> nothing_yet(matched_.all.names.size());
    judged_.together.right_in = nothing_yet;
    for (JudgedMap& one : judged_.each) one.assessment.right_in = nothing_yet;
  }

  void count_strata() {
    const std::size_t rows = judged_.together.map.matrix.rows();
    strata_.resize(rows);
    std::vector<std::uint64_t> all(rows);
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      std::vector<std::uint64_t> mapped(rows);
      const auto row_of = [&](const LabelTotal& one) {
        return matched_.each[i].row_of(one.labels[kOfMap]);
      };
      for (const LabelTotal& one : maps_[i].counted().assessed) {
        strata_[row_of(one)] += one.count;
        mapped[row_of(one)] += one.count;
      }
      for (const LabelTotal& one : maps_[i].counted().others) mapped[row_of(one)] += one.count;
      judged_.each[i].assessment.mapped_shares = shares_of(mapped);
      for (std::size_t r = 0; r < rows; ++r) all[r] += mapped[r];
    }
    judged_.together.mapped_shares = shares_of(all);
  }

  /// The matrices.
  void fill() {
    if (!judged_.sampled.empty()) {
      for (const DrawnPixel& drawn : judged_.sampled) {
        const std::size_t map = maps_.numbering().place_of(drawn.pixel).picture;
        add_pixels(drawn.labels, 1, judged_.each[map].assessment);
      }
      return;
    }
    for (std::size_t i = 0; i < maps_.size(); ++i)
      for (const LabelTotal& one : maps_[i].counted().assessed)
        add_pixels(one.labels, one.count, judged_.each[i].assessment);
  }

  /// Whether the reference is a sample from which areas of a map can be told: drawn without looking
  /// at classes, or from those of this map.
  static bool drawn_for(const AssessedMap& map) {
    return map.drawn() && *map.drawn() != TruthDrawn::kByHand && map.counted().of_other_strata == 0;
  }

  void finish(Assessment& one, bool sampled) const {
    one.map.accuracy = accuracy_of(one.map.matrix, options_.level);
    for (OtherMap& other : one.versus)
      other.map.accuracy = accuracy_of(other.map.matrix, options_.level);
    if (sampled) one.adjusted = area_adjusted(one.map.matrix, one.mapped_shares);
  }

  /// Whether every pixel is as likely to be assessed as any other. Where it is not, what was
  /// assessed of a map does not say how much the map weighs.
  bool as_they_come() const {
    if (options_.draw.prefers_classes()) return false;
    for (std::size_t i = 0; i < maps_.size(); ++i)
      if (maps_[i].drawn()) return false;
    return true;
  }

  void compare_maps() {
    const auto score = [](const Agreement& agreement) {
      return UnitPart{right_pixels(agreement), agreement.accuracy.total};
    };
    std::vector<UnitPart> first;
    std::vector<std::vector<UnitPart>> others(options_.versus.size());
    for (const JudgedMap& one : judged_.each) {
      first.push_back(score(one.assessment.map));
      for (std::size_t v = 0; v < others.size(); ++v)
        others[v].push_back(score(one.assessment.versus[v].map));
    }
    judged_.between = share_of_units(first, options_.level);
    for (const std::vector<UnitPart>& maps : others)
      judged_.gains.push_back(gain_of_units(first, maps, options_.level));
  }

  void warn_of_small_classes() const {
    const Agreement& all = judged_.together.map;
    std::string small;
    for (std::size_t c = 0; c < all.matching.names.size(); ++c)
      if (const std::uint64_t n = all.accuracy.classes[c].reference; n < kFewReferencePixels)
        small += (small.empty() ? "" : ", ") + all.matching.names[c] + " " + std::to_string(n);
    if (!small.empty())
      context_.warn("fewer than 30 reference pixels, so little can be said of: " + small);
  }

  void warn_of_other_strata() const {
    for (std::size_t i = 0; i < maps_.size(); ++i)
      if (maps_[i].counted().of_other_strata > 0)
        context_.warn(maps_[i].files().reference.string() +
                      ": its pixels were drawn from the classes of another map, so they do not "
                      "stand for all pixels of " +
                      maps_[i].files().map.string());
  }

  AssessedMaps& maps_;
  const AssessOptions& options_;
  const Context& context_;
  MatchedMaps matched_;
  std::vector<std::uint64_t> strata_;  // pixels that can be drawn, by row of the matrix
  JudgedMaps judged_;
};

}  // namespace

JudgedMaps judge_maps(AssessedMaps& maps, const AssessOptions& options, const Context& context) {
  return Judge(maps, options, context).judged();
}

}  // namespace chalcedony
