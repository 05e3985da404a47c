import { useDebouncedValue } from '@mantine/hooks'
import { measureNumbers, type ArrangementDoc, type Layer, type TuneDoc } from '@velvet-porch/core/document'
import {
  bestTradeOffs,
  gapOf,
  narrowVoice,
  ranked,
  refusalOf,
  USUAL_PREFERENCES,
  type FitOption,
  type Preferences,
} from '@velvet-porch/core/arrange'
import { useCallback, useDeferredValue, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { useCurrentPlayer } from '../../state/players.ts'
import { dropSpareWorkers, prepareFitWorkers } from '../../workers/fitWorkers.ts'
import { putOnCopy, putOnTune } from './applyFit.ts'
import { firstConditions, questionOf, voiceOf } from './fitConditions.ts'
import { fitRunFor, optionsFor, WORKERS } from './fitRun.ts'
import { useFitWords } from './useFitWords.ts'

/** Milliseconds after which a choice counts as looked at. */
const LOOKED_AT_MS = 400

/** Rows of the table at first, the best by what matters, and how many more at a time. */
const ROWS = 24

/**
 * Everything about one tune on this stage: the conditions, the run that looks for choices, what it found so far, and which
 * choice is looked at.
 */
export function useFitting(tune: TuneDoc, doc: ArrangementDoc | null) {
  const { t } = useTranslation()
  const go = useNavigate()
  const hand = useCurrentPlayer()
  const [conditions, setConditions] = useState(() => firstConditions(doc))
  const [preferences, setPreferences] = useState<Preferences>(USUAL_PREFERENCES)
  const [chosenId, setChosen] = useState<string>()
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
  const chosen = order.find((o) => o.id === chosenId) ?? order[0]
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
  return {
    ...{ conditions, setConditions, preferences, setPreferences, question, fault, voice: question.voice },
    ...{ run, state, running, busy: working || running, gap, refused, narrow },
    ...{ order, shown, best, more, numbers, words, chosen, looked, drawn, setChosen, setHovered },
    ...{ use, copy, player: hand.name, layer: looked && state.worked.get(looked.id)?.layer },
  }
}

export type Fitting = ReturnType<typeof useFitting>
