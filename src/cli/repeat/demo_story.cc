#include "cli/repeat/demo_story.h"

#include "cli/options/command.h"
#include "cli/repeat/typed_command.h"
#include "cli/repeat/working_folder.h"
#include "demo/demo_data.h"
#include "io/file/whole_file.h"
#include "job/run/results.h"

namespace chalcedony::cli {
namespace {

constexpr const char* kModelOfExamples = "glass.model.json";

struct DemoStep {
  const char* title;
  std::vector<std::string> arguments;
};

const std::vector<DemoStep>& steps() {
  static const std::vector<DemoStep> list{
      {"Look: what is this picture, and what are its values?",
       {"inspect", "panel-a.png", "--at", "240,180", "-o", "results"}},
      {"See its planes: which parts are bright in which?",
       {"sheet", "panel-a.png", "--channels", "hsv,lab", "-o", "results"}},
      {"Prepare: a panel taken in yellow light, put right by a patch of clear glass.",
       {"balance", "panel-d.png", "--neutral", "56,66,24,24", "-o",
        "results/panel-d.balanced.png"}},
      {"Correct: a target of tiles in lamplight, brought to the colors that the tiles are known to "
       "have.",
       {"correct", "target.png", "--layout", "5x4=4,4,420,336", "--known", "target.known.csv", "-o",
        "results/target.corrected.png"}},
      {"Read spots: how far are the tiles from the colors they should have, before and after?",
       {"spots", "target.png", "results/target.corrected.png", "--layout", "5x4=4,4,420,336",
        "--known", "target.known.csv", "--tolerance", "3", "-o", "results"}},
      {"Convert: bring it into a space where color differences can be measured.",
       {"convert", "panel-a.png", "--to", "lab", "--depth", "float", "-o",
        "results/panel-a-lab.tif"}},
      {"Read histograms: how are the channels distributed, and which hue goes with which "
       "saturation? Where are the peaks, and what selects them?",
       {"histogram", "panel-a.png", "--channels", "srgb.r,srgb.g,srgb.b", "--joint", "hsv.h,hsv.s",
        "--peaks", "5", "-o", "results"}},
      {"Select: the blue glass, by a range read off the histogram.",
       {"mask", "panel-a.png", "--where", "hsv.h in 200..260 and hsv.s >= 40", "-o", "results"}},
      {"Tune: the red glass, on a page for a browser on which its limits are moved.",
       {"tune", "panel-a.png", "--where", "hsv.h in 340..20 and hsv.s >= 50", "--classes",
        "panel-a.samples.geojson", "-o", "results"}},
      {"Group: which colors are there, without samples? And how many are enough to tell of them?",
       {"cluster", "panel-a.png", "--k", "2..9", "-o", "results"}},
      {"Palette: its main colors, for a caption, a web page or a comparison.",
       {"palette", "panel-a.png", "-o", "results"}},
      {"Tell apart: in which channel do the glasses differ, in each panel and in all of them, and "
       "which interval takes each?",
       {"apart", "panel-a.png", "panel-b.png", "panel-d.png", "--classes", "*.samples.geojson",
        "-o", "results"}},
      {"Map by rules: these intervals as the classes of another panel.",
       {"slice", "panel-c.png", "--config", "results/apart.yaml", "-o", "results"}},
      {"Outline: a page for a browser on which the sample regions of another panel are drawn.",
       {"outline", "panel-c.png", "--class", "ruby", "--class", "lead", "-o", "results"}},
      {"Train: learn the glasses and the lead from sample regions.",
       {"train", "panel-a.png", "--samples", "panel-a.samples.geojson", "--method",
        "minimum-distance", "-o", "results"}},
      {"Classify: map two panels the model was not trained on, and the one it was.",
       {"classify", "panel-a.png", "panel-b.png", "panel-c.png", "--model", "results/model.json",
        "-o", "results"}},
      {"Ask why: what is this pixel to the model, and how far is it from every class?",
       {"explain", "panel-b.png", "--model", "results/model.json", "--at", "100,70", "-o",
        "results"}},
      {"Assess: how right is the map of a panel the model was not trained on?",
       {"assess", "results/panel-b.classes.png", "--reference", "panel-b.reference.png", "-o",
        "results/panel-b-assessed"}},
      {"Pane by pane: how much of each was mapped as the glass that it is, and of which least?",
       {"measure", "panel-b.reference.png", "--map", "results/panel-b.classes.png", "-o",
        "results"}},
      {"Assess by a sample, as one does where no full reference is to be had.",
       {"assess", "results/panel-c.classes.png", "--reference", "panel-c.reference.png", "--count",
        "300", "--stratified", "equal", "--model", "results/model.json", "-o",
        "results/panel-c-assessed"}},
      {"Over time: what became of the glass of a panel, by surveys of two years and today's?",
       {"changes", "panel-b.1911.png", "panel-b.1954.png", "panel-b.reference.png", "-o",
        "results/panel-b-changes"}},
      {"Slice: glass beads on a light table, by their hue.",
       {"slice", "beads.png", "--channel", "oklch.h", "--range", "ruby=350..45", "--range",
        "amber=45..110", "--range", "cobalt=230..300", "--hue-floor", "10", "-o", "results"}},
      {"Clean: without specks that are no beads, and the holes that their shine leaves.",
       {"tidy", "results/beads.slices.png", "--steps", "drop 20; fill 12", "-o", "results"}},
      {"Count: many beads touch; how many of each glass are there one by one?",
       {"measure", "results/beads.slices.tidy.png", "--parts", "--image", "beads.png", "-o",
        "results"}},
      {"Repeat: the steps that worked, as a recipe for any number of panels.",
       {"run", "glass.recipe.yaml", "panel-b.png", "panel-c.png", "-o", "results/run", "--figures",
        "none"}},
      {"Hand over: one page with all of it, which opens anywhere.", {"report", "results"}}};
  return list;
}

}  // namespace

Json demo_steps() {
  Json summary = summary_frame("demo");
  summary["steps"] = Json::array();
  for (const DemoStep& step : steps())
    summary["steps"].push_back(planned_step("title", step.title, step.arguments));
  return summary;
}

Json run_demo(const std::filesystem::path& folder, const Context& context) {
  make_results_folder(folder);
  Json summary = summary_frame("demo");
  summary["folder"] = folder.string();
  for (const auto& file : demo::write_demo_data(folder))
    summary["outputs"].push_back(file.string());
  summary["steps"] = Json::array();
  // The commands are shown as they would be typed in that folder, so they run there.
  const WorkingFolder there(folder);
  for (const DemoStep& step : steps()) {
    Json done = run_typed(step.arguments, context);
    done["title"] = step.title;
    summary["steps"].push_back(std::move(done));
    for (const Json& path : summary["steps"].back()["outputs"])
      summary["outputs"].push_back((folder / path.get<std::string>()).string());
    for (const Json& failure : summary["steps"].back()["summary"]["failed"])
      summary["failed"].push_back(failure);
  }
  // The model that was learned on the way is the one that the examples of other commands name.
  write_text_file(kModelOfExamples, read_text_file("results/model.json"));
  summary["outputs"].push_back((folder / kModelOfExamples).string());
  return summary;
}

}  // namespace chalcedony::cli
