import { ActionIcon, Menu, Tooltip } from '@mantine/core'
import { spotlight } from '@mantine/spotlight'
import {
  IconDots,
  IconHelp,
  IconKeyboard,
  IconMoon,
  IconRoute,
  IconSearch,
  IconSun,
} from '@tabler/icons-react'
import { isFresh } from '@velvet-porch/core/document'
import { useDeferredValue, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { callGuide } from '../../state/guide.ts'
import { useOpenScore } from '../../state/openScore.ts'
import { useDarkMode } from '../useDarkMode.ts'
import { PLACE_ICONS, REFERENCES, stagePath, STAGES, type Place, type Reference } from './places.ts'
import css from './Rail.module.css'

/** What a phone has no room for beside the others. */
const IN_MENU: readonly Reference[] = ['taste']

type StageState = 'done' | 'stale' | 'empty'

interface Props {
  readonly onHelp: () => void
  readonly onKeys: () => void
}

/** The stages of the work: a rail at the left, a bar under the thumb on a phone. */
export function Rail({ onHelp, onKeys }: Props) {
  const { t } = useTranslation()
  const { id } = useParams()
  const arranged = useArrangedState(id)
  const stateOf = { tune: 'done', fit: arranged === 'empty' ? 'empty' : 'done' } as const
  return (
    <nav className={`${css.rail} no-print`} aria-label={t('rail.label')}>
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
      <RailTools onHelp={onHelp} onKeys={onKeys} />
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
  const here = useLocation().pathname === to
  return (
    <Tooltip
      label={t(`help.${place}`).split('\n').join(' ')}
      multiline
      w={270}
      position="right"
      openDelay={700}
      // Whoever has gone there looks at the page now.
      disabled={here}
      events={{ hover: true, focus: false, touch: false }}
    >
      <Link
        to={to}
        data-guide={guide}
        aria-current={here ? 'page' : undefined}
        className={aside ? `${css.stage} ${css.aside}` : css.stage}
      >
        <Icon className={css.icon} size={21} stroke={1.7} aria-hidden />
        {state ? <span className={`dot ${state}`} role="img" aria-label={t(`rail.state.${state}`)} /> : null}
        {t(`rail.${place}`)}
      </Link>
    </Tooltip>
  )
}

/** Dark mode, search, help: three signs on the rail, one menu on a phone. */
function RailTools({ onHelp, onKeys }: Props) {
  const { t } = useTranslation()
  const go = useNavigate()
  const inTune = useParams().id !== undefined
  const { dark, turn } = useDarkMode()
  const tools = [
    { label: t('app.dark'), Icon: dark ? IconSun : IconMoon, run: turn },
    { label: t('keys.search'), Icon: IconSearch, run: spotlight.open },
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
      <Menu position="top-end" width={240}>
        <Menu.Target>
          <button type="button" className={`${css.stage} ${css.more}`}>
            <IconDots className={css.icon} size={21} stroke={1.7} aria-hidden />
            {t('rail.more')}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {(inTune ? REFERENCES : IN_MENU).map((place) => {
            const Icon = PLACE_ICONS[place]
            return (
              <Menu.Item key={place} leftSection={<Icon size={17} />} onClick={() => void go(`/${place}`)}>
                {t(`rail.${place}`)}
              </Menu.Item>
            )
          })}
          {tools.map(({ label, Icon, run }) => (
            <Menu.Item key={label} leftSection={<Icon size={17} />} onClick={run}>
              {label}
            </Menu.Item>
          ))}
          <Menu.Item leftSection={<IconKeyboard size={17} />} onClick={onKeys}>
            {t('keys.title')}
          </Menu.Item>
          <Menu.Item leftSection={<IconRoute size={17} />} onClick={callGuide}>
            {t('guide.call')}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
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
