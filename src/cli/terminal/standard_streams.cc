#include "cli/terminal/standard_streams.h"

#include <fcntl.h>
#include <unistd.h>

#include <initializer_list>

namespace chalcedony::cli {

void keep_standard_streams() {
  // In this order, as open() takes the lowest place that is free.
  for (const int stream : {STDIN_FILENO, STDOUT_FILENO, STDERR_FILENO})
    if (::fcntl(stream, F_GETFD) < 0)
      static_cast<void>(::open("/dev/null", stream == STDOUT_FILENO ? O_RDONLY : O_RDWR));
}

}  // namespace chalcedony::cli
