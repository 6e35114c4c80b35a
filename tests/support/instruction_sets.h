// Runs something once with each instruction set the machine has.
#ifndef CHALCEDONY_TESTS_SUPPORT_INSTRUCTION_SETS_H_
#define CHALCEDONY_TESTS_SUPPORT_INSTRUCTION_SETS_H_

#include <hwy/targets.h>

#include <cstdint>

namespace chalcedony::test {

/// Calls `run(name)` with the name of each.
template <class Run>
void for_each_instruction_set(const Run& run) {
  const std::int64_t all = hwy::SupportedTargets();
  for (std::int64_t left = all; left != 0; left &= left - 1) {
    hwy::SetSupportedTargetsForTest(left & -left);
    hwy::GetChosenTarget().Update(hwy::SupportedTargets());
    run(hwy::TargetName(left & -left));
  }
  hwy::SetSupportedTargetsForTest(0);
  hwy::GetChosenTarget().Update(hwy::SupportedTargets());
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_INSTRUCTION_SETS_H_
