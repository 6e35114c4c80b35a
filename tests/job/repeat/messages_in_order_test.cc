#include "job/repeat/messages_in_order.h"

#include <catch2/catch.hpp>
#include <string>
#include <vector>

using namespace chalcedony;

namespace {

Context context_into(std::vector<std::string>& said) {
  Context context;
  context.warn = [&said](const std::string& text) { said.push_back("warning: " + text); };
  context.failed = [&said](const std::string& text) { said.push_back("failed: " + text); };
  return context;
}

}  // namespace

TEST_CASE("messages wait for the pictures before theirs", "[job]") {
  std::vector<std::string> said;
  const Context context = context_into(said);
  MessagesInOrder messages(context, 3);
  messages.context_of(2).warn("third");
  const Context second = messages.context_of(1);
  second.warn("second");
  second.failed("second");
  CHECK(said.empty());
  messages.tell_next();  // nothing was said of the first
  CHECK(said.empty());
  messages.tell_next();
  CHECK(said == std::vector<std::string>{"warning: second", "failed: second"});
  messages.tell_next();
  CHECK(said.back() == "warning: third");
  messages.tell_next();
  CHECK(said.size() == 3);
}

TEST_CASE("a single picture speaks at once", "[job]") {
  std::vector<std::string> said;
  const Context context = context_into(said);
  MessagesInOrder messages(context, 1);
  messages.context_of(0).warn("soon");
  CHECK(said == std::vector<std::string>{"warning: soon"});
}
