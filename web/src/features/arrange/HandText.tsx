import { type PlacedFinger, placedFingers } from '@velvet-porch/core/hand'
import { midiOf } from '@velvet-porch/core/music'
import { spanOf, type Setup } from '@velvet-porch/core/instrument'
import { widestReach, type Pressed } from '@velvet-porch/core/hand'
import { handMove, type HandMove } from '@velvet-porch/core/lesson'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { HandMoment } from '../../score/neck/handMove.ts'
import { printed } from '../../ui/chordBox/degreeLabel.ts'
import { beatOf, inFlats, type SheetModel, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import css from './HandText.module.css'

/** Where we are and what the fingers do next, in words. */
export function HandText({
  model,
  position,
  hand,
  children,
}: {
  model: SheetModel
  position: SheetPosition | undefined
  hand: HandMoment | undefined
  /** What stands beside the title. */
  children?: ReactNode
}) {
  const { t } = useTranslation()
  const names = useNames()
  if (!position || !hand) return <div className={css['neck-head']}>{t('neck.none')}</div>
  const number = model.numbers[position.measure]!
  const beat = beatOf(model, position)
  const shape = hand.now.shape
    ? t('neck.shape', { shape: names.shape(hand.now.shape) })
    : hand.now.pressed.length === 0
      ? t('neck.open')
      : t('neck.position', { fret: hand.now.position })
  return (
    <div>
      <div className={css['neck-title']}>
        <div className={css['neck-head']} data-testid="neck-head">
          {number === 0 ? t('neck.pickupTitle', { beat }) : t('neck.title', { measure: number, beat })}
        </div>
        {children}
      </div>
      <div className={css['neck-move']}>
        {shape}
        <MelodyReading model={model} position={position} />
        {hand.next ? (
          <div style={{ color: 'var(--ink-soft)' }}>
            {t('neck.next')}:{' '}
            {hand.next.shape && hand.next.shape !== hand.now.shape
              ? `${names.shape(hand.next.shape)} — `
              : ''}
            <MoveText move={handMove(placedFingers(hand.now), placedFingers(hand.next))} />
          </div>
        ) : null}
      </div>
    </div>
  )
}

/** What the melody note is in its chord and key. */
function MelodyReading({ model, position }: { model: SheetModel; position: SheetPosition }) {
  const { t } = useTranslation()
  const names = useNames()
  const at = model.timeline.starts[position.measure]! + position.tick
  const reading = model.readings.get(position.measure)?.find((r) => r.start === at)
  const chord = model.harmony.find((h) => h.start <= at && h.end > at)
  const event = model.tune.events.find((e) => e.id === reading?.sourceId)
  if (!reading || !chord?.sounding || !event?.pitch) return null
  const degree = printed(reading.degree) + (reading.leadsTo ? `→${printed(reading.leadsTo)}` : '')
  const text = t('sheet.reading', {
    name: names.pitch(midiOf(event.pitch) + model.transposed, inFlats(model)),
    degree,
    chord: names.chord(chord.sounding),
    function: t(`sheet.function.${reading.function}`),
  })
  return (
    <div className="soft" data-testid="reading">
      {text}
      {reading.outside ? `, ${t('sheet.outside')}` : ''}
    </div>
  )
}

const fingerName = (f: PlacedFinger | PlacedFinger['finger']) => (typeof f === 'object' ? f.finger : f)

function MoveText({ move }: { move: HandMove }) {
  const { t } = useTranslation()
  const some = (
    fingers: readonly (PlacedFinger | PlacedFinger['finger'])[],
    one: 'stays' | 'slides' | 'lands' | 'lifts',
    many: 'stay' | 'slide' | 'land' | 'lift',
  ) =>
    fingers.length === 0
      ? []
      : [t(`neck.${fingers.length === 1 ? one : many}`, { fingers: fingers.map(fingerName).join(', ') })]
  const words = [
    ...some(move.stays, 'stays', 'stay'),
    ...some(move.slides, 'slides', 'slide'),
    ...some(move.lands, 'lands', 'land'),
    ...some(move.lifts, 'lifts', 'lift'),
  ]
  return (
    <>
      {move.slides.length + move.lands.length + move.lifts.length === 0
        ? t('neck.nextSame')
        : words.join(', ')}
    </>
  )
}

/** This grip's stretch in mm against this hand. */
export function StretchText({ setup, hand }: { setup: Setup; hand: HandMoment | undefined }) {
  const { t } = useTranslation()
  const pressed: Pressed[] = (hand?.now.pressed ?? []).flatMap((p) =>
    p.finger === 'T' ? [] : [{ string: p.string, fret: p.fret, finger: p.finger }],
  )
  const fingers = [...new Set(pressed.map((p) => p.finger))].sort()
  if (fingers.length < 2) return <div className={css['neck-foot']}>{hand ? t('neck.noStretch') : ''}</div>
  const mm = Math.round(widestReach(setup, pressed))
  const hold = spanOf(setup.player.spans, fingers[0]!, fingers.at(-1)!)
  return (
    <div className={css['neck-foot']}>
      <b>{t('neck.stretch', { mm })}</b> {t('neck.ofHand', { mm: hold })}
    </div>
  )
}

/** What the three kinds of finger on the neck mean. */
export function NeckLegend() {
  const { t } = useTranslation()
  return (
    <div className={css['neck-legend']} aria-hidden>
      <span className={`${css['finger-mark']} kept`} /> {t('neck.legend.kept')}
      <span className={`${css['finger-mark']} landing`} /> {t('neck.legend.landing')}
      <span className={`${css['finger-mark']} next`} /> {t('neck.legend.next')}
    </div>
  )
}
