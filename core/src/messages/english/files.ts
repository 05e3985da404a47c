/** What is said of a file before its text is read. */
export const files = {
  empty: 'The file is empty. Choose a file that holds a tune in ABC.',
  tooLarge: 'The file has {{size}} MB; at most {{most}} MB are read at once. Split it into smaller files.',
  notText: 'This is not a text file. Export the tune as ABC text and open that.',
  badZip: 'The zip file is damaged, or is none. Save it again, or bring in another one.',
  otherZip: 'This zip file was not saved here: it holds no everything.json.',
  shelfTooLarge: 'The file would unpack to more than {{most}} MB. Bring in another one.',
  otherEncoding: 'The file is not UTF-8; it was read as Latin-1. Check accented letters.',
} as const
