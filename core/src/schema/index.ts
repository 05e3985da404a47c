/** Everything that is read from outside or from storage, checked. */
export { readArrangementDoc } from './arrangementSchema.ts'
export {
  type Backup,
  BACKUP_FORMAT,
  BACKUP_TABLES,
  type BackupRow,
  type BackupTable,
  readBackup,
  readTuneFile,
  TUNE_FILE_FORMAT,
  type TuneFile,
} from './backupSchema.ts'
export { SchemaError } from './common.ts'
export { readHandout } from './handoutSchema.ts'
export { type OwnPattern, readOwnPattern } from './patternSchema.ts'
export { PUBLISHED_SCHEMAS } from './published.ts'
export { readPlayer } from './playerSchema.ts'
export { readPracticeLog } from './practiceLogSchema.ts'
export {
  readAssignment,
  readLessonRecord,
  readRepertoireEntry,
  readSetList,
  readStudentRecord,
} from './studioSchema.ts'
export { readTaste } from './tasteSchema.ts'
export { readTabJson } from './tabJsonSchema.ts'
export { readTuneDoc } from './tuneSchema.ts'
