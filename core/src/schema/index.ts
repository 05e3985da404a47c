export { SchemaError } from './common.ts'
export { readTuneDoc } from './tuneSchema.ts'
export { readArrangementDoc } from './arrangementSchema.ts'
export { readTabJson } from './tabJsonSchema.ts'
