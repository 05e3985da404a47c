export * from './recordingPitch.ts'
