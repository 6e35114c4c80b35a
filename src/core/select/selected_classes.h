// Selections as the classes of a map.
#ifndef CHALCEDONY_CORE_SELECT_SELECTED_CLASSES_H_
#define CHALCEDONY_CORE_SELECT_SELECTED_CLASSES_H_

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/learn/labeling.h"
#include "core/learn/map_class.h"
#include "core/learn/remembered_labels.h"
#include "core/pixel/label.h"
#include "core/select/expression.h"

namespace chalcedony {

struct SelectedClass {
  std::string name;
  std::string color;  // CSS hexadecimal
  Expression where;
};

/// The classes of a map of these, as its entries make them.
std::vector<MapClass> map_classes(const std::vector<SelectedClass>& selected);

/// Labels of the pixels of one picture: a pixel is of the first class whose selection takes it,
/// counted or not, and of none when none does. It is contested when selections of several classes
/// take it.
class SelectionLabeling : public Labeling {
 public:
  /// `selected` must outlive it. `hue_floor` as in ChannelPlan. Colors are remembered where they
  /// can be and the picture is no small one.
  ///
  /// Errors    InputError as ChannelPlan
  SelectionLabeling(const PictureInfo& info, const std::vector<SelectedClass>& selected,
                    double hue_floor = 0);

  std::unique_ptr<BlockLabeler> labeler() override;

 private:
  const std::vector<SelectedClass>& selected_;
  std::vector<Label> numbers_;
  ChannelPlan plan_;  // the channels of all selections, one after the other
  std::optional<VerdictsByColor> known_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_SELECTED_CLASSES_H_
