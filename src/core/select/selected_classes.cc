#include "core/select/selected_classes.h"

#include <algorithm>
#include <utility>

#include "core/channel/near_gray.h"
#include "core/select/selection.h"

namespace chalcedony {
namespace {

std::vector<MapClass> entries_of(const std::vector<SelectedClass>& selected) {
  std::vector<MapClass> entries;
  for (const SelectedClass& one : selected) entries.push_back({one.name, one.color});
  return entries;
}

std::vector<Channel> channels_of_all(const std::vector<SelectedClass>& selected) {
  std::vector<Channel> channels;
  for (const SelectedClass& one : selected)
    channels.insert(channels.end(), one.where.channels.begin(), one.where.channels.end());
  return channels;
}

class SelectionLabeler : public BlockLabeler {
 public:
  SelectionLabeler(const ChannelPlan& plan, const std::vector<SelectedClass>& selected,
                   const std::vector<Label>& numbers)
      : channels_(plan), numbers_(numbers), verdicts_(kBlockPixels + kPlanePadding) {
    std::size_t first = 0;
    for (const SelectedClass& one : selected) {
      selections_.emplace_back(one.where, first);
      first += one.where.channels.size();
    }
  }

  const Verdicts& label(const Block& block) override {
    channels_.evaluate(block);
    std::fill_n(verdicts_.labels.begin(), block.size, Label{0});
    std::fill_n(verdicts_.contested.begin(), block.size, std::uint8_t{0});
    for (std::size_t s = 0; s < selections_.size(); ++s)
      add(selections_[s].select(block, channels_), numbers_[s], block.size);
    return verdicts_;
  }

  std::uint64_t take_clipped() override { return channels_.take_clipped(); }
  std::uint64_t take_near_gray() override { return channels_.take_near_gray(); }

 private:
  void add(const std::uint8_t* __restrict taken, Label number, std::size_t n) {
    Label* const __restrict labels = verdicts_.labels.data();
    std::uint8_t* const __restrict contested = verdicts_.contested.data();
    for (std::size_t i = 0; i < n; ++i) {
      const Label before = labels[i];
      const bool is_free = before == 0;
      contested[i] |= static_cast<std::uint8_t>(taken[i] & static_cast<unsigned>(!is_free) &
                                                static_cast<unsigned>(before != number));
      labels[i] = static_cast<Label>(before + (is_free ? taken[i] * number : 0));
    }
  }

  ChannelEvaluator channels_;
  std::vector<Selection> selections_;
  const std::vector<Label>& numbers_;
  Verdicts verdicts_;
};

/// Asks once for each color. Near grays are counted all the same: sRGB colors tell them themselves.
class RememberingSelections : public RememberingLabeler {
 public:
  RememberingSelections(std::unique_ptr<BlockLabeler> asked, VerdictsByColor& known,
                        const ChannelPlan& plan)
      : RememberingLabeler(std::move(asked), known, plan.info().shape.channels),
        has_hue_(plan.has_hue()) {}

  const Verdicts& label(const Block& block) override {
    if (has_hue_) near_gray_ += count_near_gray(block.color, kNearGray, block);
    return RememberingLabeler::label(block);
  }

  std::uint64_t take_near_gray() override { return std::exchange(near_gray_, 0); }

 private:
  bool has_hue_;
  std::uint64_t near_gray_ = 0;
};

}  // namespace

std::vector<MapClass> map_classes(const std::vector<SelectedClass>& selected) {
  return map_classes(entries_of(selected));
}

SelectionLabeling::SelectionLabeling(const PictureInfo& info,
                                     const std::vector<SelectedClass>& selected, double hue_floor)
    : selected_(selected),
      numbers_(class_numbers(entries_of(selected))),
      plan_(info, channels_of_all(selected), hue_floor) {
  if (ColorMemo::pays(info) && can_remember_labels(info, plan_.channels(), selected.size()))
    known_.emplace(false);
}

std::unique_ptr<BlockLabeler> SelectionLabeling::labeler() {
  auto asked = std::make_unique<SelectionLabeler>(plan_, selected_, numbers_);
  if (!known_) return asked;
  return std::make_unique<RememberingSelections>(std::move(asked), *known_, plan_);
}

}  // namespace chalcedony
