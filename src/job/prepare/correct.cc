#include "job/prepare/correct.h"

#include <string>
#include <vector>

#include "core/arena.h"
#include "core/balance/color_corrector.h"
#include "core/color/srgb.h"
#include "core/error.h"
#include "io/document/correction_file.h"
#include "io/file/whole_file.h"
#include "job/picture/changed_picture.h"
#include "job/picture/figures.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

class CorrectJob {
 public:
  CorrectJob(const std::filesystem::path& input, const CorrectOptions& options,
             const Context& context)
      : options_(options), context_(context), picture_(open_color(input, options.shared, context)) {
    refuse_labels(picture_);
    const PictureInfo& info = picture_.file.info;
    if (info.color_channels() != 3)
      throw InputError("is gray, and correct works on colors", "leave it out", input.string());
    if (!info.space->is_rgb)
      throw InputError("holds " + std::string(info.space->id) + ", and correct works on RGB",
                       "convert it first", input.string());
  }

  Json run(const PictureOutput& place, FigureFormat format) {
    Json report{{"file", picture_.file.path.string()}};
    std::vector<JudgedPatch> patches;
    ColorCorrection correction;
    if (options_.apply) {
      correction = read_correction(*options_.apply);
    } else {
      keep_rows(picture_);
      patches = judge_patches(picture_, options_.patches, options_.shared, context_);
      errors_at(picture_.file.path.string(), [&] {
        in_arena(options_.shared.threads, [&] { correction = correct_by(patches, report); });
      });
      if (const std::string doubt = doubt_of(patches); !doubt.empty())
        context_.warn(picture_.file.path.string() + ": " + doubt);
    }
    if (options_.save)
      write_text_file(place.beside(picture_.file.path, *options_.save),
                      correction_text(correction));
    const auto output = write(place, correction, report);
    report["matrix"] = correction.matrix.m;
    if (!correction.tone.is_straight()) report_tone(correction.tone, report);
    if (options_.apply) return report;
    report_patches(patches, report);
    if (format != FigureFormat::kNone) {
      const std::filesystem::path figure =
          place.beside(picture_.file.path, figure_beside(output, format));
      Plot plot(format);
      draw_patches(plot, figure, picture_.name(), patches, correction);
      draw_figures(plot, context_);
    }
    return report;
  }

 private:
  ColorCorrection correct_by(std::vector<JudgedPatch>& patches, Json& report) {
    const ColorCorrection correction = correction_by(patches, options_.kind);
    if (options_.kind == CorrectionKind::kMatrix)
      if (const auto mean = mean_with_tone_undone(patches))
        report["left_out_mean_with_tone"] = *mean;
    return correction;
  }

  static void report_tone(const CameraTone& tone, Json& report) {
    report["tone"] = {{"bend", tone.bend}, {"codes", Json::array()}};
    for (const double code : {32, 64, 128, 192, 224}) {
      const double undone = srgb_encoded(tone.at(srgb_decoded(code / 255)));
      report["tone"]["codes"].push_back({{"found", code}, {"undone", 255 * undone}});
    }
  }

  std::filesystem::path write(const PictureOutput& place, const ColorCorrection& correction,
                              Json& report) {
    const ColorCorrector corrected(correction, *picture_.file.info.space);
    const ChangedPicture found =
        write_changed(picture_, place, "corrected", options_.shared, context_, [&] {
          return [&corrected, planes = PlaneBuffer()](const Block& block) mutable {
            corrected.run(block.color, planes.planes(), block.size);
            return read_only(planes.planes());
          };
        });
    report["output"] = found.output.string();
    report["counted"] = found.counted;
    report["excluded"] = excluded_json(found.excluded);
    report["out_of_gamut_percent"] = percent(found.gamut.outside, found.counted);
    report["largest_excess"] = found.gamut.largest_excess;
    return found.output;
  }

  const CorrectOptions& options_;
  const Context& context_;
  CountedPicture picture_;
};

}  // namespace

Json run_correct(const CorrectOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "correct", "corrected.png");
  if (options.save) OutputGuard(options.shared).check(*options.save);
  const FigureFormat format = figure_formats(options.shared, context).of_each;
  Json summary = summary_frame("correct");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return CorrectJob(input, options, its_context).run(place, format);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
