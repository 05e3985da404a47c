/** Formats that are read and written: what each keeps of a tune and its tab, and what it leaves behind. */
export { type Feature, FEATURES, featuresOf } from './features.ts'
export {
  canWrite,
  featureMessage,
  type Format,
  formatOf,
  FORMATS,
  type FormatWriter,
  leftBehind,
  type WrittenOf,
} from './formats.ts'
export { freeFileName } from './freeFileName.ts'
export { backupText, readingBackupText } from './backupText.ts'
export {
  backupInZip,
  type PackedRecording,
  recordingsInZip,
  ShelfZipError,
  zippingShelf,
} from './shelfZip.ts'
export { tabSvg } from './tabSvg.ts'
