import { useElementSize } from '@mantine/hooks'
import { plainName } from '@velvet-porch/core/music'
import { openPitch, type Setup } from '@velvet-porch/core/instrument'
import type { TabNote } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { HandMoment } from './handMove.ts'
import { NeckBoard } from './NeckBoard.tsx'
import { NeckFingers } from './NeckFingers.tsx'
import { NeckPlaces } from './NeckPlaces.tsx'
import { NeckStrip } from './NeckStrip.tsx'
import { neckView } from './neckView.ts'
import css from './Neck.module.css'

interface Props {
  readonly setup: Setup
  readonly hand: HandMoment | undefined
  /** Notes plucked at this moment. */
  readonly plucked: readonly TabNote[]
  readonly onHear: (string: number, fret: number) => void
}

/** The standing neck: true to scale in mm, nut (or capo) at the top, this hand and the next. */
export function Neck({ setup, hand, plucked, onHear }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const { ref, height, width } = useElementSize<HTMLDivElement>()
  const view = neckView(setup, hand?.now.position ?? 1, { width, height })
  return (
    <div className={css['neck-wrap']}>
      <div ref={ref} style={{ minHeight: 0, overflow: 'hidden' }}>
        <svg width={width} height={height} role="group" aria-label={t('neck.label')} data-testid="neck">
          <NeckBoard view={view} />
          <NeckPlaces setup={setup} view={view} onHear={onHear} />
          {hand ? (
            <NeckFingers view={view} hand={hand} plucked={plucked} />
          ) : (
            view.strings.map((s) => (
              <text
                key={s}
                x={view.place(s, 0).cx}
                y={18}
                textAnchor="middle"
                fontSize={12}
                fill="var(--ink-soft)"
                pointerEvents="none"
              >
                {names.note(plainName(openPitch(setup, s), false))}
              </text>
            ))
          )}
        </svg>
      </div>
      <NeckStrip
        setup={setup}
        from={view.top}
        to={view.frets.at(-1) ?? view.top}
        pressed={hand?.now.pressed ?? []}
      />
    </div>
  )
}
