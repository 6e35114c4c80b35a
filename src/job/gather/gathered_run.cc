#include "job/gather/gathered_run.h"

#include <algorithm>
#include <iterator>
#include <utility>

#include "core/error.h"
#include "io/file/atomic_file.h"
#include "job/gather/gathered_report.h"
#include "job/repeat/each_input.h"
#include "job/run/picture_journal.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Whether the inputs were results of an earlier step, which knew only its own part of them.
bool is_of_part(const Json& facts) { return facts.contains("part"); }

/// What the journals of all parts have in common.
Json common_header(const JournalText& journal) {
  Json header = journal.header;
  if (is_of_part(header))
    for (const char* own : {"operands", "pictures"}) header.erase(own);
  return header;
}

/// Files that were gathered before are newer than where they come from.
void date_anew(const path& file, FileState& state) {
  std::error_code error;
  if (std::filesystem::exists(file, error)) state.modified = state_of(file).modified;
}

/// The inputs of a step after another are the files that it wrote, in order.
void number_anew(JournalText& journal) {
  journal.header["operands"] = Json::array();
  journal.header["pictures"] = journal.entries.size();
  journal.header.erase("part");
  for (std::size_t i = 0; i < journal.entries.size(); ++i) {
    JournalEntry& entry = journal.entries[i];
    entry.place = i;
    journal.header["operands"].push_back(entry.file.string());
    if (!entry.error.empty()) continue;
    date_anew(entry.file, entry.state);
    for (ReadFile& partner : entry.partners) date_anew(partner.file, partner.state);
  }
}

struct Copy {
  path from, to;
};

/// The journals of all parts as one, and the files that are to be copied for it.
struct JoinedJournal {
  JournalText all;
  std::vector<Copy> copies;
};

JoinedJournal joined_journal(const std::vector<RunPart>& parts, const path& output) {
  JoinedJournal joined;
  JournalText& all = joined.all;
  Json common;
  std::size_t pictures = 0;
  for (const RunPart& part : parts) {
    JournalText one = journal_of(part, output);
    if (!common.is_null() && common_header(one) != common)
      throw InputError("has another journal of '" + part.run["command"].get<std::string>() +
                           "' than " + parts.front().folder.string(),
                       "run the shards on the same inputs with the same options",
                       part.folder.string());
    common = common_header(one);
    const auto its = one.header["pictures"].get<std::size_t>();
    pictures = is_of_part(common) ? pictures + its : its;
    all.header = std::move(one.header);
    for (JournalEntry& entry : one.entries) {
      for (const path& file : entry.outputs)
        joined.copies.push_back({part.folder / file.lexically_relative(output), file});
      all.entries.push_back(std::move(entry));
    }
  }
  std::stable_sort(all.entries.begin(), all.entries.end(),
                   [](const auto& a, const auto& b) { return a.place < b.place; });
  if (all.entries.size() != pictures)
    throw InputError("the shards hold " + std::to_string(all.entries.size()) + " of " +
                         std::to_string(pictures) + " pictures",
                     "let every shard end, with --resume if it was stopped");
  if (is_of_part(all.header)) number_anew(all);
  return joined;
}

/// A result that is not of one picture and not a table of all.
void check_nothing_else(const std::vector<RunPart>& parts, const JournalText& journal,
                        const SharedOptions& whole) {
  std::set<path> known;
  for (const JournalEntry& entry : journal.entries)
    known.insert(entry.outputs.begin(), entry.outputs.end());
  for (path& table : joint_tables(journal.entries, whole)) known.insert(std::move(table));
  for (const RunPart& part : parts)
    for (const Json& output : part.run["outputs"])
      if (!known.contains(whole.output / output.get<std::string>()))
        throw InputError("holds " + output.get<std::string>() +
                             ", a result of all pictures together, which cannot be put together",
                         "make it anew, without --shard", part.folder.string());
}

}  // namespace

JournalText journal_of(const RunPart& part, const path& output) {
  const auto command = part.run["command"].get<std::string>();
  JournalText journal = read_journal(journal_path(part.folder, command), output);
  journal.header.erase("shard");
  if (part.recipe_folder.empty()) return journal;
  const auto move = [&](Json json) {
    return moved_paths(std::move(json), part.recipe_folder, part.gathered_folder);
  };
  journal.header = move(std::move(journal.header));
  for (JournalEntry& entry : journal.entries) {
    entry.file = move(Json(entry.file.string())).get<std::string>();
    for (ReadFile& partner : entry.partners)
      partner.file = move(Json(partner.file.string())).get<std::string>();
    entry.error = move(Json(entry.error)).get<std::string>();
    entry.summary = move(std::move(entry.summary));
  }
  return journal;
}

Json outputs_below(const std::vector<path>& files, const path& folder) {
  Json outputs = Json::array();
  for (const path& file : files)
    outputs.push_back(file.lexically_relative(folder).generic_string());
  return outputs;
}

void copy_into_place(const path& from, const path& to) {
  make_folder(to.parent_path());
  AtomicFile file(to);
  std::error_code error;
  std::filesystem::copy_file(from, file.temporary_path(),
                             std::filesystem::copy_options::overwrite_existing, error);
  if (error)
    throw OutputError("cannot be copied (" + error.message() + ")",
                      "check the shard's folder and the room on the disk", from.string());
  file.commit();
}

GatheredRun gather_run(const std::vector<RunPart>& parts, const path& output,
                       const Context& context) {
  SharedOptions whole;
  whole.output = output;
  const RunPart& first = parts.front();
  const auto [journal, copies] = joined_journal(parts, output);
  check_nothing_else(parts, journal, whole);
  for (const Copy& copy : copies) copy_into_place(copy.from, copy.to);
  GatheredRun all;
  all.pictures = journal.entries.size();
  all.inputs = Json::array();
  for (const JournalEntry& entry : journal.entries) {
    if (!entry.error.empty()) {
      all.failed.insert(entry.file.string());
      continue;
    }
    all.inputs.push_back(input_json(entry.file, entry.state, entry.partners));
    all.outputs.insert(all.outputs.end(), entry.outputs.begin(), entry.outputs.end());
  }
  for (path& table : write_joint_tables(journal.entries, whole, context))
    all.outputs.push_back(std::move(table));
  GatheredReport report = report_gathered(first.run, journal.entries, output, context);
  all.together = std::move(report.together);
  std::move(report.files.begin(), report.files.end(), std::back_inserter(all.outputs));
  all.run = moved_paths(first.run, first.recipe_folder, first.gathered_folder);
  all.run.erase("shard");
  if (is_of_part(all.run)) all.run["operands"] = journal.header["operands"];
  all.run.erase("part");
  all.run["from"] = asked_from(typed_in(first.run, first.folder), output);
  all.run["inputs"] = all.inputs;
  all.run["outputs"] = outputs_below(all.outputs, output);
  write_journal(journal_path(output, all.run["command"].get<std::string>()), output, journal);
  add_to_record(output, run_to_mark(all.run, output));
  return all;
}

}  // namespace chalcedony
