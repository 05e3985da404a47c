import type { Language } from '../../../messages/language.ts'

/** How a lesson speaks. */
export interface Speech {
  readonly language: Language
  readonly length: 'full' | 'short'
  /** Fingers by name, or by number (and p i m a). */
  readonly fingers: 'names' | 'numbers'
}

export const USUAL_SPEECH: Speech = { language: 'en', length: 'full', fingers: 'names' }
