#include "core/tidy/morphology.h"

#include <cstddef>

namespace chalcedony {
namespace {

/// One class of a grid by itself.
class OneClass {
 public:
  OneClass(const LabelGrid& grid, Label label, const Element& element)
      : grid_(grid), element_(element), on_(grid.labels.size()) {
    for (std::size_t i = 0; i < on_.size(); ++i) on_[i] = grid.labels[i] == label;
  }

  void dilate() { on_ = reached(on_, grid_.width, grid_.height, element_); }
  void erode() {
    flip();
    dilate();
    flip();
  }
  const Flags& on() const { return on_; }

 private:
  void flip() {
    for (std::uint8_t& on : on_) on ^= 1;
  }

  const LabelGrid& grid_;
  Element element_;
  Flags on_;
};

/// What `work` leaves of each class; the others stay as they are.
template <class Work>
void shrink_classes(LabelGrid& grid, const Element& element, const Work& work) {
  const LabelGrid before = grid;
  for (const Label label : labels_in(before)) {
    OneClass one(before, label, element);
    work(one);
    for (std::size_t i = 0; i < grid.labels.size(); ++i)
      if (before.labels[i] == label && !one.on()[i]) grid.labels[i] = 0;
  }
}

/// Pixels without a class take the first one that `work` brings to them.
template <class Work>
void grow_classes(LabelGrid& grid, const Element& element, const Work& work) {
  const LabelGrid before = grid;
  for (const Label label : labels_in(before)) {
    OneClass one(before, label, element);
    work(one);
    for (std::size_t i = 0; i < grid.labels.size(); ++i)
      if (grid.labels[i] == 0 && one.on()[i]) grid.labels[i] = label;
  }
}

}  // namespace

void dilate(LabelGrid& grid, const Element& element) {
  grow_classes(grid, element, [](OneClass& one) { one.dilate(); });
}

void erode(LabelGrid& grid, const Element& element) {
  shrink_classes(grid, element, [](OneClass& one) { one.erode(); });
}

void open(LabelGrid& grid, const Element& element) {
  shrink_classes(grid, element, [](OneClass& one) {
    one.erode();
    one.dilate();
  });
}

void close(LabelGrid& grid, const Element& element) {
  grow_classes(grid, element, [](OneClass& one) {
    one.dilate();
    one.erode();
  });
}

}  // namespace chalcedony
