#include "job/picture/picture_output.h"

#include <string>

#include "core/error.h"
#include "io/picture/label_picture.h"

namespace chalcedony {
namespace {

/// Any ending but that of a folder which is there: one that is misspelled is told of.
bool names_one_file(const SharedOptions& options) {
  std::error_code error;
  return options.inputs.size() == 1 && options.output.has_extension() &&
         !std::filesystem::is_directory(options.output, error);
}

}  // namespace

PictureOutput::PictureOutput(const SharedOptions& options, const Context& context,
                             std::string_view command, std::string_view example)
    : options_(options),
      guard_(options),
      ledger_(context.ledger),
      one_file_(names_one_file(options)) {
  if (options.output.empty())
    throw UsageError(std::string(command) + " needs -o",
                     "name the file to write, for example -o " + std::string(example));
  if (one_file_) {
    format_of(options.output);
    return;
  }
  check_stems(options);
  if (names_file(options.output))
    throw UsageError("--output: '" + options.output.string() + "' is one file, and there are " +
                         std::to_string(options.inputs.size()) + " inputs, the last of them " +
                         options.inputs.back().string(),
                     "name a folder, as in -o out/");
  make_folder(options.output);
  lock_ = std::make_unique<FolderLock>(options.output, options.command);
}

std::filesystem::path PictureOutput::path(const std::filesystem::path& input,
                                          std::string_view thing, SampleType sample) const {
  std::filesystem::path path = options_.output;
  if (!one_file_) {
    path = result_stem(options_, input);
    make_folder(path.parent_path());
    path += "." + std::string(thing) + (sample == SampleType::kF32 ? ".tif" : ".png");
  }
  return beside(input, path);
}

std::filesystem::path PictureOutput::beside(const std::filesystem::path& input,
                                            std::filesystem::path file) const {
  guard_.check(file);
  ledger_->writes(input, file);
  return file;
}

SampleType sample_for(const std::filesystem::path& path, SampleType sample) {
  const PictureFormat format = format_of(path);
  if (format == PictureFormat::kJpeg || format == PictureFormat::kWebp) return SampleType::kU8;
  if (format == PictureFormat::kPng && sample == SampleType::kF32) return SampleType::kU16;
  return sample;
}

std::filesystem::path figure_beside(std::filesystem::path output, FigureFormat format) {
  return output.replace_extension("figure." + extension_of(format));
}

PictureSpec spec_like(const PictureInfo& info) {
  PictureSpec spec;
  spec.shape = info.shape;
  spec.alpha = info.alpha != AlphaKind::kNone;
  spec.space = info.space;
  return spec;
}

void refuse_labels(CountedPicture& picture) {
  if (holds_labels(picture.file))
    throw InputError("is a mask or a class map, whose numbers are no colors",
                     "clean it with tidy, or resize it with reframe", picture.file.path.string());
}

void refuse_hue(const PictureInfo& info, const std::filesystem::path& input) {
  if (info.space->hue >= 0)
    throw InputError("holds " + std::string(info.space->id) +
                         ", and the mean of two hues is not the hue between them",
                     "convert it to srgb or lab first", input.string());
}

PictureInfo info_of(const PictureSpec& spec) {
  return {spec.shape,
          spec.alpha ? AlphaKind::kStraight : AlphaKind::kNone,
          spec.space,
          full_scale_of(spec.shape.sample),
          {}};
}

}  // namespace chalcedony
