import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation, useParams } from 'react-router'
import { useOpenScore } from '../state/openScore.ts'
import { placeOf } from './rail/places.ts'

/** The window's title: the tune, the stage, the app; read out and listed by the browser. */
export function usePageTitle(): void {
  const { t } = useTranslation()
  const { id } = useParams()
  const { pathname } = useLocation()
  const tune = useOpenScore(id)?.tune?.title
  const place = t(`rail.${placeOf(pathname)}`)
  useEffect(() => {
    document.title = [tune, place, t('app.name')].filter(Boolean).join(' · ')
  }, [tune, place, t])
}
