// What became of the classes of maps of one place at several times.
#ifndef CHALCEDONY_CORE_ASSESS_CLASS_CHANGES_H_
#define CHALCEDONY_CORE_ASSESS_CLASS_CHANGES_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Pixels that had the same class at each time. Classes are numbered from 0 on; pixels without a
/// class have the number after the last one.
struct ClassHistory {
  std::vector<std::size_t> classes;  // one for each time
  std::uint64_t pixels = 0;
};

/// Pixels that had one class and then another, or the same one.
struct ClassFlow {
  std::size_t from = 0, to = 0;
  std::uint64_t pixels = 0;

  bool stayed() const { return from == to; }
};

/// What became of each class from time `before` to time `after`, by class and then by what it
/// became. Those that do not occur are left out.
std::vector<ClassFlow> flows_between(const std::vector<ClassHistory>& histories, std::size_t before,
                                     std::size_t after);

/// What a class loses and gains from one time to another, in pixels.
struct ClassBalance {
  std::uint64_t before = 0, after = 0, stayed = 0;

  std::uint64_t lost() const { return before - stayed; }
  std::uint64_t gained() const { return after - stayed; }
  /// What it loses at one place and gains at another, so that its area does not tell: both
  /// together.
  ///
  /// Source    swap of Pontius, Shusas and McEachern (2004), Detecting important categorical land
  ///           changes while accounting for persistence
  std::uint64_t swapped() const { return 2 * std::min(lost(), gained()); }
};

/// Of the classes 0 to classes - 1 and, last, of the pixels without one.
std::vector<ClassBalance> class_balances(const std::vector<ClassFlow>& flows, std::size_t classes);

/// Pixels whose class is not the same any more.
std::uint64_t changed_pixels(const std::vector<ClassFlow>& flows);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_CLASS_CHANGES_H_
