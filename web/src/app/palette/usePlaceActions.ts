import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { useActions, type Action } from '../../state/actions.ts'
import { callGuide } from '../../state/guide.ts'
import { useDarkMode } from '../useDarkMode.ts'
import { stagePath, STAGES } from '../rail/places.ts'

/** What every page offers: its places, and what is set for the whole app. */
export function usePlaceActions(onHelp: () => void): void {
  const { t } = useTranslation()
  const { id } = useParams()
  const go = useNavigate()
  const { turn } = useDarkMode()
  useActions(
    useMemo(() => {
      const to = (path: string, label: string): Action => ({
        id: path,
        group: 'places',
        label: t('rail.go', { place: label }),
        run: () => void go(path),
      })
      return [
        to('/', t('rail.shelf')),
        ...(id ? STAGES.map((stage) => to(stagePath(id, stage), t(`rail.${stage}`))) : []),
        to('/shapes', t('rail.shapes')),
        to('/shapes?do=name', t('rail.nameShape')),
        to('/shapes?do=path', t('rail.path')),
        to('/neck', t('rail.neck')),
        to('/tuner', t('rail.tuner')),
        to('/students', t('rail.students')),
        to('/repertoire', t('rail.repertoire')),
        to('/sets', t('rail.sets')),
        to('/settings', t('rail.settings')),
        { id: 'dark', group: 'settings', label: t('app.dark'), run: turn },
        ...(['naming', 'hands', 'data'] as const).map((part): Action => ({
          id: `settings.${part}`,
          group: 'settings',
          label: t(`rail.setting.${part}`),
          run: () => void go('/settings'),
        })),
        { id: 'help', group: 'places', label: t('help.title'), keys: 'F1', run: onHelp },
        { id: 'guide', group: 'places', label: t('guide.call'), run: callGuide },
      ]
    }, [t, id, go, turn, onHelp]),
  )
}
