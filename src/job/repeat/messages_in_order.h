// What is said of pictures that are worked on side by side, in the order of the pictures.
#ifndef CHALCEDONY_JOB_REPEAT_MESSAGES_IN_ORDER_H_
#define CHALCEDONY_JOB_REPEAT_MESSAGES_IN_ORDER_H_

#include <cstddef>
#include <functional>
#include <mutex>
#include <string>
#include <vector>

#include "job/run/context.h"

namespace chalcedony {

/// Holds the warnings and failures of each picture back until it is its turn, so that a run says
/// the same for any number of threads. Those of a single picture are not held back.
class MessagesInOrder {
 public:
  /// `context` must outlive this.
  MessagesInOrder(const Context& context, std::size_t pictures)
      : context_(context), of_picture_(pictures) {}

  /// The context for the work on the picture at `place` among all; this must outlive it.
  Context context_of(std::size_t place);

  /// Passes on what waits of the next picture.
  void tell_next();

 private:
  struct Message {
    const std::function<void(const std::string&)>& say;
    std::string text;
  };

  const Context& context_;
  std::mutex mutex_;
  std::vector<std::vector<Message>> of_picture_;
  std::size_t next_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_MESSAGES_IN_ORDER_H_
