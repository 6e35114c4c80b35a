// Text that can be shown, whatever bytes the names of files and classes in it hold.
#ifndef CHALCEDONY_IO_TEXT_PRINTABLE_TEXT_H_
#define CHALCEDONY_IO_TEXT_PRINTABLE_TEXT_H_

#include <string>
#include <string_view>

namespace chalcedony {

/// The text in UTF-8 without control characters (C0, delete, C1): these, and bytes that are no
/// UTF-8, become \x1b and the like. A terminal would obey them, and no figure could be drawn with
/// them.
std::string printable(std::string_view text);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_PRINTABLE_TEXT_H_
