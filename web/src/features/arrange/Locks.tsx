import { knownIn, present } from '@velvet-porch/core/invariant'
import { groupBy } from 'es-toolkit'
import { ActionIcon, Button, CloseButton, Tooltip } from '@mantine/core'
import { IconLock, IconLockOpen } from '@tabler/icons-react'
import {
  isLockOf,
  lockOf,
  placeAndFinger,
  withId,
  type ArrangementDoc,
  type Grip,
  type Id,
  type Lock,
  type TabNote,
  regionAt,
} from '@velvet-porch/core/document'
import { measureLock } from '@velvet-porch/core/edit'
import { useTranslation } from 'react-i18next'
import { beatOf, type SheetModel, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import type { BenchArranger } from './useArranger.ts'
import { newId } from '../../newId.ts'
import { shownLocks } from './shownNotes.ts'
import css from './Locks.module.css'

interface Props {
  readonly model: SheetModel
  readonly doc: ArrangementDoc
  readonly arranger: BenchArranger
  readonly position: SheetPosition | undefined
  readonly grip: Grip | undefined
  /** Locks that were just found to contradict one another. */
  readonly blamed: readonly Id[]
  readonly onPosition: (position: SheetPosition) => void
}

/** Keeps notes, grips and measures as they are: the rest is arranged around them. */
export function Locks({ model, doc, arranger, position, grip, blamed, onPosition }: Props) {
  const { t } = useTranslation()
  const settings = arranger.settings
  if (!settings) return null
  const shown = shownLocks(model.tune, { ...doc, base: { ...doc.base, locks: settings.locks } })
  const kept = new Set(settings.locks.filter((l) => !shown.includes(l)).map((l) => l.id))
  const locks = shown
  const set = (label: string, change: (locks: readonly Lock[]) => readonly Lock[]) =>
    void arranger.choose(label, (now) => ({ locks: change(now.locks) }))
  const notes = position
    ? (model.notes.get(position.measure) ?? []).filter((n) => n.pos.tick === position.tick)
    : []
  const measure = position ? model.tune.measures[position.measure] : undefined
  const has = (target: Id, field?: string) =>
    locks.some((l) => l.target === target && (field === undefined || l.field === field))
  const without = (target: Id) => (now: readonly Lock[]) =>
    now.filter((l) => l.target !== target || kept.has(l.id))
  const lockNote = (n: TabNote): Lock[] => placeAndFinger(n).map((l) => withId(l, newId()))
  const lockMeasure = (index: number) => measureLock(model.tune, doc, model.tune.measures[index]!.id, newId())
  const number = position ? model.numbers[position.measure]! : 0
  const inSection = () => {
    const region = doc.regions[Math.max(0, regionAt(model.tune, doc.regions, present(measure).id))]!
    const from = knownIn(model.timeline.indexOf, region.from)
    const to = knownIn(model.timeline.indexOf, region.to)
    return Array.from({ length: to - from + 1 }, (_, i) => from + i)
  }
  const lockSection = () => {
    const all = inSection()
    const ids = new Set(all.map((i) => model.tune.measures[i]!.id))
    set(t('locks.command.section'), (now) => [
      ...now.filter((l) => !ids.has(l.target)),
      ...all.map(lockMeasure),
    ])
  }
  return (
    <details className="reasons" data-testid="locks" open={blamed.length > 0 || undefined}>
      <summary>
        {locks.length > 0 ? t('locks.titleCount', { count: groups(locks).length }) : t('locks.title')}
      </summary>
      {position && measure ? (
        <div className={css['lock-rows']}>
          {notes.map((n) => (
            <LockRow
              key={n.id}
              on={has(n.id)}
              label={t('locks.note', {
                role: t(`locks.role.${n.role}`),
                string: n.place.string,
                fret: n.place.fret,
                finger: n.left,
              })}
              onToggle={() =>
                has(n.id)
                  ? set(t('locks.command.freeNote'), without(n.id))
                  : set(t('locks.command.note', { string: n.place.string, fret: n.place.fret }), (now) => [
                      ...without(n.id)(now),
                      ...lockNote(n),
                    ])
              }
            />
          ))}
          {grip && grip.pos.measure === measure.id && grip.pos.tick === position.tick ? (
            <LockRow
              on={has(grip.id)}
              label={t('locks.grip')}
              onToggle={() =>
                has(grip.id)
                  ? set(t('locks.command.freeGrip'), without(grip.id))
                  : set(t('locks.command.grip'), (now) => [
                      ...now,
                      lockOf('grip', newId(), grip.id, grip.pressed),
                    ])
              }
            />
          ) : null}
          <LockRow
            on={has(measure.id, 'measure')}
            label={t('locks.measure', { number })}
            onToggle={() =>
              has(measure.id, 'measure')
                ? set(t('locks.command.freeMeasure', { number }), without(measure.id))
                : set(t('locks.command.measure', { number }), (now) => [
                    ...without(measure.id)(now),
                    lockMeasure(position.measure),
                  ])
            }
          />
          <Button size="compact-xs" variant="default" mt={4} onClick={lockSection}>
            {t('locks.section')}
          </Button>
        </div>
      ) : (
        <p>{t('locks.none')}</p>
      )}
      <LockList
        model={model}
        locks={locks}
        blamed={blamed}
        onPosition={onPosition}
        set={set}
        without={without}
      />
    </details>
  )
}

type Change = (locks: readonly Lock[]) => readonly Lock[]

/** All locks of the arrangement, each with the way to its place and off it. */
function LockList({
  model,
  locks,
  blamed,
  onPosition,
  set,
  without,
}: Pick<Props, 'model' | 'blamed' | 'onPosition'> & {
  locks: readonly Lock[]
  set: (label: string, change: Change) => void
  without: (target: Id) => Change
}) {
  const { t } = useTranslation()
  if (locks.length === 0) return null
  return (
    <>
      <ul className={css['lock-list']} aria-label={t('locks.list')}>
        {groups(locks).map((g) => {
          const at = positionOf(model, g.target, g.locks)
          const where = at
            ? t('locks.where', { number: model.numbers[at.measure]!, beat: beatOf(model, at) })
            : t('locks.gone')
          return (
            <li key={g.target} className={g.locks.some((l) => blamed.includes(l.id)) ? 'blamed' : undefined}>
              <button type="button" onClick={() => at && onPosition(at)}>
                {where} {t(`locks.kind.${g.kind}`)}
              </button>
              <CloseButton
                size="xs"
                aria-label={t('locks.free', { where })}
                onClick={() => set(t('locks.command.free'), without(g.target))}
              />
            </li>
          )
        })}
      </ul>
      <Button size="compact-xs" variant="subtle" onClick={() => set(t('locks.command.freeAll'), () => [])}>
        {t('locks.freeAll')}
      </Button>
    </>
  )
}

function LockRow({ on, label, onToggle }: { on: boolean; label: string; onToggle: () => void }) {
  const { t } = useTranslation()
  const what = on ? t('locks.unlock', { what: label }) : t('locks.lock', { what: label })
  return (
    <div className={css['lock-row']}>
      <span>{label}</span>
      <Tooltip label={what}>
        <ActionIcon
          size="sm"
          variant={on ? 'filled' : 'subtle'}
          color="plum"
          aria-label={what}
          aria-pressed={on}
          onClick={onToggle}
        >
          {on ? <IconLock size={15} /> : <IconLockOpen size={15} />}
        </ActionIcon>
      </Tooltip>
    </div>
  )
}

interface LockGroup {
  readonly target: Id
  readonly kind: 'note' | 'grip' | 'measure' | 'typed' | 'erased'
  readonly locks: readonly Lock[]
}

const KINDS = ['measure', 'grip', 'typed', 'erased'] as const

/** Place and finger of one note are one lock to the eye. */
function groups(locks: readonly Lock[]): LockGroup[] {
  return Object.entries(groupBy(locks, (lock) => lock.target)).map(([target, own]) => ({
    target,
    kind: KINDS.find((k) => own.some((l) => l.field === k)) ?? 'note',
    locks: own,
  }))
}

/** Where a lock's note, grip or measure stands. */
function positionOf(model: SheetModel, target: Id, locks: readonly Lock[]): SheetPosition | undefined {
  const erased = locks.find(isLockOf('erased'))?.value
  const pos =
    erased ??
    model.layer?.notes.find((n) => n.id === target)?.pos ??
    model.layer?.grips.find((g) => g.id === target)?.pos
  const measure = model.timeline.indexOf.get(pos?.measure ?? target)
  return measure === undefined ? undefined : { measure, tick: pos?.tick ?? 0 }
}
