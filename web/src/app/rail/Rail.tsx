import { ActionIcon } from '@mantine/core'
import { IconHelp, IconMoon, IconSearch, IconSun } from '@tabler/icons-react'
import { isFresh } from '@velvet-porch/core/document'
import { Suspense, useDeferredValue, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useParams } from 'react-router'
import { useOpenScore } from '../../state/openScore.ts'
import { brought } from '../../ui/brought.ts'
import { OnceAsked } from '../../ui/OnceAsked.tsx'
import type { Finding } from '../palette/Keys.tsx'
import { useDarkMode } from '../useDarkMode.ts'
import { MoreButton } from './MoreButton.tsx'
import { IN_MENU, PLACE_ICONS, REFERENCES, stagePath, STAGES, type Place } from './places.ts'
import css from './Rail.module.css'

const RailHints = brought(async () => (await import('./RailHints.tsx')).RailHints)

const RailMenu = brought(async () => (await import('./RailMenu.tsx')).RailMenu)

type StageState = 'done' | 'stale' | 'empty'

interface Props {
  readonly onHelp: () => void
  readonly onFind: (finding: Finding) => void
}

/** The stages of the work: a rail at the left, a bar under the thumb on a phone. */
export function Rail({ onHelp, onFind }: Props) {
  const { t } = useTranslation()
  const { id } = useParams()
  const arranged = useArrangedState(id)
  const [pointedAt, setPointedAt] = useState(false)
  const stateOf = { tune: 'done', fit: arranged === 'empty' ? 'empty' : 'done' } as const
  return (
    <nav
      className={`${css.rail} no-print`}
      aria-label={t('rail.label')}
      onPointerEnter={() => setPointedAt(true)}
    >
      <Link className={css['rail-name']} to="/">
        {t('app.name')}
      </Link>
      <RailLink to="/" place="shelf" state="done" />
      {id
        ? STAGES.map((stage) => (
            <RailLink
              key={stage}
              to={stagePath(id, stage)}
              place={stage}
              state={stage === 'tune' || stage === 'fit' ? stateOf[stage] : arranged}
              guide={stage === 'handout' ? 'print' : undefined}
            />
          ))
        : null}
      <div className={css.rest} />
      {REFERENCES.map((place) => (
        <RailLink
          key={place}
          to={`/${place}`}
          place={place}
          aside={id !== undefined || IN_MENU.includes(place)}
        />
      ))}
      <RailTools onHelp={onHelp} onFind={onFind} />
      {pointedAt ? (
        <Suspense>
          <RailHints />
        </Suspense>
      ) : null}
    </nav>
  )
}

function RailLink({
  to,
  place,
  state,
  aside = false,
  guide,
}: {
  to: string
  place: Place
  state?: StageState
  /** True for what a phone keeps in its menu. */
  aside?: boolean
  guide?: string | undefined
}) {
  const { t } = useTranslation()
  const Icon = PLACE_ICONS[place]
  return (
    <Link
      to={to}
      data-place={place}
      data-guide={guide}
      aria-current={useLocation().pathname === to ? 'page' : undefined}
      className={aside ? `${css.stage} ${css.aside}` : css.stage}
    >
      <Icon className={css.icon} size={21} stroke={1.7} aria-hidden />
      {state ? <span className={`dot ${state}`} role="img" aria-label={t(`rail.state.${state}`)} /> : null}
      {t(`rail.${place}`)}
    </Link>
  )
}

/** Dark mode, search, help: three signs on the rail, one menu on a phone. */
function RailTools({ onHelp, onFind }: Props) {
  const { t } = useTranslation()
  const { dark, turn } = useDarkMode()
  const tools = [
    { label: t('app.dark'), Icon: dark ? IconSun : IconMoon, run: turn },
    { label: t('keys.search'), Icon: IconSearch, run: () => onFind('palette') },
    { label: t('help.title'), Icon: IconHelp, run: onHelp },
  ]
  return (
    <>
      <div className={css.tools}>
        {tools.map(({ label, Icon, run }) => (
          <ActionIcon
            key={label}
            variant="subtle"
            color="lamp.3"
            size="md"
            aria-label={label}
            title={label}
            onClick={run}
          >
            <Icon size={18} />
          </ActionIcon>
        ))}
      </div>
      <OnceAsked button={(unfolding) => <MoreButton {...unfolding} />}>
        <RailMenu tools={tools} onKeys={() => onFind('keys')} />
      </OnceAsked>
    </>
  )
}

function useArrangedState(tuneId: string | undefined): StageState {
  // The dot in the rail may follow a moment after the sheet.
  const { tune, arrangement } = useDeferredValue(useOpenScore(tuneId)) ?? {}
  return useMemo(
    () => (!tune || !arrangement ? 'empty' : isFresh(tune, arrangement) ? 'done' : 'stale'),
    [tune, arrangement],
  )
}
