#include "job/run/picture_journal.h"

#include <algorithm>
#include <sstream>
#include <utility>

#include "core/error.h"
#include "io/file/atomic_file.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "job/run/run_facts.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr int kJournalVersion = 1;

Json header_of(const SharedOptions& options, const Context& context) {
  Json header{{"chalcedony", "pictures"}, {"version", kJournalVersion}};
  header.update(asked_json(options, *context.ledger));
  header["pictures"] = options.inputs.size();
  if (!context.places.empty()) header["part"] = true;
  return Json::parse(json_text(header));  // as it will be read back
}

Json dated_file_json(const path& file, const FileState& state) {
  Json json = file_json(file, state);
  json["modified"] = state.modified;
  return json;
}

FileState state_in(const Json& json) {
  return {json.at("bytes").get<std::uint64_t>(), json.at("modified").get<std::int64_t>(),
          json.at("hash").get<std::string>()};
}

std::string line_of(const JournalEntry& entry, const path& folder) {
  Json json{{"place", entry.place}, {"file", entry.file.string()}};
  if (entry.error.empty()) {
    json.update(dated_file_json(entry.file, entry.state));
    for (const ReadFile& partner : entry.partners)
      json["with"].push_back(dated_file_json(partner.file, partner.state));
    json["outputs"] = Json::array();
    for (const path& output : entry.outputs) json["outputs"].push_back(output.string());
    json["summary"] = entry.summary;
  } else {
    json["error"] = entry.error;
  }
  return json_text(folder_to_mark(std::move(json), folder)) + "\n";
}

JournalEntry entry_of(const Json& marked, const path& folder) {
  const Json json = mark_to_folder(marked, folder);
  JournalEntry entry;
  entry.place = json.at("place").get<std::size_t>();
  entry.file = json.at("file").get<std::string>();
  entry.error = json.value("error", "");
  if (!entry.error.empty()) return entry;
  entry.state = state_in(json);
  if (json.contains("with"))
    for (const Json& partner : json.at("with"))
      entry.partners.push_back({partner.at("file").get<std::string>(), state_in(partner)});
  for (const Json& output : json.at("outputs"))
    entry.outputs.emplace_back(output.get<std::string>());
  entry.summary = json.at("summary");
  return entry;
}

/// Whether files that options name go with the pictures in their order, as several files of samples
/// do.
bool has_files_by_order(const SharedOptions& options) {
  return std::any_of(options.typed.begin(), options.typed.end(), [](const TypedOption& option) {
    return option.names_files && option.values.size() > 1;
  });
}

}  // namespace

path journal_path(const path& folder, const std::string& command) {
  return folder / (command + ".pictures.jsonl");
}

JournalText read_journal(const path& file, const path& folder) {
  std::istringstream lines(read_text_file(file));
  JournalText journal;
  std::string line;
  std::getline(lines, line);
  journal.header = Json::parse(line, nullptr, false);
  if (!is_of_kind(journal.header, "pictures"))
    throw InputError("is no journal of pictures", "give a folder as a run left it", file.string());
  if (is_of_later_version(journal.header, kJournalVersion))
    throw InputError("was written by a later version", "use that version", file.string());
  while (std::getline(lines, line)) {
    const Json json = Json::parse(line, nullptr, false);
    if (json.is_discarded()) break;
    try {
      journal.entries.push_back(entry_of(json, folder));
    } catch (const Json::exception&) {
      break;
    }
  }
  std::stable_sort(journal.entries.begin(), journal.entries.end(),
                   [](const auto& a, const auto& b) { return a.place < b.place; });
  return journal;
}

void write_journal(const path& file, const path& folder, const JournalText& journal) {
  AtomicFile whole(file);
  whole.write(json_text(journal.header) + "\n");
  for (const JournalEntry& entry : journal.entries) whole.write(line_of(entry, folder));
  whole.commit();
}

PictureJournal::PictureJournal(const SharedOptions& options, const Context& context)
    : options_(options),
      path_(journal_path(options.output, options.command)),
      header_(header_of(options, context)),
      growing_(nullptr, std::fclose) {
  if (options.resume) keep_earlier(context);
  JournalText kept{header_, {}};
  for (auto& [file, entry] : earlier_) kept.entries.push_back(entry);
  write_journal(path_, options.output, kept);
  growing_.reset(std::fopen(path_.c_str(), "ab"));
}

void PictureJournal::keep_earlier(const Context& context) {
  std::error_code error;
  if (!std::filesystem::exists(path_, error)) return;
  JournalText before;
  try {
    before = read_journal(path_, options_.output);
  } catch (const InputError& unreadable) {
    context.warn(std::string(unreadable.what()) + "; all pictures are done again");
    return;
  }
  // Pictures may have been added since: which ones there are is no option.
  before.header["pictures"] = header_["pictures"];
  if (!has_files_by_order(options_)) before.header["operands"] = header_["operands"];
  if (before.header != header_) {
    context.warn(path_.string() +
                 ": the results were made with other options, so all pictures are done again");
    return;
  }
  for (JournalEntry& entry : before.entries)
    if (entry.error.empty()) earlier_[entry.file] = std::move(entry);
}

const JournalEntry* PictureJournal::done_before(const path& input) const {
  const auto at = earlier_.find(input);
  if (at == earlier_.end() || !is_unchanged(input, at->second.state, options_.verify))
    return nullptr;
  for (const ReadFile& partner : at->second.partners)
    if (!is_unchanged(partner.file, partner.state, options_.verify)) return nullptr;
  const std::vector<path>& outputs = at->second.outputs;
  const bool all_there = std::all_of(outputs.begin(), outputs.end(), [](const path& output) {
    std::error_code error;
    return std::filesystem::exists(output, error);
  });
  return all_there ? &at->second : nullptr;
}

void PictureJournal::add(const JournalEntry& entry) {
  if (!growing_) return;
  const std::string line = line_of(entry, options_.output);
  const std::lock_guard lock(mutex_);
  std::fwrite(line.data(), 1, line.size(), growing_.get());
  std::fflush(growing_.get());
}

void PictureJournal::finish(std::vector<JournalEntry> entries) {
  growing_.reset();
  write_journal(path_, options_.output, {header_, std::move(entries)});
}

}  // namespace chalcedony
