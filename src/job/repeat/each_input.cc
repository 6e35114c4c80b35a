#include "job/repeat/each_input.h"

#include <malloc.h>

#include <algorithm>
#include <mutex>
#include <optional>
#include <utility>

#include "core/error.h"
#include "job/repeat/bad_inputs.h"
#include "job/repeat/messages_in_order.h"
#include "job/repeat/pictures_at_once.h"
#include "job/run/failures.h"
#include "job/run/long_table.h"
#include "job/run/results.h"
#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr std::size_t kPicturesBetweenTrims = 64;

bool writes_into_folder(const path& folder) {
  std::error_code error;
  return std::filesystem::is_directory(folder, error);
}

class EachInput {
 public:
  EachInput(const SharedOptions& options, const Context& context, const InputWork& work,
            ResultOf result, const PartnerFiles* partners)
      : options_(options),
        context_(context),
        work_(work),
        partners_(partners),
        messages_(context, options.inputs.size()),
        joint_(result == ResultOf::kAllInputs),
        mine_(options.inputs.size(), true) {
    if (options.shard && context.places.empty()) mine_ = in_shard(options.inputs, *options.shard);
    progress_.all = static_cast<std::size_t>(std::count(mine_.begin(), mine_.end(), true));
    const bool several = options.inputs.size() > 1 || options.shard;
    writes_tables_ = writes_into_folder(options.output) && several;
    if (!joint_ && (writes_tables_ || options.resume)) journal_.emplace(options, context);
    is_recorded_ = journal_ || !recorded_folder(options).empty();
  }

  void run(Json& summary) {
    entries_.resize(options_.inputs.size());
    unchanged_.resize(options_.inputs.size());
    if (context_.pictures && progress_.all > 1) context_.pictures(progress_);
    work_on_all();
    collect(summary);
  }

 private:
  void work_on_all() {
    try {
      for_pictures_at_once(options_, options_.inputs.size(),
                           {.work = [this](std::size_t i) { do_one(i); },
                            .end = [this](std::size_t) { messages_.tell_next(); }});
    } catch (...) {
      messages_.tell_next();  // of the one that stops the run
      throw;
    }
  }

  void do_one(std::size_t i) {
    if (!mine_[i]) return;
    stop_if_asked();
    const path& input = options_.inputs[i];
    if (const JournalEntry* before = done_before(input)) {
      entries_[i] = *before;
      entries_[i]->place = place_of(i);
      context_.ledger->reads(input, before->state);
      for (const ReadFile& partner : before->partners)
        context_.ledger->reads_with(input, partner.file);
      unchanged_[i] = 1;
    } else {
      entries_[i] = entry_for(i);
      // The programs that draw figures are stopped as well: one may be missing.
      stop_if_asked();
      if (journal_) journal_->add(*entries_[i]);
    }
    report(entries_[i]->error.empty());
  }

  const JournalEntry* done_before(const path& input) const {
    const JournalEntry* before = journal_ ? journal_->done_before(input) : nullptr;
    return before && !has_new_partner(input, *before) ? before : nullptr;
  }

  bool has_new_partner(const path& input, const JournalEntry& before) const {
    if (!partners_ || partners_->one_for_all()) return false;
    try {
      const path* const now = partners_->find(input);
      return now && std::none_of(before.partners.begin(), before.partners.end(),
                                 [&](const ReadFile& one) { return one.file == *now; });
    } catch (const InputError&) {
      return true;  // two of them go with it alike, which the work tells
    }
  }

  std::size_t place_of(std::size_t i) const {
    return context_.places.empty() ? i : context_.places[i];
  }

  void stop_if_asked() const {
    if (context_.stop && context_.stop->load()) throw Interrupted();
  }

  JournalEntry entry_for(std::size_t i) {
    const Context context = messages_.context_of(i);
    JournalEntry entry;
    entry.place = place_of(i);
    entry.file = options_.inputs[i];
    const auto fail = [&](const Error& error) {
      entry.error = text_of(error, entry.file);
      context.failed(entry.error);
      context_.ledger->take_written(entry.file);
    };
    try {
      entry.summary = work_(entry.file, context);
      entry.outputs = context_.ledger->take_written(entry.file);
      if (!is_recorded_) return entry;
      entry.state = context_.ledger->state(entry.file);
      entry.partners = context_.ledger->partners_of(entry.file);
    } catch (const InputError& error) {
      if (joint_ && !options_.skip_bad)
        throw with_way_out(at_place(error, entry.file.string()), options_);
      fail(error);
    } catch (const OutputError& error) {
      fail(error);
    }
    return entry;
  }

