// The streams a program is started with.
#ifndef CHALCEDONY_CLI_TERMINAL_STANDARD_STREAMS_H_
#define CHALCEDONY_CLI_TERMINAL_STANDARD_STREAMS_H_

namespace chalcedony::cli {

/// Keeps the places of stdin, stdout and stderr when the program was started without them, before
/// a file is opened: a result would take the place of stderr, and warnings would go into it. What
/// is written to an absent stdout fails as on a closed one, what is said on an absent stderr is
/// lost.
void keep_standard_streams();

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TERMINAL_STANDARD_STREAMS_H_
