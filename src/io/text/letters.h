// Letters of UTF-8 texts, of one or several bytes each.
#ifndef CHALCEDONY_IO_TEXT_LETTERS_H_
#define CHALCEDONY_IO_TEXT_LETTERS_H_

namespace chalcedony {

/// Whether a byte is the first one of a letter.
inline bool begins_letter(char byte) { return (static_cast<unsigned char>(byte) & 0xc0) != 0x80; }

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_LETTERS_H_
