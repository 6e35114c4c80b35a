#include "job/repeat/messages_in_order.h"

#include <utility>

namespace chalcedony {

Context MessagesInOrder::context_of(std::size_t place) {
  Context context = context_;
  if (of_picture_.size() == 1) return context;
  const auto held_back = [this, place](const std::function<void(const std::string&)>& say) {
    return [this, place, &say](const std::string& text) {
      const std::lock_guard lock(mutex_);
      of_picture_[place].push_back({say, text});
    };
  };
  context.warn = held_back(context_.warn);
  context.failed = held_back(context_.failed);
  return context;
}

void MessagesInOrder::tell_next() {
  if (next_ == of_picture_.size()) return;
  std::vector<Message> messages;
  {
    const std::lock_guard lock(mutex_);
    messages = std::move(of_picture_[next_++]);
  }
  for (const Message& message : messages) message.say(message.text);
}

}  // namespace chalcedony
