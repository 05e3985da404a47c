import { ENGLISH } from './english.ts'
import { ENGLISH_PAPER } from './englishPaper.ts'
import { FILIPINO } from './filipino.ts'
import { FILIPINO_PAPER } from './filipinoPaper.ts'
import { FRENCH } from './french.ts'
import { FRENCH_PAPER } from './frenchPaper.ts'
import type { LanguageWords } from './languageWords.ts'
import type { PaperWords } from './paperWords.ts'
import { SPANISH } from './spanish.ts'
import { SPANISH_PAPER } from './spanishPaper.ts'
import type { Speech } from './speech.ts'
import type { Language } from '../../../messages/language.ts'
import type { Wording } from './wording.ts'

const WORDS: Readonly<Record<Language, LanguageWords>> = {
  en: ENGLISH,
  fr: FRENCH,
  es: SPANISH,
  fil: FILIPINO,
}

/** The words of a way to speak. */
export function wordsFor({ language, length, fingers }: Speech): Wording {
  const own = WORDS[language]
  const words = own[length]
  return fingers === 'names' ? words : { ...words, fingers: own.fingers, picking: own.picking }
}

const PAPER: Readonly<Record<Language, PaperWords>> = {
  en: ENGLISH_PAPER,
  fr: FRENCH_PAPER,
  es: SPANISH_PAPER,
  fil: FILIPINO_PAPER,
}

/** What a language says beside the steps. */
export const paperWordsFor = (language: Language): PaperWords => PAPER[language]
