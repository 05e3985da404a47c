import type { TFunction } from 'i18next'
import { Alert, Button, Group, Progress, Text } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import {
  bestTradeOffs,
  gapOf,
  measureNumbers,
  narrowVoice,
  ranked,
  refusalOf,
  USUAL_PREFERENCES,
  type ArrangementDoc,
  type FitOption,
  type Layer,
  type Preferences,
  type TuneDoc,
} from '@velvet-porch/core'
import { useCallback, useDeferredValue, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { useCurrentPlayer } from '../../state/players.ts'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { putOnCopy, putOnTune } from './applyFit.ts'
import { FitChart } from './FitChart.tsx'
import { firstConditions, questionOf, voiceOf } from './fitConditions.ts'
import { FitConditions } from './FitConditions.tsx'
import { FitDetail } from './FitDetail.tsx'
import { dropSpareWorkers, prepareFitWorkers } from '../../workers/fitWorkers.ts'
import { fitRunFor, optionsFor, WORKERS, type FitState } from './fitRun.ts'
import { FitTable } from './FitTable.tsx'
import { useFitWords } from './useFitWords.ts'
import { WhatMatters } from './WhatMatters.tsx'

/** Tuning, key and capo chosen together. */
export function FitStage() {
  const id = useParams().id!
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) => (doc === undefined ? null : <Fitting key={id} tune={tune} doc={doc} />)}
    </TuneGate>
  )
}

/** Milliseconds after which a choice counts as looked at. */
const LOOKED_AT_MS = 400

/** Rows of the table at first, the best by what matters, and how many more at a time. */
const ROWS = 24

