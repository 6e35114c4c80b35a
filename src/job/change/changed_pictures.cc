#include "job/change/changed_pictures.h"

#include <utility>

#include "core/palette/figure_colors.h"
#include "figure/changes_figure.h"

namespace chalcedony {
namespace {

constexpr const char* kNotCountedColor = "#ffffff";

}  // namespace

/// One for each thread.
class ChangedPictures::Painter {
 public:
  explicit Painter(ChangedPictures& of) : maps_(&of.maps_) {
    for (auto& picture : of.before_) before_.push_back(picture->painter());
    for (auto& picture : of.changed_) changed_.push_back(picture->painter());
  }

  void begin(const Band& band) {
    for (auto& painter : before_) painter.begin(band);
    for (auto& painter : changed_) painter.begin(band);
  }

  /// n pixels alike; null where they do not count.
  void add(const Labels* labels, std::size_t n) {
    for (std::size_t step = 0; step < changed_.size(); ++step) {
      if (!labels) {
        before_[step].add(0, n);
        changed_[step].add(0, n);
        continue;
      }
      const std::size_t was = maps_->class_of(step, (*labels)[step]),
                        is = maps_->class_of(step + 1, (*labels)[step + 1]);
      before_[step].add(static_cast<Label>(was + 1), n);
      changed_[step].add(was == is ? kUnchanged : became(is), n);
    }
  }

  std::vector<EncodedRows> end(const Band& band) {
    for (auto& painter : before_) painter.end(band);
    std::vector<EncodedRows> rows;
    for (auto& painter : changed_) rows.push_back(painter.end(band));
    return rows;
  }

 private:
  const TimedMaps* maps_;
  std::vector<PaintedLabels::Painter> before_, changed_;
};

ChangedPictures::ChangedPictures(TimedMaps& maps, const PlaceResults& results, FigureFormat figures)
    : maps_(maps), results_(results) {
  std::vector<std::string> colors;
  for (std::size_t c = 0; c <= maps.classes(); ++c) colors.push_back(maps.color(c));
  std::vector<std::string> others = colors;
  if (maps.excluded().total() > 0) others.emplace_back(kNotCountedColor);
  std::vector<LegendEntry> classes, changes{{kUnchanged, "unchanged", gray_apart_from(others)}};
  for (std::size_t c = 0; c < colors.size(); ++c) {
    classes.push_back({static_cast<unsigned>(c + 1), maps.name(c), colors[c]});
    changes.push_back({became(c), "now " + maps.name(c), colors[c]});
  }
  const bool shown = figures != FigureFormat::kNone;
  for (std::size_t step = 0; step + 1 < maps.size(); ++step) {
    const auto begin = [&](const std::vector<LegendEntry>& legend) {
      return std::make_unique<PaintedLabels>(maps.width(), maps.height(), legend, kNotCountedColor,
                                             shown);
    };
    before_.push_back(begin(classes));
    changed_.push_back(begin(changes));
    if (results.wants("changed")) changed_.back()->write_to(results.path(name(step), "png"));
  }
}

std::string ChangedPictures::name(std::size_t step) const {
  return "changed" + (maps_.size() > 2 ? "-" + std::to_string(step + 1) : "");
}

void ChangedPictures::paint() {
  maps_.pass([this] { return Painter(*this); },
             [this](std::vector<EncodedRows>&& rows) {
               for (std::size_t step = 0; step < rows.size(); ++step)
                 changed_[step]->take(rows[step]);
             });
  for (auto& picture : changed_) picture->finish();
}

void ChangedPictures::add_figures(Plot& plot) {
  const std::vector<std::string> names = maps_.names();
  for (std::size_t step = 0; step < changed_.size(); ++step)
    add_changed_figure(plot, results_.path(name(step) + ".figure", extension_of(plot.format())),
                       "What changed from " + names[step] + " to " + names[step + 1],
                       changed_[step]->legend_lines(), before_[step]->thumbnail(),
                       changed_[step]->thumbnail());
}

}  // namespace chalcedony
