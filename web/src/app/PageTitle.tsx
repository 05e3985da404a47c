import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation, useParams } from 'react-router'
import { useOpenScore } from '../state/openScore.ts'
import { placeOf } from './rail/places.ts'

/**
 * The window's title: the tune, the stage, the app; read out and listed by the browser. A part of its own: the frame is not
 * drawn anew with every note that is written.
 */
export function PageTitle() {
  const { t } = useTranslation()
  const { id } = useParams()
  const { pathname } = useLocation()
  const tune = useOpenScore(id)?.tune?.title
  const place = t(`rail.${placeOf(pathname)}`)
  useEffect(() => {
    document.title = [tune, place, t('app.name')].filter(Boolean).join(' · ')
  }, [tune, place, t])
  return null
}