  /// Of several pictures the one is named, even if the error is in a file that goes with it.
  std::string text_of(const Error& error, const path& input) const {
    const bool names_it =
        error.place() == input || (!error.place().empty() && options_.inputs.size() == 1);
    return names_it ? error.what() : input.string() + ": " + error.what();
  }

  void report(bool done) {
    const std::lock_guard lock(progress_mutex_);
    ++progress_.done;
    // What is kept of a picture lies between the buffers it needed, so that freed ones stay with
    // the process: some 80 KB a picture, without this.
    if (progress_.done % kPicturesBetweenTrims == 0) ::malloc_trim(0);
    progress_.failed += done ? 0 : 1;
    if (context_.pictures && progress_.all > 1) context_.pictures(progress_);
  }

  void collect(Json& summary) {
    std::vector<JournalEntry> entries;
    for (std::size_t i = 0; i < entries_.size(); ++i) {
      if (!entries_[i]) continue;
      if (unchanged_[i])
        for (const path& output : entries_[i]->outputs) summary["kept"].push_back(output.string());
      entries.push_back(std::move(*entries_[i]));
    }
    for (const JournalEntry& entry : entries) {
      if (entry.error.empty()) {
        summary["inputs"].push_back(entry.summary);
      } else {
        summary["failed"].push_back(failure_json({entry.file, entry.error}));
      }
      for (const path& output : entry.outputs) summary["outputs"].push_back(output.string());
    }
    if (const auto unchanged = std::count(unchanged_.begin(), unchanged_.end(), 1); unchanged > 0)
      summary["unchanged"] = unchanged;
    if (writes_tables_)
      for (const path& table : write_joint_tables(entries, options_, context_))
        summary["outputs"].push_back(table.string());
    if (journal_) journal_->finish(std::move(entries));
  }

  const SharedOptions& options_;
  const Context& context_;
  const InputWork& work_;
  const PartnerFiles* partners_;
  MessagesInOrder messages_;
  bool joint_;  // one result of all inputs
  std::vector<bool> mine_;
  bool writes_tables_ = false;
  bool is_recorded_ = false;
  std::optional<PictureJournal> journal_;
  std::vector<std::optional<JournalEntry>> entries_;
  std::vector<char> unchanged_;  // 1: done before
  std::mutex progress_mutex_;
  PicturesDone progress_;
};

/// The pictures that were done, with their files.
std::vector<PictureResults> results_of(const std::vector<JournalEntry>& entries,
                                       const SharedOptions& options) {
  std::vector<PictureResults> pictures;
  for (const JournalEntry& entry : entries)
    if (entry.error.empty())
      pictures.push_back({entry.file, result_stem(options, entry.file), entry.outputs});
  return pictures;
}

bool is_failure(const JournalEntry& entry) { return !entry.error.empty(); }

}  // namespace

std::vector<path> joint_tables(const std::vector<JournalEntry>& entries,
                               const SharedOptions& options) {
  std::vector<path> tables;
  for (const std::string& name : long_table_names(results_of(entries, options)))
    tables.push_back(options.output / name);
  if (std::any_of(entries.begin(), entries.end(), is_failure))
    tables.push_back(failures_path(options.output));
  return tables;
}

std::vector<path> write_joint_tables(const std::vector<JournalEntry>& entries,
                                     const SharedOptions& options, const Context& context) {
  std::vector<path> written =
      write_long_tables(results_of(entries, options), options.output, context.warn);
  std::vector<Failure> failures;
  for (const JournalEntry& entry : entries)
    if (is_failure(entry)) failures.push_back({entry.file, entry.error});
  if (write_failures(options.output, failures)) written.push_back(failures_path(options.output));
  return written;
}

void for_each_input(const SharedOptions& options, const Context& context, Json& summary,
                    const InputWork& work, ResultOf result, const PartnerFiles* partners) {
  EachInput(options, context, work, result, partners).run(summary);
}

}  // namespace chalcedony
