// How many threads work, and work on as many.
#ifndef CHALCEDONY_CORE_ARENA_H_
#define CHALCEDONY_CORE_ARENA_H_

#include <functional>

namespace chalcedony {

/// Threads to work on: those asked for, or all the machine has when that is 0.
unsigned threads_for(unsigned asked);

/// Runs work() so that what is parallel in it takes threads_for(asked).
///
/// Errors    what work() throws
void in_arena(unsigned asked, const std::function<void()>& work);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ARENA_H_
