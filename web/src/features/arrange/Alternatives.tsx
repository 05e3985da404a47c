import { Button, Group, SegmentedControl } from '@mantine/core'
import { hertz, type Ticks } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import { type ArrangementDoc, type TuneDoc, withId } from '@velvet-porch/core/document'
import type { Alternative, TermChange } from '@velvet-porch/core/arrange'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { player } from '../../score/playback/player.ts'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { alternativesInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'
import { noteWay } from './taste/noteTaken.ts'
import { useTermWords } from './useTermWords.ts'
import type { BenchArranger } from './useArranger.ts'
import { newId } from '../../newId.ts'
import css from './Alternatives.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly model: SheetModel
  readonly arranger: BenchArranger
  readonly position: SheetPosition
  readonly tried: Alternative | undefined
  readonly onTry: (way: Alternative | undefined) => void
}

/** Ways that are shown before more are asked for. */
const FIRST_SHOWN = 4

/** Other ways to play a moment of a measure, or all of the measure. */
const waysOf = (tune: TuneDoc, doc: ArrangementDoc, measure: number, tick: Ticks | undefined) =>
  alternativesInWorker(
    { tune, setup: doc.setup, regions: doc.regions, locks: doc.base.locks },
    { measure, ...(tick === undefined ? {} : { tick }) },
  )

/** The next-best ways to play the selected onset or its measure, each with what it changes: heard, tried, kept. */
export function Alternatives({ tune, doc, model, arranger, position, tried, onTry }: Props) {
  const { t } = useTranslation()
  const [scope, setScope] = useState<'onset' | 'measure'>('onset')
  const [all, setAll] = useState(false)
  const { measure, tick } = position
  const { answer, asking } = useAnswer('alternatives', waysOf, [
    tune,
    doc,
    measure,
    scope === 'onset' ? tick : undefined,
  ] as const)
  // What was not shown was not passed over.
  const ways = all ? answer : answer?.slice(0, FIRST_SHOWN)
  useEffect(() => onTry(undefined), [tune, doc, measure, tick, scope, onTry])
  const number = model.numbers[measure]!
  const keep = (way: Alternative) => {
    const targets = new Set(way.locks.map((l) => l.target))
    const own = way.locks.map((l) => withId(l, newId()))
    onTry(undefined)
    void noteWay(tune, doc, measure, ways ?? [], way, t('taste.firstName'))
    void arranger.choose(t('ways.command', { number }), (now) => ({
      locks: [...now.locks.filter((l) => !targets.has(l.target)), ...own],
    }))
  }
  const hear = (way: Alternative) => {
    const start = Math.min(...way.moved.map((n) => n.pos.tick))
    for (const n of way.notes)
      setTimeout(
        () => void player.pluck(n.place.string, hertz(pitchAt(doc.setup, n.place))),
        ((n.pos.tick - start) / 10_080) * 500,
      )
  }
  return (
    <div data-testid="ways">
      <SegmentedControl
        size="xs"
        fullWidth
        mt={6}
        aria-label={t('ways.scope')}
        value={scope}
        onChange={(v) => setScope(v)}
        data={[
          { value: 'onset', label: t('ways.onset') },
          { value: 'measure', label: t('ways.measure', { number }) },
        ]}
      />
      {asking ? (
        <p role="status">{t('ways.looking')}</p>
      ) : !ways || ways.length === 0 ? (
        <p>{t('ways.none')}</p>
      ) : (
        <ol className={css.ways}>
          {ways.map((way, i) => (
            <li key={i} className={tried === way ? 'tried' : undefined}>
              <WayText way={way} model={model} />
              <Group gap={4} mt={2}>
                <Button size="compact-xs" variant="default" onClick={() => hear(way)}>
                  {t('ways.hear')}
                </Button>
                <Button
                  size="compact-xs"
                  variant={tried === way ? 'filled' : 'default'}
                  aria-pressed={tried === way}
                  onClick={() => onTry(tried === way ? undefined : way)}
                >
                  {t('ways.try')}
                </Button>
                <Button size="compact-xs" variant="default" onClick={() => keep(way)}>
                  {t('ways.keep')}
                </Button>
              </Group>
            </li>
          ))}
        </ol>
      )}
      {answer && ways && answer.length > ways.length ? (
        <Button size="compact-xs" variant="subtle" onClick={() => setAll(true)}>
          {t('ways.moreWays', { count: answer.length - ways.length })}
        </Button>
      ) : null}
    </div>
  )
}

/** What is played otherwise, why it came second, what it does to the effort, what else moves. */
function WayText({ way, model }: { way: Alternative; model: SheetModel }) {
  const { t } = useTranslation()
  const words = useTermWords()
  const places = way.notes.slice(0, 4).map((n) =>
    t(n.left === 0 ? 'ways.placeOpen' : 'ways.place', {
      string: n.place.string,
      fret: n.place.fret,
      finger: n.left,
    }),
  )
  const more = way.notes.length - places.length
  const signed = (x: number) => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)}`
  const effort = way.effort.after - way.effort.before
  const worse = way.changes.filter((c) => c.cost > 0.05).slice(0, 3)
  const better = way.changes.filter((c) => c.cost < -0.05).slice(-2)
  const term = (c: TermChange) => `${words(c)} (${signed(c.cost)})`
  return (
    <>
      <b>
        {places.join(', ')}
        {more > 0 ? ` ${t('ways.more', { count: more })}` : ''}
      </b>
      <div>
        {t('ways.extra', { extra: signed(way.extra), effort: signed(effort) })}
        {worse.length > 0 ? ` ${t('ways.worse', { list: worse.map(term).join('; ') })}` : ''}
        {better.length > 0 ? ` ${t('ways.better', { list: better.map(term).join('; ') })}` : ''}
      </div>
      {way.alsoMoves.length > 0 ? (
        <div className="soft">
          {t('ways.also', { list: way.alsoMoves.map((m) => model.numbers[m.measure]).join(', ') })}
        </div>
      ) : null}
    </>
  )
}
