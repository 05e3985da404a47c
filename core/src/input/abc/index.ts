/** ABC read. */
export { readAbc, readingAbc, type TuneReading } from './readAbc.ts'
