#include "cli/demo_story.h"

#include <fmt/format.h>

#include <sstream>

#include "cli/command.h"
#include "cli/parse.h"
#include "cli/shared_flags.h"
#include "core/assess/error_matrix.h"
#include "core/error.h"
#include "demo/demo_data.h"
#include "demo/panel.h"
#include "io/picture_file.h"
#include "job/results.h"

namespace chalcedony::cli {
namespace {

struct DemoStep {
  const char* title;
  std::vector<std::string> arguments;
};

const std::vector<DemoStep>& steps() {
  static const std::vector<DemoStep> list{
      {"Look: what is this picture, and what are its values?",
       {"inspect", "panel-a.png", "--at", "240,180", "-o", "results"}},
      {"Convert: bring it into a space where color differences can be measured.",
       {"convert", "panel-a.png", "--to", "lab", "--depth", "float", "-o",
        "results/panel-a-lab.tif"}},
      {"Read histograms: how are the channels distributed, and which hue goes with which "
       "saturation?",
       {"histogram", "panel-a.png", "--channels", "srgb.r,srgb.g,srgb.b", "--joint", "hsv.h,hsv.s",
        "-o", "results"}},
      {"Select: the blue glass, by a range read off the histogram.",
       {"mask", "panel-a.png", "--where", "hsv.h in 200..260 and hsv.s >= 40", "-o", "results"}},
      {"Train: learn the glasses and the lead from sample regions.",
       {"train", "panel-a.png", "--samples", "panel-a.samples.geojson", "--method",
        "minimum-distance", "-o", "results"}},
      {"Classify: map two panels the model was not trained on, and the one it was.",
       {"classify", "panel-a.png", "panel-b.png", "panel-c.png", "--model", "results/model.json",
        "-o", "results"}}};
  return list;
}

bool needs_quotes(const std::string& word) {
  return word.find_first_of(" *<>()&;|$") != std::string::npos;
}

std::string command_line(const DemoStep& step) {
  std::string line = "chalcedony";
  for (const std::string& word : step.arguments)
    line += needs_quotes(word) ? " \"" + word + "\"" : " " + word;
  return line;
}

Json lines_of(const std::string& text) {
  Json lines = Json::array();
  std::istringstream stream(text);
  for (std::string line; std::getline(stream, line);)
    if (!line.starts_with("wrote ")) lines.push_back(line);
  return lines;
}

Json run_step(const DemoStep& step, const Context& context) {
  const Command& command = *find_command(step.arguments.front());
  const CommandOptions options(command);
  const auto given = parse_arguments(options, {step.arguments.begin() + 1, step.arguments.end()});
  const Json summary = command.run(given, shared_from(command, given), context);
  std::ostringstream text;
  command.print(summary, text);
  return Json{{"title", step.title},
              {"command", command_line(step)},
              {"says", lines_of(text.str())},
              {"outputs", summary["outputs"]},
              {"summary", summary}};
}

std::vector<std::uint8_t> labels_of(const std::string& path) {
  ReadOptions options;
  options.palette_indices = true;
  PictureFile file = open_picture(path, options);
  std::vector<std::uint8_t> labels(file.info.shape.pixels());
  file.rows->read_rows(file.info.shape.height, reinterpret_cast<std::byte*>(labels.data()));
  return labels;
}

/// Rows: what the map says, unclassified last; columns: the reference. Pixels that are no part of
/// the panel are left out.
ErrorMatrix compare(const std::string& map_path, const std::string& reference_path) {
  const std::size_t classes = demo::glass_legend().size();
  const auto map = labels_of(map_path), reference = labels_of(reference_path);
  ErrorMatrix matrix(classes + 1, classes);
  for (std::size_t i = 0; i < map.size(); ++i)
    if (reference[i] > 0) matrix.add(map[i] == 0 ? classes : map[i] - 1u, reference[i] - 1u);
  return matrix;
}

Json agreement_step() {
  Json step{{"title", "Assess: how far do the maps agree with the exact references?"},
            {"command", ""},
            {"says", Json::array()},
            {"outputs", Json::array()},
            {"agreement", Json::array()}};
  for (const char* panel : {"panel-a", "panel-b", "panel-c"}) {
    const ErrorMatrix matrix = compare(fmt::format("results/{}.classes.png", panel),
                                       fmt::format("{}.reference.png", panel));
    const double overall = matrix.overall().value_or(0), kappa = matrix.kappa().value_or(0);
    std::size_t worst = 0;
    for (std::size_t c = 1; c < matrix.columns(); ++c)
      if (matrix.producers(c).value_or(1) < matrix.producers(worst).value_or(1)) worst = c;
    const std::string& worst_name = demo::glass_legend()[worst].name;
    const double worst_share = matrix.producers(worst).value_or(0);
    step["says"].push_back(fmt::format(
        "{}: {:.1f} % of the pixels agree, kappa {:.3f}; least complete is {}, {:.1f} % found",
        panel, 100 * overall, kappa, worst_name, 100 * worst_share));
    step["agreement"].push_back({{"panel", panel},
                                 {"overall", overall},
                                 {"kappa", kappa},
                                 {"least_complete", worst_name},
                                 {"found", worst_share}});
  }
  return step;
}

}  // namespace

Json demo_steps() {
  Json summary = summary_frame("demo");
  summary["steps"] = Json::array();
  for (const DemoStep& step : steps())
    summary["steps"].push_back({{"title", step.title},
                                {"command", command_line(step)},
                                {"says", Json::array()},
                                {"outputs", Json::array()}});
  return summary;
}

Json run_demo(const std::filesystem::path& folder, const Context& context) {
  make_folder(folder);
  Json summary = summary_frame("demo");
  summary["folder"] = folder.string();
  for (const auto& file : demo::write_demo_data(folder))
    summary["outputs"].push_back(file.string());
  summary["steps"] = Json::array();
  // The commands are shown as they would be typed in that folder, so they run there.
  const auto home = std::filesystem::current_path();
  std::filesystem::current_path(folder);
  try {
    for (const DemoStep& step : steps()) {
      summary["steps"].push_back(run_step(step, context));
      for (const Json& path : summary["steps"].back()["outputs"])
        summary["outputs"].push_back((folder / path.get<std::string>()).string());
      for (const Json& failure : summary["steps"].back()["summary"]["failed"])
        summary["failed"].push_back(failure);
    }
    summary["steps"].push_back(agreement_step());
  } catch (...) {
    std::filesystem::current_path(home);
    throw;
  }
  std::filesystem::current_path(home);
  return summary;
}

}  // namespace chalcedony::cli
