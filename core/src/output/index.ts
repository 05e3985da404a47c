/** ABC, text tab and JSON written, and the notation that staff and paper share. */
export { writeAbc } from './abc/writeAbc.ts'
export { writeChords, type WrittenChords } from './abc/writeChords.ts'
export { finishedTabOf, tabJson, type TabJson } from './json/tabJson.ts'
export { bendText } from './notation/bendText.ts'
export { type SongWriting, writeChordPro } from './song/chordPro.ts'
export {
  type Carried,
  octaveAbove,
  type StaffContent,
  staffContents,
  type StaffHead,
  staffLine,
  staffMeasure,
  type StaffMeasure,
  staffOf,
  type StaffSign,
  staffWriting,
  type StaffWriting,
  writtenAbove,
} from './notation/staff.ts'
export {
  accidentalsAtHead,
  headWidth,
  isNewMetre,
  staffReach,
  type StaffReach,
} from './notation/staffRoom.ts'
export { textTab, type TextTabInput } from './text/textTab.ts'
