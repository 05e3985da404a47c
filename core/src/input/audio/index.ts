/** A recording's tuning and likely keys. */
export { midiNote } from './midiNote.ts'
export {
  type KeyCandidate,
  type RecordingFault,
  recordingPitch,
  type RecordingPitch,
  type RecordingReading,
} from './recordingPitch.ts'
