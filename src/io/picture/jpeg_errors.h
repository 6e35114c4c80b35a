// Errors of the JPEG library, which may not return to where they arose.
#ifndef CHALCEDONY_IO_PICTURE_JPEG_ERRORS_H_
#define CHALCEDONY_IO_PICTURE_JPEG_ERRORS_H_

#include <csetjmp>
#include <cstdio>  // jpeglib.h needs it

#include <jpeglib.h>

namespace chalcedony {

/// The library's error handling with a place to jump to and what it says.
struct JumpingErrors {
  jpeg_error_mgr manager;  // first, so that the library's pointer to it is one to all
  std::jmp_buf target;
  char message[JMSG_LENGTH_MAX];
};

/// For `manager.error_exit`: keeps the message and jumps to the target.
[[noreturn]] inline void jump_out(j_common_ptr info) {
  auto* errors = reinterpret_cast<JumpingErrors*>(info->err);
  errors->manager.format_message(info, errors->message);
  std::longjmp(errors->target, 1);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_JPEG_ERRORS_H_
