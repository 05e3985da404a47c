import { ActionIcon, useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { IconLamp, IconLampOff } from '@tabler/icons-react'
import { isFresh } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { useDeferredValue, useMemo } from 'react'
import { Link, NavLink, Outlet, useNavigate, useParams } from 'react-router'
import { useOpenScore } from '../state/openScore.ts'
import { useActions } from '../state/actions.ts'
import { Keys } from './Keys.tsx'
import { StorageNotice } from './StorageNotice.tsx'
import css from './Porch.module.css'

type StageState = 'done' | 'stale' | 'empty'

/** The frame of every stage: the rail on the left, the stage on the right. */
export function Porch() {
  const { t } = useTranslation()
  const { id } = useParams()
  const arranged = useArrangedState(id)
  const go = useNavigate()
  useActions(
    useMemo(
      () =>
        (
          [
            ['/', t('rail.shelf')],
            ['/shapes', t('rail.shapes')],
            ['/shapes?do=name', t('rail.nameShape')],
            ['/shapes?do=path', t('rail.path')],
            ['/neck', t('rail.neck')],
            ['/settings', t('rail.settings')],
          ] as const
        ).map(([to, label]) => ({ id: to, label: t('rail.go', { place: label }), run: () => void go(to) })),
      [t, go],
    ),
  )
  return (
    <div className={css.porch}>
      <a className={css.skip} href="#stage">
        {t('app.skip')}
      </a>
      <nav className={`${css.rail} no-print`} aria-label={t('rail.label')}>
        <Link className={css['rail-name']} to="/">
          {t('app.name')}
        </Link>
        <Stage to="/" label={t('rail.shelf')} state="done" />
        {id ? <Stage to={`/tunes/${id}/tune`} label={t('rail.tune')} state="done" /> : null}
        {id ? (
          <Stage
            to={`/tunes/${id}/fit`}
            label={t('rail.fit')}
            state={arranged === 'empty' ? 'empty' : 'done'}
          />
        ) : null}
        {id ? <Stage to={`/tunes/${id}/arrange`} label={t('rail.arrange')} state={arranged} /> : null}
        {id ? <Stage to={`/tunes/${id}/teach`} label={t('rail.teach')} state={arranged} /> : null}
        {id ? <Stage to={`/tunes/${id}/handout`} label={t('rail.handout')} state={arranged} /> : null}
        <div className="rest" />
        <Stage to="/shapes" label={t('rail.shapes')} />
        <Stage to="/neck" label={t('rail.neck')} />
        <Stage to="/settings" label={t('rail.settings')} />
        <Lamp />
      </nav>
      <main id="stage" className={css['stage-page']} tabIndex={-1}>
        <StorageNotice />
        <Outlet />
      </main>
      <Keys />
    </div>
  )
}

function Stage({ to, label, state }: { to: string; label: string; state?: StageState }) {
  const { t } = useTranslation()
  return (
    <NavLink to={to} end className={({ isActive }) => `stage${isActive ? ' active' : ''}`}>
      {state ? <span className={`dot ${state}`} role="img" aria-label={t(`rail.state.${state}`)} /> : null}
      {label}
    </NavLink>
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

function Lamp() {
  const { t } = useTranslation()
  const { setColorScheme } = useMantineColorScheme()
  const dark = useComputedColorScheme('light') === 'dark'
  return (
    <ActionIcon
      className="lamp"
      variant="subtle"
      color="lamp.3"
      size="lg"
      aria-label={t('app.lamp')}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconLampOff size={20} /> : <IconLamp size={20} />}
    </ActionIcon>
  )
}
