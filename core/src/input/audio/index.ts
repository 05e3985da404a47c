/** What is heard: a recording's tuning and likely keys, the pitch of a string. */
export { midiNote } from './midiNote.ts'
export {
  type KeyCandidate,
  type RecordingFault,
  recordingPitch,
  type RecordingPitch,
  type RecordingReading,
} from './recordingPitch.ts'
export { LISTENED, stringPitch, type StringPitch } from './tuner/stringPitch.ts'
export { steadyPitch, withPitch, type PitchesHeard } from './tuner/steadyPitch.ts'
export { A4_RANGE } from './tuner/a4Range.ts'
export {
  tunedString,
  wantedHertz,
  wantedPitch,
  type PegTurn,
  type TunedString,
  type TunerSettings,
} from './tuner/tunedString.ts'
export { expectedNotes, secondsFrom, type ExpectedNote } from './take/expectedNotes.ts'
export { LEAST_FOLLOWED, takeCheck, type NoteHeard, type TakeReading } from './take/takeCheck.ts'
export { playedMelody, type PlayedIn, type PlayedNote } from './melody/playedMelody.ts'
export { draftTune, type Draft } from './melody/draftTune.ts'
export { likelyPlaces } from './melody/likelyPlaces.ts'
export { latencyOf, type Latency } from './take/latency.ts'
