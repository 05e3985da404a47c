import { NumberInput } from '@mantine/core'
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core'
import type { ChordMark, LineBars, PlacedChange } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { TapChanges } from './TapChanges.tsx'
import css from './SongBars.module.css'

interface Props {
  readonly line: LineBars
  readonly name: (chord: ChordMark) => string
  readonly tempo: number
  readonly run: Writing['run']
}

/** Beats of a line from its beginning. */
const beatOf = ({ bar, share }: PlacedChange, beats: number) => bar * beats + Math.round(share * beats)

/** One line of a song: its words, how many bars it takes, and its chords on the beats, to be dragged or moved by key. */
export function LineRow({ line: { line, bars, beats, guessed, changes }, name, tempo, run }: Props) {
  const { t } = useTranslation()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }))
  const move = (chord: string, beat: number) =>
    void run({
      do: 'moveChange',
      line: line.id,
      chord,
      bar: Math.floor(beat / beats),
      share: (beat % beats) / beats,
    })
  const label = line.text || t('song.played')
  return (
    <li className={guessed ? `${css.line} guessed` : css.line}>
      <div className={css.head}>
        <span className={css.text} title={label}>
          {label}
        </span>
        <TapChanges line={{ line, bars, beats, guessed, changes }} name={name} tempo={tempo} run={run} />
        <NumberInput
          size="xs"
          w={62}
          aria-label={t('song.barsOf', { line: label })}
          min={1}
          max={16}
          value={bars}
          onChange={(v) => Number(v) > 0 && void run({ do: 'lineBars', line: line.id, bars: Number(v) })}
        />
      </div>
      <DndContext
        sensors={sensors}
        onDragEnd={({ active, over }) => over && move(String(active.id), Number(over.id))}
      >
        <div className={css.beats} style={{ gridTemplateColumns: `repeat(${bars * beats}, minmax(0, 1fr))` }}>
          {Array.from({ length: bars * beats }, (_, beat) => (
            <Beat key={beat} beat={beat} first={beat % beats === 0} />
          ))}
          {changes.map((c) => {
            const at = beatOf(c, beats)
            return (
              <Change
                key={c.chord.id}
                id={c.chord.id}
                beat={at}
                name={name(c.chord)}
                says={t('song.change', {
                  chord: name(c.chord),
                  bar: c.bar + 1,
                  beat: (at % beats) + 1,
                })}
                onMove={(by) => at + by >= 0 && at + by < bars * beats && move(c.chord.id, at + by)}
              />
            )
          })}
        </div>
      </DndContext>
    </li>
  )
}

/** A beat on which a chord can be let go. */
function Beat({ beat, first }: { beat: number; first: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id: String(beat) })
  return (
    <span
      ref={setNodeRef}
      className={css.beat}
      data-first={first || undefined}
      data-over={isOver || undefined}
      style={{ gridColumn: beat + 1 }}
    />
  )
}

/** A chord on its beat. */
function Change({
  id,
  beat,
  name,
  says,
  onMove,
}: {
  id: string
  beat: number
  name: string
  says: string
  onMove: (by: number) => void
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id })
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={css.change}
      style={{
        gridColumn: beat + 1,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      aria-label={says}
      {...listeners}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return
        e.preventDefault()
        onMove(e.key === 'ArrowLeft' ? -1 : 1)
      }}
    >
      {name}
    </button>
  )
}
