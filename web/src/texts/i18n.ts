import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { en } from './en.ts'

void i18next.use(initReactI18next).init({
  lng: 'en',
  fallbackLng: 'en',
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
})

/** Brings the texts of the stages, which the first page does without. */
export async function bringStages(): Promise<void> {
  const { stages } = await import('./stages.ts')
  i18next.addResourceBundle('en', 'translation', stages, true)
}
