import { Button, NumberInput, Tooltip } from '@mantine/core'
import type { TabNote } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { ExpressionMenu } from './ExpressionMenu.tsx'
import {
  eraseEdits,
  LEFT_FINGERS,
  leftEdits,
  PICKS,
  rightEdits,
  SOUND_KEYS,
  soundEdits,
  soundKind,
  SOUNDS,
  soundsSo,
  STROKES,
} from './noteEdits.ts'
import type { NoteWriting } from './targets.ts'
import css from './NoteTools.module.css'

interface Props extends NoteWriting {
  readonly notes: readonly TabNote[]
  readonly strings: number
  /** True for one note of the melody, which can be tied and parted in three. */
  readonly melody: boolean
}

/** What can be done to the note under the cursor, or to all that are chosen. */
export function NoteTools({ notes, strings, melody, onTargets, onRestring, onMelody }: Props) {
  const { t } = useTranslation()
  const all = (so: (n: TabNote) => boolean) => notes.every(so)
  return (
    <>
      {SOUNDS.map((s) => (
        <Tooltip key={s} label={`${t(`write.sounds.${s}`)} (${SOUND_KEYS[s]})`}>
          <Button
            size="compact-xs"
            h={24}
            variant={all((n) => soundsSo(n, s)) ? 'filled' : 'default'}
            aria-pressed={all((n) => soundsSo(n, s))}
            onClick={() => void onTargets(soundKind(s), (those) => soundEdits(those, s))}
          >
            {t(`write.sounds.${s}`)}
          </Button>
        </Tooltip>
      ))}
      <ExpressionMenu notes={notes} onTargets={onTargets} />
      <span className={css['write-part']}>{t('write.finger')}</span>
      {LEFT_FINGERS.map((f) => (
        <Button
          key={f}
          size="compact-xs"
          h={24}
          variant={all((n) => n.left === f) ? 'filled' : 'default'}
          aria-label={f === 'T' ? t('write.thumbOver') : t('write.leftFinger', { finger: f })}
          aria-pressed={all((n) => n.left === f)}
          onClick={() => void onTargets('left', leftEdits(f))}
        >
          {f}
        </Button>
      ))}
      {notes.some((n) => n.attack === 'bottle' || n.place.offsetCents) ? (
        <NumberInput
          size="xs"
          w={92}
          aria-label={t('write.cents')}
          suffix={t('write.centsUnit')}
          min={-50}
          max={50}
          value={notes[0]!.place.offsetCents ?? 0}
          onChange={(cents) =>
            typeof cents === 'number' &&
            void onTargets('offset', (those) => those.map((n) => ({ do: 'offset', note: n.id, cents })))
          }
        />
      ) : null}
      <span className={css['write-part']}>{t('write.pick')}</span>
      {[...PICKS, ...STROKES].map((s) => (
        <Button
          key={s}
          size="compact-xs"
          h={24}
          variant={all((n) => n.right === s) ? 'filled' : 'default'}
          aria-label={t(`write.picks.${s}`)}
          aria-pressed={all((n) => n.right === s)}
          onClick={() => void onTargets('right', rightEdits(s))}
        >
          {s === 'down' ? '⊓' : s === 'up' ? '∨' : s}
        </Button>
      ))}
      <span className={css['write-part']}>{t('write.string')}</span>
      {([-1, 1] as const).map((by) => (
        <Button
          key={by}
          size="compact-xs"
          h={24}
          variant="default"
          disabled={!all((n) => n.place.string + by >= 1 && n.place.string + by <= strings)}
          aria-label={t(by < 0 ? 'write.higherString' : 'write.lowerString')}
          onClick={() => onRestring(by)}
        >
          {by < 0 ? '↑' : '↓'}
        </Button>
      ))}
      {melody ? (
        <>
          <Button size="compact-xs" h={24} variant="default" onClick={() => onMelody('tie')}>
            {t('write.tie')}
          </Button>
          <Button size="compact-xs" h={24} variant="default" onClick={() => onMelody('triplet')}>
            {t('write.triplet')}
          </Button>
        </>
      ) : notes.every((n) => n.role !== 'melody') ? (
        <Button
          size="compact-xs"
          h={24}
          variant="default"
          onClick={() => void onTargets('hold', (those) => those.map((n) => ({ do: 'hold', note: n.id })))}
        >
          {t('write.overBar')}
        </Button>
      ) : null}
      <Button
        size="compact-xs"
        h={24}
        variant="default"
        color="red"
        onClick={() => void onTargets('erase', eraseEdits)}
      >
        {t('write.erase')}
      </Button>
    </>
  )
}
