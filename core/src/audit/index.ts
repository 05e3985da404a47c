/** The judge of a finished tab against its source. */
export { audit, type AuditReport } from './audit.ts'
export { type Finding, type FindingKind, STRUCTURAL } from './finding.ts'
export type {
  FinishedTab,
  HeldGrip,
  SoundingChord,
  SourceNote,
  WrittenGrace,
  WrittenNote,
} from './finishedTab.ts'
