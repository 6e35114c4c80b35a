// Reads arithmetic on channels, and the words and numbers it is made of. The selection language is
// built on it.
#ifndef CHALCEDONY_CORE_CHANNEL_FORMULA_READER_H_
#define CHALCEDONY_CORE_CHANNEL_FORMULA_READER_H_

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/formula.h"

namespace chalcedony {

/// A recursive-descent parser, one function a level of binding: `* /` before `+ -`. Channel names
/// may hold hyphens; the longest known name is taken.
///
/// Errors    every function throws UsageError with the place and what was expected there
class FormulaReader {
 public:
  /// `what`: what is read, as messages call it; `example`: one of it that is right. `channels` is
  /// where the channels that are read are put, each once.
  FormulaReader(std::string_view text, std::string what, std::string example,
                const ChannelNames& known, std::vector<Channel>& channels);

  std::unique_ptr<Formula> sum();

  [[noreturn]] void fail(const std::string& expected) const;
  void skip_space();
  /// Whether this token, or this word, comes next; it is then behind us.
  bool take(std::string_view token);
  bool take_word(std::string_view word);
  void expect(std::string_view token);
  /// A number, with a sign or not, as in `-3`, `0.25` or `2.5e-4`. It ends before `..`, so
  /// `200..260` holds two.
  double number();
  /// Room for one more level of brackets and the like.
  void deeper();
  void less_deep() { --depth_; }

  std::string_view text() const { return text_; }
  std::size_t place() const { return at_; }
  void move_to(std::size_t place) { at_ = place; }
  bool at_end();

 private:
  std::unique_ptr<Formula> product();
  std::unique_ptr<Formula> factor();
  std::unique_ptr<Formula> constant();
  std::unique_ptr<Formula> channel();
  std::size_t end_of_number() const;
  double unsigned_number(const std::string& expected);
  std::string_view longest_known(std::string_view word) const;

  std::string_view text_;
  std::string what_, example_;
  ChannelNames known_;
  std::vector<Channel>& channels_;
  std::vector<std::string> names_;
  std::size_t at_ = 0;
  int depth_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_FORMULA_READER_H_
