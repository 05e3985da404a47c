/** The judge of a finished tab against its source. */
export { audit, type AuditReport, type Finding, type FindingKind, STRUCTURAL } from './audit.ts'
export type {
  FinishedTab,
  HeldGrip,
  SoundingChord,
  SourceNote,
  WrittenGrace,
  WrittenNote,
} from './finishedTab.ts'