function Fitting({ tune, doc }: { tune: TuneDoc; doc: ArrangementDoc | null }) {
  const { t } = useTranslation()
  const go = useNavigate()
  const hand = useCurrentPlayer()
  const [conditions, setConditions] = useState(() => firstConditions(doc))
  const [preferences, setPreferences] = useState<Preferences>(USUAL_PREFERENCES)
  const [wish, setChosen] = useState<string>()
  const [hovered, setHovered] = useState<string>()
  const [working, setWorking] = useState(false)
  const question = useMemo(() => questionOf(tune, doc, conditions, hand), [tune, doc, conditions, hand])
  const { fault } = voiceOf(conditions)
  const run = useMemo(() => fitRunFor(question), [question])
  const state = useSyncExternalStore(run.subscribe, run.snapshot)
  useEffect(() => () => run.cancel(), [run])
  useEffect(() => {
    prepareFitWorkers(WORKERS)
    return dropSpareWorkers
  }, [])
  // Start and stop answer at once; the list of what is found follows.
  const { estimates, worked, impossible } = useDeferredValue(state)
  const weights = useDeferredValue(preferences)
  const all = useMemo(
    () => optionsFor({ estimates, worked, impossible }, question),
    [estimates, worked, impossible, question],
  )
  const { order, best } = useMemo(() => {
    const full = all.filter((o) => !o.estimated)
    const best = new Set(bestTradeOffs(full, weights).map((o) => o.id))
    const sorted = ranked(all, weights)
    const first = (o: FitOption) => (best.has(o.id) ? 0 : o.estimated ? 2 : 1)
    return { order: [...sorted].sort((a, b) => first(a) - first(b)), best }
  }, [all, weights])
  const [rows, setRows] = useState(ROWS)
  const shown = useMemo(() => order.slice(0, rows), [order, rows])
  const more = useCallback(() => setRows((n) => n + ROWS), [])
  const words = useFitWords(tune, conditions.instrument)
  const numbers = useMemo(() => measureNumbers(tune.measures), [tune])
  const chosen = order.find((o) => o.id === wish) ?? order[0]
  // The list answers at once; picture and preview follow.
  const pointed = useDebouncedValue(hovered, LOOKED_AT_MS)[0]
  const looked = useDeferredValue(order.find((o) => hovered && o.id === pointed) ?? chosen)
  const drawn = useDeferredValue(shown)
  const running = state.phase === 'estimating' || state.phase === 'working'
  useEffect(() => {
    // What is looked at for a moment is worked out, to be seen and heard.
    if (running || !looked?.estimated) return
    const timer = setTimeout(() => {
      setWorking(true)
      void run.workOut(looked.id).finally(() => setWorking(false))
    }, LOOKED_AT_MS)
    return () => clearTimeout(timer)
  }, [run, running, looked])
  const gap = gapOf(question)
  const refused = question.regions.find((r) => refusalOf(r.style, r.level, question.setup.instrument))
  const narrow = question.voice && narrowVoice(tune, question.voice)
  const use = useCallback(
    async (option: FitOption, layer: Layer) => {
      await putOnTune(question, option, layer, t('fit.command', { what: words.line(option) }))
      void go(`/tunes/${question.tune.id}/arrange`)
    },
    [question, words, t, go],
  )
  const copy = useCallback(
    async (option: FitOption, layer: Layer) => {
      const title = t('fit.copyTitle', { title: question.tune.title, key: words.sounds(option) })
      const id = await putOnCopy(question, option, layer, title)
      if (id) void go(`/tunes/${id}/arrange`)
    },
    [question, words, t, go],
  )
  return (
    <div className="fit">
      <aside className="fit-side">
        <FitConditions
          tune={tune}
          conditions={conditions}
          onConditions={setConditions}
          arranged={doc !== null}
          voice={question.voice}
          fault={fault}
          chosen={looked}
          player={hand.name}
        />
      </aside>
      <div className="fit-main">
        <div className="bench-title">
          <h1>{tune.title}</h1>
          <span className="setup">{t('fit.subtitle')}</span>
        </div>
        <Group gap={10} my={8}>
          {running ? (
            <Button variant="default" onClick={() => run.cancel()}>
              {t('fit.stop')}
            </Button>
          ) : (
            <Button
              disabled={gap !== undefined || refused !== undefined}
              onClick={() => void run.start(question, preferences)}
            >
              {t(state.phase === 'idle' ? 'fit.start' : 'fit.again')}
            </Button>
          )}
          {running ? (
            <Progress
              className="fit-progress"
              value={100 * state.share}
              aria-label={t(state.phase === 'estimating' ? 'fit.estimating' : 'fit.working')}
            />
          ) : null}
          <Text size="sm" c="dimmed" role="status" data-testid="fit-status">
            {statusWords(t, state, order)}
          </Text>
        </Group>
        {gap ? <Alert color="red">{t(`fit.gap.${gap}`)}</Alert> : null}
        {refused ? <Alert color="red">{t('fit.refused')}</Alert> : null}
        {narrow ? (
          <Alert color="lamp" mb={8} data-testid="narrow">
            {t('fit.voice.narrow', {
              count: narrow.missing,
              outside: narrow.nearest.outside,
              shift: words.signed(narrow.nearest.shift),
            })}{' '}
            <Button
              size="compact-xs"
              onClick={() => setConditions({ ...conditions, wanted: narrow.nearest.shift })}
            >
              {t('fit.voice.wish')}
            </Button>
          </Alert>
        ) : null}
        <WhatMatters
          preferences={preferences}
          onPreferences={setPreferences}
          sings={question.voice !== undefined}
        />
        {order.length > 0 ? (
          <>
            <FitTable
              options={shown}
              best={best}
              numbers={numbers}
              chosen={chosen?.id}
              onChoose={setChosen}
              onHover={setHovered}
              words={words}
              sings={question.voice !== undefined}
              further={order.length - shown.length}
              onMore={more}
            />
            <FitChart
              options={drawn}
              best={best}
              wanted={question.wanted}
              chosen={looked?.id}
              onChoose={setChosen}
              words={words}
            />
          </>
        ) : state.phase === 'done' ? (
          <Alert color="red">{t('fit.nothing')}</Alert>
        ) : null}
        {looked ? (
          <FitDetail
            question={question}
            option={looked}
            layer={state.worked.get(looked.id)?.layer}
            partners={conditions.partners}
            words={words}
            numbers={numbers}
            busy={working || running}
            onUse={use}
            onCopy={copy}
          />
        ) : null}
      </div>
    </div>
  )
}

function statusWords(
  t: TFunction,
  { phase, seconds, failed }: FitState,
  options: readonly FitOption[],
): string {
  if (phase === 'idle') return t('fit.hint')
  const full = options.filter((o) => !o.estimated).length
  return [
    ...(phase === 'stopped' ? [t('fit.stopped')] : []),
    t('fit.counted', { count: options.length, full }),
    ...(seconds === undefined ? [] : [t('fit.took', { seconds: seconds.toFixed(1) })]),
    ...(failed > 0 ? [t('fit.failed', { count: failed })] : []),
  ].join(' ')
}
