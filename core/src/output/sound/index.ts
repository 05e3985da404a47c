/** String model, performance in played order, sequencer. */
export {
  type Balance,
  type Loudness,
  LOUDNESSES,
  OWN_PARTS,
  ownPartOf,
  type OwnPart,
  withOwnPart,
} from './balance.ts'
export { COUNTED_TO, countedAloud } from './countingVoice.ts'
export { InstrumentVoice } from './instrumentVoice.ts'
export { type Click, type Performance, type ScoreNote, scoreOf } from './performance.ts'
export { PluckedString } from './pluckedString.ts'
export { type PlaySettings, Sequencer, type SoundEvent } from './sequencer.ts'
export { type Bounce, bounce, BOUNCE_RATE, LONGEST_BOUNCE_S } from './bounce.ts'
export { wavOf } from './wav.ts'
export { type MeantNote, type Mistake, type SimulatedRoom, simulatedTake } from './simulatedTake.ts'
