#include "job/gather.h"

#include <algorithm>
#include <charconv>
#include <set>
#include <string>
#include <utility>

#include "core/error.h"
#include "io/atomic_file.h"
#include "io/folder_lock.h"
#include "job/each_input.h"
#include "job/picture_journal.h"
#include "job/results.h"
#include "job/run_facts.h"
#include "job/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// A shard of a run: the folder it wrote into and what its record says.
struct Part {
  path folder;
  Json run;
  Shard shard;
};

/// What all shards of one run have in common.
std::string run_key(Json run) {
  for (const char* own : {"shard", "from", "inputs", "outputs"}) run.erase(own);
  return run.dump();
}

Shard shard_of(const Json& run, const path& folder) {
  if (!run.contains("shard"))
    throw InputError("holds results of '" + run["command"].get<std::string>() +
                         "' that were not made with --shard",
                     "give the folders of shards only", folder.string());
  const auto text = run["shard"].get<std::string>();
  const std::size_t slash = std::min(text.find('/'), text.size() - 1);
  Shard shard;
  std::from_chars(text.data(), text.data() + slash, shard.number);
  std::from_chars(text.data() + slash + 1, text.data() + text.size(), shard.of);
  return shard;
}

/// The shards that belong together, in the order in which their runs were made.
std::vector<std::vector<Part>> runs_in(const std::vector<path>& folders) {
  std::vector<std::pair<std::string, std::vector<Part>>> runs;
  for (const path& folder : folders)
    for (Json& run : read_record(record_path(folder))) {
      const Shard shard = shard_of(run, folder);
      const std::string key = run_key(run) + std::to_string(shard.of);
      auto at =
          std::find_if(runs.begin(), runs.end(), [&](const auto& r) { return r.first == key; });
      if (at == runs.end()) at = runs.insert(runs.end(), {key, {}});
      at->second.push_back({folder, std::move(run), shard});
    }
  std::vector<std::vector<Part>> parts;
  for (auto& [key, shards] : runs) parts.push_back(std::move(shards));
  return parts;
}

void check_complete(std::vector<Part>& parts) {
  std::sort(parts.begin(), parts.end(),
            [](const Part& a, const Part& b) { return a.shard.number < b.shard.number; });
  const auto command = parts.front().run["command"].get<std::string>();
  for (std::size_t i = 0; i < parts.size(); ++i)
    if (i > 0 && parts[i].shard.number == parts[i - 1].shard.number)
      throw InputError("holds shard " + parts[i].shard.text() + " of '" + command + "', as does " +
                           parts[i - 1].folder.string(),
                       "give each shard once", parts[i].folder.string());
  for (unsigned number = 1; number <= parts.front().shard.of; ++number)
    if (number > parts.size() || parts[number - 1].shard.number != number)
      throw InputError("shard " + Shard{number, parts.front().shard.of}.text() + " of '" + command +
                           "' is missing",
                       "run it, with the same options as the others, and give its folder");
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

/// The journals of all shards as one, and its files copied.
JournalText joined_journal(const std::vector<Part>& parts, const path& output) {
  JournalText all;
  for (const Part& part : parts) {
    const auto command = part.run["command"].get<std::string>();
    JournalText one = read_journal(journal_path(part.folder, command), output);
    one.header.erase("shard");
    if (!all.header.empty() && one.header != all.header)
      throw InputError(
          "has another journal of '" + command + "' than " + parts.front().folder.string(),
          "run the shards on the same inputs with the same options", part.folder.string());
    all.header = std::move(one.header);
    for (JournalEntry& entry : one.entries) {
      for (const path& file : entry.outputs)
        copy_into_place(part.folder / file.lexically_relative(output), file);
      all.entries.push_back(std::move(entry));
    }
  }
  std::stable_sort(all.entries.begin(), all.entries.end(),
                   [](const auto& a, const auto& b) { return a.place < b.place; });
  if (all.entries.size() != all.header["pictures"].get<std::size_t>())
    throw InputError("the shards hold " + std::to_string(all.entries.size()) + " of " +
                         std::to_string(all.header["pictures"].get<std::size_t>()) + " pictures",
                     "let every shard end, with --resume if it was stopped");
  return all;
}

/// A result that is not of one picture and not a table of all.
void check_nothing_else(const std::vector<Part>& parts, const std::set<std::string>& known) {
  for (const Part& part : parts)
    for (const Json& output : part.run["outputs"])
      if (!known.count(output.get<std::string>()))
        throw InputError("holds " + output.get<std::string>() +
                             ", a result of all pictures together, which cannot be put together",
                         "make it anew, without --shard", part.folder.string());
}

/// Puts one run together; returns what the summary says of it.
Json gather_run(const std::vector<Part>& parts, const path& output, const Context& context,
                Json& outputs) {
  SharedOptions whole;
  whole.output = output;
  const JournalText journal = joined_journal(parts, output);
  Json run = parts.front().run;
  run.erase("shard");
  run["from"] = asked_from(typed_in(run, parts.front().folder), output);
  run["inputs"] = Json::array();
  std::vector<path> files;
  std::size_t failed = 0;
  for (const JournalEntry& entry : journal.entries) {
    if (!entry.error.empty()) {
      ++failed;
      continue;
    }
    Json one{{"file", entry.file.string()}};
    one.update(state_json(entry.state));
    run["inputs"].push_back(std::move(one));
    files.insert(files.end(), entry.outputs.begin(), entry.outputs.end());
  }
  for (path& table : write_joint_tables(journal.entries, whole, context))
    files.push_back(std::move(table));
  run["outputs"] = Json::array();
  std::set<std::string> known;
  for (const path& file : files) {
    outputs.push_back(file.string());
    run["outputs"].push_back(file.lexically_relative(output).generic_string());
    known.insert(run["outputs"].back().get<std::string>());
  }
  check_nothing_else(parts, known);
  const auto command = run["command"].get<std::string>();
  write_journal(journal_path(output, command), output, journal);
  Json told{{"command", command},
            {"shards", parts.size()},
            {"pictures", journal.entries.size()},
            {"failed", failed}};
  add_to_record(output, folder_to_mark(std::move(run), output));
  return told;
}

}  // namespace

Json gather_shards(const std::vector<path>& folders, const path& output, const Context& context) {
  std::vector<std::vector<Part>> runs = runs_in(folders);
  for (std::vector<Part>& parts : runs) check_complete(parts);
  make_folder(output);
  const FolderLock lock(output, "gather");
  Json summary = summary_frame("gather");
  for (const path& folder : folders) summary["inputs"].push_back({{"file", folder.string()}});
  summary["runs"] = Json::array();
  for (const std::vector<Part>& parts : runs)
    summary["runs"].push_back(gather_run(parts, output, context, summary["outputs"]));
  return summary;
}

}  // namespace chalcedony
