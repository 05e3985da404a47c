import {
  closestCorners,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { ActionIcon, Button, Checkbox, Menu, NumberInput, Textarea } from '@mantine/core'
import { IconGripVertical, IconPlus, IconTrash } from '@tabler/icons-react'
import { BLOCK_KINDS, LONGEST_NOTES, type Block } from '@velvet-porch/core/output/handout'
import { useTranslation } from 'react-i18next'
import css from './BlockList.module.css'
import { holds } from '../../ui/holds.ts'

interface Props {
  readonly blocks: readonly Block[]
  readonly measures: number
  readonly numbers: readonly number[]
  readonly onChange: (blocks: readonly Block[]) => void
}

/** The blocks in their order: dragged by the handle, or moved by keys (space, arrows, space). */
export function BlockList({ blocks, measures, numbers, onChange }: Props) {
  const { t } = useTranslation()
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const moved = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const at = (id: unknown) => blocks.findIndex((b) => b.id === id)
    onChange(arrayMove([...blocks], at(active.id), at(over.id)))
  }
  const add = (kind: Block['kind']) => onChange([...blocks, { id: freeId(blocks, kind), kind }])
  return (
    <section aria-label={t('handout.blocks')}>
      <h2>{t('handout.blocks')}</h2>
      <DndContext sensors={sensors} collisionDetection={closestCorners} onDragEnd={moved}>
        <SortableContext items={blocks.map((b) => b.id)} strategy={verticalListSortingStrategy}>
          <ol className={css['handout-blocks']}>
            {blocks.map((block) => (
              <BlockRow
                key={block.id}
                block={block}
                measures={measures}
                numbers={numbers}
                onChange={(next) => onChange(blocks.map((b) => (b === block ? next : b)))}
                onRemove={() => onChange(blocks.filter((b) => b !== block))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Menu>
        <Menu.Target>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPlus size={15} />}
            {...holds(BLOCK_KINDS.map((kind) => t(`handout.kinds.${kind}`)))}
          >
            {t('handout.add')}
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {BLOCK_KINDS.map((kind) => (
            <Menu.Item key={kind} onClick={() => add(kind)}>
              {t(`handout.kinds.${kind}`)}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    </section>
  )
}

function freeId(blocks: readonly Block[], kind: string): string {
  let id = kind
  for (let i = 2; blocks.some((b) => b.id === id); i++) id = `${kind}.${i}`
  return id
}

function BlockRow({
  block,
  measures,
  numbers,
  onChange,
  onRemove,
}: {
  block: Block
  measures: number
  numbers: readonly number[]
  onChange: (block: Block) => void
  onRemove: () => void
}) {
  const { t } = useTranslation()
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: block.id,
  })
  const name = t(`handout.kinds.${block.kind}`)
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={isDragging ? 'dragging' : ''}
      data-block={block.id}
    >
      <ActionIcon
        variant="subtle"
        color="gray"
        size="md"
        {...attributes}
        {...listeners}
        aria-label={t('handout.move', { block: name })}
      >
        <IconGripVertical size={16} />
      </ActionIcon>
      <span className={css['block-name']}>{name}</span>
      {block.kind === 'tab' || block.kind === 'steps' ? (
        <MeasureRange block={block} measures={measures} numbers={numbers} onChange={onChange} />
      ) : null}
      {block.kind === 'frames' ? (
        <Checkbox
          size="xs"
          label={t('handout.counts')}
          checked={block.counts ?? false}
          onChange={(e) => onChange({ ...block, counts: e.currentTarget.checked })}
        />
      ) : null}
      <ActionIcon
        variant="subtle"
        color="gray"
        size="md"
        onClick={onRemove}
        aria-label={t('handout.remove', { block: name })}
      >
        <IconTrash size={16} />
      </ActionIcon>
      {block.kind === 'notes' ? (
        <Textarea
          className={css['block-text']}
          aria-label={name}
          autosize
          minRows={2}
          maxLength={LONGEST_NOTES}
          value={block.text ?? ''}
          onChange={(e) => onChange({ ...block, text: e.currentTarget.value })}
        />
      ) : null}
    </li>
  )
}

/** From measure to measure, as they are numbered in print. */
function MeasureRange({
  block,
  measures,
  numbers,
  onChange,
}: {
  block: Block
  measures: number
  numbers: readonly number[]
  onChange: (block: Block) => void
}) {
  const { t } = useTranslation()
  const { from = 0, to = measures - 1 } = block
  const indexOf = (number: number, last: boolean) =>
    last
      ? numbers.findLastIndex((n) => n <= number)
      : Math.max(
          0,
          numbers.findIndex((n) => n >= number),
        )
  const set = (nextFrom: number, nextTo: number) => {
    const { from: _, to: __, ...plain } = block
    const whole = nextFrom <= 0 && nextTo >= measures - 1
    onChange(whole ? plain : { ...plain, from: Math.max(0, nextFrom), to: Math.max(nextFrom, nextTo) })
  }
  const first = numbers[0] ?? 1
  const last = numbers.at(-1) ?? 1
  return (
    <span className={css['block-range']}>
      <NumberInput
        size="xs"
        aria-label={t('handout.from')}
        min={first}
        max={last}
        value={numbers[from] ?? first}
        onChange={(v) => set(indexOf(Number(v), false), to)}
      />
      –
      <NumberInput
        size="xs"
        aria-label={t('handout.to')}
        min={first}
        max={last}
        value={numbers[Math.min(to, measures - 1)] ?? last}
        onChange={(v) => set(from, indexOf(Number(v), true))}
      />
    </span>
  )
}
