#include "job/run/run_ledger.h"

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

void RunLedger::look_at(const path& input) {
  const std::lock_guard lock(mutex_);
  looked_at_[input] = std::async(std::launch::async, state_of, input);
}

FileState RunLedger::state(const path& input) {
  std::future<FileState> looked_at;
  {
    const std::lock_guard lock(mutex_);
    if (const auto known = read_.find(input); known != read_.end()) return known->second;
    if (auto future = looked_at_.extract(input)) looked_at = std::move(future.mapped());
  }
  FileState found = looked_at.valid() ? looked_at.get() : state_of(input);
  reads(input, found);
  return found;
}

void RunLedger::reads(const path& input, FileState state) {
  const std::lock_guard lock(mutex_);
  read_[input] = std::move(state);
}

std::map<path, FileState> RunLedger::read() const {
  const std::lock_guard lock(mutex_);
  return read_;
}

void RunLedger::reads_with(const path& input, const path& partner) {
  const std::lock_guard lock(mutex_);
  partners_[input].insert(partner);
}

std::vector<ReadFile> RunLedger::partners_of(const path& input) {
  std::set<path> own;
  {
    const std::lock_guard lock(mutex_);
    if (const auto at = partners_.find(input); at != partners_.end()) own = at->second;
  }
  std::vector<ReadFile> partners;
  for (const path& partner : own) partners.push_back({partner, named_state(partner)});
  return partners;
}

FileState RunLedger::named_state(const path& file) {
  {
    const std::lock_guard lock(mutex_);
    if (const auto known = named_.find(file); known != named_.end()) return known->second;
  }
  FileState found = state_of(file);  // others need not wait for it
  const std::lock_guard lock(mutex_);
  return named_.emplace(file, std::move(found)).first->second;
}

}  // namespace chalcedony
