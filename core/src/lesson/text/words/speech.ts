/** Languages of lessons and handouts; all but English are written by machine and await a native reader. */
export const LANGUAGES = ['en', 'fr', 'es', 'fil'] as const
export type Language = (typeof LANGUAGES)[number]

/** How a lesson speaks. */
export interface Speech {
  readonly language: Language
  readonly length: 'full' | 'short'
  /** Fingers by name, or by number (and p i m a). */
  readonly fingers: 'names' | 'numbers'
}

export const USUAL_SPEECH: Speech = { language: 'en', length: 'full', fingers: 'names' }
