/** A text of any kind recognised by its content, and read. */
export { fileText, type FileText, isZip, LARGEST_SCORE_BYTES } from './fileText.ts'
export { kindOf, TEXT_KINDS, type TextKind } from './kindOf.ts'
export {
  readAny,
  readingAny,
  type ReadingNeeds,
  type TextUnderstood,
  type TuneUnderstood,
} from './readingAny.ts'
