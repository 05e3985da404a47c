export * from './instrumentVoice.ts'
export * from './pluckedString.ts'
export * from './performance.ts'
export * from './sequencer.ts'
