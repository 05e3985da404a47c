/** What the core says to people, as codes with values, and the catalogue of their English texts. */
export { ENGLISH } from './english.ts'
export { type Language, LANGUAGES } from './language.ts'
export { message, type Message, type MessageCode, type MessageValues } from './message.ts'
