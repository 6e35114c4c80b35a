// Makes pictures: a writer for the format that a name asks for.
#ifndef CHALCEDONY_IO_PICTURE_CREATE_PICTURE_H_
#define CHALCEDONY_IO_PICTURE_CREATE_PICTURE_H_

#include <cstddef>
#include <filesystem>
#include <memory>
#include <vector>

#include "io/picture/picture_spec.h"
#include "io/picture/picture_writer.h"

namespace chalcedony {

/// The formats pictures can be written in.
enum class PictureFormat { kPng, kTiff, kJpeg, kWebp };

/// The format an extension means.
///
/// Errors    UsageError for an extension that is none
PictureFormat format_of(const std::filesystem::path& path);

/// A writer for the path's format.
///
/// Errors    UsageError when the format cannot hold the picture (a lossy format for labels or for
///           a space that is not RGB, floats in PNG); OutputError when the file cannot be made
std::unique_ptr<PictureWriter> create_picture(const std::filesystem::path& path,
                                              const PictureSpec& spec);

/// The check alone, before any work.
void check_format(const std::filesystem::path& path, const PictureSpec& spec);

/// Writes a picture that is in memory.
void write_picture(const std::filesystem::path& path, const PictureSpec& spec,
                   const std::vector<std::byte>& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_CREATE_PICTURE_H_
