#include "job/run_ledger.h"

#include <algorithm>
#include <iterator>
#include <system_error>

namespace chalcedony {
namespace {

using std::filesystem::path;

bool is_there(const path& file) {
  std::error_code error;
  return std::filesystem::exists(file, error);
}

}  // namespace

void RunLedger::writes(const path& input, path output) {
  const std::lock_guard lock(mutex_);
  written_.emplace_back(input, std::move(output));
}

std::vector<path> RunLedger::take_written(const path& input) {
  const std::lock_guard lock(mutex_);
  const auto own = std::stable_partition(written_.begin(), written_.end(),
                                         [&](const Written& one) { return one.first != input; });
  std::vector<path> outputs;
  for (auto one = own; one != written_.end(); ++one)
    if (is_there(one->second)) outputs.push_back(std::move(one->second));
  written_.erase(own, written_.end());
  return outputs;
}

std::vector<path> RunLedger::take_all_written() {
  const std::lock_guard lock(mutex_);
  std::vector<path> outputs;
  for (Written& one : written_)
    if (is_there(one.second)) outputs.push_back(std::move(one.second));
  written_.clear();
  return outputs;
}

void RunLedger::reads(const path& input, FileState state) {
  const std::lock_guard lock(mutex_);
  read_[input] = std::move(state);
}

std::map<path, FileState> RunLedger::read() const {
  const std::lock_guard lock(mutex_);
  return read_;
}

}  // namespace chalcedony
