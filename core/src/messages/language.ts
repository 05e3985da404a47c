/**
 * The languages that the app can speak: lessons, handouts and the interface take theirs from this one list. A part that is
 * not written in a language yet is shown in English. All but English are written by machine and await a native reader.
 */
export const LANGUAGES = ['en', 'fr', 'es', 'fil'] as const
export type Language = (typeof LANGUAGES)[number]
