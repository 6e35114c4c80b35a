// Figures of sample regions, and of places where samples would help.
#ifndef CHALCEDONY_FIGURE_SAMPLE_FIGURE_H_
#define CHALCEDONY_FIGURE_SAMPLE_FIGURE_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/region.h"
#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The sample regions outlined in their class colors, each with the name of its class where there
/// is room for it, and the classes with their pixels beside the picture.
void add_samples_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const SampleSet& samples, const std::vector<std::string>& colors,
                        const std::vector<std::uint64_t>& counts, const Thumbnail& picture);

/// A place with what lies around it.
struct CloseUp {
  Thumbnail picture;
  PixelRect place;  // counted from the upper left of the close-up, in pixels of the picture
};

/// A place where a sample would help.
struct NumberedSample {
  PixelRect square;
  std::string guess, color;  // of its class
  double percent = 0;        // of the counted pixels that it stands for
  CloseUp close_up;
};

/// The places outlined with their numbers, from 1 on, and close-ups with their guesses beside the
/// picture.
void add_suggestions_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                            const std::vector<NumberedSample>& samples, const Thumbnail& picture);

/// A place in one of several pictures.
struct PlaceToCheck {
  std::uint64_t number = 0;  // among the suggested ones of its picture
  std::string picture;       // its name
  NumberedSample sample;
};

/// Close-ups of places in `pictures` pictures, with their numbers and their guesses.
void add_places_to_check_figure(Plot& plot, const std::filesystem::path& path, std::size_t pictures,
                                const std::vector<PlaceToCheck>& places);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SAMPLE_FIGURE_H_
