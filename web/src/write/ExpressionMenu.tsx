import { SegmentedControl, Stack, Text } from '@mantine/core'
import {
  EXPRESSION_PARTS,
  EXPRESSIONS,
  type EditCommand,
  type ExpressionEdit,
  type ExpressionPart,
  type TabNote,
} from '@velvet-porch/core'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { BarPopover } from './BarPopover.tsx'

/** States at a note how it and what follows is played: loudness, touch, place, pace. */
export function ExpressionMenu({
  note,
  run,
}: {
  note: TabNote
  run: (edit: EditCommand) => Promise<boolean>
}) {
  const { t } = useTranslation()
  return (
    <BarPopover label={t('write.express.button')} size="compact-xs">
      {() => (
        <Stack gap={6} data-testid="expression">
          <Text size="xs" c="dimmed">
            {t('write.express.hint')}
          </Text>
          {EXPRESSION_PARTS.map((part) => (
            <Part key={part} part={part} note={note} run={run} />
          ))}
        </Stack>
      )}
    </BarPopover>
  )
}

const NOTHING = 'nothing'

function Part({
  part,
  note,
  run,
}: {
  part: ExpressionPart
  note: TabNote
  run: (edit: EditCommand) => Promise<boolean>
}) {
  const { t } = useTranslation()
  const id = useId()
  return (
    <div>
      <Text size="sm" id={id}>
        {t(`write.express.part.${part}`)}
      </Text>
      <SegmentedControl
        size="xs"
        aria-labelledby={id}
        value={note[part] ?? NOTHING}
        onChange={(chosen) =>
          void run({
            do: 'express',
            note: note.id,
            part,
            value: chosen === NOTHING ? undefined : chosen,
          } as ExpressionEdit)
        }
        data={[NOTHING, ...EXPRESSIONS[part]].map((value) => ({
          value,
          label: value === NOTHING ? t('write.express.none') : t(`sheet.said.${value}`),
        }))}
      />
    </div>
  )
}
