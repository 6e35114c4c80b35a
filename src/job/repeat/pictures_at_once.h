// Several pictures worked on at once, each on a road of its own, within one limit of threads.
#ifndef CHALCEDONY_JOB_REPEAT_PICTURES_AT_ONCE_H_
#define CHALCEDONY_JOB_REPEAT_PICTURES_AT_ONCE_H_

#include <cstddef>
#include <functional>

#include "job/run/context.h"

namespace chalcedony {

/// The parts of the work on each picture, by its place among all. Those that are empty are left
/// out.
struct PictureWork {
  std::function<void(std::size_t)> begin = {};  // in order, never two at once
  std::function<void(std::size_t)> work;        // at once with that on other pictures
  std::function<void(std::size_t)> end = {};    // in order, never two at once
};

/// Does the work on `count` pictures. When a part throws, no more pictures are begun; what it threw
/// goes on when those before it have ended and those under way have been worked on. Of several that
/// threw, that of the first picture goes on. So what is ended, and what is thrown, does not depend
/// on the threads.
void for_pictures_at_once(const SharedOptions& options, std::size_t count, const PictureWork& work);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_PICTURES_AT_ONCE_H_
