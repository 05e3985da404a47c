export * from './instrumentVoice.ts'
export * from './pluckedString.ts'
export * from './score.ts'
export * from './sequencer.ts'
