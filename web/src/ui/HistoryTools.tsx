import { ActionIcon, Popover, ScrollArea, Tooltip, UnstyledButton } from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp, IconHistory } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { goTo, historyOf, step } from '../state/documents.ts'
import { useHistory } from '../state/useTune.ts'
import { useStored } from '../state/useStored.ts'
import { holds } from './holds.ts'

/** Undo, redo, and every step of a tune and its arrangement by name, with what else there is to go back to. */
export function HistoryTools({
  tuneId,
  held = [],
  children,
}: {
  tuneId: string
  /** Names of the further controls. */
  held?: readonly string[]
  children?: React.ReactNode
}) {
  const { t } = useTranslation()
  const { undo, redo } = useHistory(tuneId)
  const [open, setOpen] = useState(false)
  return (
    <>
      <Tool
        label={undo ? t('arrange.undo', { label: undo }) : t('arrange.nothingToUndo')}
        disabled={!undo}
        onClick={() => void step(tuneId, 'undo')}
      >
        <IconArrowBackUp size={18} />
      </Tool>
      <Tool
        label={redo ? t('arrange.redo', { label: redo }) : t('arrange.nothingToRedo')}
        disabled={!redo}
        onClick={() => void step(tuneId, 'redo')}
      >
        <IconArrowForwardUp size={18} />
      </Tool>
      <Popover
        opened={open}
        onChange={setOpen}
        position="bottom-end"
        withinPortal
        trapFocus
        returnFocus
        shadow="md"
      >
        <Popover.Target>
          <ActionIcon
            variant="subtle"
            color="plum"
            aria-label={t('write.history.title')}
            title={t('write.history.title')}
            disabled={!undo && !redo && !children}
            {...holds(held)}
            onClick={() => setOpen(!open)}
          >
            <IconHistory size={18} />
          </ActionIcon>
        </Popover.Target>
        <Popover.Dropdown>
          {open ? (
            <>
              <Steps tuneId={tuneId} />
              {children}
            </>
          ) : null}
        </Popover.Dropdown>
      </Popover>
    </>
  )
}

function Steps({ tuneId }: { tuneId: string }) {
  const { t } = useTranslation()
  const steps = useStored(() => historyOf(tuneId), [tuneId])
  if (!steps) return null
  const reached = steps.filter((s) => !s.undone).length
  const rows = [
    { label: t('write.history.opening'), reached: 0 },
    ...steps.map((s, i) => ({ label: s.label, reached: i + 1 })),
  ]
  return (
    <ScrollArea.Autosize mah={360} w={270}>
      <ol className="history" aria-label={t('write.history.title')}>
        {rows.reverse().map((r) => (
          <li key={r.reached}>
            <UnstyledButton
              className={r.reached > reached ? 'undone' : undefined}
              aria-current={r.reached === reached ? 'step' : undefined}
              onClick={() => void goTo(tuneId, r.reached)}
            >
              <span>{r.label}</span>
              {r.reached === reached ? <em>{t('write.history.now')}</em> : null}
              {r.reached > reached ? <em>{t('write.history.undone')}</em> : null}
            </UnstyledButton>
          </li>
        ))}
      </ol>
    </ScrollArea.Autosize>
  )
}

function Tool({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string
  disabled: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <Tooltip label={label}>
      <ActionIcon variant="subtle" color="plum" aria-label={label} disabled={disabled} onClick={onClick}>
        {children}
      </ActionIcon>
    </Tooltip>
  )
}
