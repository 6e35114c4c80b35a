// Bytes as text.
#ifndef CHALCEDONY_IO_TEXT_BASE64_H_
#define CHALCEDONY_IO_TEXT_BASE64_H_

#include <string>
#include <string_view>

namespace chalcedony {

/// Source    RFC 4648, section 4
std::string base64(std::string_view bytes);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_BASE64_H_
