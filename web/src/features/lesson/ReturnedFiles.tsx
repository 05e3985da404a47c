import { Alert, Button, FileButton, Group, Select, Stack, Table, Text } from '@mantine/core'
import { IconFileUpload } from '@tabler/icons-react'
import type { LogEntry } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import { usePlayers } from '../../state/players.ts'
import type { ReturnedLog } from '../../state/logs.ts'
import type { ReturnedFile, ReturnedLogs } from './useReturnedLogs.ts'

/** The button that reads practice files, several at once. */
export function ReadLogsButton({ logs }: { logs: ReturnedLogs }) {
  const { t } = useTranslation()
  return (
    <FileButton
      multiple
      onChange={(files) => {
        if (files.length > 0) void logs.read(files)
      }}
      accept="application/json,.json"
      inputProps={{ 'aria-label': t('teach.readLog') }}
    >
      {(props) => (
        <Button {...props} size="compact-sm" variant="default" leftSection={<IconFileUpload size={15} />}>
          {t('teach.readLog')}
        </Button>
      )}
    </FileButton>
  )
}

/** What became of the files that came back, and what is asked about them. */
export function ReturnedFiles({ logs }: { logs: ReturnedLogs }) {
  return logs.files.length === 0 ? null : (
    <Stack gap="xs" mt="sm" data-testid="returned" role="status">
      {logs.files.map((file, i) => (
        <Returned key={i} file={file} index={i} logs={logs} />
      ))}
    </Stack>
  )
}

function Returned({ file, index, logs }: { file: ReturnedFile; index: number; logs: ReturnedLogs }) {
  const { t } = useTranslation()
  const players = usePlayers()
  const nameOf = (id: string | undefined) => players.find((p) => p.id === id)?.name ?? t('teach.anybodyLog')
  if (file.state === 'refused')
    return (
      <Alert color="red" title={`${t('teach.logWrong')}: ${file.file}`}>
        {file.reason} {t('teach.logWayOut')}
      </Alert>
    )
  const { returned } = file
  const { merged, student, title } = returned
  const conflicts = merged?.conflicts ?? []
  if (file.state === 'kept')
    return (
      <Alert color="plum" role="note">
        {t('teach.logKept', { name: nameOf(student), title, count: merged?.added.length ?? 0 })}
        {merged && merged.known > 0 ? ` ${t('teach.logKnown', { count: merged.known })}` : ''}
      </Alert>
    )
  if (student === undefined)
    return (
      <Alert color="lamp" title={t('teach.logWhose', { title, file: returned.file })}>
        <Select
          maw={280}
          aria-label={t('teach.logWhose', { title, file: returned.file })}
          placeholder={t('teach.logChoose')}
          data={[
            ...players.map((p) => ({ value: p.id, label: p.name })),
            { value: '', label: t('teach.anybodyLog') },
          ]}
          onChange={(id) => {
            if (id !== null) void logs.give(index, returned, id)
          }}
        />
      </Alert>
    )
  return (
    <Alert
      color="lamp"
      title={
        returned.otherPieces
          ? t('teach.logOtherPieces', { name: nameOf(student), title })
          : t('teach.logDiffers', { name: nameOf(student), title, count: conflicts.length })
      }
    >
      {conflicts.length > 0 ? <Conflicts returned={returned} /> : null}
      <Group gap="xs" mt="xs">
        {(returned.otherPieces ? (['there'] as const) : (['here', 'there', 'both'] as const)).map(
          (keeping) => (
            <Button
              key={keeping}
              size="compact-sm"
              variant="default"
              onClick={() => void logs.keep(index, returned, keeping)}
            >
              {t(returned.otherPieces ? 'teach.logAside' : `teach.logKeep.${keeping}`)}
            </Button>
          ),
        )}
      </Group>
    </Alert>
  )
}

function Conflicts({ returned }: { returned: ReturnedLog }) {
  const { t } = useTranslation()
  const told = (entries: readonly LogEntry[]) =>
    entries
      .flatMap((e) => [
        t('teach.logEntry', { bpm: e.bpm, clean: e.clean, minutes: e.minutes }) as string,
        ...(e.note ? [`“${e.note}”`] : []),
      ])
      .join('; ')
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th>{t('teach.logDay')}</Table.Th>
          <Table.Th>{t('teach.logHere')}</Table.Th>
          <Table.Th>{t('teach.logThere')}</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {returned.merged?.conflicts.map((c) => (
          <Table.Tr key={`${c.day} ${c.piece}`}>
            <Table.Td>
              <Text size="sm">
                {c.day} · {t('teach.pieceNo', { number: c.piece })}
              </Text>
            </Table.Td>
            <Table.Td>{told(c.here)}</Table.Td>
            <Table.Td>{told(c.there)}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}
