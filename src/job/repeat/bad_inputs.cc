#include "job/repeat/bad_inputs.h"

#include <algorithm>
#include <numeric>
#include <optional>
#include <string>

#include "core/error.h"
#include "core/pixel/block_reader.h"
#include "job/picture/inputs.h"
#include "job/repeat/pictures_at_once.h"
#include "job/run/failures.h"
#include "job/run/input_list.h"

namespace chalcedony {

void check_input(const std::filesystem::path& path, const SharedOptions& options,
                 const Context& context, const std::function<void()>& read_table) {
  if (is_table_name(path)) return read_table();
  CountedPicture picture = open_counted(path, options, without_warnings(context));
  std::uint64_t counted = 0;
  const auto make_worker = [&] {
    return [reader =
                BlockReader(picture.file.info, picture.counting, false)](const Band& band) mutable {
      std::uint64_t in_band = 0;
      reader.for_each_block(band, [&](const Block& block) { in_band += block.counted_size; });
      return in_band;
    };
  };
  errors_at(path.string(), [&] {
    travel(*picture.file.rows, road_for(picture, options, context), make_worker,
           [&](std::uint64_t in_band) { counted += in_band; });
  });
  require_counted(counted, picture);
}

std::vector<std::size_t> usable_inputs(
    const SharedOptions& options, const Context& context, Json& summary,
    const std::function<void(const std::filesystem::path&)>& check) {
  const std::size_t count = options.inputs.size();
  std::vector<std::size_t> usable(count);
  std::iota(usable.begin(), usable.end(), std::size_t{0});
  if (!options.skip_bad) return usable;
  usable.clear();
  std::vector<std::optional<InputError>> errors(count);
  std::vector<Failure> failures;
  const auto tell = [&](std::size_t i) {
    if (!errors[i]) {
      usable.push_back(i);
      return;
    }
    failures.push_back(
        {options.inputs[i], at_place(*errors[i], options.inputs[i].string()).what()});
    context.failed(failures.back().error);
    summary["failed"].push_back(failure_json(failures.back()));
  };
  const auto look = [&](std::size_t i) {
    try {
      check(options.inputs[i]);
    } catch (const InputError& error) {
      errors[i] = error;
    }
  };
  for_pictures_at_once(options, count, {.work = look, .end = tell});
  if (usable.empty()) throw InputError("no input can be used", "give others");
  if (!options.output.empty() && write_failures(options.output, failures))
    context.ledger->writes({}, failures_path(options.output));
  return usable;
}

InputError with_way_out(const InputError& error, const SharedOptions& options) {
  const bool of_input = std::find(options.inputs.begin(), options.inputs.end(), error.place()) !=
                        options.inputs.end();
  if (!of_input || options.inputs.size() < 2 || options.skip_bad) return error;
  return {error.problem(), error.remedy() + ", or leave it out with --skip-bad", error.place()};
}

}  // namespace chalcedony
