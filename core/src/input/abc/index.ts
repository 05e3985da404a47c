/** ABC read. */
export type { GivenPlace } from './placeMarks.ts'
export { PlacesError, scoreOfPlaces } from './scoreOfPlaces.ts'
export { readAbc, readingAbc, type TuneReading } from './readAbc.ts'
export { tuneTexts } from './tuneTexts.ts'
